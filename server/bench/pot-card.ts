import type { LotDetail } from '@vestigia/contract';
import type { PlannedStep } from '@vestigia/core';
import { takesPieces } from '@vestigia/core';
import type { PotCard } from '../devices/simulated-pot';
import type { Workbench } from '../devices/workbench';
import type { StudioRoom } from '../studio/room';

const SPARE_BURNER_W = 1200;
const NEUTRAL = 7;
type Room = Pick<StudioRoom, 'room' | 'vessels'>;

/**
 * The bath of a lot's step as the simulated pot has it: its first vessel, on that vessel's burner, with the lot's
 * water.
 */
export function potCardFor(lot: LotDetail, stepIndex: number, { room, vessels }: Room): PotCard {
  const step = lot.plan.steps[stepIndex];
  const bath = step?.baths[0];
  const batch = lot.plan.batches[0];
  const source = vessels.find((v) => v.id === (bath?.vesselId ?? batch?.vesselId))?.heatSource;
  return {
    liquorMl: bath?.liquor.value ?? batch?.liquor.value ?? 10_000,
    wofG: bath?.wof.value ?? batch?.wof.value ?? 0,
    usefulW: source ? (source.powerW * source.efficiencyPercent) / 100 : SPARE_BURNER_W,
    fromC: room.coldWaterC,
    roomC: room.roomC,
    ph: lot.water?.ph ?? NEUTRAL,
    liquorRatio: lot.plan.liquorRatio,
    undyed: lot.summary.undyed,
    // Where nobody knows yet what comes out, the simulated pot dyes a middling grey-brown.
    wanted: lot.summary.master ?? { ...lot.summary.undyed, L: lot.summary.undyed.L * 0.6 },
  };
}

/**
 * A step begins in its bath: the simulated pot is filled anew, unless the bath of the step before goes on in it;
 * fibre goes in where the step takes it; the probe hangs in it.
 */
export function beginBath(bench: Workbench, lot: LotDetail, step: PlannedStep, room: Room): void {
  if (!step.usesBath) return;
  const lotId = lot.summary.id;
  const goesOn = step.after
    .map((i) => lot.plan.steps[i])
    .some((s) => s?.usesBath && s.baths[0]?.vesselId === step.baths[0]?.vesselId && !takesPieces(s));
  const card = potCardFor(lot, step.index, room);
  if (!goesOn || !bench.pot(lotId)) bench.refill(lotId, card);
  bench.hang({ lotId, stepIndex: step.index }, card);
  if (takesPieces(step)) bench.pot(lotId)?.enterFibre();
}

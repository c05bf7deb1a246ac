import type { LotDetail } from '@vestigia/contract';
import type { PotCard } from '../devices/simulated-pot';
import type { StudioRoom } from '../studio/room';

const SPARE_BURNER_W = 1200;
const NEUTRAL = 7;

/** The bath of a lot's step as the simulated pot has it: its first vessel, on that vessel's burner, with the lot's water. */
export function potCardFor(lot: LotDetail, stepIndex: number, { room, vessels }: Pick<StudioRoom, 'room' | 'vessels'>): PotCard {
  const step = lot.plan.steps[stepIndex];
  const bath = step?.baths[0];
  const batch = lot.plan.batches[0];
  const source = vessels.find((v) => v.id === (bath?.vesselId ?? batch?.vesselId))?.heatSource;
  return {
    liquorMl: bath?.liquor.value ?? batch?.liquor.value ?? 10_000, wofG: bath?.wof.value ?? batch?.wof.value ?? 0,
    usefulW: source ? (source.powerW * source.efficiencyPercent) / 100 : SPARE_BURNER_W, fromC: room.coldWaterC, roomC: room.roomC, ph: lot.water?.ph ?? NEUTRAL, liquorRatio: lot.plan.liquorRatio,
    undyed: lot.summary.undyed, wanted: lot.summary.master,
  };
}

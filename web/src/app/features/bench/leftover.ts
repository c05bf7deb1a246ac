import type { LotDetail } from '@vestigia/contract';
import type { BathBalance, BathMove, Figure, PlannedBath, PlannedStep, StepRecord } from '@vestigia/core';
import { liquorSteps, carriedOffMl, foldBath, foldRun, leftInBath, takesPieces } from '@vestigia/core';

/** Share of a dose that fibre is taken to have drawn, where no sample says otherwise. */
const USUAL_TAKEN = 0.6;
const SAMPLE_ML = 10;
const KEPT_KINDS: readonly PlannedStep['kind'][] = ['tannin', 'mordant', 'dye', 'exhaust', 'modify'];

/** One bath of a step as it stands: what went in and out, what is left, and what is likely still in it. */
export interface CurrentBath {
  readonly bath: PlannedBath | undefined;
  readonly moves: readonly BathMove[];
  readonly balance: BathBalance;
  readonly strength: Figure | undefined;
  readonly strengthOf: string;
  /** As the page that keeps a liquor wants it. */
  readonly toStores: Readonly<Record<string, string>>;
}

export function currentBath(lot: LotDetail, step: PlannedStep, record: StepRecord, batch: number): CurrentBath {
  const bath = step.baths.find((b) => b.batches.includes(batch)) ?? step.baths[0];
  const recordedMoves = (record.bathMoves ?? [])
    .filter((m) => m.batch === batch)
    .map((m) => ({ kind: m.kind, ml: m.ml, label: '' }));
  const samples = (record.samples ?? []).filter((s) => s.of === 'liquor' && s.batch === batch).length;
  const moves: BathMove[] = [
    { kind: 'fill', ml: bath?.liquor.value ?? 0, label: bath?.vesselName ?? '' },
    ...recordedMoves,
    ...(samples > 0
      ? [{ kind: 'takeOut' as const, ml: samples * SAMPLE_ML, label: `${samples} samples, ${SAMPLE_ML} ml each` }]
      : []),
  ];
  const balance = foldBath(moves);
  const dose = lastDose(lot, step, batch);
  const leftMl = Math.max(0, balance.left.value - (takesPieces(step) ? carriedOffMl(bath?.wof.value ?? 0) : 0));
  return {
    bath,
    moves,
    balance,
    strength:
      dose && balance.addedMl > 0
        ? leftInBath(dose.grams, USUAL_TAKEN, Math.min(1, leftMl / balance.addedMl))
        : undefined,
    strengthOf: lot.plan.materials.find((m) => m.materialId === dose?.materialId)?.name ?? '',
    toStores: {
      fromLot: lot.summary.id,
      litres: (Math.round(leftMl / 100) / 10).toString(),
      pot: bath?.vesselName ?? '',
      kind: step.kind === 'mordant' ? 'mordantBath' : 'dyeBath',
      named: `${lot.summary.colourway.name} bath, ${lot.summary.tag}`,
      ...(dose ? { of: dose.materialId, dosed: `${dose.grams} g` } : {}),
    },
  };
}

/** Whether a finished step leaves a bath behind: one that no later step goes on in. */
export function leavesBath(lot: LotDetail, step: PlannedStep): boolean {
  const goesOn = lot.plan.steps.some((s) => s.index > step.index && s.kind === 'exhaust' && s.usesBath);
  return step.usesBath && step.baths.length > 0 && KEPT_KINDS.includes(step.kind) && !goesOn;
}

/**
 * What was weighed into this bath, by grams: the first material of its own last dosed step. What went into other
 * baths of the lot is not in this one.
 */
function lastDose(lot: LotDetail, step: PlannedStep, batch: number): { materialId: string; grams: number } | undefined {
  const records = foldRun(lot.entries, lot.plan.steps.length);
  for (const earlier of [...liquorSteps(lot.plan, step)].reverse()) {
    const weighed = (records[earlier.index]?.weighings ?? []).filter((w) => w.batch === batch);
    const first = weighed[0];
    if (first)
      return {
        materialId: first.materialId,
        grams:
          Math.round(
            weighed.filter((w) => w.materialId === first.materialId).reduce((sum, w) => sum + w.amount, 0) / 100,
          ) / 10,
      };
  }
  return undefined;
}

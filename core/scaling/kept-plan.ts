import type {
  LotPlan,
  PlannedBatch,
  PlannedBath,
  PlannedGroup,
  PlannedMaterial,
  PlannedStep,
  PlannedWeighing,
} from './lot-plan';
import type { PlanCaution } from './plan-caution';
import { readPlanCaution } from './plan-caution';
import type { StepCaution } from './step-caution';
import { readStepCaution } from './step-caution';

type Old<T, K extends keyof T> = Omit<T, K> & Partial<Pick<T, K>>;
type OldStep = Omit<
  Old<
    PlannedStep,
    'key' | 'liquor' | 'after' | 'finishedBy' | 'wait' | 'course' | 'repeats' | 'strain' | 'targetPh' | 'forWhom'
  >,
  'weighings' | 'cautions' | 'baths'
> & {
  readonly baths?: readonly Old<PlannedBath, 'water'>[];
  readonly weighings: readonly Old<PlannedWeighing, 'forBatches' | 'measure' | 'advice'>[];
  readonly cautions: readonly (StepCaution | string)[];
};
/** A plan as it may have been kept before chains could branch: what was added since is missing. */
export type KeptPlan = Omit<LotPlan, 'groups' | 'steps' | 'batches' | 'materials' | 'cautions'> & {
  readonly groups?: readonly Old<PlannedGroup, 'blend'>[];
  readonly cautions: readonly (PlanCaution | string)[];
  readonly steps: readonly OldStep[];
  readonly batches: readonly Old<PlannedBatch, 'groups' | 'fill'>[];
  readonly materials: readonly Old<PlannedMaterial, 'measure' | 'kind'>[];
};

/** Fills in what a plan that was kept long ago doesn't say. A plan made today comes back as it is. */
export function completePlan(kept: KeptPlan): LotPlan {
  return {
    ...kept,
    cautions: kept.cautions.map(readPlanCaution),
    groups: (kept.groups ?? []).map((g) => ({ ...g, blend: g.blend ?? [] })),
    batches: kept.batches.map((b) => ({ ...b, groups: b.groups ?? [], fill: b.fill ?? 1 })),
    materials: kept.materials.map((m) => ({ ...m, kind: m.kind ?? null, measure: m.measure ?? 'weight' })),
    steps: kept.steps.map((s, i) => ({
      ...s,
      cautions: s.cautions.map(readStepCaution),
      key: s.key ?? '',
      after: s.after ?? (i === 0 ? [] : [i - 1]),
      finishedBy: s.finishedBy ?? 'clock',
      wait: s.wait ?? null,
      course: s.course ?? [],
      repeats: s.repeats ?? 1,
      strain: s.strain ?? null,
      targetPh: s.targetPh ?? null,
      forWhom: s.forWhom ?? '',
      liquor: s.liquor ?? '',
      baths: (s.baths ?? []).map((b) => ({ ...b, water: b.water ?? null })),
      weighings: s.weighings.map((w) => ({
        ...w,
        forBatches: w.forBatches ?? [w.batch],
        measure: w.measure ?? 'weight',
        advice: w.advice ?? [],
      })),
    })),
  };
}

export type {
  LotPlan,
  PlannedBatch,
  PlannedBath,
  PlannedGroup,
  PlannedMaterial,
  PlannedPick,
  PlannedStep,
  PlannedWeighing,
  PlanResult,
} from './lot-plan';
export { smallestIn } from './lot-plan';
export type { KeptPlan } from './kept-plan';
export { completePlan } from './kept-plan';
export type { BathNote } from './bath-note';
export type { HouseHint } from './house-hint';
export { HOUSE_HINTS } from './house-hint';
export type { PlanRefusal, PlanRefusalFact } from './plan-refusal';
export { sayPlanRefusal } from './plan-refusal';
export type { WayOut } from './way-out';
export { sayWayOut } from './way-out';
export type { PlanCaution } from './plan-caution';
export { readPlanCaution, sayPlanCaution } from './plan-caution';
export type { StepCaution } from './step-caution';
export { isShownEveryTime, readStepCaution, sayStepCaution, stepCautionKey } from './step-caution';
export type { DoseUnknown } from './dose-unknown';
export { sayDoseUnknown } from './dose-unknown';
export type { PreviewedStep } from './preview-doses';
export { previewDoses } from './preview-doses';
export type { DosedBath, DosedMaterial, MeasuredDose } from './dose-context';
export { measureDose } from './measure-dose';
export type { StockSolution } from './stock-solution';
export { proposeStockSolution } from './stock-solution';
export { sharePieces } from './plan-groups';
export { cautionsForStep } from './step-cautions';
export type { PlanBase, PlanInput, PlanMaterial } from './plan-input';
export { planLot } from './plan-lot';
export type { Alternative } from './alternatives';
export { findAlternatives } from './alternatives';
export type { PlanEffort } from './plan-effort';
export { planEffort } from './plan-effort';
export { sharePicks } from './share-picks';
export type { BatchShare, SplitResult, VesselRoom } from './split/split-batches';
export { splitBatches } from './split/split-batches';
export type { GroupShare, GroupSplit, PieceGroup } from './split/split-groups';
export { splitGroups, splitMeasure } from './split/split-groups';
export { liquorSteps } from './liquor-steps';
export type { PlannedZone } from './placed-zones';
export type { ShadeOf } from './shade-of';
export { WHOLE, dipsOf, hasShade, mainGroup, sayShade, shadeKey } from './shade-of';

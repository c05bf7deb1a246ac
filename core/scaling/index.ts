export type {
  LotPlan,
  PlannedBatch,
  PlannedBath,
  PlannedGroup,
  PlannedMaterial,
  PlannedPick,
  PlannedStep,
  PlannedWeighing,
  PlanRefusal,
  PlanResult,
  WayOut,
} from './lot-plan';
export { smallestIn } from './lot-plan';
export type { KeptPlan } from './kept-plan';
export { completePlan } from './kept-plan';
export type { BathNote } from './bath-note';
export type { HouseHint } from './house-hint';
export { HOUSE_HINTS } from './house-hint';
export type { PlanCaution } from './plan-caution';
export { readPlanCaution, sayPlanCaution } from './plan-caution';
export type { StepCaution } from './step-caution';
export { isShownEveryTime, readStepCaution, sayStepCaution, stepCautionKey } from './step-caution';
export type { DosedBath, DosedMaterial, MeasuredDose, StockSolution } from './measure-dose';
export { measureDose, proposeStockSolution } from './measure-dose';
export { sharePieces } from './plan-groups';
export { cautionsForStep } from './step-cautions';
export type { PlanBase, PlanInput, PlanMaterial } from './plan-input';
export { planLot } from './plan-lot';
export { sharePicks } from './share-picks';
export type { BatchShare, SplitResult, VesselRoom } from './split/split-batches';
export { splitBatches } from './split/split-batches';
export type { GroupShare, GroupSplit, PieceGroup } from './split/split-groups';
export { splitGroups, splitMeasure } from './split/split-groups';
export { liquorSteps } from './liquor-steps';

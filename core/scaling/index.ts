export type {
  KeptPlan,
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
export { completePlan, smallestIn } from './lot-plan';
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

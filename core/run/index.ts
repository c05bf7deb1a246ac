export type { BenchAct, BenchRun } from './bench-acts';
export type { WeighingToDo } from './next-weighing';
export { benchActs } from './bench-acts';
export type { DeviationFact } from './deviation';
export { sayDeviation } from './deviation';
export type { DeviationContext } from './deviations';
export { findDeviations } from './deviations';
export type { StepRecord, ZoneRecord } from './step-record';
export { effortSoFar } from './lot-effort';
export type { LookAgain } from './look-again';
export { lookAgain } from './look-again';
export type { ZoneToDo } from './next-zone';
export { nextZone } from './next-zone';
export { zoneIsOver } from './zone-records';
export type { ForgottenPot } from './forgotten-pots';
export { forgottenPots } from './forgotten-pots';
export type { OffTarget, RescaleOffer } from './rescale';
export { offTarget, rescaleFactor, targetNow } from './rescale';
export type { Deviation } from './run-deviations';
export { findRunDeviations } from './run-deviations';
export type { EntryCheck } from './check-entry';
export type { RunRefusal, RunRefusalFact } from './run-refusal';
export { refuseEntry, sayPotInUse } from './run-refusal';
export { checkEntry, plannedWeighing } from './check-entry';
export type {
  BroughtEntry,
  BroughtEntryOf,
  CheckedEntry,
  CheckedEntryOf,
  ReadBy,
  Rescaling,
  RunDetails,
  RunEntry,
  RunEntryKind,
  SolutionTaken,
  VesselUsed,
  NotDry,
  Weighed,
  ZoneDeed,
} from './run-entry';
export { currentEntries, entriesOfKind, NOT_DRY, READ_BY, RUN_ENTRY_KINDS, SAMPLE_OF, ZONE_DEEDS } from './run-entry';
export type { StepState } from './run-record';
export { foldRun, isOver, minutesInWork, nextStepIndex, stepState } from './run-record';
export type { RunFacts, RunRuling } from './run-rules';
export { AHEAD_MS, earlyStartMessage, mayBeTakenBack, mayBeToldLate, openBefore, ruleOnEntry } from './run-rules';
export type { PotInUse } from './pots-in-use';
export { potsInUse, potsOf, potTaken } from './pots-in-use';
export type { PotLiquor } from './pot-liquor';
export { isDrawn, potLiquor } from './pot-liquor';
export type { PouredLiquor } from './poured-liquors';
export { pouredLiquors } from './poured-liquors';
export type { PhLock } from './ph-lock';
export { phLock } from './ph-lock';
export type {
  CoursePoint,
  CourseWatch,
  PotAlarm,
  PotAlarmCode,
  TemperatureAt,
  WatchedStep,
  WatchInput,
} from './watch-course';
export { cornerPoints } from './corner-points';
export { heldMinutes, HOLD_BAND_C, holdOf, plannedAt, plannedCourse, riseCPerMin, watchCourse } from './watch-course';
export type { NamedStockLot } from './wrong-stock-lot';
export { sayWrongStockLot } from './wrong-stock-lot';
export type { AsDoneChange } from './recipe-as-done';
export type { WrittenRecipe } from './as-really-done';
export { asReallyDone } from './as-really-done';

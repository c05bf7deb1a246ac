export type { BenchAct, BenchRun } from './bench-acts';
export { benchActs } from './bench-acts';
export type { Deviation, DeviationContext, StepRecord } from './deviations';
export { findDeviations } from './deviations';
export type { ForgottenPot } from './forgotten-pots';
export { forgottenPots } from './forgotten-pots';
export type { OffTarget, RescaleOffer } from './rescale';
export { offTarget, rescaleFactor, targetNow } from './rescale';
export { findRunDeviations } from './run-deviations';
export type { ReadBy, Rescaling, RunDetail, RunEntry, RunEntryKind, StepState } from './run-record';
export {
  foldRun,
  isOver,
  minutesInWork,
  nextStepIndex,
  READ_BY,
  RUN_ENTRY_KINDS,
  SAMPLE_OF,
  currentEntries,
  stepState,
} from './run-record';
export type { BroughtEntry, RunFacts, RunRefusal, RunRuling } from './run-rules';
export { AHEAD_MS, earlyStartMessage, openBefore, plannedWeighing, ruleOnEntry } from './run-rules';
export { bathSteps, phLock } from './ph-lock';
export type {
  CoursePoint,
  CourseWatch,
  PotAlarm,
  PotAlarmCode,
  TemperatureAt,
  WatchedStep,
  WatchInput,
} from './watch-course';
export { heldMinutes, HOLD_BAND_C, holdOf, plannedAt, plannedCourse, riseCPerMin, watchCourse } from './watch-course';
export type { NamedStockLot } from './wrong-stock-lot';
export { sayWrongStockLot } from './wrong-stock-lot';

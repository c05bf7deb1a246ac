export type { Factor, LotConditions, MaterialSource, MaterialUse } from './then-and-now';
export { compareThenAndNow } from './then-and-now';
export type { DepthAt, Uptake, UptakeAdvice } from './uptake';
export { adviseLift, depthAt, depthShare, gradedPulls, matchSteps } from './uptake';
export type {
  BathCourse,
  DyedAndRead,
  Dyeing,
  DyeingRole,
  DyeingStage,
  KnownStrength,
  MatchDose,
  MeasuredColour,
} from './dyeing';
export { DYEING_STAGES } from './dyeing';
export type { ChannelSpace } from './channels';
export { MATCH_CONDITIONS, broadChannels, spectralChannels } from './channels';
export type { Observation, Posterior, Widths } from './posterior';
export { learn, usualDoses } from './posterior';
export type { PredictHow, Prediction } from './predict';
export { expectedDifference, predict } from './predict';
export type { Correction } from './correct';
export type { BaseLot, CorrectWithin } from './turnable';
export { correct, wayToStrikeOff } from './correct';
export type { ShelfJar, ShelfMaterial } from './levers';
export { learnMore } from './learn-more';
export { isStrikeOffWorth } from './strike-off-worth';
export type { LotToMatch, MatchFacts, PartToMatch } from './lot-dyeing';
export { pulledOut, samplesRead } from './early-out';
export {
  ageOn,
  metalMeant,
  metalToMatch,
  dyeingOfLot,
  groundOf,
  mordantOfLot,
  outOfReference,
  referenceOf,
  unknownLotOf,
  waterToMatch,
} from './lot-dyeing';
export { groundUnderOurLight, meanSpectrum, underOurLight } from './under-our-light';
export type { CorrectedBy } from './uncorrected';
export { uncorrected } from './uncorrected';
export { factsOfRecord, observationsOf } from './from-record';
export type { Effect } from './predict';
export { effectBetween } from './predict';
export type {
  FactorEffect,
  LeverTurned,
  ReorderAnswer,
  ReorderAsk,
  ReorderBounds,
  ReorderFactor,
  ReorderWay,
} from './reorder';
export { LEAST_READINGS } from './enough-read';
export type { Learning } from './learnt';
export { learntOf, watchLearning } from './learnt';
export { answerReorder } from './reorder';
export type { Letter, LetterNames } from './write-letter';
export { STRIKE_OFF_G, sayDips, sayFactor, sayWay, writeLetter } from './write-letter';
export type { Foretold, JarStrength, Review } from './review';
export { reviewRecord } from './review';
export type { TrialToMatch } from './strip-dyeing';
export { dyeingOfStrip } from './strip-dyeing';
export type { Ground, ReachAnswer, ReachAsk, Reached, ReachedWith } from './reach';
export { reachShade, reachWith } from './reach';
export { LEAST_OF_DYESTUFF, dyedBefore } from './dyed-before';
export type { DyedBefore, WayDyed } from './dyed-before';
export type { AddedDose, OtherStandard, RescueAnswer, RescueAsk, RescueWay } from './rescue';
export { rescueLot, rescueWith } from './rescue';
export type { GradedAnswer, GradedAsk, GradedShade, GradedWay } from './graded';
export { gradedFamily, gradedWith } from './graded';
export type { AskedOfMatch, MatchQuestion, MatchQuestions, ReviewAsk } from './question';
export { answerMatch } from './question';
export type { DoseCost } from './dose-cost';
export { costOfDoses } from './dose-cost';
export type { Dyed, FastnessCard, FastnessForetold, FastnessLearnt } from './fastness-learnt';
export { FASTNESS_WINDOW_DAYS, learnFastness } from './fastness-learnt';
export type { RescueLetter } from './write-rescue';
export { sayRescue, writeRescue } from './write-rescue';
export type { Fit, FitFamily, FitKind, FitPoint, Fits } from './fits';
export { FIT_KINDS, readFits } from './fits';
export type { WorkedOf, WorkedShade, WorkedStep } from './work-out';
export { figureOfShade, workOutShade } from './work-out';

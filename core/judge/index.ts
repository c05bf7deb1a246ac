export type { EyeReading, EyeSeen, JudgeRule } from './by-eye';
export {
  EYE_AGAINST,
  EYE_AGAINST_LABELS,
  EYE_EVENNESS,
  EYE_EVENNESS_LABELS,
  EYE_HUES,
  EYE_LIGHT_LABELS,
  EYE_LIGHTS,
  isSeenSame,
  JUDGE_RULE_LABELS,
  JUDGE_RULES,
  sayEye,
} from './by-eye';
export type { FamilyMember, FamilyStandards, ZoneStandard } from './family';
export { foldFamily, placeShade, standardFor, unitsOf } from './family';
export type { GivenVerdict, JudgedAlone } from './judged-alone';
export {
  isWholeLot,
  isWithin,
  judgedAlone,
  sayAlone,
  seenOfRest,
  seenOfShade,
  setApart,
  standingVerdicts,
  takeBackable,
  TAKE_VERDICT_BACK_WITHIN_MS,
} from './judged-alone';
export type { Apart, Sets } from './sets';
export { sortIntoSets } from './sets';
export type { NamedShade, ShadePair } from './pair-shades';
export { pairShades } from './pair-shades';
export type { SeenStrip, StripByEye, StripLook, StripWarmth } from './strip-looks';
export { checkStripLook, rankByEye, sayStripLookRefusal, STRIP_WARMTH_LABELS, STRIP_WARMTHS } from './strip-looks';
export type { LotColour, ReadingState, ShadeReading, Standard, Verdict, VerdictCase, VerdictRefusal } from './verdict';
export {
  checkVerdict,
  isSettled,
  lotColour,
  READING_STATES,
  settledReadings,
  unseenUnits,
  verdictRestsOn,
  VERDICTS,
} from './verdict';
export type { LadderAxis, LadderPlace } from './eye-ladder';
export { LADDER_QUESTIONS, LADDER_WITHIN80, ladderAxis, ladderRungs, pressRung } from './eye-ladder';
export type { FadedAfter, FadingCurve, FastnessGrades, FastnessKind, FastnessPlace } from './fastness';
export {
  careText,
  daysToFade,
  FASTNESS_KINDS,
  FASTNESS_PLACE_LABELS,
  FASTNESS_PLACES,
  fadedAfter,
  fadedBetween,
  fitFading,
  LEAST_FOR_FADING,
  nextDueDays,
  SHELF_SHARE,
  TELLS_FROM,
  worstGrade,
} from './fastness';
export type { NearPair, PaletteColour, PaletteOrder } from './palette';
export { layPalette, nearPairs, PALETTE_ORDERS, TOO_NEAR_DELTA_E00 } from './palette';
export type { ReaderReading, Reader, ReaderOffset } from './readers';
export { compareReaders, LEAST_SHARED, withoutOffset } from './readers';
export type { DriftChannel, DriftLimits, DriftPoint, DriftSignal, RepeatedLot, Repeatability } from './repeatability';
export { chartRepeatability, DRIFT_CHANNELS, DRIFT_RULE_LABELS, LEAST_FOR_LIMITS } from './repeatability';
export type { FoldedSpots } from './spots';
export { foldSpots } from './spots';
export type { DryForecast, WetDryPair } from './wet-to-dry';
export { forecastDry, LEAST_WET_DRY_PAIRS } from './wet-to-dry';
export type { MadeWith } from './made-with';
export { madeWith, NOTHING_KNOWN, nextFreeSlot, sayMadeWith, SLOTS_A_PAGE, SLOTS_ACROSS } from './made-with';
export type { PaperRungs } from './paper-ladder';
export {
  PAPER_MIDDLE,
  PAPER_RUNGS,
  PAPER_STRIPS,
  PAPER_WITHIN80,
  isPaperEnd,
  paperStrip,
  readPaperLadder,
} from './paper-ladder';
export { looksBackedDark } from './dark-backing';

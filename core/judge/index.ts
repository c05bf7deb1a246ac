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
export type { ReadingWay, Taken } from './taken';
export { READING_WAY_LABELS, READING_WAYS, sayEvenness, sayTaken } from './taken';
export type { GivenVerdict, JudgedAlone } from './judged-alone';
export { isWholeLot, isWithin, judgedAlone, sayAlone, seenOfRest, seenOfShade, setApart } from './judged-alone';
export type { Apart, Sets } from './sets';
export { sortIntoSets } from './sets';
export type { NamedShade, ShadePair } from './pair-shades';
export { pairShades } from './pair-shades';
export type { SeenStrip, StripByEye, StripLook, StripWarmth } from './strip-looks';
export { checkStripLook, rankByEye, sayStripLookRefusal, STRIP_WARMTH_LABELS, STRIP_WARMTHS } from './strip-looks';
export type { LotColour, ReadingState, ShadeReading, Standard, Verdict, VerdictCase, VerdictRefusal } from './verdict';
export {
  checkVerdict,
  lotColour,
  READING_STATES,
  settledReadings,
  unseenUnits,
  verdictRestsOn,
  VERDICTS,
} from './verdict';

export type {
  BatchReading,
  LotColour,
  MasterStandard,
  ReadingState,
  Verdict,
  VerdictCase,
  VerdictRefusal,
} from './verdict';
export { checkVerdict, lotColour, READING_STATES, settledReadings, VERDICTS } from './verdict';

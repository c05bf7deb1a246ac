export type { BalanceState, InstrumentCommand, InstrumentKind, InstrumentMessage, TroubleCode } from './protocol';
export {
  BALANCE_STATES,
  INSTRUMENT_COMMANDS,
  INSTRUMENT_KINDS,
  INSTRUMENT_LABELS,
  InstrumentLines,
  readInstrumentLine,
  withSum,
} from './protocol';
export { ReadingLog } from './reading-log';
export type { Pan, PanReading, PanState } from './settle';
export { LOST_AFTER_MS, PanWatch } from './settle';
export type { ReadingWay, Taken } from './taken';
export { READING_WAY_LABELS, READING_WAYS, sayEvenness, sayTaken, takenBy } from './taken';

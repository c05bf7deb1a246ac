import type { StockLedgerLine } from '@vestigia/contract';

/** What a line of the ledger is called. */
export const LEDGER_LABELS: Readonly<Record<StockLedgerLine['kind'], string>> = {
  receive: 'came in',
  gather: 'gathered',
  use: 'used',
  count: 'counted',
  spoil: 'spoiled',
  give: 'given away',
  convert: 'changed form',
  reverse: 'reversed',
  reservation: 'promised',
  release: 'let go',
};

/** The same before the name of a lot. */
export const LEDGER_LABELS_OF_LOT: Readonly<Partial<Record<StockLedgerLine['kind'], string>>> = {
  use: 'used in',
  reservation: 'promised to',
  release: 'promise ended by',
  reverse: 'given back by',
};

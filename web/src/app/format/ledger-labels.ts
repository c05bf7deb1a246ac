import type { StockLedgerLine } from '@vestigia/contract';

/** What a line of the ledger is called. */
export const LEDGER_LABELS: Readonly<Record<StockLedgerLine['kind'], string>> = {
  receive: $localize`came in`,
  gather: $localize`gathered`,
  use: $localize`used`,
  count: $localize`counted`,
  spoil: $localize`spoiled`,
  give: $localize`given away`,
  convert: $localize`changed form`,
  reverse: $localize`reversed`,
  reservation: $localize`promised`,
  release: $localize`let go`,
};

/** The same before the name of a lot. */
export const LEDGER_LABELS_OF_LOT: Readonly<Partial<Record<StockLedgerLine['kind'], string>>> = {
  use: $localize`used in`,
  reservation: $localize`promised to`,
  release: $localize`promise ended by`,
  reverse: $localize`given back by`,
};

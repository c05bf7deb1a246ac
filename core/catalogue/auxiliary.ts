import type { StockMeasure } from '../quantity/amount';
import type { Hazard } from '../safety/hazards';
import type { MaterialForm, MaterialKind } from '../stock/material-facts';
import type { CatalogueEntry, FibreGroup } from './catalogue-entry';

/** For either kind of fibre. */
export const BOTH: readonly FibreGroup[] = ['protein', 'cellulose'];

/** A mordant, an assistant or a modifier. */
export const auxiliary = (
  key: string,
  kind: MaterialKind,
  name: string,
  form: MaterialForm,
  fibreGroups: readonly FibreGroup[],
  hazards: readonly Hazard[],
  note: string,
  given: Partial<CatalogueEntry> & { measure?: StockMeasure } = {},
): CatalogueEntry => ({
  key,
  name,
  kind,
  measure: 'weight',
  botanicalName: '',
  plantPart: '',
  forms: [form],
  fibreGroups,
  ceilingC: null,
  water: 'any',
  phLow: null,
  phHigh: null,
  light: null,
  wash: null,
  bringsTannin: false,
  needs: null,
  hazards,
  season: null,
  note,
  ...given,
});
/** Of which plant it is; such bring tannin. */
export const plant = (botanicalName: string, plantPart: string): Partial<CatalogueEntry> => ({
  botanicalName,
  plantPart,
  bringsTannin: true,
});
/** Kept as a liquid. */
export const byVolume = { measure: 'volume' } as const;

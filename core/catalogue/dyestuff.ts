import type { Hazard } from '../safety/hazards';
import type { MaterialForm } from '../stock/material-facts';
import type { CatalogueEntry } from './catalogue-entry';

type Given = Partial<Omit<CatalogueEntry, 'key' | 'name' | 'botanicalName' | 'plantPart' | 'forms'>>;

/** A dyestuff as most are: on a mordant, on either kind of fibre. */
export const dyestuff = (
  key: string,
  name: string,
  botanicalName: string,
  plantPart: string,
  forms: readonly MaterialForm[],
  note: string,
  given: Given = {},
): CatalogueEntry => ({
  key,
  name,
  kind: 'dyestuff',
  measure: 'weight',
  botanicalName,
  plantPart,
  forms,
  fibreGroups: ['protein', 'cellulose'],
  ceilingC: null,
  water: 'any',
  phLow: null,
  phHigh: null,
  light: null,
  wash: null,
  bringsTannin: false,
  needs: 'mordant',
  hazards: [],
  season: null,
  note,
  ...given,
});
/** A season by its months. */
export const months = (fromMonth: number, toMonth: number): { season: CatalogueEntry['season'] } => ({
  season: { fromMonth, toMonth },
});
/** What it can do to people. */
export const hazards = (...of: Hazard[]): { hazards: readonly Hazard[] } => ({ hazards: of });
/** It needs no mordant. */
export const direct = { needs: 'direct' } as const;
/** It dyes from a vat. */
export const vat = { needs: 'vat' } as const;
/** Good in light and in the wash. */
export const lasting = { light: 'good', wash: 'good' } as const;
/** It brings its own tannin. */
export const tannin = { bringsTannin: true } as const;
/** For wool and silk alone. */
export const protein = { fibreGroups: ['protein'] } as const;

import type { StockMeasure } from '../quantity/amount';
import type { Hazard } from '../safety/hazards';
import type { Season } from '../stock/forecast';
import type { FastnessWord, MaterialForm, MaterialKind } from '../stock/material-facts';

/** Fibres that a catalogue line speaks of. */
export type FibreGroup = 'protein' | 'cellulose';

/**
 * General properties of a material, as widely agreed; `null` and empty where there is no agreement. A studio edits
 * its own copy.
 */
export interface CatalogueEntry {
  readonly key: string;
  readonly name: string;
  readonly kind: MaterialKind;
  readonly measure: StockMeasure;
  readonly botanicalName: string;
  readonly plantPart: string;
  readonly forms: readonly MaterialForm[];
  readonly fibreGroups: readonly FibreGroup[];
  /** Above this the colour suffers. °C; `null` where boiling does no harm or it does not matter. */
  readonly ceilingC: number | null;
  readonly water: 'any' | 'soft' | 'hard';
  readonly phLow: number | null;
  readonly phHigh: number | null;
  readonly light: FastnessWord | null;
  readonly wash: FastnessWord | null;
  readonly bringsTannin: boolean;
  readonly hazards: readonly Hazard[];
  readonly season: Season | null;
  readonly note: string;
}

/** A name as a key: small letters and hyphens. */
export const slugOf = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z]+/g, '-')
    .replace(/-$/, '');

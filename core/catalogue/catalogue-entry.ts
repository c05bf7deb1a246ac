import { worded } from '../words/worded';
import type { StockMeasure } from '../quantity/amount';
import type { Hazard } from '../safety/hazards';
import type { Season } from '../stock/forecast';
import type { FastnessWord, MaterialForm, MaterialKind } from '../stock/material-facts';

/** Fibres that a catalogue line speaks of. */
export type FibreGroup = 'protein' | 'cellulose';

/** How a dyestuff comes to hold on the fibre. */
export const DYESTUFF_NEEDS = ['mordant', 'direct', 'vat'] as const;
/** One of `DYESTUFF_NEEDS`. */
export type DyestuffNeed = (typeof DYESTUFF_NEEDS)[number];
/** How each is said on screen. */
export const DYESTUFF_NEED_LABELS: Readonly<Record<DyestuffNeed, string>> = worded(() => ({
  mordant: $localize`on a mordant`,
  direct: $localize`by itself`,
  vat: $localize`from a vat`,
}));

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
  /** How a dyestuff holds: on a mordant, by itself, or from a vat; `null` of what is no dyestuff. */
  readonly needs: DyestuffNeed | null;
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

/** What a studio's own material takes over from the catalogue; what it doesn't say stays as it is. */
export const factsOf = (entry: CatalogueEntry) => ({
  catalogueKey: entry.key,
  botanicalName: entry.botanicalName,
  plantPart: entry.plantPart,
  forms: [...entry.forms],
  fibreGroups: [...entry.fibreGroups],
  ceilingC: entry.ceilingC,
  water: entry.water,
  phLow: entry.phLow,
  phHigh: entry.phHigh,
  light: entry.light,
  wash: entry.wash,
  bringsTannin: entry.bringsTannin,
  season: entry.season,
});

import { worded } from '../words/worded';

/** What a thing on the shelf is for. */
export const MATERIAL_KINDS = [
  'fibre',
  'dyestuff',
  'mordant',
  'tannin',
  'assistant',
  'modifier',
  'detergent',
  'packet',
  'water',
] as const;
/** One of `MATERIAL_KINDS`. */
export type MaterialKind = (typeof MATERIAL_KINDS)[number];

/** How each kind is said on screen. */
export const MATERIAL_KIND_LABELS: Readonly<Record<MaterialKind, string>> = worded(() => ({
  fibre: $localize`fibre base`,
  dyestuff: $localize`dyestuff`,
  mordant: $localize`mordant`,
  tannin: $localize`tannin`,
  assistant: $localize`assistant`,
  modifier: $localize`modifier`,
  detergent: $localize`detergent`,
  packet: $localize`packet dye`,
  water: $localize`water`,
}));

/** Forms in which a material stands on the shelf. */
export const MATERIAL_FORMS = ['fresh', 'frozen', 'dried', 'chips', 'ground', 'crystals', 'extract', 'liquor'] as const;
/** One of `MATERIAL_FORMS`. */
export type MaterialForm = (typeof MATERIAL_FORMS)[number];

/** Steps of fastness, as the catalogue says them. */
export const FASTNESS_LABELS = ['poor', 'fair', 'good', 'very good'] as const;
/** One of `FASTNESS_LABELS`. */
export type FastnessWord = (typeof FASTNESS_LABELS)[number];

/** What was done to pieces that are kept: mordanted ahead, dyed, or dyed and waiting to be sold. */
export const TREATMENTS = ['mordanted', 'dyed', 'finished'] as const;
/** One of `TREATMENTS`. */
export type Treatment = (typeof TREATMENTS)[number];

/** How finished pieces lie. */
export const LIGHT_PLACES = ['dark', 'open'] as const;
/** One of `LIGHT_PLACES`. */
export type LightPlace = (typeof LIGHT_PLACES)[number];
/** How each is said on screen. */
export const LIGHT_PLACE_LABELS: Readonly<Record<LightPlace, string>> = worded(() => ({
  dark: $localize`in the dark`,
  open: $localize`open to the light`,
}));

/** Forms in which spent dyestuff is kept. */
export const KEPT_FORMS = ['frozen', 'dried', 'chips'] as const;

/** How a stock lot came to be here. */
export const STOCK_ORIGINS = ['receipt', 'harvest', 'gift', 'made'] as const;
/** One of `STOCK_ORIGINS`. */
export type StockOrigin = (typeof STOCK_ORIGINS)[number];

/** What a kept liquor is. */
export const LIQUOR_KINDS = [
  'dyeBath',
  'secondExtraction',
  'mordantBath',
  'ironLiquor',
  'ashLye',
  'stockSolution',
  'vat',
] as const;
/** One of `LIQUOR_KINDS`. */
export type LiquorKind = (typeof LIQUOR_KINDS)[number];
/** How each is said on screen. */
export const LIQUOR_LABELS: Readonly<Record<LiquorKind, string>> = worded(() => ({
  dyeBath: $localize`leftover dye bath`,
  secondExtraction: $localize`second extraction`,
  mordantBath: $localize`saved mordant bath`,
  ironLiquor: $localize`iron liquor`,
  ashLye: $localize`ash lye`,
  stockSolution: $localize`stock solution`,
  vat: $localize`indigo vat`,
}));

/** What to look for before a kept liquor is used again. */
export const LIQUOR_SIGNS = ['clear', 'cloudy', 'growth', 'smells off', 'settled'] as const;
/** One of `LIQUOR_SIGNS`. */
export type LiquorSign = (typeof LIQUOR_SIGNS)[number];

/** Growth or a bad smell means the liquor is done; cloud asks for a strip first. */
export function judgeSigns(signs: readonly LiquorSign[]): 'use' | 'test first' | 'discard' {
  if (signs.includes('growth') || signs.includes('smells off')) return 'discard';
  return signs.includes('cloudy') || signs.includes('settled') ? 'test first' : 'use';
}

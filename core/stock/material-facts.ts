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
export type MaterialKind = (typeof MATERIAL_KINDS)[number];

export const MATERIAL_KIND_WORDS: Readonly<Record<MaterialKind, string>> = {
  fibre: 'fibre base',
  dyestuff: 'dyestuff',
  mordant: 'mordant',
  tannin: 'tannin',
  assistant: 'assistant',
  modifier: 'modifier',
  detergent: 'detergent',
  packet: 'packet dye',
  water: 'water',
};

export const MATERIAL_FORMS = ['fresh', 'frozen', 'dried', 'chips', 'ground', 'crystals', 'extract', 'liquor'] as const;
export type MaterialForm = (typeof MATERIAL_FORMS)[number];

export const FASTNESS_WORDS = ['poor', 'fair', 'good', 'very good'] as const;
export type FastnessWord = (typeof FASTNESS_WORDS)[number];

/** How a stock lot came to be here. */
export const STOCK_ORIGINS = ['receipt', 'harvest', 'gift', 'made'] as const;
export type StockOrigin = (typeof STOCK_ORIGINS)[number];

export const LIQUOR_KINDS = [
  'dyeBath',
  'secondExtraction',
  'mordantBath',
  'ironLiquor',
  'ashLye',
  'stockSolution',
] as const;
export type LiquorKind = (typeof LIQUOR_KINDS)[number];
export const LIQUOR_WORDS: Readonly<Record<LiquorKind, string>> = {
  dyeBath: 'leftover dye bath',
  secondExtraction: 'second extraction',
  mordantBath: 'saved mordant bath',
  ironLiquor: 'iron liquor',
  ashLye: 'ash lye',
  stockSolution: 'stock solution',
};

/** What to look for before a kept liquor is used again. */
export const LIQUOR_SIGNS = ['clear', 'cloudy', 'growth', 'smells off', 'settled'] as const;
export type LiquorSign = (typeof LIQUOR_SIGNS)[number];

/** Growth or a bad smell means the liquor is done; cloud asks for a strip first. */
export function judgeSigns(signs: readonly LiquorSign[]): 'use' | 'test first' | 'discard' {
  if (signs.includes('growth') || signs.includes('smells off')) return 'discard';
  return signs.includes('cloudy') || signs.includes('settled') ? 'test first' : 'use';
}

import { PLACES } from './places';

/** A page that can be gone to by name. */
export interface NamedPage {
  readonly path: string;
  readonly name: string;
  /** Other words somebody may look for it by. */
  readonly also?: string;
}

/** Every page that is about no one thing, for whoever looks for it by a word. */
const PAGES: readonly NamedPage[] = [
  ...PLACES,
  { path: '/wall', name: 'Today on a wall', also: 'screen across the room large' },
  { path: '/stores/delivery', name: 'Book in', also: 'delivery receive harvest gathered gift' },
  { path: '/stores/convert', name: 'Grind, dry or blend', also: 'change form dissolve wind cut compost open packets' },
  { path: '/stores/liquor', name: 'Store a bath or liquor', also: 'keep leftover vat iron ash' },
  { path: '/stores/ahead', name: 'Looking ahead', also: 'shopping order reorder run out' },
  { path: '/stores/count', name: 'Count', also: 'stocktake inventory' },
  { path: '/stores/materials', name: 'Materials' },
  { path: '/stores/material', name: 'A new material', also: 'catalogue' },
  { path: '/stores/gathered', name: 'Gathered', also: 'harvest foraged' },
  { path: '/stores/worth', name: 'Worth', also: 'value money cost' },
  { path: '/stores/files', name: 'Files of the stores', also: 'import export csv table' },
  { path: '/recipes/write', name: 'Write a recipe' },
  { path: '/recipes/take-in', name: 'Take in a recipe', also: 'import file' },
  { path: '/recipes/strips', name: 'Strip trials', also: 'test samples' },
  { path: '/colourways/new', name: 'Name a colourway' },
  { path: '/lots/new', name: 'Start a lot', also: 'new dye' },
  { path: '/bench/instruments', name: 'Instruments', also: 'balance scale probe scanner reader' },
  { path: '/scan', name: 'Scan a tag', also: 'camera code qr label' },
  { path: '/bench/tags', name: 'Tags', also: 'codes labels print scan' },
  { path: '/judge/book', name: 'Swatch book' },
  { path: '/judge/palette', name: 'Palette' },
  { path: '/judge/fastness', name: 'Fastness', also: 'light wash test cards' },
  { path: '/judge/reach', name: 'Reach', also: 'which dyestuff match colour brought' },
  { path: '/judge/foretold', name: 'Foretold', also: 'prediction learning' },
  { path: '/judge/readers', name: 'Readers and files', also: 'colour reader spectra' },
  { path: '/studio/practice', name: 'House practice', also: 'school' },
  { path: '/studio/deeds', name: 'Who did what', also: 'history audit' },
  { path: '/studio', name: 'Settings, people and pots', also: 'units currency passphrase water vessels copies' },
];

/** Pages by a word of their name, or one they are looked for by; a few letters are enough. */
export function findPages(words: string, most = 4): NamedPage[] {
  const sought = words.trim().toLowerCase().split(/\s+/);
  return PAGES.filter((page) => {
    const known = `${page.name} ${page.also ?? ''}`.toLowerCase().split(/[\s,]+/);
    return sought.every((w) => w.length > 1 && known.some((k) => k.startsWith(w)));
  }).slice(0, most);
}

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
  { path: '/wall', name: $localize`Today on a wall`, also: $localize`screen across the room large` },
  { path: '/stores/delivery', name: $localize`Book in`, also: $localize`delivery receive harvest gathered gift` },
  {
    path: '/stores/convert',
    name: $localize`Grind, dry or blend`,
    also: $localize`change form dissolve wind cut compost open packets`,
  },
  { path: '/stores/liquor', name: $localize`Store a bath or liquor`, also: $localize`keep leftover vat iron ash` },
  { path: '/stores/ahead', name: $localize`Looking ahead`, also: $localize`shopping order reorder run out` },
  { path: '/stores/count', name: $localize`Count`, also: $localize`stocktake inventory` },
  { path: '/stores/materials', name: $localize`Materials` },
  { path: '/stores/material', name: $localize`A new material`, also: $localize`catalogue` },
  { path: '/stores/gathered', name: $localize`Gathered`, also: $localize`harvest foraged` },
  { path: '/stores/worth', name: $localize`Worth`, also: $localize`value money cost` },
  { path: '/stores/files', name: $localize`Files of the stores`, also: $localize`import export csv table` },
  { path: '/recipes/write', name: $localize`Write a recipe` },
  { path: '/recipes/take-in', name: $localize`Take in a recipe`, also: $localize`import file` },
  { path: '/recipes/strips', name: $localize`Strip trials`, also: $localize`test samples` },
  { path: '/colourways/new', name: $localize`Name a colourway` },
  { path: '/orders/new', name: $localize`Take an order`, also: $localize`customer quotation promise` },
  { path: '/orders/goods', name: $localize`Finished pieces`, also: $localize`goods sold left shelf` },
  { path: '/orders/customers', name: $localize`Customers`, also: $localize`address people shops` },
  { path: '/lots/new', name: $localize`Start a lot`, also: $localize`new dye` },
  { path: '/bench/instruments', name: $localize`Instruments`, also: $localize`balance scale probe scanner reader` },
  { path: '/scan', name: $localize`Scan a tag`, also: $localize`camera code qr label` },
  { path: '/bench/tags', name: $localize`Tags`, also: $localize`codes labels print scan` },
  { path: '/judge/book', name: $localize`Swatch book` },
  { path: '/judge/palette', name: $localize`Palette` },
  { path: '/judge/fastness', name: $localize`Fastness`, also: $localize`light wash test cards` },
  { path: '/judge/reach', name: $localize`Reach`, also: $localize`which dyestuff match colour brought` },
  { path: '/judge/foretold', name: $localize`Foretold`, also: $localize`prediction learning` },
  { path: '/judge/readers', name: $localize`Readers and files`, also: $localize`colour reader spectra` },
  { path: '/studio/practice', name: $localize`House practice`, also: $localize`school` },
  { path: '/studio/deeds', name: $localize`Who did what`, also: $localize`history audit` },
  {
    path: '/studio',
    name: $localize`Settings, people and pots`,
    also: $localize`units currency passphrase water vessels copies`,
  },
];

/** Pages by a word of their name, or one they are looked for by; a few letters are enough. */
export function findPages(words: string, most = 4): NamedPage[] {
  const sought = words.trim().toLowerCase().split(/\s+/);
  return PAGES.filter((page) => {
    const known = `${page.name} ${page.also ?? ''}`.toLowerCase().split(/[\s,]+/);
    return sought.every((w) => w.length > 1 && known.some((k) => k.startsWith(w)));
  }).slice(0, most);
}

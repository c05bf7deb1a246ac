import type { Lab } from '@vestigia/core';

export interface ColourwaySeed {
  readonly name: string;
  readonly recipe: string;
  readonly base: string;
  /** What the dyestuff gives at the recipe's dose and full strength. */
  readonly shade: Lab;
  readonly dyestuff: string;
  readonly toleranceDeltaE: number;
  readonly sizes: readonly string[];
  readonly note: string;
}

export const lab = (L: number, a: number, b: number): Lab => ({ L, a, b });

export const COLOURWAYS: readonly ColourwaySeed[] = [
  {
    name: 'Marram',
    recipe: 'Weld on alum',
    base: 'Rug wool',
    shade: lab(74.6, -4.8, 51.2),
    dyestuff: 'Weld, dried tops',
    toleranceDeltaE: 2.5,
    sizes: ['12 hanks of 200 g', '6 hanks of 200 g', '2.4 kg', '5 x 200 g'],
    note: 'For the rug weaver’s borders.',
  },
  {
    name: 'Sluice',
    recipe: 'Alder cones, saddened',
    base: 'Rug wool',
    shade: lab(43.1, 3.6, 11.4),
    dyestuff: 'Alder cones',
    toleranceDeltaE: 2,
    sizes: ['8 hanks of 200 g', '5 hanks of 200 g'],
    note: '',
  },
  {
    name: 'Wreckwood',
    recipe: 'Cutch brown',
    base: 'Rug wool',
    shade: lab(40.2, 17.3, 22.8),
    dyestuff: 'Cutch',
    toleranceDeltaE: 2,
    sizes: ['10 hanks of 200 g', '1.6 kg', '4 x 200 g'],
    note: 'The weaver’s ground colour.',
  },
  {
    name: 'Low Tide',
    recipe: 'Galls and iron',
    base: 'Linen scrim',
    shade: lab(47.5, 0.4, 2.6),
    dyestuff: 'Oak galls, ground',
    toleranceDeltaE: 2,
    sizes: ['6 lengths of 250 g', '4 lengths of 250 g'],
    note: 'Gauzes for the theatre.',
  },
  {
    name: 'Samphire',
    recipe: 'Weld and a breath of iron',
    base: 'Silk ribbon',
    shade: lab(58.8, -7.9, 36.5),
    dyestuff: 'Weld, dried tops',
    toleranceDeltaE: 2,
    sizes: ['8 reels of 25 g', '12 reels of 25 g'],
    note: 'Bookbinder’s markers.',
  },
  {
    name: 'Foreshore',
    recipe: 'Bedstraw brick',
    base: 'Rug wool',
    shade: lab(49.7, 32.4, 25.9),
    dyestuff: 'Bedstraw root',
    toleranceDeltaE: 2.5,
    sizes: ['6 hanks of 200 g', '3 lb 8 oz'],
    note: '',
  },
  {
    name: 'Tansy Bank',
    recipe: 'Tansy on linen',
    base: 'Linen scrim',
    shade: lab(76.3, -0.6, 42.9),
    dyestuff: 'Tansy, dried',
    toleranceDeltaE: 3,
    sizes: ['5 lengths of 250 g', '8 lengths of 250 g'],
    note: 'Footlight curtains.',
  },
  {
    name: 'Creek Gold',
    recipe: 'Buckthorn gold',
    base: 'Rug wool',
    shade: lab(66.4, 8.7, 56.1),
    dyestuff: 'Buckthorn berries',
    toleranceDeltaE: 2.5,
    sizes: ['5 hanks of 200 g', '9 hanks of 200 g'],
    note: '',
  },
  {
    name: 'Slack Water',
    recipe: 'Alkanet on silk',
    base: 'Silk ribbon',
    shade: lab(51.2, 7.6, -9.8),
    dyestuff: 'Alkanet root',
    toleranceDeltaE: 2.5,
    sizes: ['10 reels of 25 g'],
    note: 'Endpapers’ ribbon.',
  },
  {
    name: 'Winkle',
    recipe: 'Safflower blush',
    base: 'Silk ribbon',
    shade: lab(76.9, 25.8, 7.4),
    dyestuff: 'Safflower petals',
    toleranceDeltaE: 2.5,
    sizes: ['8 reels of 25 g'],
    note: 'Not for windows.',
  },
];

import type { BaseFacts, Material, MaterialFacts } from '@vestigia/contract';
import type { Hazard } from '@vestigia/core';
import { catalogueEntry, factsOf } from '@vestigia/core';

export type MaterialSeed = Pick<Material, 'name' | 'kind' | 'hazards'> & {
  note?: string;
  measure?: Material['measure'];
  base?: BaseFacts;
  facts?: Partial<MaterialFacts>;
};

export const undyed = (L: number, a: number, b: number): BaseFacts['undyed'] => ({
  L,
  a,
  b,
  illuminant: 'D65',
  observer: '10',
});

export const hazards = (...of: Hazard[]): Hazard[] => of;

/** What the catalogue says of it, and what this house adds. */
export const known = (key: string, more: Partial<MaterialFacts> = {}): { facts: Partial<MaterialFacts> } => {
  const entry = catalogueEntry(key);
  if (!entry) throw new Error(`no ${key} in the catalogue`);
  return { facts: { ...factsOf(entry), ...more } };
};

export const MATERIALS: readonly MaterialSeed[] = [
  {
    name: 'Rug wool',
    kind: 'fibre',
    hazards: [],
    base: { fibre: 'wool', pieceWord: 'hank', usualPieceWeightG: 200, undyed: undyed(84.2, 0.9, 12.6) },
    note: 'Two-ply, scoured at the mill.',
    facts: { leadTimeDays: 28 },
  },
  {
    name: 'Linen scrim',
    kind: 'fibre',
    hazards: [],
    base: { fibre: 'linen', pieceWord: 'length', usualPieceWeightG: 250, gPerM: 125, undyed: undyed(80.6, 1.6, 13.8) },
    note: 'Loomstate: wants a hot scour.',
    facts: { leadTimeDays: 35 },
  },
  {
    name: 'Silk ribbon',
    kind: 'fibre',
    hazards: [],
    base: { fibre: 'silk', pieceWord: 'reel', usualPieceWeightG: 25, undyed: undyed(91.4, -0.2, 6.1) },
    facts: { leadTimeDays: 42 },
  },
  {
    name: 'Potassium alum',
    kind: 'mordant',
    hazards: hazards('dust'),
    ...known('potassium-alum', { leadTimeDays: 10 }),
  },
  {
    name: 'Aluminium acetate',
    kind: 'mordant',
    hazards: hazards('dust', 'irritant'),
    ...known('aluminium-acetate', { leadTimeDays: 10 }),
  },
  {
    name: 'Cream of tartar',
    kind: 'assistant',
    hazards: hazards('dust'),
    ...known('cream-of-tartar', { leadTimeDays: 10 }),
  },
  { name: 'Chalk', kind: 'assistant', hazards: hazards('dust', 'carbonate'), ...known('chalk') },
  {
    name: 'Soda ash',
    kind: 'assistant',
    hazards: hazards('caustic', 'carbonate', 'dust'),
    ...known('soda-ash', { leadTimeDays: 10 }),
  },
  { name: 'Neutral soap', kind: 'detergent', hazards: [], ...known('neutral-soap') },
  {
    name: 'White vinegar',
    kind: 'modifier',
    measure: 'volume',
    hazards: hazards('acid'),
    ...known('white-vinegar', { leadTimeDays: 1 }),
  },
  { name: 'Iron sulphate', kind: 'modifier', hazards: hazards('ironSalt', 'dust'), ...known('iron-sulphate') },
  { name: 'Weld, dried tops', kind: 'dyestuff', hazards: [], ...known('weld') },
  { name: 'Alder cones', kind: 'dyestuff', hazards: [], ...known('alder-cones') },
  { name: 'Cutch', kind: 'dyestuff', hazards: hazards('dust'), ...known('cutch', { leadTimeDays: 21 }) },
  { name: 'Buckthorn berries', kind: 'dyestuff', hazards: hazards('poisonous'), ...known('buckthorn-berries') },
  { name: 'Tansy, dried', kind: 'dyestuff', hazards: hazards('irritant'), ...known('tansy') },
  { name: 'Bedstraw root', kind: 'dyestuff', hazards: [], ...known('bedstraw-root') },
  { name: 'Safflower petals', kind: 'dyestuff', hazards: [], ...known('safflower', { leadTimeDays: 21 }) },
  { name: 'Alkanet root', kind: 'dyestuff', hazards: hazards('irritant'), ...known('alkanet', { leadTimeDays: 21 }) },
  { name: 'Oak galls, ground', kind: 'tannin', hazards: hazards('dust'), ...known('oak-galls', { leadTimeDays: 21 }) },
  {
    name: 'Tansy heads, fresh',
    kind: 'dyestuff',
    hazards: hazards('irritant'),
    ...known('tansy', { forms: ['fresh'] }),
    note: 'Dried the same week.',
  },
  { name: 'Alum bath, saved', kind: 'mordant', measure: 'volume', hazards: [], facts: { forms: ['liquor'] } },
  {
    name: 'Iron liquor',
    kind: 'modifier',
    measure: 'volume',
    hazards: hazards('ironSalt', 'acid'),
    ...known('iron-liquor'),
  },
  {
    name: 'Cloth-black packets',
    kind: 'packet',
    measure: 'pieces',
    hazards: hazards('dust'),
    facts: { fibreGroups: ['cellulose'], packet: { contentsG: 20, fibreG: 250, auxiliaries: [] } },
    note: 'For stage blacks nobody will wash. One packet to a length.',
  },
  {
    name: 'Pot bleach',
    kind: 'detergent',
    measure: 'volume',
    hazards: hazards('chlorineBleach', 'caustic', 'irritant'),
    ...known('chlorine-bleach', { reorderPoint: 2_000_000, reorderQuantity: 4_000_000, leadTimeDays: 2 }),
    note: 'For scrubbing pots only.',
  },
];

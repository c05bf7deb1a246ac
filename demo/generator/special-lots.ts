import type { VatKind, VatLook } from '@vestigia/core';
import { VAT_LOOK_LABELS, readLotSize, vatDipShare } from '@vestigia/core';
import type { Doc, DocLot, Dyehouse } from './dyehouse';
import { DAY_MS, iso } from './dyehouse';
import { agree, planFor, work } from './dye-lot';

/** Something in the story that is told once, so many days before its end. */
export interface Special {
  readonly daysBefore: number;
  readonly tell: (house: Dyehouse, atMs: number) => void;
}

const VAT_L = 26;
const VAT_G_PER_L = { indigo: 2, fructose: 6, lime: 4 };

/** Lots that no week repeats: several bases, placed colour, heavier pieces, a bath used up, a vat, a refused lot rescued. */
export const SPECIALS: readonly Special[] = [
  { daysBefore: 236, tell: rescueRefused },
  {
    daysBefore: 62.9,
    tell: (house, atMs) =>
      dye(house, atMs, 'Saltings', 'Weld, dried tops', [
        ['Rug wool', '4 hanks of 200 g'],
        ['Linen scrim', '2 lengths of 250 g'],
        ['Silk ribbon', '8 reels of 25 g'],
      ]),
  },
  {
    daysBefore: 53.9,
    tell: dyeTideLine,
  },
  { daysBefore: 43.9, tell: keepCutchBath },
  {
    daysBefore: 41.9,
    tell: (house, atMs) => dye(house, atMs, 'Ebb', 'Cutch bath, kept', [['Rug wool', '3 hanks of 200 g']]),
  },
  { daysBefore: 33.9, tell: setVat },
  { daysBefore: 31.9, tell: dipInVat },
  { daysBefore: 2.6, tell: (house, atMs) => lookAtVat(house, atMs, 'green', 10.1, 38) },
  { daysBefore: 2.5, tell: feedVat },
  { daysBefore: 0.9, tell: (house, atMs) => lookAtVat(house, atMs, 'yellow', 10.4, 43) },
];

/** Tells what falls before a moment and has not been told. */
export function tellSpecials(house: Dyehouse, untold: Special[], untilMs: number): void {
  while (untold[0] && house.endMs - untold[0].daysBefore * DAY_MS <= untilMs) {
    const special = untold.shift() as Special;
    const atMs = house.endMs - special.daysBefore * DAY_MS;
    if (atMs > house.startMs) house.aside(100 + Math.round(special.daysBefore * 10), () => special.tell(house, atMs));
  }
}

type Bases = readonly (readonly [base: string, quantityText: string, stockLotId?: string])[];

function dye(
  house: Dyehouse,
  startMs: number,
  colourwayName: string,
  dyestuff: string,
  bases: Bases,
  { heavier, flags = [] }: { heavier?: number; flags?: ('dyed' | 'mordanted')[] } = {},
): DocLot {
  const colourway = house.doc.colourways.find((c) => c.name === colourwayName);
  const version = house.doc.recipeVersions.find((v) => v.id === colourway?.recipeVersionId);
  const recipe = house.doc.recipes.find((r) => r.id === version?.recipeId);
  if (!colourway?.master || !version || !recipe) throw new Error(`${colourwayName} is not furnished`);
  const sized = bases.map(([name, quantityText, stockLotId]) => {
    const base = house.doc.materials.find((m) => m.name === name);
    const size = base?.base ? readLotSize(quantityText, base.base) : undefined;
    if (!base || !size?.ok) throw new Error(`${quantityText} of ${name} can’t be read`);
    return { base, quantityText, ...size.size, ...(stockLotId === undefined ? {} : { stockLotId }) };
  });
  const [first, ...rest] = sized;
  if (!first) throw new Error('a lot wants a base');
  const vessels = house.doc.vessels.filter((v) => v.name !== 'Dented pot');
  const water = house.doc.waters[0] as Doc['waters'][number];
  const planned = planFor(house, { version, recipeName: recipe.name, startMs, bases: sized, vessels, water });
  if (!planned.ok) throw new Error(`${colourwayName}: ${planned.why}`);
  const short = planned.plan.materials.filter((m) => m.short > 0).map((m) => m.name);
  if (short.length > 0) throw new Error(`${colourwayName} can’t be dyed that day: ${short.join(', ')} is short`);
  const lot = agree(house, planned.plan, {
    colourway,
    startMs,
    quantityText: first.quantityText,
    water,
    reorderOf: undefined,
    recipeVersionId: version.id,
    baseId: first.base.id,
    fills: planned.fills,
    also: rest.map(({ base, quantityText }) => ({ baseId: base.id, quantityText })),
  });
  if (flags.length > 0) lot.extras = { ...lot.extras, intake: { flags, syntheticPercent: null } } as DocLot['extras'];
  const seed = {
    name: colourwayName,
    recipe: recipe.name,
    base: first.base.name,
    shade: colourway.master,
    dyestuff,
    toleranceDeltaE: colourway.toleranceDeltaE,
    sizes: [],
    note: '',
  };
  const undyed = first.base.base?.undyed;
  if (!undyed) throw new Error(`${first.base.name} is no fibre`);
  work(house, lot, seed, startMs + 40 * 60_000, {
    spoiled: false,
    unjudged: false,
    water: 'Tap',
    undyed,
    ...(heavier === undefined ? {} : { heavier }),
  });
  return lot;
}

/** A jar that is made here: on the shelf, in the ledger, and known to the story. */
function makeJar(
  house: Dyehouse,
  atMs: number,
  material: string,
  tag: string,
  amount: number,
  rest: Partial<Doc['stockLots'][number]> & { note?: string },
): string {
  const id = house.random.id(atMs);
  const materialId = house.materialId(material);
  const jar = { id, materialId, receivedOn: iso(atMs).slice(0, 10), bestBefore: null };
  house.doc.stockLots.push({ ...jar, tag, place: '', source: '', note: '', ...rest });
  house.stockLots.push({ ...jar, strength: 1, onHand: 0, reserved: 0, weighings: 0 });
  move(house, atMs, id, 'receive', amount, rest.source ?? '');
  return id;
}

function move(
  house: Dyehouse,
  atMs: number,
  stockLotId: string,
  kind: Doc['movements'][number]['kind'],
  amount: number,
  note: string,
  rest: Partial<Doc['movements'][number]> = {},
): string {
  const id = house.random.id(atMs);
  house.doc.movements.push({
    id,
    stockLotId,
    kind,
    amount,
    lotId: null,
    runEntryId: null,
    reversesId: null,
    note,
    byId: house.personId(),
    at: iso(atMs),
    ...rest,
  });
  house.stockLot(stockLotId).onHand += amount;
  return id;
}

/** Ribbon that came heavier than written, sprayed from the house’s first bottle of iron liquor. */
function dyeTideLine(house: Dyehouse, atMs: number): void {
  makeJar(house, atMs - DAY_MS, 'Iron liquor', 'IRL-0', 450_000, {
    place: 'Locked box',
    source: 'nails and vinegar',
    facts: { origin: 'made', form: 'liquor', container: 'brown bottle' },
  });
  dye(house, atMs, 'Tide Line', 'Weld, dried tops', [['Silk ribbon', '8 reels of 25 g']], { heavier: 1.04 });
}

/** The hanks of the lot the dented pot spoiled, taken as fibre again and dyed over in a colour that hides them. */
function rescueRefused(house: Dyehouse, atMs: number): void {
  const verdict = house.doc.verdicts.find((v) => v.verdict === 'refuse');
  const refused = house.doc.lots.find((l) => l.id === verdict?.lotId);
  if (!refused) return;
  const wool = makeJar(house, atMs, 'Rug wool', 'RUG-R', refused.plan.wof.value * 1000, {
    place: 'Loft, east rail',
    source: `Lot ${refused.number}`,
    note: 'Dulled by the dented pot; sound wool.',
    facts: { origin: 'made', fromLotId: refused.id, treatment: 'dyed' },
  });
  dye(house, atMs, 'Sluice', 'Alder cones', [['Rug wool', refused.quantityText, wool]], { flags: ['dyed'] });
}

type LiquorEntry = NonNullable<Doc['liquorEntries']>[number];
const liquorEntry = (
  house: Dyehouse,
  atMs: number,
  stockLotId: string,
  kind: LiquorEntry['kind'],
  after: Partial<LiquorEntry['after']>,
  note: string,
): void => {
  const known = house.doc.liquorEntries?.filter((e) => e.stockLotId === stockLotId).at(-1)?.after;
  const before = known ?? {
    what: 'dyeBath',
    vessel: '',
    contents: [],
    volumeUl: 0,
    working: null,
    signs: [],
    at: iso(atMs),
  };
  (house.doc.liquorEntries ??= []).push({
    id: house.random.id(atMs),
    stockLotId,
    kind,
    after: { ...before, ...after, at: iso(atMs) },
    note,
    byId: house.personId(),
    at: iso(atMs),
  });
};

/** What was left of the last Wreckwood’s bath, kept cold until the next lot used it up. */
function keepCutchBath(house: Dyehouse, atMs: number): void {
  const colourway = house.doc.colourways.find((c) => c.name === 'Wreckwood');
  const lot = house.doc.lots.filter((l) => l.colourwayId === colourway?.id).at(-1);
  if (!lot) return;
  const volumeMl = 11_000;
  const grams = 62;
  const bath = makeJar(house, atMs, 'Cutch bath, kept', 'CUB-1', volumeMl * 1000, {
    place: 'By the sink',
    source: `Lot ${lot.number}`,
    bestBefore: iso(atMs + 6 * DAY_MS).slice(0, 10),
    facts: { origin: 'made', form: 'liquor', container: 'lidded bucket', fromLotId: lot.id },
  });
  const content = { materialId: house.materialId('Cutch'), name: 'Cutch', grams, drawn: true };
  house.liquors.set(bath, [{ ...content, gPerL: grams / (volumeMl / 1000) }]);
  liquorEntry(
    house,
    atMs,
    bath,
    'save',
    { what: 'dyeBath', vessel: 'lidded bucket', contents: [content], volumeUl: volumeMl * 1000 },
    'what each dip left, by estimate',
  );
}

const VAT_PARTS = [
  { material: 'Indigo, ground', tag: 'IND-1', grams: 250, gPerL: VAT_G_PER_L.indigo, drawn: true, place: 'Cabinet 2' },
  { material: 'Fructose', tag: 'FRU-1', grams: 1000, gPerL: VAT_G_PER_L.fructose, drawn: false, place: 'Cabinet 2' },
  { material: 'Hydrated lime', tag: 'LIM-1', grams: 800, gPerL: VAT_G_PER_L.lime, drawn: false, place: 'Locked box' },
] as const;

const vatOf = (house: Dyehouse): string => house.doc.stockLots.find((s) => s.tag === 'VAT-1')?.id ?? '';
const jarOf = (house: Dyehouse, tag: string): string => house.doc.stockLots.find((s) => s.tag === tag)?.id ?? '';

/** A vat is set: water in the crock, then dyestuff, sugar and lime from their jars. */
function setVat(house: Dyehouse, atMs: number): void {
  const kind: VatKind = 'fruit';
  for (const { material, tag, grams, place } of VAT_PARTS)
    makeJar(house, atMs - DAY_MS, material, tag, grams * 1000, {
      place,
      source: 'the colour merchant',
      facts: { origin: 'receipt' },
    });
  const vat = makeJar(house, atMs, 'Blue vat', 'VAT-1', VAT_L * 1_000_000, {
    place: 'Warm corner by the boiler',
    source: 'set here',
    facts: { origin: 'made', form: 'liquor', container: 'lidded crock' },
  });
  liquorEntry(
    house,
    atMs,
    vat,
    'save',
    {
      what: 'vat',
      vessel: 'lidded crock',
      volumeUl: VAT_L * 1_000_000,
      vat: { kind, look: null, ph: null, temperatureC: null, at: iso(atMs) },
    },
    '',
  );
  const fed = VAT_PARTS.map(({ material, tag, gPerL, drawn }) => {
    const grams = gPerL * VAT_L;
    move(house, atMs + 60_000, jarOf(house, tag), 'use', -grams * 1000, 'into VAT-1');
    return { materialId: house.materialId(material), name: material, grams, drawn, tag };
  });
  liquorEntry(
    house,
    atMs + 60_000,
    vat,
    'feed',
    { contents: fed.map(({ tag: _tag, ...content }) => content) },
    fed.map((c) => `${c.grams} g of ${c.name} added, from ${c.tag}`).join('; '),
  );
  lookAtVat(house, atMs + DAY_MS, 'yellow', 10.6, 44);
}

function lookAtVat(house: Dyehouse, atMs: number, look: VatLook, ph: number, temperatureC: number): void {
  const vat = { kind: 'fruit' as const, look, ph, temperatureC, at: iso(atMs) };
  liquorEntry(house, atMs, vatOf(house), 'vat', { vat }, `${VAT_LOOK_LABELS[look]} · pH ${ph} · ${temperatureC} °C`);
}

/** Two lengths dipped four times, and the vat poured back, weaker and a little less. */
function dipInVat(house: Dyehouse, atMs: number): void {
  const vat = vatOf(house);
  const last = house.doc.liquorEntries?.filter((e) => e.stockLotId === vat).at(-1)?.after;
  if (!last) return;
  house.liquors.set(
    vat,
    last.contents.map((c) => ({ ...c, gPerL: c.grams / VAT_L })),
  );
  const lot = dye(house, atMs, 'Deep Channel', 'Blue vat', [['Linen scrim', '2 lengths of 250 g']]);
  const dips = house.doc.runEntries.filter(
    (e) => e.lotId === lot.id && e.kind === 'weigh' && e.weighing?.stockLotId === vat,
  );
  const poured = dips.at(-1);
  const taken = house.doc.movements.find((m) => m.runEntryId === poured?.id);
  const finish = house.doc.runEntries.find(
    (e) => e.lotId === lot.id && e.kind === 'finish' && e.stepIndex === poured?.stepIndex,
  );
  if (!poured || !taken || !finish) return;
  const backMs = Date.parse(finish.at) + 10 * 60_000;
  const carriedUl = Math.round(lot.plan.wof.value * 1.5) * 1000;
  const of = { lotId: lot.id, runEntryId: poured.id };
  move(house, backMs, vat, 'reverse', -taken.amount, 'poured back', { ...of, reversesId: taken.id });
  move(house, backMs, vat, 'use', -carriedUl, '', of);
  const share = vatDipShare(lot.plan.wof.value, VAT_L * 1000);
  const rest = 1 - carriedUl / (VAT_L * 1_000_000);
  const contents = last.contents.map((c) => ({
    ...c,
    grams: Math.round(c.grams * rest * (c.drawn === true ? (1 - share) ** 4 : 1) * 1000) / 1000,
  }));
  const volumeUl = house.stockLot(vat).onHand;
  liquorEntry(
    house,
    backMs,
    vat,
    'return',
    { contents, volumeUl, vat: { kind: 'fruit', look: null, ph: null, temperatureC: null, at: iso(backMs) } },
    `${volumeUl / 1_000_000} l back from Lot ${lot.number}`,
  );
}

/** A vat gone green gets sugar again. */
function feedVat(house: Dyehouse, atMs: number): void {
  const vat = vatOf(house);
  const last = house.doc.liquorEntries?.filter((e) => e.stockLotId === vat).at(-1)?.after;
  const jar = jarOf(house, 'FRU-1');
  if (!last) return;
  const grams = 35;
  move(house, atMs, jar, 'use', -grams * 1000, 'into VAT-1');
  const contents = last.contents.map((c) => (c.name === 'Fructose' ? { ...c, grams: c.grams + grams } : c));
  liquorEntry(house, atMs, vat, 'feed', { contents }, `${grams} g of Fructose added, from FRU-1`);
}

import type { StudioFile } from '@vestigia/contract';
import { blendStrength, freshToDried, ladderStrength, leftAfterUse, stockConcentration } from '@vestigia/core';
import type { Random } from './random';

const DAY_MS = 86_400_000;

interface StudioSettings {
  readonly random: Random;
  readonly endMs: number;
  readonly materialId: (name: string) => string;
  readonly byId: () => string;
}

type Lot = StudioFile['stockLots'][number];
type Moved = StudioFile['movements'][number];

/**
 * What Stores did beside the lots: fresh tansy dried, two harvests blended, a bath saved and replenished, an iron
 * liquor measured, spoons taught.
 */
export function addStoresHistory(doc: StudioFile, { random, endMs, materialId, byId }: StudioSettings): void {
  const at = (daysBefore: number): string => new Date(endMs - daysBefore * DAY_MS).toISOString();
  const id = (daysBefore: number): string => random.id(endMs - daysBefore * DAY_MS);
  const conversions: NonNullable<StudioFile['conversions']> = [];
  const liquorEntries: NonNullable<StudioFile['liquorEntries']> = [...(doc.liquorEntries ?? [])];
  const spoonWeighings: NonNullable<StudioFile['spoonWeighings']> = [];
  const nothing = { lotId: null, runEntryId: null, reversesId: null };
  const stockLot = (days: number, material: string, tag: string, rest: Partial<Lot>): string => {
    const created = {
      id: id(days),
      materialId: materialId(material),
      tag,
      receivedOn: at(days).slice(0, 10),
      bestBefore: null,
      place: '',
      source: '',
      note: '',
      ...rest,
    };
    doc.stockLots.push(created);
    return created.id;
  };
  const move = (
    days: number,
    stockLotId: string,
    kind: Moved['kind'],
    amount: number,
    note: string,
    conversionId: string | null = null,
  ): void => {
    doc.movements.push({
      ...nothing,
      id: id(days),
      stockLotId,
      kind,
      amount,
      note,
      conversionId,
      byId: byId(),
      at: at(days),
    });
  };
  const onHand = (stockLotId: string): number =>
    doc.movements.filter((m) => m.stockLotId === stockLotId).reduce((sum, m) => sum + m.amount, 0);
  const free = (stockLotId: string): number =>
    onHand(stockLotId) -
    doc.reservations.filter((p) => p.stockLotId === stockLotId).reduce((sum, p) => sum + p.amount, 0);

  // Fresh heads, dried in the loft: the factor is kept with the material. Some stems went to the compost.
  const gathering = { permission: 'the creek’s owner', sharePercent: 15, note: 'East bank, left the ferry end.' };
  const fresh = stockLot(70, 'Tansy heads, fresh', 'TAF-1', {
    place: 'Drying loft, racks',
    source: 'creek bank, with leave',
    bestBefore: at(66).slice(0, 10),
    facts: {
      origin: 'harvest',
      form: 'fresh',
      plantPart: 'flower heads',
      stage: 'full flower',
      moisturePercent: 78,
      gathering,
    },
  });
  move(70, fresh, 'gather', 6_400_000, 'creek bank');
  const drying = id(63);
  const dried = stockLot(63, 'Tansy, dried', 'TAN-D', {
    place: 'Drying loft, jar row A',
    source: 'TAF-1',
    bestBefore: at(-600).slice(0, 10),
    facts: { origin: 'made', form: 'dried', plantPart: 'flower heads', container: 'paper sack', tareMg: 120_000 },
  });
  conversions.push({
    id: drying,
    kind: 'dry',
    lossMg: 4_720_000,
    note: `${freshToDried(6000, 1280).value} g fresh for 1 g dried`,
    byId: byId(),
    at: at(63),
  });
  move(63, fresh, 'convert', -6_000_000, 'dried', drying);
  move(63, dried, 'convert', 1_280_000, 'dried from TAF-1', drying);
  const compost = id(63);
  conversions.push({ id: compost, kind: 'compost', lossMg: 400_000, note: 'stems', byId: byId(), at: at(63) });
  move(63, fresh, 'convert', -400_000, 'to the compost · stems', compost);

  // Two harvests of weld of known strength blended for one order.
  const weld = doc.stockLots
    .filter(
      (s) =>
        s.materialId === materialId('Weld, dried tops') &&
        (s.facts?.strengthPercent ?? null) !== null &&
        free(s.id) > 400_000,
    )
    .slice(-2);
  if (weld.length === 2) {
    const parts = weld.map((s, i) => ({
      stockLotId: s.id,
      tag: s.tag,
      weightG: 200 + i * 100,
      strengthPercent: s.facts?.strengthPercent ?? null,
    }));
    const blend = id(2);
    const strength = blendStrength(parts);
    const blended = stockLot(2, 'Weld, dried tops', 'WEL-B', {
      place: 'Drying loft, jar row A',
      source: parts.map((p) => p.tag).join(' + '),
      facts: {
        origin: 'made',
        form: 'dried',
        strengthPercent: strength?.value ?? null,
        strengthBasis: 'by weight from its parts',
        container: 'glass jar',
        tareMg: 425_000,
      },
    });
    conversions.push({
      id: blend,
      kind: 'blend',
      lossMg: 2_000,
      note: 'one strength for the border hanks',
      byId: byId(),
      at: at(2),
    });
    for (const p of parts) move(2, p.stockLotId, 'convert', -p.weightG * 1000, 'blended', blend);
    move(
      2,
      blended,
      'convert',
      parts.reduce((sum, p) => sum + p.weightG * 1000, 0) - 2_000,
      `blended from ${parts.map((p) => p.tag).join(' + ')}`,
      blend,
    );
  }

  // A mordant bath worth saving.
  const alum = materialId('Potassium alum');
  const bath = stockLot(20, 'Alum bath, saved', 'ALB-1', {
    place: 'By the sink',
    source: 'a mordant day',
    bestBefore: at(-40).slice(0, 10),
    facts: { origin: 'made', form: 'liquor', container: 'lidded bucket' },
  });
  const left = leftAfterUse(240, { uptakeShare: 0.6 });
  move(20, bath, 'receive', 24_000_000, 'saved mordant bath');
  liquorEntries.push({
    id: id(20),
    stockLotId: bath,
    kind: 'save',
    after: {
      what: 'mordantBath',
      vessel: 'lidded bucket',
      contents: [{ materialId: alum, name: 'Potassium alum', grams: left.value }],
      volumeUl: 24_000_000,
      working: left,
      signs: [],
      at: at(20),
    },
    note: 'from 240 g for 1.6 kg of wool',
    byId: byId(),
    at: at(20),
  });
  liquorEntries.push({
    id: id(3),
    stockLotId: bath,
    kind: 'check',
    after: {
      what: 'mordantBath',
      vessel: 'lidded bucket',
      contents: [{ materialId: alum, name: 'Potassium alum', grams: left.value }],
      volumeUl: 24_000_000,
      working: null,
      signs: ['clear', 'settled'],
      at: at(3),
    },
    note: 'clear, settled: dye a strip first',
    byId: byId(),
    at: at(3),
  });

  // Rusty nails in vinegar, measured against weighed crystals.
  const read = ladderStrength(
    [
      { percentOwf: 0.5, lightness: 61 },
      { percentOwf: 1, lightness: 54 },
      { percentOwf: 2, lightness: 46 },
      { percentOwf: 4, lightness: 38 },
    ],
    { lightness: 49.5, liquorMl: 40, fibreG: 10 },
  );
  if (read.ok) {
    const iron = stockLot(45, 'Iron liquor', 'IRL-1', {
      place: 'Locked box',
      source: 'nails and vinegar',
      bestBefore: at(-320).slice(0, 10),
      facts: { origin: 'made', form: 'liquor', container: 'brown bottle' },
    });
    move(45, iron, 'receive', 1_800_000, 'iron liquor');
    const contents = [
      {
        materialId: materialId('Iron sulphate'),
        name: 'as iron sulphate',
        grams: Math.round(read.strength.value * 1.8 * 1000) / 1000,
      },
    ];
    liquorEntries.push({
      id: id(44),
      stockLotId: iron,
      kind: 'ladder',
      after: {
        what: 'ironLiquor',
        vessel: 'brown bottle',
        contents,
        volumeUl: 1_800_000,
        working: read.strength,
        signs: [],
        at: at(44),
      },
      note: `${read.strength.value} g/l as crystals, between ${read.lowGPerL} and ${read.highGPerL}`,
      byId: byId(),
      at: at(44),
    });
  }

  // Ribbon cut for the bookbinder's samples, and a solution for the smallest doses of iron.
  const changed = (
    days: number,
    kind: 'cut' | 'dissolve',
    material: string,
    takenMg: number,
    lossMg: number,
    note: string,
  ): { from: string; conversionId: string } | undefined => {
    const from = doc.stockLots.find(
      (s) => s.materialId === materialId(material) && s.receivedOn < at(days).slice(0, 10) && free(s.id) > takenMg * 2,
    );
    if (!from) return undefined;
    const conversionId = id(days);
    conversions.push({ id: conversionId, kind, lossMg, note, byId: byId(), at: at(days) });
    move(days, from.id, 'convert', -takenMg, kind === 'cut' ? 'cut' : 'dissolved', conversionId);
    return { from: from.tag, conversionId };
  };
  const cut = changed(4, 'cut', 'Silk ribbon', 50_000, 1_000, 'ends for the bookbinder’s sample cards');
  if (cut) {
    const ends = stockLot(4, 'Silk ribbon', 'RIB-C', {
      place: 'Drawer 3',
      source: cut.from,
      facts: { origin: 'made' },
    });
    move(4, ends, 'convert', 49_000, `cut from ${cut.from}`, cut.conversionId);
  }
  const dissolved = changed(6, 'dissolve', 'Iron sulphate', 5_000, 0, '');
  if (dissolved) {
    const solution = id(6);
    doc.materials.push({
      id: solution,
      name: 'Iron sulphate, 10 g/l',
      kind: 'modifier',
      measure: 'volume',
      hazards: ['ironSalt'],
      note: '',
      base: null,
      facts: { forms: ['liquor'] },
    });
    const bottle: Lot = {
      id: id(6),
      materialId: solution,
      tag: 'IRS-1',
      receivedOn: at(6).slice(0, 10),
      bestBefore: null,
      place: 'Locked box',
      source: dissolved.from,
      note: '',
      facts: { origin: 'made', form: 'liquor', container: 'brown bottle' },
    };
    doc.stockLots.push(bottle);
    move(6, bottle.id, 'convert', 500_000, `dissolved from ${dissolved.from}`, dissolved.conversionId);
    liquorEntries.push({
      id: id(6),
      stockLotId: bottle.id,
      kind: 'save',
      after: {
        what: 'stockSolution',
        vessel: 'brown bottle',
        contents: [{ materialId: materialId('Iron sulphate'), name: 'Iron sulphate', grams: 5 }],
        volumeUl: 500_000,
        working: stockConcentration(5, 500),
        signs: [],
        at: at(6),
      },
      note: '',
      byId: byId(),
      at: at(6),
    });
  }

  const packets = stockLot(90, 'Cloth-black packets', 'BLK-1', {
    place: 'Cabinet 2',
    source: 'order of the year',
    costMinor: 7_440,
    facts: { origin: 'receipt' },
  });
  move(90, packets, 'receive', 24, 'order of the year');
  move(50, packets, 'use', -6, 'wing curtains');
  const bleach = stockLot(120, 'Pot bleach', 'BLE-1', {
    place: 'By the sink',
    source: 'the village shop',
    costMinor: 180,
    facts: { origin: 'receipt', container: 'its own bottle' },
  });
  move(120, bleach, 'receive', 1_500_000, 'the village shop');

  for (const [material, gramsEach] of [
    ['Potassium alum', 5.1],
    ['Cream of tartar', 4.2],
    ['Iron sulphate', 5.9],
  ] as const) {
    for (let n = 0; n < 5; n += 1)
      spoonWeighings.push({
        id: id(30),
        materialId: materialId(material),
        unit: 'tsp',
        system: 'imperial',
        weightMg: Math.round((gramsEach + random.spread(0.22)) * 100) * 10,
        fromBalance: true,
        byId: byId(),
        at: at(30 - n * 0.001),
      });
  }
  doc.conversions = conversions;
  doc.liquorEntries = liquorEntries;
  doc.spoonWeighings = spoonWeighings;
}

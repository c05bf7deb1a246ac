import type { StudioFile } from '@vestigia/contract';
import { fileRunEntry } from '@vestigia/contract';
import type { KeptPlan, Lab, MadeWith, Spectrum } from '@vestigia/core';
import {
  BANDS_NM,
  WHOLE,
  completePlan,
  convertLabToXyz,
  fadedBetween,
  foldRun,
  labOfSpectrum,
  madeWith,
  nextFreeSlot,
  takenBy,
  xyzOfSpectrum,
} from '@vestigia/core';
import { encode } from 'jpeg-js';
import { IN_GOOD_LIGHT, renderPhoto } from '../../core/photo/render-photo.fixture';
import type { Random } from './random';

type Doc = StudioFile;
type Lot = Doc['lots'][number];
type Reading = Doc['readings'][number];

const DAY_MS = 86_400_000;
const D65 = { illuminant: 'D65', observer: '10' } as const;
const SPECTRAL_LOTS = 8;
const SHARED_LOTS = 4;
const SNIPPETS = 17;
const PIECES = 12;
/** What the borrowed reader reads beside the studio’s own. */
const BORROWED: Lab = { L: 0.6, a: -0.4, b: 0.9 };
const round = (value: number): number => Math.round(value * 100) / 100;

/** What was judged with more than an eye: spectra, a second reader, pieces one by one, the book, cards in the window. */
export function addJudgeHistory(
  doc: Doc,
  { random, byId, endMs }: { random: Random; byId: () => string; endMs: number },
): void {
  const passedAt = (lot: Lot): number =>
    Date.parse(doc.verdicts.find((v) => v.lotId === lot.id && v.verdict === 'pass')?.at ?? '');
  const passed = doc.lots.filter((l) => passedAt(l) < endMs - 3 * DAY_MS);
  const who = (ms: number): { at: string; byId: string } => ({ at: new Date(ms).toISOString(), byId: byId() });
  const lastDry = (lot: Lot): Reading | undefined =>
    doc.readings.filter((r) => r.lotId === lot.id && r.state !== 'wet' && !r.group).at(-1);

  const spectral = passed.slice(-SPECTRAL_LOTS);
  for (const lot of spectral)
    for (const r of doc.readings.filter((x) => x.lotId === lot.id && x.state !== 'wet')) {
      const spectrum = spectrumOf(r.lab);
      if (!spectrum) continue;
      const { L, a, b } = labOfSpectrum(spectrum, D65);
      r.lab = { L: round(L), a: round(a), b: round(b) };
      r.taken = takenBy('spectrum', { reader: 'House reader', spectrum });
    }

  const readAgain = (lot: Lot, ms: number, lab: Lab, rest: Partial<Reading>): void => {
    const { batch = 1 } = lastDry(lot) ?? {};
    const own = { L: round(lab.L), a: round(lab.a), b: round(lab.b) };
    const plain = { batch, state: 'cured' as const, note: '', replacesId: null };
    doc.readings.push({ id: random.id(ms), lotId: lot.id, ...plain, lab: own, ...D65, ...rest, ...who(ms) });
  };
  for (const lot of spectral.slice(-SHARED_LOTS)) {
    const [dry, ms] = [lastDry(lot), passedAt(lot) + DAY_MS];
    if (!dry) continue;
    const about = (by: Lab): Lab => ({
      L: dry.lab.L + by.L + random.spread(0.08),
      a: dry.lab.a + by.a + random.spread(0.08),
      b: dry.lab.b + by.b + random.spread(0.08),
    });
    const nothing = { L: 0, a: 0, b: 0 };
    readAgain(lot, ms, about(nothing), { taken: takenBy('reader', { reader: 'House reader' }) });
    readAgain(lot, ms + 60_000, about(BORROWED), { taken: takenBy('reader', { reader: 'Borrowed reader' }) });
  }

  // One lot's pieces were read one by one, to be sold in sets that match.
  const many = passed.filter((l) => l.plan.pieces >= PIECES && lastDry(l)).at(-1);
  if (many) {
    const dry = lastDry(many);
    for (let piece = 1; piece <= PIECES && dry; piece++) {
      const lab = {
        L: dry.lab.L + random.spread(1.4),
        a: dry.lab.a + random.spread(0.7),
        b: dry.lab.b + random.spread(1.2),
      };
      const taken = takenBy('reader', { reader: 'House reader' });
      readAgain(many, passedAt(many) + 2 * DAY_MS + piece * 60_000, lab, { state: 'dry', piece: String(piece), taken });
    }
  }

  const made = (lot: Lot): MadeWith => {
    const plan = completePlan(lot.plan as KeptPlan);
    const entries = doc.runEntries.filter((e) => e.lotId === lot.id);
    return madeWith(plan, foldRun(fileRunEntry.array().parse(entries), plan.steps.length), WHOLE);
  };
  const colourwayOf = (lot: Lot): string => doc.colourways.find((c) => c.id === lot.colourwayId)?.name ?? '';
  const book: NonNullable<Doc['swatches']> = [];
  for (const lot of passed.slice(-SNIPPETS)) {
    const dry = lastDry(lot);
    const ms = passedAt(lot) + 2 * 3_600_000;
    if (!dry) continue;
    const place = nextFreeSlot(book);
    const lab = { ...dry.lab, ...D65 };
    const own = { name: colourwayOf(lot), note: '', takenOutAt: null };
    book.push({ id: random.id(ms), ...place, ...own, lotId: lot.id, of: WHOLE, lab, madeWith: made(lot), ...who(ms) });
  }
  doc.swatches = book;

  addCards(doc, { random, endMs, who, made, passed, lastDry, colourwayOf });
  addPhotograph(doc, {
    random,
    who,
    lot: passed.at(-1),
    lab: passed.at(-1) && lastDry(passed.at(-1) as Lot)?.lab,
    ms: endMs - DAY_MS,
  });
}

interface Cards {
  readonly random: Random;
  readonly endMs: number;
  readonly who: (ms: number) => { at: string; byId: string };
  readonly made: (lot: Lot) => MadeWith;
  readonly passed: readonly Lot[];
  readonly lastDry: (lot: Lot) => Reading | undefined;
  readonly colourwayOf: (lot: Lot) => string;
}

/** Cards half-way: two in a window, one on the shelf, and scraps that were washed. One of each wants to be read. */
function addCards(doc: Doc, { random, endMs, who, made, passed, lastDry, colourwayOf }: Cards): void {
  const tests: NonNullable<Doc['fastnessTests']> = [];
  const readings: NonNullable<Doc['fastnessReadings']> = [];
  const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
  const kinds = new Map<string, Lot>();
  for (const lot of passed) {
    const dye = made(lot).dyestuffs[0];
    if (dye !== undefined && lastDry(lot)) kinds.set(dye, lot);
  }
  [...kinds.values()].slice(0, 4).forEach((lot, i) => {
    const [lab, startMs, id] = [
      lastDry(lot)?.lab,
      endMs - (60 + i * 3) * DAY_MS,
      random.id(endMs - (60 + i * 3) * DAY_MS),
    ];
    if (!lab) return;
    const of = {
      name: `${colourwayOf(lot)}, ${i === 2 ? 'open shelf' : 'south window'}`,
      lotId: lot.id,
      note: '',
      cloths: [],
    };
    const place = i === 2 ? ('openShelf' as const) : ('window' as const);
    tests.push({ id, kind: 'light', place, ...of, startedOn: dayOf(startMs), madeWith: made(lot), ...who(startMs) });
    const most = 5 + i * 3;
    for (const days of [3, 7, 14, 28, ...(i === 0 ? [] : [56])]) {
      const share = (most * (1 - Math.exp(-days / 45)) * (i === 2 ? 0.2 : 1)) / 40;
      const after = {
        L: round(lab.L + share * 18 + random.spread(0.1)),
        a: round(lab.a),
        b: round(lab.b * (1 - share)),
      };
      const ms = startMs + days * DAY_MS;
      const plain = { cloth: null, typedGrade: null, note: '', replacesId: null };
      const note = fadedBetween(lab, after) > 3 ? 'the line shows across the room' : '';
      readings.push({
        id: random.id(ms),
        testId: id,
        ...plain,
        note,
        onDate: dayOf(ms),
        before: lab,
        after,
        ...who(ms),
      });
    }
  });
  [...kinds.values()].slice(0, 3).forEach((lot, i) => {
    const startMs = endMs - (i === 2 ? 4 : 40) * DAY_MS;
    const id = random.id(startMs);
    const of = { name: `${colourwayOf(lot)}, first wash`, lotId: lot.id, note: '', cloths: ['wool', 'cotton'] };
    tests.push({
      id,
      kind: 'wash',
      place: null,
      ...of,
      startedOn: dayOf(startMs),
      madeWith: made(lot),
      ...who(startMs),
    });
    if (i === 2) return;
    const ms = startMs + 2 * DAY_MS;
    for (const [cloth, typedGrade] of [
      [null, 4.5],
      ['wool', i === 0 ? 4 : 2.5],
      ['cotton', 4.5],
    ] as const)
      readings.push({
        id: random.id(ms),
        testId: id,
        cloth,
        onDate: dayOf(ms),
        before: null,
        after: null,
        typedGrade,
        note: '',
        replacesId: null,
        ...who(ms),
      });
  });
  doc.fastnessTests = tests;
  doc.fastnessReadings = readings;
}

/** A row of hanks beside a grey card, as a telephone took it: the picture is with what an eye said of the lot. */
function addPhotograph(
  doc: Doc,
  {
    random,
    who,
    lot,
    lab,
    ms,
  }: { random: Random; who: Cards['who']; lot: Lot | undefined; lab: Lab | undefined; ms: number },
): void {
  if (!lot || !lab) return;
  const size = { width: 720, height: 480 };
  const grey = { rect: { x: 40, y: 40, width: 150, height: 110 }, lab: { L: 62, a: 0, b: 0 } };
  const hanks = [0, 1, 2, 3].map((i) => ({
    rect: { x: 40 + i * 165, y: 200, width: 140, height: 230 },
    lab: { L: lab.L + i * 0.6 - 1, a: lab.a, b: lab.b - i * 0.4 },
  }));
  const light = { ...IN_GOOD_LIGHT, kelvin: 5600, stops: -0.2, falloff: 0.06, noise: 1.5 };
  const { data } = renderPhoto(size, [grey, ...hanks], light, 11);
  const jpeg = encode({ ...size, data: Buffer.from(data) }, 82);
  const eyeId = random.id(ms);
  const seen = {
    against: 'master',
    depth: 0,
    hue: null,
    clarity: 0,
    evenness: 'even',
    where: '',
    light: 'daylight',
  } as const;
  const plain = { batch: 1, state: 'cured' as const, note: 'with the grey card beside', replacesId: null };
  doc.eyeReadings = [...(doc.eyeReadings ?? []), { id: eyeId, lotId: lot.id, ...plain, seen, ...who(ms) }];
  doc.attachments = [
    ...(doc.attachments ?? []),
    {
      id: random.id(ms + 1000),
      materialId: null,
      stockLotId: null,
      eyeReadingId: eyeId,
      kind: 'photo',
      name: 'row-of-hanks.jpg',
      type: 'image/jpeg',
      base64: Buffer.from(jpeg.data).toString('base64'),
      ...who(ms + 1000),
    },
  ];
}

/** Three wide bands that add up to white: short, middle and long waves. */
const BANDS: readonly Spectrum[] = (() => {
  const rise = (nm: number, at: number): number => 1 / (1 + Math.exp(-(nm - at) / 22));
  const [mid, long] = [BANDS_NM.map((nm) => rise(nm, 490)), BANDS_NM.map((nm) => rise(nm, 575))];
  return [mid.map((v) => 1 - v), mid.map((v, i) => v - (long[i] ?? 0)), long];
})();

/** A smooth spectrum of this colour under D65 and 10°; `undefined` where three bands can’t give it. */
function spectrumOf(lab: Lab): Spectrum | undefined {
  const want = convertLabToXyz(lab, D65);
  const [s, m, l] = BANDS.map((band) => xyzOfSpectrum(band, D65));
  if (!s || !m || !l) return undefined;
  const det = (a: readonly number[], b: readonly number[], c: readonly number[]): number =>
    (a[0] ?? 0) * ((b[1] ?? 0) * (c[2] ?? 0) - (b[2] ?? 0) * (c[1] ?? 0)) -
    (b[0] ?? 0) * ((a[1] ?? 0) * (c[2] ?? 0) - (a[2] ?? 0) * (c[1] ?? 0)) +
    (c[0] ?? 0) * ((a[1] ?? 0) * (b[2] ?? 0) - (a[2] ?? 0) * (b[1] ?? 0));
  const whole = det(s, m, l);
  const shares = [det(want, m, l) / whole, det(s, want, l) / whole, det(s, m, want) / whole];
  if (shares.some((share) => share < 0.015 || share > 0.97)) return undefined;
  return BANDS_NM.map((_, i) => {
    const r = BANDS.reduce((sum, band, j) => sum + (band[i] ?? 0) * (shares[j] ?? 0), 0);
    return Math.round(r * 1e5) / 1e5;
  });
}

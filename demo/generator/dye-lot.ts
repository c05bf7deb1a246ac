import { recipeBody } from '@vestigia/contract';
import type { LotPlan, PlanBase, VesselMetal, WaterFacts } from '@vestigia/core';
import {
  compareThenAndNow,
  convertGramsToMilligrams,
  planLot,
  readLotSize,
  roundToResolution,
  sayPlanRefusal,
} from '@vestigia/core';
import type { ColourwaySeed } from './saltgrass-colourways';
import { SETTINGS } from './saltgrass';
import { COLOURWAYS } from './saltgrass-colourways';
import type { Doc, DocLot, Circumstances, Dyehouse } from './dyehouse';
import { HOUR_MS, LARGE_LOT, SPOILED_LOT, iso } from './dyehouse';
import { countOneStockLot, releaseLeftOver, reservation, reservedFor } from './lot-stock';
import { read, judge, conditions } from './lot-colour';

export function dyeLot(house: Dyehouse, n: number, startMs: number, unjudged: boolean): void {
  const seed = COLOURWAYS[(n * 7 + Math.floor(n / COLOURWAYS.length)) % COLOURWAYS.length] as ColourwaySeed;
  const colourway = house.doc.colourways.find((c) => c.name === seed.name);
  const version = house.doc.recipeVersions.find((v) => v.id === colourway?.recipeVersionId);
  const base = house.doc.materials.find((m) => m.id === colourway?.baseMaterialId);
  if (!colourway || !version || !base?.base) throw new Error(`${seed.name} is not furnished`);
  const earlier = house.released.get(colourway.id)?.at(-1);
  const spoiled = n === SPOILED_LOT;
  const reorderOf = earlier && house.random.next() < 0.6 && !spoiled ? earlier : undefined;
  const quantityText =
    n === LARGE_LOT
      ? '20 hanks of 200 g'
      : spoiled
        ? '5 x 200 g'
        : reorderOf
          ? reorderOf.lot.quantityText
          : house.random.pick(seed.sizes);
  const size = readLotSize(quantityText, base.base);
  if (!size.ok) throw new Error(size.message);
  const vessels = house.doc.vessels.filter((v) => (spoiled ? v.name === 'Dented pot' : v.name !== 'Dented pot'));
  const planned = planFor(house, {
    version,
    recipeName: seed.recipe,
    startMs,
    bases: [{ base, ...size.size }],
    vessels,
    ...(spoiled ? { allowedMetals: ['aluminium' as const] } : {}),
  });
  // A lot that doesn't fit or is short was not dyed that week.
  if (!planned.ok || planned.plan.materials.some((m) => m.short > 0)) return;
  const water = house.doc.waters[house.random.next() < 0.78 ? 0 : 1] as Doc['waters'][number];
  const lot = agree(house, planned.plan, {
    colourway,
    startMs,
    quantityText,
    water,
    reorderOf: reorderOf?.lot,
    recipeVersionId: version.id,
    baseId: base.id,
    fills: planned.fills,
  });
  work(house, lot, seed, startMs + 40 * 60_000, { spoiled, unjudged, water: water.name, undyed: base.base.undyed });
}

type DocMaterial = Doc['materials'][number];

/** What a lot of the story is planned with: pieces of one base or several, a version, the vessels there were. */
export interface Wanted {
  readonly version: Doc['recipeVersions'][number];
  readonly recipeName: string;
  readonly startMs: number;
  readonly bases: readonly {
    readonly base: DocMaterial;
    readonly pieces: number;
    readonly pieceWeightG: number;
    /** The only jar it is taken from, where it is of one. */
    readonly stockLotId?: string;
  }[];
  readonly vessels: Doc['vessels'];
  readonly allowedMetals?: readonly VesselMetal[];
  /** Where a dose goes by the water’s pH. */
  readonly water?: Partial<WaterFacts> & Omit<WaterFacts, 'ironMgPerL'>;
}

/** Plans a lot with the product’s own arithmetic; the weaver’s large orders go through the same pots twice. */
export function planFor(
  house: Dyehouse,
  { version, recipeName, startMs, bases, vessels, allowedMetals, water = undefined }: Wanted,
):
  { readonly ok: true; readonly plan: LotPlan; readonly fills: number } | { readonly ok: false; readonly why: string } {
  const planBases = bases.map(({ base, pieces, pieceWeightG, stockLotId }): PlanBase => {
    if (!base.base) throw new Error(`${base.name} is no fibre`);
    const known = house.forPlan(base.id);
    return {
      ...known,
      stock: known.stock.filter((s) => stockLotId === undefined || s.stockLotId === stockLotId),
      fibre: base.base.fibre,
      pieceWord: base.base.pieceWord,
      pieces,
      pieceWeightG,
    };
  });
  const fill = (fills: number) =>
    planLot({
      fills,
      today: iso(startMs).slice(0, 10),
      water: water ? { ...water, ironMgPerL: water.ironMgPerL ?? null } : null,
      room: SETTINGS,
      recipe: {
        id: version.id,
        recipeName,
        number: version.number,
        ...recipeBody.parse(version.body),
        ...(allowedMetals ? { allowedMetals } : {}),
      },
      bases: planBases as [PlanBase, ...PlanBase[]],
      materials: house.doc.materials.filter((m) => m.kind !== 'fibre').map((m) => house.forPlan(m.id)),
      vessels: vessels.map((v) => ({
        ...v,
        heatSource: house.doc.heatSources?.find((h) => h.id === v.heatSourceId) ?? null,
      })),
      balance: {
        name: SETTINGS.balanceName,
        resolutionG: SETTINGS.balanceResolutionG,
        capacityG: SETTINGS.balanceCapacityG,
      },
    });
  const once = fill(1);
  const fills = !once.ok && once.refusal.code === 'lotTooBig' ? 2 : 1;
  const planned = fills === 2 ? fill(2) : once;
  return planned.ok ? { ok: true, plan: planned.plan, fills } : { ok: false, why: sayPlanRefusal(planned.refusal) };
}

export function agree(
  house: Dyehouse,
  plan: LotPlan,
  of: {
    colourway: Doc['colourways'][number];
    startMs: number;
    quantityText: string;
    water: Doc['waters'][number];
    reorderOf: DocLot | undefined;
    recipeVersionId: string;
    baseId: string;
    fills: number;
    also?: readonly { baseId: string; quantityText: string }[];
  },
): DocLot {
  const { note: _note, ...water } = of.water;
  const lot: DocLot = {
    id: house.random.id(of.startMs),
    number: house.doc.lots.length + 1,
    colourwayId: of.colourway.id,
    recipeVersionId: of.recipeVersionId,
    baseMaterialId: of.baseId,
    waterId: water.id,
    water,
    reorderOfId: of.reorderOf?.id ?? null,
    quantityText: of.quantityText,
    plan: plan as DocLot['plan'],
    factors: [],
    note: '',
    extras: { ...extrasOf(house.doc.lots.length + 1, of.fills), also: [...(of.also ?? [])] },
    byId: house.personId(),
    at: iso(of.startMs),
  };
  if (of.reorderOf) lot.factors = compareThenAndNow(conditions(house, of.reorderOf), conditions(house, lot));
  house.doc.lots.push(lot);
  for (const pick of plan.materials.flatMap((m) => m.picks))
    reservation(house, lot, pick.stockLotId, pick.amount, of.startMs);
  return lot;
}

/** Dyes what can be dyed until the story ends: whatever lies after that is left open. */
export function work(house: Dyehouse, lot: DocLot, seed: ColourwaySeed, startMs: number, how: Circumstances): void {
  let atMs = startMs;
  const enter = (
    stepIndex: number,
    kind: Doc['runEntries'][number]['kind'],
    ms: number,
    rest: Partial<Doc['runEntries'][number]> = {},
  ): string | undefined => {
    if (ms > house.endMs) return undefined;
    const id = house.random.id(ms);
    house.doc.runEntries.push({
      id,
      lotId: lot.id,
      stepIndex,
      kind,
      at: iso(ms),
      recordedAt: iso(ms + 5000),
      replacesId: null,
      temperatureC: null,
      text: null,
      weighing: null,
      detail: null,
      byId: house.personId(),
      ...rest,
    } as Doc['runEntries'][number]);
    return id;
  };
  for (const step of lot.plan.steps) {
    if (step.kind === 'wash') read(house, lot, seed, 'cured', atMs, how);
    if (skipped(lot, step)) {
      enter(step.index, 'skip', atMs, { text: 'wanted for Friday: cured at the weaver’s' });
      continue;
    }
    atMs = house.workingTime(atMs, step.temperatureC !== undefined && !step.attended ? step.durationMin : 20);
    if (enter(step.index, 'start', atMs) === undefined) return;
    let weighMs = atMs;
    // Pieces that came heavier were weighed as they are, and what follows is rescaled to them.
    const heavier = how.heavier ?? 1;
    for (const weighing of step.weighings) {
      for (const pick of weighing.picks) {
        weighMs += 90_000;
        if (pick.stockLotId !== null)
          weigh(
            house,
            lot,
            step.index,
            weighing.batch,
            weighing.materialId,
            pick.stockLotId,
            Math.round(pick.amount * heavier),
            weighMs,
            enter,
          );
      }
    }
    if (heavier !== 1 && step.kind === 'fibre')
      enter(step.index, 'rescale', weighMs + 30_000, {
        text: `the pieces weigh ${Math.round((heavier - 1) * 100)} % more than was written`,
        detail: { rescale: rescaled(lot, heavier) },
      });
    const heatingMin = heatingMinutes(step);
    if (step.temperatureC !== undefined) {
      const slip = house.random.next() < 0.04 ? 9 : 0;
      const readMin = Math.max(heatingMin, Math.min(25, step.durationMin / 2));
      enter(step.index, 'temperature', weighMs + readMin * 60_000, {
        temperatureC: Math.round(step.temperatureC + house.random.spread(1.2) + slip),
      });
    }
    if (how.spoiled && step.kind === 'dye')
      enter(step.index, 'note', weighMs + 30 * 60_000, {
        text: 'Going dull and greenish. Is it this pot? Nobody remembers what it held.',
      });
    const minutes = step.attended
      ? step.durationMin * house.random.between(0.8, 1.3)
      : step.durationMin * house.random.between(0.98, 1.1) + 2 + Math.max(0, heatingMin - raiseMinutes(step));
    const finishedMs = house.waking(Math.max(weighMs, atMs) + minutes * 60_000, step.durationMin > 180);
    if (enter(step.index, 'finish', finishedMs) === undefined) return;
    const overMs = rinsedAgain(lot, step) ? doOver(step, finishedMs, enter) : finishedMs;
    if (overMs === undefined) return;
    releaseLeftOver(house, lot, step.index, overMs);
    if (step.kind === 'rinse') read(house, lot, seed, 'wet', overMs + 60_000, how);
    if (step.kind === 'dry') read(house, lot, seed, 'dry', overMs + 60_000, how);
    atMs = overMs + 15 * 60_000;
  }
  if (!how.unjudged) judge(house, lot, seed, atMs + 2 * HOUR_MS, how);
}

/** What was seen at intake, and how often each pot was filled. */
const extrasOf = (number: number, fills: number): NonNullable<DocLot['extras']> => ({
  also: [],
  intake: { flags: number % 11 === 3 ? ['unevenWeights'] : [], syntheticPercent: null },
  doses: [],
  schools: [],
  ...(fills > 1 ? { fills } : {}),
});

/** Every weighing but the fibre’s own, by so many times as much. */
const rescaled = (lot: DocLot, factor: number) =>
  lot.plan.steps
    .filter((s) => s.kind !== 'fibre')
    .flatMap((s) => s.weighings.map(({ batch, materialId }) => ({ stepIndex: s.index, batch, materialId, factor })));

/** One lot in twenty still bled, and was rinsed again. */
const rinsedAgain = (lot: DocLot, step: DocLot['plan']['steps'][number]): boolean =>
  step.kind === 'rinse' && step.weighings.length === 0 && lot.number % 20 === 9;

/** Does a step over: when it is over the second time; nothing where the story ends before. */
function doOver(
  step: DocLot['plan']['steps'][number],
  atMs: number,
  enter: (stepIndex: number, kind: 'redo' | 'start' | 'finish', ms: number, rest?: object) => string | undefined,
): number | undefined {
  const againMs = atMs + (10 + step.durationMin) * 60_000;
  const entered = [
    enter(step.index, 'redo', atMs + 5 * 60_000, { text: 'the water still ran yellow' }),
    enter(step.index, 'start', atMs + 8 * 60_000),
    enter(step.index, 'finish', againMs),
  ];
  return entered.includes(undefined) ? undefined : againMs;
}

/** One lot in fifteen was wanted before it could cure. */
const skipped = (lot: DocLot, step: DocLot['plan']['steps'][number]): boolean =>
  step.kind === 'cure' && lot.number % 15 === 6;

/** Minutes the slowest of its pots needs to come to its temperature, by the plan; nothing where none is heated. */
const heatingMinutes = (step: DocLot['plan']['steps'][number]): number =>
  Math.max(0, ...(step.baths ?? []).map((b) => (b.heating?.ok ? b.heating.minutes.value : 0)));

/** Minutes the recipe gives to heating. */
const raiseMinutes = (step: DocLot['plan']['steps'][number]): number =>
  (step.course ?? []).filter((leg) => leg.do === 'raise').reduce((sum, leg) => sum + leg.minutes, 0);

export function weigh(
  house: Dyehouse,
  lot: DocLot,
  stepIndex: number,
  batch: number,
  materialId: string,
  stockLotId: string,
  amountMg: number,
  atMs: number,
  enter: (stepIndex: number, kind: 'weigh', ms: number, rest: object) => string | undefined,
): void {
  const stockLot = house.stockLot(stockLotId);
  // Dust and drips: a hair off, now and then clearly over.
  const off = house.random.next() < 0.03 ? 1.06 : 1 + house.random.spread(0.002);
  const wantedMg = convertGramsToMilligrams(roundToResolution((amountMg / 1000) * off, SETTINGS.balanceResolutionG));
  const spare = stockLot.onHand - stockLot.reserved;
  const takenMg = Math.max(100, Math.min(wantedMg, amountMg + Math.max(0, spare), stockLot.onHand));
  const contents = house.contentsOf(stockLotId, takenMg);
  const runEntryId = enter(stepIndex, 'weigh', atMs, {
    weighing: { batch, materialId, stockLotId: stockLotId, amount: takenMg },
    ...(contents ? { detail: { contents } } : {}),
  });
  if (runEntryId === undefined) return;
  house.doc.movements.push({
    id: house.random.id(atMs),
    stockLotId: stockLotId,
    kind: 'use',
    amount: -takenMg,
    lotId: lot.id,
    runEntryId,
    reversesId: null,
    note: '',
    byId: house.personId(),
    at: iso(atMs),
  });
  stockLot.onHand -= takenMg;
  stockLot.weighings += 1;
  reservation(house, lot, stockLotId, -Math.min(takenMg, reservedFor(house, lot, stockLotId)), atMs);
  if (stockLot.weighings % house.sim.countEvery === 0) countOneStockLot(house, stockLot, atMs + 60_000);
}

import { recipeBody } from '@vestigia/contract';
import type { LotPlan } from '@vestigia/core';
import { compareThenAndNow, convertGramsToMilligrams, planLot, readLotSize, roundToResolution } from '@vestigia/core';
import type { ColourwaySeed } from './saltgrass-colourways';
import { SETTINGS } from './saltgrass';
import { COLOURWAYS } from './saltgrass-colourways';
import type { Doc, DocLot, Circumstances, Dyehouse } from './dyehouse';
import { HOUR_MS, SPOILED_LOT, iso } from './dyehouse';
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
  const quantityText = spoiled ? '5 x 200 g' : reorderOf ? reorderOf.lot.quantityText : house.random.pick(seed.sizes);
  const size = readLotSize(quantityText, base.base);
  if (!size.ok) throw new Error(size.message);
  const vessels = house.doc.vessels.filter((v) => (spoiled ? v.name === 'Dented pot' : v.name !== 'Dented pot'));
  const planned = planLot({
    today: iso(startMs).slice(0, 10),
    water: null,
    room: SETTINGS,
    recipe: {
      id: version.id,
      recipeName: seed.recipe,
      number: version.number,
      ...recipeBody.parse(version.body),
      ...(spoiled ? { allowedMetals: ['aluminium' as const] } : {}),
    },
    bases: [{ ...house.forPlan(base.id), fibre: base.base.fibre, pieceWord: base.base.pieceWord, ...size.size }],
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
  });
  work(house, lot, seed, startMs + 40 * 60_000, { spoiled, unjudged, water: water.name, undyed: base.base.undyed });
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
    atMs = house.workingTime(atMs, step.temperatureC !== undefined && !step.attended ? step.durationMin : 20);
    if (enter(step.index, 'start', atMs) === undefined) return;
    let weighMs = atMs;
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
            pick.amount,
            weighMs,
            enter,
          );
      }
    }
    if (step.temperatureC !== undefined) {
      const slip = house.random.next() < 0.04 ? 9 : 0;
      enter(step.index, 'temperature', weighMs + Math.min(25, step.durationMin / 2) * 60_000, {
        temperatureC: Math.round(step.temperatureC + house.random.spread(1.2) + slip),
      });
    }
    if (how.spoiled && step.kind === 'dye')
      enter(step.index, 'note', weighMs + 30 * 60_000, {
        text: 'Going dull and greenish. Is it this pot? Nobody remembers what it held.',
      });
    const minutes = step.attended
      ? step.durationMin * house.random.between(0.8, 1.3)
      : step.durationMin * house.random.between(0.98, 1.1) + 2;
    const finishedMs = house.waking(Math.max(weighMs, atMs) + minutes * 60_000, step.durationMin > 180);
    if (enter(step.index, 'finish', finishedMs) === undefined) return;
    releaseLeftOver(house, lot, step.index, finishedMs);
    if (step.kind === 'rinse') read(house, lot, seed, 'wet', finishedMs + 60_000, how);
    if (step.kind === 'dry') read(house, lot, seed, 'dry', finishedMs + 60_000, how);
    atMs = finishedMs + 15 * 60_000;
  }
  if (!how.unjudged) judge(house, lot, seed, atMs + 2 * HOUR_MS, how);
}

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
  const runEntryId = enter(stepIndex, 'weigh', atMs, {
    weighing: { batch, materialId, stockLotId: stockLotId, amount: takenMg },
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

import type { KeptPlan, Lab, compareThenAndNow } from '@vestigia/core';
import { checkVerdict, ciede2000, completePlan, lotColour, unitsOf } from '@vestigia/core';
import { Random } from './random';
import type { ColourwaySeed } from './saltgrass-colourways';
import type { DocLot, Circumstances, Dyehouse } from './dyehouse';
import { iso } from './dyehouse';

/** The colour that came out: strength and dose against what is wanted, then water, pot and chance. */
export function shadeOf(house: Dyehouse, lot: DocLot, seed: ColourwaySeed, batch: number, how: Circumstances): Lab {
  const dyeId = house.materialId(seed.dyestuff);
  // What is weighed once for several batches is named by the first of them.
  const weighings = lot.plan.steps
    .flatMap((s) => s.weighings)
    .filter((w) => w.materialId === dyeId && (w.forBatches ?? [w.batch]).includes(batch));
  const wanted = weighings.reduce((sum, w) => sum + w.target.value, 0);
  const named = weighings.map((w) => w.batch);
  const given = house.doc.runEntries
    .filter((e) => e.lotId === lot.id && e.weighing?.materialId === dyeId && named.includes(e.weighing.batch))
    .reduce(
      (sum, e) => sum + ((e.weighing?.amount ?? 0) / 1000) * house.stockLot(e.weighing?.stockLotId ?? '').strength,
      0,
    );
  const depth = (1 - Math.exp((-1.6 * given) / wanted)) / (1 - Math.exp(-1.6));
  const mix = (from: number, to: number): number => from + (to - from) * depth;
  const rain = how.water === 'Rain barrel' ? 1 : 0;
  const { L, a, b } = {
    L: mix(how.undyed.L, seed.shade.L),
    a: mix(how.undyed.a, seed.shade.a),
    b: mix(how.undyed.b, seed.shade.b),
  };
  const dull = how.spoiled ? 0.8 : 1;
  return {
    L: L + rain * 0.9 - (how.spoiled ? 6 : 0) + chance(house, lot, batch, 0),
    a: a * dull + rain * 0.3 + chance(house, lot, batch, 1),
    b: b * dull - rain * 0.8 + chance(house, lot, batch, 2),
  };
}

/** A batch's own luck: the same each time it is read. */
export function chance(house: Dyehouse, lot: DocLot, batch: number, axis: number): number {
  return new Random(house.sim.seed + lot.number * 97 + batch * 13 + axis).spread(0.35);
}

export function read(
  house: Dyehouse,
  lot: DocLot,
  seed: ColourwaySeed,
  state: 'wet' | 'dry' | 'cured',
  atMs: number,
  how: Circumstances,
): void {
  if (atMs > house.endMs) return;
  for (const { number } of lot.plan.batches) {
    const ms = atMs + number * 60_000;
    const dry = shadeOf(house, lot, seed, number, how);
    const noisy = (value: number): number => Math.round((value + house.random.spread(0.12)) * 100) / 100;
    // The rug's paler sister was laid beside the cloth before it went to the reader.
    if (state === 'dry' && seed.name === 'Ebb') lookAt(house, lot, number, ms - 30_000);
    for (const { group, shade } of shadesIn(house, lot, seed, number)) {
      const own = { L: dry.L + shade.L, a: dry.a + shade.a, b: dry.b + shade.b };
      const seen = state === 'wet' ? { L: own.L * 0.86, a: own.a * 1.14, b: own.b * 1.12 } : own;
      house.doc.readings.push({
        id: house.random.id(ms),
        lotId: lot.id,
        batch: number,
        ...(group === null ? {} : { group }),
        state,
        lab: { L: noisy(seen.L), a: noisy(seen.a), b: noisy(seen.b) },
        illuminant: 'D65',
        observer: '10',
        note: '',
        replacesId: null,
        byId: house.personId(),
        at: iso(ms),
      });
    }
  }
}

/** Iron after takes this much of a gold. */
const SADDENED: Lab = { L: -19, a: 1.5, b: -24 };
const AS_IT_IS: Lab = { L: 0, a: 0, b: 0 };

/** The shades of a batch, each by how far it lies from the one the lot is named for. */
function shadesIn(
  house: Dyehouse,
  lot: DocLot,
  seed: ColourwaySeed,
  batch: number,
): { readonly group: string | null; readonly shade: Lab }[] {
  const groups = lot.plan.groups ?? [];
  if (groups.length <= 1) return [{ group: null, shade: AS_IT_IS }];
  const body = house.doc.recipeVersions.find((v) => v.id === lot.recipeVersionId)?.body;
  const here = lot.plan.batches.find((b) => b.number === batch)?.groups ?? [];
  return groups
    .filter((g) => here.some((h) => h.key === g.key))
    .map(({ key, baseId, part }) => {
      const own = body?.expectedShades?.find((e) => e.baseMaterialId === baseId) ?? seed.shade;
      const iron = part === groups[0]?.part ? AS_IT_IS : SADDENED;
      const { shade } = seed;
      return {
        group: key,
        shade: { L: own.L - shade.L + iron.L, a: own.a - shade.a + iron.a, b: own.b - shade.b + iron.b },
      };
    });
}

const WHOLE = { group: null, zone: null, piece: null, dip: null };

function lookAt(house: Dyehouse, lot: DocLot, batch: number, atMs: number): void {
  (house.doc.eyeReadings ??= []).push({
    id: house.random.id(atMs),
    lotId: lot.id,
    batch,
    state: 'dry',
    seen: {
      against: 'master',
      depth: 0,
      hue: 'yellower',
      clarity: 0,
      evenness: 'even',
      where: '',
      light: 'daylight',
    },
    note: '',
    replacesId: null,
    byId: house.personId(),
    at: iso(atMs),
  });
}

/** Of the tolerance, what makes a careful judge look twice. */
const NEAR_THE_LIMIT = 0.7;

/** Whether a reading is of the shade a lot is named for. */
const isMain = (lot: DocLot, group: string | null | undefined): boolean =>
  (group ?? null) === null || group === lot.plan.groups?.[0]?.key;

export function judge(house: Dyehouse, lot: DocLot, seed: ColourwaySeed, atMs: number, how: Circumstances): void {
  if (atMs > house.endMs) return;
  const readings = house.doc.readings.filter((r) => r.lotId === lot.id);
  const last = lot.plan.batches.flatMap((b) =>
    readings.filter((r) => r.batch === b.number && r.state !== 'wet' && isMain(lot, r.group)).slice(-1),
  );
  const colour = lotColour(
    seed.shade,
    last.map((r) => ({ ...WHOLE, ...r })),
  );
  const first = house.released.get(lot.colourwayId)?.[0];
  const within = colour.worstDeltaE <= seed.toleranceDeltaE;
  const near = colour.worstDeltaE <= seed.toleranceDeltaE * 1.5;
  const verdict = within || near ? ('pass' as const) : ('refuse' as const);
  const reason = within
    ? ''
    : near
      ? 'A shade off, but its own set: not to be mixed with older lots.'
      : how.spoiled
        ? 'Dull and greyed. The dented pot met iron once; not to be used for yellows.'
        : 'Too far from the master to sell under house name.';
  const refused = checkVerdict({
    verdict,
    reason,
    standardOf: ({ group }) => (isMain(lot, group) ? { ...seed.shade, illuminant: 'D65', observer: '10' } : null),
    toleranceDeltaE: seed.toleranceDeltaE,
    units: unitsOf(completePlan(lot.plan as KeptPlan)),
    readings: readings.map((r) => ({ ...WHOLE, ...r })),
    eyes: [],
    rule: 'reading',
    openSteps: 0,
  });
  if (refused) throw new Error(`lot ${lot.number}: ${refused.message}`);
  const toFirst =
    lot.reorderOfId !== null && first ? ciede2000(first.lab, colour.lab, { kL: 1, kC: 1, kH: 1 }).deltaE : null;
  // What is a shade off is held first, and looked at again beside the older lots.
  const heldMs = atMs - 30 * 60_000;
  const said = { toMaster: colour.worstDeltaE, toFirst, betweenBatches: colour.betweenBatchesDeltaE };
  if (verdict === 'pass' && colour.worstDeltaE > seed.toleranceDeltaE * NEAR_THE_LIMIT)
    house.doc.verdicts.push({
      id: house.random.id(heldMs),
      lotId: lot.id,
      verdict: 'hold',
      reason: 'A shade off: laid beside the older lots by daylight first.',
      ...said,
      byId: house.personId(),
      at: iso(heldMs),
    });
  house.doc.verdicts.push({
    id: house.random.id(atMs),
    lotId: lot.id,
    verdict,
    reason,
    ...said,
    byId: house.personId(),
    at: iso(atMs),
  });
  if (verdict === 'pass')
    house.released.set(lot.colourwayId, [...(house.released.get(lot.colourwayId) ?? []), { lot, lab: colour.lab }]);
}

export function conditions(house: Dyehouse, lot: DocLot): Parameters<typeof compareThenAndNow>[0] {
  const version = house.doc.recipeVersions.find((v) => v.id === lot.recipeVersionId);
  const recipe = house.doc.recipes.find((r) => r.id === version?.recipeId);
  const sources = (m: DocLot['plan']['materials'][number]) =>
    m.picks.flatMap((p) =>
      p.stockLotId === null
        ? []
        : [{ stockLotId: p.stockLotId, tag: house.doc.stockLots.find((s) => s.id === p.stockLotId)?.tag ?? '' }],
    );
  const isBase = (m: DocLot['plan']['materials'][number]): boolean => m.materialId === lot.baseMaterialId;
  return {
    recipe: { id: lot.recipeVersionId, name: `${recipe?.name ?? ''}, version ${version?.number ?? 1}` },
    water: lot.water ?? null,
    liquorRatio: lot.plan.liquorRatio,
    base: lot.plan.materials.filter(isBase).flatMap(sources),
    materials: lot.plan.materials
      .filter((m) => !isBase(m))
      .map((m) => ({
        materialId: m.materialId,
        name: m.name,
        measure: m.measure ?? 'weight',
        percentOwf: (m.total.value / lot.plan.wof.value) * 100,
        sources: sources(m),
      })),
    vessels: lot.plan.batches.map((b) => ({ id: b.vesselId, name: b.vesselName, metal: b.metal })),
  };
}

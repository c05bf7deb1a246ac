import type { DryForecastView, ReaderView, RepeatabilityView } from '@vestigia/contract';
import type { ReaderReading, WetDryPair } from '@vestigia/core';
import {
  DRIFT_CHANNELS,
  DRIFT_RULE_LABELS,
  LEAST_WET_DRY_PAIRS,
  chartRepeatability,
  compareReaders,
  completePlan,
  forecastDry,
  isSettled,
  shadeKey,
} from '@vestigia/core';
import { and, asc, eq, isNotNull, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, people, readings } from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { notFound } from '../shared/problem';
import type { Veil } from '../studio/veil';

/** The lots of a colourway over time against its master; none while it waits for one. */
export async function readRepeatability(
  db: Db,
  colourwayId: string,
  veil: Veil | undefined,
): Promise<RepeatabilityView> {
  const [colourway] = await db.select().from(colourways).where(eq(colourways.id, colourwayId));
  if (!colourway) throw notFound('colourway');
  const { master } = colourway;
  const rows = await db
    .select({ lot: lots, result: lotProgress.result, state: lotProgress.state, by: people.name })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(people, eq(people.id, lots.byId))
    .where(and(eq(lots.colourwayId, colourwayId), isNotNull(lotProgress.result)))
    .orderBy(asc(lots.at), asc(lots.number));
  const alike = rows.flatMap((r) =>
    r.result && master && r.result.illuminant === master.illuminant && r.result.observer === master.observer
      ? [{ ...r, result: r.result }]
      : [],
  );
  if (!master || alike.length === 0) return { points: [], limits: null, commonFactors: [] };
  const { points, limits, commonFactors } = chartRepeatability(
    master,
    alike.map(({ lot, result, by }) => ({
      id: lot.id,
      lab: result,
      factors: veil?.lotIds.has(lot.id) ? {} : factorsOf(lot, by),
    })),
  );
  return {
    points: points.map(({ id, deltaE, parts, signals }, i) => {
      const row = alike[i];
      return {
        id,
        tag: lotTag(row?.lot.number ?? 0),
        at: new Date(row?.lot.at ?? 0).toISOString(),
        lab: row?.result ?? master,
        deltaE,
        ...parts,
        signals: signals.map((s) => `${s.channel}: ${DRIFT_RULE_LABELS[s.rule]}`),
      };
    }),
    limits: limits && DRIFT_CHANNELS.map((channel) => ({ channel, ...limits[channel] })),
    commonFactors: [...commonFactors],
  };
}

function factorsOf(lot: typeof lots.$inferSelect, by: string): Record<string, string> {
  const plan = completePlan(lot.plan);
  const jars = plan.materials
    .filter((m) => m.kind === 'dyestuff')
    .map((m) => [$localize`jar of ${m.name}`, m.picks.map((p) => p.stockLotId ?? '').join(' ')] as const);
  return {
    ...(lot.water ? { water: lot.water.name } : {}),
    pot: [...new Set(plan.batches.map((b) => b.vesselName))].join($localize` and `),
    'begun by': by,
    ...Object.fromEntries(jars),
  };
}

/** The colour readers of the studio: what each read, as it gave it. */
export async function readReaders(db: Db): Promise<ReaderView[]> {
  const rows = await standing(db);
  const read = rows.flatMap((r): ReaderReading[] => {
    const { taken, lab } = r;
    if (!taken || (taken.reader ?? '') === '') return [];
    const by = taken.offset ?? { L: 0, a: 0, b: 0 };
    return [
      {
        reader: taken.reader,
        swatch: `${r.lotId} ${r.batch} ${shadeKey({ ...r, group: r.groupKey })} ${r.state} ${JSON.stringify(r.conditions)}`,
        lab: { L: lab.L + by.L, a: lab.a + by.a, b: lab.b + by.b },
      },
    ];
  });
  return compareReaders(read);
}

/** Pieces that were read wet and dry, each with its fibre. */
export async function readWetDryPairs(db: Db): Promise<(WetDryPair & { readonly fibre: string })[]> {
  const rows = await standing(db);
  const fibres = new Map(
    (
      await db
        .select({
          id: lots.id,
          fibre: sql<string>`${lots.plan}->'groups'->0->>'fibre'`,
        })
        .from(lots)
    ).map((l) => [l.id, l.fibre]),
  );
  return rows
    .filter((r) => r.state === 'wet')
    .flatMap((r) => {
      const dry = rows.find(
        (d) =>
          d.lotId === r.lotId &&
          d.batch === r.batch &&
          isSettled(d.state) &&
          shadeKey({ ...d, group: d.groupKey }) === shadeKey({ ...r, group: r.groupKey }) &&
          d.conditions.illuminant === r.conditions.illuminant &&
          d.conditions.observer === r.conditions.observer,
      );
      return dry ? [{ wet: r.lab, dry: dry.lab, fibre: fibres.get(r.lotId) ?? '' }] : [];
    });
}

/** Those of one fibre where they are enough; of any where they are too few. */
export function pairsFor(
  pairs: readonly (WetDryPair & { readonly fibre: string })[],
  fibre: string,
): readonly WetDryPair[] {
  const own = pairs.filter((p) => p.fibre === fibre);
  return own.length >= LEAST_WET_DRY_PAIRS ? own : pairs;
}

/** What a wet reading will be dry, from pieces that were read both ways. */
export async function readDryForecast(
  db: Db,
  wet: { readonly L: number; readonly a: number; readonly b: number },
  fibre: string,
): Promise<DryForecastView> {
  const used = pairsFor(await readWetDryPairs(db), fibre);
  const forecast = forecastDry(wet, used);
  return {
    pairs: used.length,
    needed: LEAST_WET_DRY_PAIRS,
    forecast: forecast && { lab: forecast.lab, within80: forecast.within80 },
  };
}

/** Readings that no other replaces, in the order they were taken. */
const standing = (db: Db): Promise<(typeof readings.$inferSelect)[]> =>
  db
    .select()
    .from(readings)
    .where(sql`NOT EXISTS (SELECT 1 FROM readings later WHERE later.replaces_id = ${readings.id})`)
    .orderBy(asc(readings.seq));

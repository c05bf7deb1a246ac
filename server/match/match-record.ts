import type { MatchRecord, RecipeBody } from '@vestigia/contract';
import { readRecipeBody } from '@vestigia/contract';
import type { CorrectedBy, LotPlan, LotToMatch, MatchFacts, MeasuredColour, RunEntry } from '@vestigia/core';
import {
  MATCH_CONDITIONS,
  completePlan,
  dyeingOfLot,
  foldRun,
  groundUnderOurLight,
  metalMeant,
  mordantOfLot,
  outOfReference,
  referenceOf,
  sameConditions,
  smallestIn,
  uncorrected,
  underOurLight,
} from '@vestigia/core';
import { asc, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import {
  colourways,
  lotProgress,
  lots,
  masters,
  materials,
  recipeVersions,
  stockBalances,
  stockLots,
  waters,
} from '../db/schema';
import { spectrumAmong } from '../lots/master-of';
import { lotTag } from '../shared/lot-tag';
import { oneValue } from '../stores/shelf';
import type { Veil } from '../studio/veil';
import { readDrying, readShades, sampleShades, shadesOf } from './read-shades';
import { readStrips } from './read-strips';

/** Smallest units to a gram, and to a millilitre. */
const PER_G = smallestIn('weight');

type Reading = MatchRecord['readings'][number];
const NOT_CORRECTED: CorrectedBy = { corrected: [], added: [], dyeTimeShare: 1 };
type LotRead = Pick<typeof lots.$inferSelect, 'id' | 'number' | 'colourwayId' | 'at' | 'water'> & {
  readonly recipe: RecipeBody;
  readonly plan: LotPlan;
  readonly isStrikeOff: boolean;
  readonly isCancelled: boolean;
  readonly correctedBy: CorrectedBy;
};

/** What was dyed and read: of lots, what really went in; of masters, what their recipe is, out of the reference jars. */
export async function readMatchRecord(db: Db, veil: Veil | undefined): Promise<MatchRecord> {
  const all = await db.select().from(materials);
  const jars = await db
    .select({
      jar: stockLots,
      free: sql<number>`${stockBalances.onHand} - ${stockBalances.reserved}`,
      came: sql<number>`(SELECT coalesce(sum(m.amount), 0) FROM movements m
        WHERE m.stock_lot_id = ${stockLots.id} AND m.amount > 0 AND m.kind IN ('receive', 'gather', 'convert'))`,
    })
    .from(stockLots)
    .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id))
    .orderBy(asc(stockLots.receivedOn), asc(stockLots.tag));
  const known: MatchFacts = {
    kinds: new Map(all.map((m) => [m.id, m.kind])),
    receivedOn: new Map(jars.map(({ jar }) => [jar.id, jar.receivedOn])),
    undyed: new Map([
      ...all.flatMap(({ id, base }): [string, MeasuredColour][] =>
        base ? [[id, groundUnderOurLight(base.undyed, base.undyedSpectrum ?? null)]] : [],
      ),
      ...jars.flatMap(({ jar: { id, facts: f } }): [string, MeasuredColour][] =>
        f.colour ? [[id, groundUnderOurLight(f.colour, f.colourSpectrum ?? null)]] : [],
      ),
    ]),
    mordanted: new Map(),
  };
  const begun = (await readLots(db)).filter((l) => !veil?.lotIds.has(l.id));
  const dyed = begun.filter((l) => !l.isCancelled);
  const entries = await readEntriesByLot(db);
  const promised = await db.select().from(colourways);
  const dry = await readDrying(db);
  const shades = await readShades(db);
  const of = (lot: LotRead, records: LotToMatch['records']): LotToMatch => ({ ...lot, records });
  const recordsOf = (lot: LotRead): LotToMatch['records'] => foldRun(entries.get(lot.id) ?? [], lot.plan.steps.length);
  const facts: MatchFacts = {
    ...known,
    mordanted: new Map(
      jars.flatMap(({ jar }) => {
        const { treatment, fromLotId } = jar.facts;
        const from = treatment === 'mordanted' ? begun.find((l) => l.id === fromLotId) : undefined;
        const mordanted = from && mordantOfLot(of(from, recordsOf(from)), known);
        return mordanted ? [[jar.id, mordanted] as const] : [];
      }),
    ),
  };
  const everyMaster = await db.select().from(masters).orderBy(asc(masters.seq));
  const masterUnderOurs = ({ id, master }: (typeof promised)[number]): MeasuredColour | undefined =>
    master
      ? underOurLight(
          master,
          spectrumAmong(
            everyMaster.filter((m) => m.colourwayId === id),
            master,
          ),
        )
      : undefined;
  /** Samples are read under the light of the master. */
  const underOurs = new Set(
    promised.flatMap((c) => (c.master && sameConditions(c.master, MATCH_CONDITIONS) ? [c.id] : [])),
  );
  const lotReadings = dyed.flatMap((lot): Reading[] => {
    const records = recordsOf(lot);
    const fibre = lot.plan.groups[0]?.fibre ?? '';
    const samples = underOurs.has(lot.colourwayId) ? sampleShades(records, fibre, dry) : [];
    return [...shadesOf(shades.get(lot.id) ?? [], records, fibre, dry), ...samples].flatMap(
      ({ part, name, colour, readWithin80 }, i) => {
        const dyeing = dyeingOfLot(of(lot, records), part, facts);
        return dyeing
          ? [
              {
                id: `${lot.id}/${i}`,
                lotId: lot.id,
                title: name === '' ? lotTag(lot.number) : `${lotTag(lot.number)}, ${name}`,
                on: lot.at,
                dyeing,
                colour,
                readWithin80,
                isMaster: false,
              },
            ]
          : [];
      },
    );
  });
  const dosedAs = new Map(jars.map(({ jar }) => [jar.id, (jar.facts.strengthPercent ?? 100) / 100]));
  const masterReadings = promised.flatMap((c): Reading[] => {
    const first = dyed.find((l) => l.colourwayId === c.id && l.plan.groups.length > 0 && !l.isStrikeOff);
    const batch = first?.plan.batches[0]?.number;
    const colour = masterUnderOurs(c);
    if (!first || batch === undefined || !colour) return [];
    const planned = dyeingOfLot(of(first, []), { batch, group: null, dip: null }, facts);
    return planned
      ? [
          {
            id: `master of ${c.id}`,
            lotId: null,
            title: $localize`the master of ${c.name}`,
            on: first.at,
            dyeing: {
              ...outOfReference(uncorrected(planned, first.correctedBy, dosedAs)),
              metal: metalMeant(readRecipeBody(first.recipe), planned.metal),
            },
            colour,
            readWithin80: null,
            isMaster: true,
          },
        ]
      : [];
  });
  const told = jars.filter(({ jar }) => facts.kinds.get(jar.materialId) !== 'fibre');
  return {
    readings: [...masterReadings, ...(await readStrips(db, facts, veil)), ...lotReadings],
    strengths: [
      ...all.map((m) => ({ stockLotId: referenceOf(m.id), percent: 100, isReference: true })),
      ...told.flatMap(({ jar }) =>
        jar.facts.reference
          ? [{ stockLotId: jar.id, percent: 100, isReference: true }]
          : jar.facts.strengthPercent === null || jar.facts.strengthLearnt
            ? []
            : [{ stockLotId: jar.id, percent: jar.facts.strengthPercent, isReference: false }],
      ),
    ],
    materials: all.map(({ id, name, kind }) => ({ id, name, kind })),
    jars: told.map(({ jar, free, came }) => ({
      id: jar.id,
      tag: jar.tag,
      materialId: jar.materialId,
      receivedOn: jar.receivedOn,
      free: Number(free),
      isReference: jar.facts.reference,
      dosedAsPercent: jar.facts.strengthPercent,
      costMinorPerG: jar.costMinor === null || Number(came) <= 0 ? null : jar.costMinor / (Number(came) / PER_G),
    })),
    mordanted: [...facts.mordanted].map(([stockLotId, m]) => ({ stockLotId, ...m })),
    undyed: [...facts.undyed].map(([of, colour]) => ({ of, colour })),
    baseLots: jars
      .filter(({ jar }) => facts.kinds.get(jar.materialId) === 'fibre')
      .map(({ jar, free }) => ({ id: jar.id, tag: jar.tag, baseId: jar.materialId, free: Number(free) })),
    waters: (await db.select().from(waters)).map(({ id, name, ph, hardnessDh, ironMgPerL }) => ({
      id,
      name,
      ph,
      hardnessDh,
      ironMgPerL,
    })),
  };
}

async function readLots(db: Db): Promise<LotRead[]> {
  const rows = await db
    .select({
      id: lots.id,
      number: lots.number,
      colourwayId: lots.colourwayId,
      at: lots.at,
      water: lots.water,
      plan: lots.plan,
      recipe: recipeVersions.body,
      extras: lots.extras,
      state: lotProgress.state,
    })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(recipeVersions, eq(recipeVersions.id, lots.recipeVersionId))
    .orderBy(asc(lots.number));
  return rows.map(({ extras, state, ...r }) => ({
    ...r,
    isStrikeOff: extras.strikeOff === true,
    isCancelled: state === 'cancelled',
    correctedBy: { ...NOT_CORRECTED, ...extras },
    at: new Date(r.at).toISOString(),
    plan: completePlan(r.plan),
  }));
}

async function readEntriesByLot(db: Db): Promise<ReadonlyMap<string, RunEntry[]>> {
  const rows = await oneValue<{ lotId: string; entries: RunEntry[] }[]>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('lotId', q.lot_id, 'entries', q.entries)), '[]') FROM (
      SELECT e.lot_id, json_agg(json_build_object('id', e.id, 'stepIndex', e.step_index, 'kind', e.kind, 'at', e.at,
        'replacesId', e.replaces_id, 'temperatureC', e.temperature_c, 'text', e.text, 'weighing', e.weighing,
        'detail', e.detail) ORDER BY e.seq) AS entries
      FROM run_entries e WHERE e.kind <> 'note' GROUP BY e.lot_id) q)`,
  );
  return new Map(rows.map((r) => [r.lotId, r.entries]));
}

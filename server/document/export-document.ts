import type { StudioDocument } from '@vestigia/contract';
import { fileRunEntry, lotExtras, readRecipeBody } from '@vestigia/contract';
import { completePlan } from '@vestigia/core';
import type { SQL } from 'drizzle-orm';
import { asc } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { z } from 'zod';
import type { Db } from '../db/database';
import * as schema from '../db/schema';
import { notFound } from '../shared/problem';

const iso = (at: string): string => new Date(at).toISOString();
type Row = Record<string, unknown>;

/** Leaves out what the document does not carry (order of recording, edit versions) and writes times in UTC. */
function clean<T extends Row, D extends string = never>(
  rows: readonly T[],
  ...drop: readonly D[]
): Omit<T, D | 'seq' | 'version'>[] {
  return rows.map((row) => {
    const kept: Row = { ...row };
    for (const key of ['seq', 'version', ...drop] as string[]) delete kept[key];
    for (const key of ['at', 'recordedAt']) if (typeof kept[key] === 'string') kept[key] = iso(kept[key]);
    return kept as Omit<T, D | 'seq' | 'version'>;
  });
}

/** The whole studio as one document. Passphrases, sessions and projections stay behind. */
export async function exportDocument(db: Db, now: Date): Promise<StudioDocument> {
  const [settings] = await db.select().from(schema.studio);
  if (!settings) throw notFound('studio');
  const { only: _only, version: _version, ...rest } = settings;
  const by = (column: PgColumn): SQL => asc(column);
  const lots = await db.select().from(schema.lots).orderBy(by(schema.lots.number));
  const readings = await db.select().from(schema.readings).orderBy(by(schema.readings.seq));
  return {
    format: 'vestigia-studio',
    formatVersion: 3,
    asOf: now.toISOString(),
    settings: rest,
    people: await db
      .select({ id: schema.people.id, name: schema.people.name })
      .from(schema.people)
      .orderBy(by(schema.people.name)),
    vessels: clean(await db.select().from(schema.vessels).orderBy(by(schema.vessels.name))),
    heatSources: clean(await db.select().from(schema.heatSources).orderBy(by(schema.heatSources.name))),
    waters: clean(await db.select().from(schema.waters).orderBy(by(schema.waters.name))),
    materials: clean(await db.select().from(schema.materials).orderBy(by(schema.materials.name))),
    stockLots: clean(await db.select().from(schema.stockLots).orderBy(by(schema.stockLots.tag))).map((s) => ({
      ...s,
      liquor: null,
    })),
    conversions: clean(await db.select().from(schema.conversions).orderBy(by(schema.conversions.seq))),
    recipes: await db.select().from(schema.recipes).orderBy(by(schema.recipes.name)),
    recipeVersions: clean(await db.select().from(schema.recipeVersions).orderBy(by(schema.recipeVersions.seq))).map(
      (v) => ({ ...v, body: readRecipeBody(v.body) }),
    ),
    recipeStatuses: clean(await db.select().from(schema.recipeStatuses).orderBy(by(schema.recipeStatuses.seq))),
    colourways: clean(await db.select().from(schema.colourways).orderBy(by(schema.colourways.name))),
    masters: clean(await db.select().from(schema.masters).orderBy(by(schema.masters.seq))),
    lots: clean(lots, 'pieces', 'pieceWeightMg', 'batches').map((l) => ({
      ...l,
      plan: completePlan(l.plan),
      extras: lotExtras.parse(l.extras),
      water: l.water ? { ...l.water, ironMgPerL: l.water.ironMgPerL ?? null } : null,
    })) as StudioDocument['lots'],
    movements: clean(await db.select().from(schema.movements).orderBy(by(schema.movements.seq))),
    reservations: clean(await db.select().from(schema.reservations).orderBy(by(schema.reservations.seq))),
    runEntries: z
      .array(fileRunEntry)
      .parse(clean(await db.select().from(schema.runEntries).orderBy(by(schema.runEntries.seq)))),
    readings: clean(readings.map(({ conditions, groupKey, ...r }) => ({ ...r, group: groupKey, ...conditions }))),
    eyeReadings: clean(await db.select().from(schema.eyeReadings).orderBy(by(schema.eyeReadings.seq))).map(
      ({ groupKey, ...r }) => ({ ...r, group: groupKey }),
    ),
    verdicts: clean(await db.select().from(schema.verdicts).orderBy(by(schema.verdicts.seq))),
    proofs: clean(await db.select().from(schema.proofs).orderBy(by(schema.proofs.seq))).map(({ conditions, ...p }) => ({
      ...p,
      ...conditions,
    })),
    stripTrials: clean(
      await db.select().from(schema.stripTrials).orderBy(by(schema.stripTrials.seq)),
    ) as StudioDocument['stripTrials'],
    stripReadings: clean(await db.select().from(schema.stripReadings).orderBy(by(schema.stripReadings.seq))).map(
      ({ conditions, ...r }) => ({ ...r, ...conditions }),
    ),
    stripLooks: clean(await db.select().from(schema.stripLooks).orderBy(by(schema.stripLooks.seq))),
    stripPromotions: clean(await db.select().from(schema.stripPromotions).orderBy(by(schema.stripPromotions.seq))),
    spoonWeighings: clean(await db.select().from(schema.spoonWeighings).orderBy(by(schema.spoonWeighings.seq))),
    liquorEntries: clean(await db.select().from(schema.liquorEntries).orderBy(by(schema.liquorEntries.seq))),
    pickings: clean(await db.select().from(schema.pickings).orderBy(by(schema.pickings.seq))),
    swatches: clean(
      await db.select().from(schema.swatches).orderBy(by(schema.swatches.at), by(schema.swatches.id)),
    ).map((s) => ({ ...s, takenOutAt: s.takenOutAt === null ? null : new Date(s.takenOutAt).toISOString() })),
    fastnessTests: clean(await db.select().from(schema.fastnessTests).orderBy(by(schema.fastnessTests.seq))),
    patchCards: clean(await db.select().from(schema.patchCards).orderBy(by(schema.patchCards.seq))),
    fastnessReadings: clean(await db.select().from(schema.fastnessReadings).orderBy(by(schema.fastnessReadings.seq))),
    notes: clean(await db.select().from(schema.notes).orderBy(by(schema.notes.seq))),
    containers: await db.select().from(schema.containers).orderBy(by(schema.containers.name)),
    tags: (await db.select().from(schema.tags).orderBy(by(schema.tags.seq))).map((t) => ({
      ...t,
      at: new Date(t.at).toISOString(),
    })),
    probeLogs: clean(await db.select().from(schema.probeLogs).orderBy(by(schema.probeLogs.seq))).map(
      ({ readings: packed, ...l }) => ({ ...l, base64: Buffer.from(packed).toString('base64') }),
    ),
    attachments: clean(await db.select().from(schema.attachments).orderBy(by(schema.attachments.seq))).map(
      ({ content, ...a }) => ({ ...a, base64: Buffer.from(content).toString('base64') }),
    ),
  };
}

import type { LotDetail, Note, Proposal, RunEntryView } from '@vestigia/contract';
import type { LotConditions, ShadeOf } from '@vestigia/core';
import { currentEntries, entriesOfKind, findRunDeviations, sayAlone, standingVerdicts } from '@vestigia/core';
import { eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { recipeVersions, recipes, vessels, waters } from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { readNextNotes } from '../notes/notes-store';
import { plannedConditions, readStrengths, realConditions } from './conditions';
import { readParts } from './lot-parts';
import type { LotRow } from './lots-store';
import { madeFromMoved } from './lots-store';

/** The lot that is dyed again: as it had been planned, as it really was, and what people said of it. */
export interface EarlierLot {
  readonly planned: LotConditions;
  readonly really: LotConditions;
  readonly told: NonNullable<Proposal['then']>;
}

export async function readEarlier(db: Db, lot: LotRow): Promise<EarlierLot> {
  const { moved, entries, verdicts, stockLots } = await readParts(
    db,
    lot.id,
    'moved',
    'entries',
    'verdicts',
    'stockLots',
  );
  const [version] = await db
    .select({
      id: recipeVersions.id,
      number: recipeVersions.number,
      name: sql<string>`${recipes.name} || ', version ' || ${recipeVersions.number}`,
    })
    .from(recipeVersions)
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .where(eq(recipeVersions.id, lot.recipeVersionId));
  const metals = new Map(
    (await db.select({ id: vessels.id, metal: vessels.metal }).from(vessels)).map((v) => [v.id, v.metal]),
  );
  const waterById = new Map((await db.select().from(waters)).map((w) => [w.id, w]));
  const taken = madeFromMoved(moved, lot.id);
  const tagOf = new Map([
    ...stockLots.map((j) => [j.id, j.tag] as const),
    ...taken.map((t) => [t.stockLotId, t.tag] as const),
  ]);
  const facts = {
    recipe: { id: lot.recipeVersionId, name: version?.name ?? '' },
    baseIds: [...new Set([lot.baseMaterialId, ...lot.plan.groups.map((g) => g.baseId)])],
    water: lot.water,
    tagOf,
    strengths: await readStrengths(db, [...tagOf.keys()]),
  };
  const deviations = findRunDeviations(lot.plan, entries, (id) => tagOf.get(id) ?? $localize`another jar`);
  return {
    planned: plannedConditions(lot.plan, facts),
    really: realConditions(lot, entries, taken, facts, { metals, waters: waterById }),
    told: {
      lotId: lot.id,
      tag: lotTag(lot.number),
      recipeVersionId: lot.recipeVersionId,
      recipeNumber: version?.number ?? 0,
      quantityText: lot.quantityText,
      said: whatWasSaid(lot.plan, entries, verdicts, await readNextNotes(db, lot.id, lot.colourwayId)),
      deviations: deviations.map((d) => ({ step: lot.plan.steps[d.stepIndex]?.title ?? '', message: d.message })),
    },
  };
}

/** Notes marked “next time”, and why it was passed, held or refused; newest first. */
function whatWasSaid(
  plan: LotRow['plan'],
  entries: readonly RunEntryView[],
  verdicts: LotDetail['verdicts'],
  notes: readonly Note[],
): NonNullable<Proposal['then']>['said'] {
  const saidOf = (of: ShadeOf | null, text: string): string => (of ? `${sayAlone(plan, of)}: ${text}` : text);
  const next = entriesOfKind(currentEntries(entries), 'note')
    .filter((e) => e.detail?.next && e.text)
    .map((e) => ({ text: saidOf(e.detail?.of ?? null, e.text ?? ''), by: e.by.name, at: e.at, of: 'next' as const }));
  const why = standingVerdicts(verdicts)
    .filter((v) => v.reason.trim() !== '')
    .map((v) => ({
      text: saidOf(v.of, v.reason),
      by: v.by.name,
      at: v.at,
      of: 'verdict' as const,
    }));
  const noted = notes.map((n) => ({ text: saidOf(n.of, n.text), by: n.by.name, at: n.at, of: 'next' as const }));
  return [...next, ...noted, ...why].sort((a, b) => (a.at < b.at ? 1 : -1));
}

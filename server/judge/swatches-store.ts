import type { ReadNewSwatch, Swatch, SwatchEdit } from '@vestigia/contract';
import type { MadeWith, ShadeOf } from '@vestigia/core';
import { NOTHING_KNOWN, WHOLE, foldFamily, foldRun, hasShade, madeWith, nextFreeSlot, shadeKey } from '@vestigia/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lots, people, swatches } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { currentReadings, findLot, readEntries, readReadings } from '../lots/lots-store';
import { readStandards } from '../lots/standards';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import type { Veil } from '../studio/veil';
import { veiledMadeWith } from './veiled-made-with';

const inWords = (line: string): string[] => line.split(/,| and /).flatMap((w) => (w.trim() === '' ? [] : [w.trim()]));

/** Every snippet that stands in the book, page by page. */
export async function readSwatches(db: Db, veil: Veil | undefined, id?: string): Promise<Swatch[]> {
  const rows = await db
    .select({
      swatch: swatches,
      number: lots.number,
      colourway: colourways.name,
      by: { id: people.id, name: people.name },
    })
    .from(swatches)
    .leftJoin(lots, eq(lots.id, swatches.lotId))
    .leftJoin(colourways, eq(colourways.id, lots.colourwayId))
    .innerJoin(people, eq(people.id, swatches.byId))
    .where(and(isNull(swatches.takenOutAt), id === undefined ? undefined : eq(swatches.id, id)))
    .orderBy(asc(swatches.page), asc(swatches.slot));
  return rows.map(({ swatch: s, number, colourway, by }) => ({
    id: s.id,
    version: s.version,
    name: s.name,
    page: s.page,
    slot: s.slot,
    lot: s.lotId === null || number === null ? null : { id: s.lotId, tag: lotTag(number), colourway: colourway ?? '' },
    of: s.of,
    lab: s.lab,
    madeWith: s.lotId !== null && veil?.lotIds.has(s.lotId) ? veiledMadeWith(s.madeWith) : s.madeWith,
    note: s.note,
    at: new Date(s.at).toISOString(),
    by,
  }));
}

/** What a shade of a lot was made with, and how it came out. */
export async function readShadeOfLot(
  db: Db,
  lotId: string,
  of: ShadeOf,
): Promise<{ made: MadeWith; lab: Swatch['lab'] }> {
  const lot = await findLot(db, lotId);
  if (!hasShade(lot.plan, of))
    throw new Refusal('refused', $localize`The lot has no such piece, zone, part or dip. Choose what it has.`, {
      reason: 'noSuchShade',
    });
  const records = foldRun(await readEntries(db, lotId), lot.plan.steps.length);
  const family = foldFamily(
    lot.plan,
    (await readStandards(db, lot)).standards,
    currentReadings(await readReadings(db, lotId)),
  );
  const own = family.find((m) => m.key === shadeKey(of)) ?? (of.group === null ? family[0] : undefined);
  return { made: madeWith(lot.plan, records, of), lab: own?.lab ?? null };
}

/** Fastens a snippet: at the place that is named, or at the next free one. */
export async function addSwatch(
  db: Db,
  { id, name, lotId, of, lab, base, dyestuffs, mordants, place, note }: ReadNewSwatch,
  { now, byId }: By,
): Promise<{ id: string; page: number; slot: number }> {
  const shade = lotId === null ? null : (of ?? WHOLE);
  const known = lotId === null || shade === null ? null : await readShadeOfLot(db, lotId, shade);
  const unknown: MadeWith = { ...NOTHING_KNOWN, base, dyestuffs: inWords(dyestuffs), mordants: inWords(mordants) };
  const taken = await db
    .select({ page: swatches.page, slot: swatches.slot, name: swatches.name })
    .from(swatches)
    .where(isNull(swatches.takenOutAt));
  const { page, slot } = place ?? nextFreeSlot(taken);
  assertFree(taken, page, slot);
  await db.insert(swatches).values({
    id,
    page,
    slot,
    name,
    lotId,
    of: shade,
    lab: lab ?? known?.lab ?? null,
    madeWith: known?.made ?? unknown,
    note,
    at: now.toISOString(),
    byId,
  });
  return { id, page, slot };
}

function assertFree(
  taken: readonly { readonly page: number; readonly slot: number; readonly name: string }[],
  page: number,
  slot: number,
): void {
  const there = taken.find((t) => t.page === page && t.slot === slot);
  if (there)
    throw new Refusal(
      'refused',
      $localize`On page ${page}, place ${slot} there is ${there.name} already. Choose another place.`,
      {
        reason: 'placeTaken',
      },
    );
}

/** Fastens a snippet elsewhere, or notes on it. */
export async function editSwatch(
  db: Db,
  id: string,
  { version, page, slot, note }: SwatchEdit,
): Promise<{ id: string }> {
  const [before] = await db.select().from(swatches).where(eq(swatches.id, id));
  if (!before || before.takenOutAt !== null) throw notFound('snippet');
  const others = (await db.select().from(swatches).where(isNull(swatches.takenOutAt))).filter((s) => s.id !== id);
  assertFree(others, page, slot);
  const updated = await db
    .update(swatches)
    .set({ page, slot, note, version: version + 1 })
    .where(and(eq(swatches.id, id), eq(swatches.version, version)))
    .returning();
  assertFresh(updated, { page, slot, note }, { page: before.page, slot: before.slot, note: before.note });
  return { id };
}

/** Takes a snippet out: its place is free, and it stays in the record. */
export async function takeOutSwatch(db: Db, id: string, now: Date): Promise<{ id: string }> {
  const out = await db
    .update(swatches)
    .set({ takenOutAt: now.toISOString() })
    .where(and(eq(swatches.id, id), isNull(swatches.takenOutAt)))
    .returning();
  if (out.length === 0) throw notFound('snippet');
  return { id };
}

import type { Colourway, ColourwayDetail, ReadNewMaster } from '@vestigia/contract';
import type { PlacedZone, Taken, ZoneStandard } from '@vestigia/core';
import { currentEntries, foldFamily } from '@vestigia/core';
import { desc, eq } from 'drizzle-orm';
import { findColourway } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, masters, people } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { writeWhereOtherwise } from './as-done';
import { refoldMany } from './lot-progress';
import { currentReadings, findLot, readReadings } from './lots-store';

/** Every master a colourway had, newest first. */
export async function readMasters(db: Db, colourwayId: string): Promise<ColourwayDetail['masters']> {
  const rows = await db
    .select({
      id: masters.id,
      lab: masters.lab,
      zones: masters.zones,
      reason: masters.reason,
      taken: masters.taken,
      lotId: lots.id,
      lotNumber: lots.number,
      at: masters.at,
      by: { id: people.id, name: people.name },
    })
    .from(masters)
    .innerJoin(people, eq(people.id, masters.byId))
    .leftJoin(lots, eq(lots.id, masters.fromLotId))
    .where(eq(masters.colourwayId, colourwayId))
    .orderBy(desc(masters.seq));
  return rows.map(({ lotId, lotNumber, at, ...m }) => ({
    ...m,
    at: new Date(at).toISOString(),
    fromLot: lotId !== null && lotNumber !== null ? { id: lotId, tag: lotTag(lotNumber) } : null,
  }));
}

/**
 * “This is it”: a swatch, or the colour a lot came out, becomes the master. One that stands is superseded only with a
 * reason; lots dyed under it keep it.
 */
export async function setMaster(
  db: Db,
  colourwayId: string,
  given: ReadNewMaster,
  { now, byId }: By,
): Promise<{ id: string }> {
  const colourway = await findColourway(db, colourwayId);
  if (colourway.master && given.reason.trim() === '')
    throw new Refusal(
      'refused',
      $localize`This colourway has a master. Say why another takes its place: the lots before keep the old one.`,
      {
        reason: 'reasonMissing',
      },
    );
  const shade = given.lotId === null ? null : await shadeOf(db, given, given.lotId, colourwayId);
  const lab = given.lab ?? shade?.lab ?? null;
  const taken = given.lab ? given.taken : (shade?.taken ?? null);
  const zones = [...given.zones, ...(shade?.zones ?? []).filter((z) => !given.zones.some((g) => g.zone === z.zone))];
  if (!lab)
    throw new Refusal('refused', $localize`Say which colour it is: a swatch, or the lot that came out so.`, {
      reason: 'noColour',
    });
  // A master from before they were recorded is written down first, so that none is lost.
  const before = await readMasters(db, colourwayId);
  const at = now.toISOString();
  if (before.length === 0 && colourway.master) {
    const { master } = colourway;
    await db
      .insert(masters)
      .values({ id: uuidv7(now), colourwayId, lab: master, at, byId, reason: $localize`as it was named` });
  }
  await db.insert(masters).values({
    id: given.id,
    colourwayId,
    lab,
    zones,
    taken,
    reason: given.reason.trim(),
    fromLotId: given.lotId,
    at,
    byId,
  });
  await db
    .update(colourways)
    .set({ master: lab, version: colourway.version + 1 })
    .where(eq(colourways.id, colourwayId));
  if (given.asDoneVersionId !== null && given.lotId !== null)
    await dyeAsDone(db, colourwayId, given.lotId, given.asDoneVersionId, { now, byId });
  const waiting = await db
    .select({ id: lots.id, master: lots.master })
    .from(lots)
    .where(eq(lots.colourwayId, colourwayId));
  await refoldMany(
    db,
    waiting.filter((l) => l.master === null).map((l) => l.id),
  );
  return { id: given.id };
}

/** From now on the colourway is dyed as that lot really was; where it went as its recipe says, by that version. */
async function dyeAsDone(db: Db, colourwayId: string, lotId: string, versionId: string, by: By): Promise<void> {
  const lot = await findLot(db, lotId);
  const written = await writeWhereOtherwise(db, lotId, versionId, by);
  await db
    .update(colourways)
    .set({ recipeVersionId: written?.id ?? lot.recipeVersionId })
    .where(eq(colourways.id, colourwayId));
}

/** The colour a lot came out, dry, or one reading of it, with the zones that were read. */
async function shadeOf(
  db: Db,
  { lab, readingId }: ReadNewMaster,
  lotId: string,
  colourwayId: string,
): Promise<{ lab: Colourway['master']; zones: ZoneStandard[]; taken: Taken | null }> {
  const lot = await findLot(db, lotId);
  if (lot.colourwayId !== colourwayId)
    throw new Refusal(
      'refused',
      $localize`${lotTag(lot.number)} is of another colourway. Name a new one after it instead.`,
    );
  const all = await readReadings(db, lotId);
  const family = foldFamily(lot.plan, { master: null, expected: [] }, currentReadings(all));
  const zones = family.flatMap(({ zone, lab: shade }) => (zone !== null && shade ? [{ ...shade, zone }] : []));
  if (lab) return { lab, zones, taken: null };
  if (readingId !== null) {
    const reading = all.find((r) => r.id === readingId);
    if (!reading) throw notFound('reading');
    const { illuminant, observer, taken } = reading;
    return { lab: { ...reading.lab, illuminant, observer }, zones, taken };
  }
  const [row] = await db.select({ result: lotProgress.result }).from(lotProgress).where(eq(lotProgress.lotId, lotId));
  const result = row?.result ?? widest(zones, lot.plan.placed?.zones ?? []);
  if (!result)
    throw new Refusal(
      'refused',
      $localize`${lotTag(lot.number)} has no dry reading yet. Take one first: a wet colour is not the colour.`,
      { reason: 'noColour' },
    );
  const { L, a, b, illuminant, observer } = result;
  const read = currentEntries(all)
    .filter((r) => r.lab.L === L && r.lab.a === a && r.lab.b === b)
    .at(-1);
  return { lab: { L, a, b, illuminant, observer }, zones, taken: read?.taken ?? null };
}

/** Of a lot that was read by its zones alone, the one that takes most of the piece stands for it. */
function widest(zones: readonly ZoneStandard[], placed: readonly PlacedZone[]): ZoneStandard | null {
  const widthOf = ({ zone }: ZoneStandard): number => {
    const planned = placed.find((z) => z.title === zone);
    return planned ? planned.toPercent - planned.fromPercent : 0;
  };
  return zones.reduce<ZoneStandard | null>((most, z) => (most && widthOf(most) >= widthOf(z) ? most : z), null);
}

import type { Colourway } from '@vestigia/contract';
import type { Lab, Spectrum, ZoneStandard } from '@vestigia/core';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, masters } from '../db/schema';
import type { LotRow } from './lots-store';

/** The master a lot is judged by: its own, else the first its colourway got, which it may have made itself. */
export async function masterOf(db: Db, lot: Pick<LotRow, 'master' | 'colourwayId'>): Promise<Colourway['master']> {
  if (lot.master) return lot.master;
  const [first] = await db
    .select({ lab: masters.lab })
    .from(masters)
    .where(eq(masters.colourwayId, lot.colourwayId))
    .orderBy(asc(masters.seq))
    .limit(1);
  if (first) return first.lab;
  const [colourway] = await db
    .select({ master: colourways.master })
    .from(colourways)
    .where(eq(colourways.id, lot.colourwayId));
  return colourway?.master ?? null;
}

/** Band by band, the master that a lot is judged by; `null` where it was not read so. */
export async function masterSpectrumOf(
  db: Db,
  colourwayId: string,
  master: Colourway['master'],
): Promise<Spectrum | null> {
  if (!master) return null;
  const all = await db.select().from(masters).where(eq(masters.colourwayId, colourwayId)).orderBy(asc(masters.seq));
  return spectrumAmong(all, master);
}

/** The spectrum of the last of these masters that is this one. */
export function spectrumAmong(
  all: readonly Pick<typeof masters.$inferSelect, 'lab' | 'taken'>[],
  { L, a, b }: Lab,
): Spectrum | null {
  return all.filter(({ lab }) => lab.L === L && lab.a === a && lab.b === b).at(-1)?.taken?.spectrum ?? null;
}

/** What the zones of a lot are to be: those of the master that stood when it was agreed, else of the first that came. */
export async function zonesOf(db: Db, lot: Pick<LotRow, 'at' | 'colourwayId'>): Promise<ZoneStandard[]> {
  const all = await db
    .select({ zones: masters.zones, at: masters.at })
    .from(masters)
    .where(eq(masters.colourwayId, lot.colourwayId))
    .orderBy(asc(masters.seq));
  return (all.filter((m) => Date.parse(m.at) <= Date.parse(lot.at)).at(-1) ?? all[0])?.zones ?? [];
}

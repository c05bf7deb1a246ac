import type { Colourway } from '@vestigia/contract';
import type { Lab, Spectrum, ZoneStandard } from '@vestigia/core';
import { asc, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { masters } from '../db/schema';
import type { Standing } from './lot-parts';
import type { LotRow } from './lots-store';

/** The master a lot is judged by: its own, else the first its colourway got, which it may have made itself. */
export const masterAmong = (own: LotRow['master'], { masters: all, colourwayMaster }: Standing): Colourway['master'] =>
  own ?? all[0]?.lab ?? colourwayMaster;

/** Tells of these colourways, band by band, the master that a lot is judged by; `null` where it was not read so. */
export async function masterSpectraOf(
  db: Db,
  colourwayIds: readonly string[],
): Promise<(colourwayId: string, master: Colourway['master']) => Spectrum | null> {
  const all = await db
    .select({ colourwayId: masters.colourwayId, lab: masters.lab, taken: masters.taken })
    .from(masters)
    .where(inArray(masters.colourwayId, [...new Set(colourwayIds)]))
    .orderBy(asc(masters.seq));
  return (colourwayId, master) =>
    master &&
    spectrumAmong(
      all.filter((m) => m.colourwayId === colourwayId),
      master,
    );
}

/** The spectrum of the last of these masters that is this one. */
export function spectrumAmong(
  all: readonly Pick<typeof masters.$inferSelect, 'lab' | 'taken'>[],
  { L, a, b }: Lab,
): Spectrum | null {
  return all.filter(({ lab }) => lab.L === L && lab.a === a && lab.b === b).at(-1)?.taken?.spectrum ?? null;
}

/** What the zones of a lot are to be: those of the master that stood when it was agreed, else of the first that came. */
export const zonesAmong = ({ masters: all }: Standing, at: string): readonly ZoneStandard[] =>
  (all.filter((m) => Date.parse(m.at) <= Date.parse(at)).at(-1) ?? all[0])?.zones ?? [];

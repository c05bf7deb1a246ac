import type { ReadingView } from '@vestigia/contract';
import type { MeasuredColour, PartToMatch, StepRecord } from '@vestigia/core';
import {
  currentEntries,
  forecastDry,
  isSettled,
  meanLab,
  meanSpectrum,
  pulledOut,
  samplesRead,
  underOurLight,
} from '@vestigia/core';
import { asc } from 'drizzle-orm';
import type { Db } from '../db/database';
import { readings } from '../db/schema';
import { pairsFor, readWetDryPairs } from '../judge/over-time';

type Read = Pick<ReadingView, 'batch' | 'taken' | 'piece' | 'dip'> &
  MeasuredColour & {
    readonly group: string | null;
    readonly isSettled: boolean;
  };

/** A shade of a lot that is learnt from: which part of it, and how far off it may have been read. */
export interface ReadShade {
  readonly part: PartToMatch;
  /** What of the lot it is; empty: all of it. */
  readonly name: string;
  readonly colour: MeasuredColour;
  readonly readWithin80: number | null;
}

/** What wet fibre will be dry, by fibre; `null` while too few pieces were read both ways. */
export type Drying = (
  wet: ReadingView['lab'],
  fibre: string,
) => { readonly lab: ReadingView['lab']; readonly within80: number } | null;

export async function readDrying(db: Db): Promise<Drying> {
  const pairs = await readWetDryPairs(db);
  return (wet, fibre) => forecastDry(wet, pairsFor(pairs, fibre));
}

/** Readings of whole shades and single pieces, under the light the match works in, or band by band. */
export async function readShades(db: Db): Promise<ReadonlyMap<string, Read[]>> {
  const rows = currentEntries(await db.select().from(readings).orderBy(asc(readings.seq)));
  const byLot = new Map<string, Read[]>();
  for (const { lotId, batch, groupKey, zone, piece, dip, state, lab, conditions, taken } of rows) {
    if (zone !== null || !(isSettled(state) || state === 'wet')) continue;
    const colour = underOurLight({ ...lab, ...conditions }, taken?.spectrum ?? null);
    if (!colour) continue;
    const read: Read = { batch, group: groupKey, piece, dip, ...colour, taken, isSettled: isSettled(state) };
    byLot.set(lotId, [...(byLot.get(lotId) ?? []), read]);
  }
  return byLot;
}

/**
 * The mean of what was read of each shade once it had settled; of what was only read wet, what it will be. A single piece
 * counts where it was pulled before the others: what a shorter stay gave.
 */
export function shadesOf(
  read: readonly Read[],
  records: readonly StepRecord[],
  fibre: string,
  dry: Drying,
): ReadShade[] {
  const parts = new Map<string, Read[]>();
  for (const r of read) {
    const key = JSON.stringify([r.batch, r.group, r.dip, r.piece]);
    parts.set(key, [...(parts.get(key) ?? []), r]);
  }
  const shades = [...parts.values()].flatMap((all): ReadShade[] => {
    const [first] = all;
    if (!first) return [];
    const { batch, group, dip, piece } = first;
    const out = piece === null ? undefined : pulledOut(records, piece);
    if (piece !== null && !out) return [];
    const part = { batch, group, dip, out };
    const name = piece === null ? '' : $localize`piece ${piece}`;
    const settled = all.filter((r) => r.isSettled);
    const [wet] = all.slice(-1);
    if (settled.length > 0) {
      // Errors of several readings cancel in part: √Σe² / n.
      const errors = settled.map((r) => r.taken?.within80 ?? 0);
      const readWithin80 = errors.some((e) => e > 0) ? Math.hypot(...errors) / settled.length : null;
      const spectrum = meanSpectrum(settled.map((r) => r.spectrum));
      return [{ part, name, colour: { lab: meanLab(settled.map((r) => r.lab)), spectrum }, readWithin80 }];
    }
    const foreseen = wet && dry(wet.lab, fibre);
    return foreseen
      ? [
          {
            part,
            name,
            colour: { lab: foreseen.lab, spectrum: null },
            readWithin80: Math.hypot(foreseen.within80, wet.taken?.within80 ?? 0),
          },
        ]
      : [];
  });
  // The lot as a whole goes first: it is what is dyed again.
  return shades.sort((x, y) => Number(x.part.out !== undefined) - Number(y.part.out !== undefined));
}

/** Snippets read wet while the pot went, as they will be dry. */
export const sampleShades = (records: readonly StepRecord[], fibre: string, dry: Drying): ReadShade[] =>
  samplesRead(records).flatMap(({ lab, batch, stepIndex, minute }): ReadShade[] => {
    const foreseen = dry(lab, fibre);
    const part = { batch, group: null, dip: null, out: { stepIndex, minute }, isSnippet: true };
    const name = $localize`a sample at ${Math.round(minute)} min`;
    return foreseen
      ? [{ part, name, colour: { lab: foreseen.lab, spectrum: null }, readWithin80: foreseen.within80 }]
      : [];
  });

import type { FastnessTest, ReadingView, Swatch } from '@vestigia/contract';
import type { WrittenSwatch } from '@vestigia/core';
import {
  BANDS_NM,
  completePlan,
  currentEntries,
  isSettled,
  sayShade,
  shadeKey,
  placeShade,
  writeCgats,
  writeColourTable,
} from '@vestigia/core';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lots, readings } from '../db/schema';
import { findLot, readReadings } from '../lots/lots-store';
import { lotTag } from '../shared/lot-tag';
import type { Veil } from '../studio/veil';
import { readFastnessTests } from './fastness-store';

/** Everything about a snippet, in one open file. */
export interface SwatchFile {
  readonly format: 'vestigia-swatch';
  readonly formatVersion: 1;
  readonly swatch: Omit<Swatch, 'id' | 'version'>;
  readonly bandsNm: readonly number[];
  readonly readings: readonly ReadingView[];
  readonly fastness: readonly FastnessTest[];
}

/** What is known of a snippet: readings of that shade, what was tried on its lot. */
export async function writeSwatchFile(
  db: Db,
  { id: _id, version: _version, ...swatch }: Swatch,
  veil: Veil | undefined,
): Promise<SwatchFile> {
  const { lot, of } = swatch;
  const plan = lot === null ? undefined : (await findLot(db, lot.id)).plan;
  const readings =
    lot === null || of === null || !plan
      ? []
      : (await readReadings(db, lot.id)).filter(
          (r) => shadeKey(placeShade(plan, r)) === shadeKey(placeShade(plan, of)) && r.batch === of.batch,
        );
  const fastness = (await readFastnessTests(db, veil)).filter((t) => lot !== null && t.lot?.id === lot.id);
  return { format: 'vestigia-swatch', formatVersion: 1, swatch, bandsNm: BANDS_NM, readings, fastness };
}

/** Every reading that settled, as a file of colours. */
export async function writeColours(db: Db, format: 'cgats' | 'csv'): Promise<string> {
  const rows = await db
    .select({ number: lots.number, plan: lots.plan, reading: readings })
    .from(readings)
    .innerJoin(lots, eq(lots.id, readings.lotId))
    .orderBy(asc(lots.number), asc(readings.seq));
  const current = new Set(currentEntries(rows.map((r) => r.reading)));
  const written = rows
    .filter(({ reading }) => current.has(reading) && isSettled(reading.state))
    .map(({ number, plan: kept, reading: r }): WrittenSwatch => {
      const plan = completePlan(kept);
      const shade = sayShade(plan, placeShade(plan, { ...r, group: r.groupKey }));
      return {
        name: [lotTag(number), $localize`batch ${r.batch}`, shade, r.state].filter((w) => w !== '').join(' · '),
        lab: r.lab,
        conditions: r.conditions,
        spectrum: r.taken?.spectrum ?? null,
      };
    });
  return format === 'cgats' ? writeCgats(written) : writeColourTable(written);
}

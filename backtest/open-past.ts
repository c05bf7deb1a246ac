import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { MatchRecord } from '@vestigia/contract';
import { studioDocument } from '@vestigia/contract';
import { KeptFiles } from '../server/db/kept-files';
import { openInMemory } from '../server/db/open-in-memory';
import { broughtAlone, importDocument } from '../server/document/import-document';
import { Writer } from '../server/http/write';
import { readMatchRecord } from '../server/match/match-record';
import { contextOn } from '../server/shared/context';
import type { Ids } from './ids';
import { pastRows } from './past-rows';
import { studioRows } from './studio-rows';
import type { PastDyeing, Setting } from './world';

const MIGRATIONS = fileURLToPath(new URL('../server/db/migrations', import.meta.url));
const DAY_MS = 86_400_000;
const BEGAN = '1970-01-01T00:00:00.000Z';

/** A world’s past as a studio’s file. */
export function studioFileOf(setting: Setting, past: readonly PastDyeing[], ids: Ids): unknown {
  const byId = ids.of('person', 'whoever dyed it');
  const owned = studioRows(setting, ids, { byId, at: BEGAN });
  const dyed = pastRows(setting, past, ids, byId);
  return {
    format: 'vestigia-studio',
    formatVersion: 4,
    asOf: BEGAN,
    settings: {
      name: 'A world',
      zone: 'Etc/UTC',
      signInNote: '',
      balanceName: 'Balance',
      balanceResolutionG: 0.001,
      balanceCapacityG: 500_000,
    },
    people: [{ id: byId, name: 'Whoever dyed it' }],
    ...owned,
    ...dyed,
    recipes: [...owned.recipes, ...dyed.recipes],
    recipeVersions: [...owned.recipeVersions, ...dyed.recipeVersions],
    recipeStatuses: [],
    reservations: [],
    verdicts: [],
  };
}

/**
 * What the product itself makes of a world’s past: the file goes in by its own door, into a database of its own, and the
 * match’s record is read out of that.
 */
export async function openPast(setting: Setting, past: readonly PastDyeing[], ids: Ids): Promise<MatchRecord> {
  const document = studioDocument.parse(studioFileOf(setting, past, ids));
  const last = Math.max(0, ...past.map((p) => Date.parse(p.recorded.on)));
  const database = await openInMemory(MIGRATIONS, new KeptFiles(join(tmpdir(), 'vestigia-backtest')));
  try {
    const context = contextOn(database, () => new Date(last + 3 * DAY_MS));
    const writer = new Writer(context);
    await writer.start();
    await importDocument(context, writer, broughtAlone(document));
    return await readMatchRecord(database.db, undefined);
  } finally {
    await database.close();
  }
}

import type { DeedChanges, DeedPage } from '@vestigia/contract';
import { and, desc, eq, lt, notInArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { deeds, people } from '../db/schema';
import type { Veil } from './veil';

const PAGE = 100;
const AT_THE_DOOR = ['cameIn', 'left', 'turnedAway', 'endedSession'] as const;

export interface DeedFilter {
  readonly before?: number | undefined;
  readonly thing?: (typeof deeds.$inferSelect)['thing'] | undefined;
  readonly thingId?: string | undefined;
  readonly by?: string | undefined;
}

/** Who did what, the newest first. What is kept from whoever asks is left out, and to most who came in and when. */
export async function readDeeds(
  db: Db,
  { before, thing, thingId, by }: DeedFilter,
  { veil, isDoorShown }: { readonly veil: Veil | undefined; readonly isDoorShown: boolean },
): Promise<DeedPage> {
  const rows = await db
    .select({ deed: deeds, byName: people.name })
    .from(deeds)
    .leftJoin(people, eq(people.id, deeds.byId))
    .where(
      and(
        before === undefined ? undefined : lt(deeds.seq, before),
        thing === undefined ? undefined : eq(deeds.thing, thing),
        thingId === undefined ? undefined : eq(deeds.thingId, thingId),
        by === undefined ? undefined : eq(deeds.byId, by),
        isDoorShown ? undefined : notInArray(deeds.kind, [...AT_THE_DOOR]),
      ),
    )
    .orderBy(desc(deeds.seq))
    .limit(PAGE + 1);
  return {
    hasMore: rows.length > PAGE,
    deeds: rows
      .slice(0, PAGE)
      .filter(({ deed }) => !isKept(deed, veil))
      .map(({ deed: { byId, ...d }, byName }) => ({
        ...d,
        at: new Date(d.at).toISOString(),
        by: byId === null ? null : { id: byId, name: byName ?? '' },
        changes: byField(d.changes),
      })),
  };
}

const isKept = ({ thing, thingId }: typeof deeds.$inferSelect, veil: Veil | undefined): boolean =>
  thingId !== null &&
  veil !== undefined &&
  ((thing === 'recipe' && (veil.recipeIds.has(thingId) || veil.amountsOf.has(thingId))) ||
    (thing === 'colourway' && veil.colourwayIds.has(thingId)));

const isGroup = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Columns that hold a group of fields are told field by field, so that what changed is seen and not all of it. */
export function byField(changes: DeedChanges): DeedChanges {
  const told: DeedChanges = {};
  for (const [column, [from, to]] of Object.entries(changes)) {
    const field = inCamels(column);
    if (!isGroup(from) && !isGroup(to)) {
      told[field] = [from, to];
      continue;
    }
    const [was, is] = [isGroup(from) ? from : {}, isGroup(to) ? to : {}];
    for (const key of new Set([...Object.keys(was), ...Object.keys(is)]))
      if (JSON.stringify(was[key]) !== JSON.stringify(is[key]))
        told[`${field}.${key}`] = [was[key] ?? null, is[key] ?? null];
  }
  return told;
}

const inCamels = (column: string): string => column.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());

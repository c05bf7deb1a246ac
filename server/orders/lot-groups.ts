import type { LabUnder } from '@vestigia/contract';
import type { KeptPlan, LotPlan } from '@vestigia/core';
import { WHOLE, convertGramsToMilligrams, sayShade } from '@vestigia/core';
import { eq, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, materials } from '../db/schema';
import { lotTag } from '../shared/lot-tag';

/** A lot as orders see it: what it is of, how it came out, and its bases and parts with their pieces. */
export interface LotOfGoods {
  readonly id: string;
  readonly number: number;
  readonly tag: string;
  readonly state: (typeof lotProgress.$inferSelect)['state'];
  readonly pieces: number;
  readonly lab: LabUnder | null;
  readonly colourway: { readonly id: string; readonly name: string };
  /** One with `key: null` where the lot isn't told apart. */
  readonly groups: readonly {
    readonly key: string | null;
    readonly label: string;
    readonly base: string;
    readonly pieces: number;
    readonly pieceWeightMg: number;
    /** Held or refused by itself, while the lot went on without it. */
    readonly apart: 'hold' | 'refuse' | null;
  }[];
}

/** Lots by their ids. Of the plans, which are large, only the groups are read. */
export async function readLotsOfGoods(db: Db, ids: readonly string[]): Promise<ReadonlyMap<string, LotOfGoods>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({
      id: lots.id,
      number: lots.number,
      pieces: lots.pieces,
      pieceWeightMg: lots.pieceWeightMg,
      groups: sql<KeptPlan['groups'] | null>`${lots.plan} -> 'groups'`,
      base: materials.name,
      colourway: { id: colourways.id, name: colourways.name },
      state: lotProgress.state,
      result: lotProgress.result,
      family: lotProgress.family,
    })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
    .innerJoin(materials, eq(materials.id, lots.baseMaterialId))
    .where(inArray(lots.id, [...new Set(ids)]));
  return new Map(
    rows.map(({ groups, base, pieceWeightMg, result, family, ...row }) => {
      const own = (groups ?? []).map((g) => ({ ...g, blend: g.blend ?? [] }));
      return [
        row.id,
        {
          ...row,
          tag: lotTag(row.number),
          lab: result,
          groups: groupsOf({ groups: own }, { pieces: row.pieces, pieceWeightMg, base }, family ?? []),
        },
      ];
    }),
  );
}

function groupsOf(
  { groups }: Pick<LotPlan, 'groups'>,
  lot: { readonly pieces: number; readonly pieceWeightMg: number; readonly base: string },
  family: NonNullable<(typeof lotProgress.$inferSelect)['family']>,
): LotOfGoods['groups'] {
  if (groups.length < 2) return [{ ...lot, key: null, label: '', base: groups[0]?.baseName ?? lot.base, apart: null }];
  return groups.map((g) => {
    const label = sayShade({ groups }, { ...WHOLE, group: g.key });
    return {
      key: g.key,
      label,
      base: g.baseName,
      pieces: g.pieces,
      pieceWeightMg: convertGramsToMilligrams(g.pieceWeightG),
      apart: family.find((m) => m.label === label)?.apart ?? null,
    };
  });
}

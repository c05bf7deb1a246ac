import type { MatchRecord } from '@vestigia/contract';
import type { MatchFacts } from '@vestigia/core';
import { currentEntries, dyeingOfStrip, underOurLight } from '@vestigia/core';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { materials, recipeVersions, stripReadings, stripTrials, waters } from '../db/schema';
import type { Veil } from '../studio/veil';

/** Strips that were read: each with what was weighed out for it. Those of a private recipe are kept from others. */
export async function readStrips(db: Db, facts: MatchFacts, veil: Veil | undefined): Promise<MatchRecord['readings']> {
  const trials = await db
    .select({ trial: stripTrials, version: recipeVersions, base: materials })
    .from(stripTrials)
    .innerJoin(recipeVersions, eq(recipeVersions.id, stripTrials.recipeVersionId))
    .innerJoin(materials, eq(materials.id, stripTrials.baseMaterialId));
  const read = currentEntries(await db.select().from(stripReadings).orderBy(asc(stripReadings.seq)));
  const all = new Map((await db.select().from(waters)).map((w) => [w.id, w]));
  return trials.flatMap(({ trial, version, base }) => {
    if (!base.base || veil?.versionIds.has(version.id)) return [];
    const { fibre } = base.base;
    return trial.layout.flatMap((strip): MatchRecord['readings'] => {
      const own = read.filter((r) => r.trialId === trial.id && r.number === strip.number).at(-1);
      const colour = own && underOurLight({ ...own.lab, ...own.conditions }, own.taken?.spectrum ?? null);
      if (!own || !colour) return [];
      const waterId = trial.factor === 'water' ? trial.levels[strip.number - 1]?.refId : trial.waterId;
      const dyeing = dyeingOfStrip(
        {
          at: trial.at,
          factor: trial.factor,
          baseId: base.id,
          fibre,
          steps: version.body.steps,
          liquorRatio: version.body.liquorRatio,
          water: all.get(waterId ?? '') ?? null,
        },
        strip,
        facts,
      );
      return dyeing
        ? [
            {
              id: `${trial.id}/${strip.number}`,
              lotId: null,
              title: $localize`${trial.name}, strip ${strip.number}`,
              on: new Date(trial.at).toISOString(),
              dyeing,
              colour,
              readWithin80: own.taken?.within80 ?? null,
              isMaster: false,
            },
          ]
        : [];
    });
  });
}

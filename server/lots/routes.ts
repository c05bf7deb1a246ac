import { api } from '@vestigia/contract';
import { findColourway, veiledColourway } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import type { WorthKeeper } from '../stores/worth';
import type { Routes } from '../http/routes';
import { agree } from './agree';
import { writeAsDone } from './as-done';
import { readBeside } from './beside';
import { changePromise } from './change-promise';
import { attachToEye, giveVerdict, recordEye, recordReading, takeVerdictBack } from './judge';
import { keepFibre } from './keep-fibre';
import { keepSpent } from './keep-spent';
import { readKept } from './kept-of-lot';
import { readLotCost } from './lot-cost';
import { readLotSummaries } from './lots-store';
import { readMasters, setMaster } from './masters';
import { propose } from './propose';
import { recordEntry } from './record-entry';
import { returnLiquor } from './return-liquor';
import { assertLotShown, assertVersionShown, veilFor } from '../studio/veil';
import { notFound } from '../shared/problem';
import { readLotFor, veilSummaries } from './veiled-lot';

export function lotsRoutes(routes: Routes, worths: WorthKeeper): void {
  routes.reads(api.lotCost, async ({ db, id, person }) => {
    if ((await veilFor(db, person.id))?.lotIds.has(id)) throw notFound($localize`cost of this lot`);
    return readLotCost(db, worths, id);
  });
  routes.reads(api.colourway, async ({ db, id, person }) => {
    const veil = await veilFor(db, person.id);
    return {
      colourway: veiledColourway(await findColourway(db, id), veil),
      lots: veilSummaries(await readLotSummaries(db, { colourwayId: id }), veil),
      masters: await readMasters(db, id),
    };
  });
  routes.writes(api.editColourway, ['colourways', 'lots'], async ({ db, id, body, person }) => {
    if ((await veilFor(db, person.id))?.colourwayIds.has(id)) throw notFound('recipe');
    await assertVersionShown(db, body.recipeVersionId, person.id);
    await changePromise(db, id, body);
    return { id };
  });
  routes.reads(api.lots, async ({ db, person }) =>
    veilSummaries(await readLotSummaries(db), await veilFor(db, person.id)),
  );
  routes.reads(api.propose, async ({ db, body, now, person }) => {
    await assertColourwayShown(db, body, person.id);
    return (await propose(db, body, now)).proposal;
  });
  routes.reads(api.lot, ({ db, id, person }) => readLotFor(db, id, person.id));
  routes.reads(api.lotBeside, async ({ db, id, query, person }) => {
    const { lots, ...rest } = await readBeside(db, id, query.other, person.id);
    return { ...rest, lots: veilSummaries(lots, await veilFor(db, person.id)) };
  });
  routes.writes(api.agree, ['lots', 'stores', 'colourways'], async ({ db, body, now, person }) => {
    await assertColourwayShown(db, body.ask, person.id);
    return agree(db, body, { now, byId: person.id });
  });
  routes.writes(api.recordEntry, ['lots', 'stores'], ({ db, id, body, now, person }) =>
    recordEntry(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.recordReading, ['lots'], ({ db, id, body, now, person }) =>
    recordReading(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.recordEye, ['lots'], ({ db, id, body, now, person }) =>
    recordEye(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.attachEyePhoto, ['lots'], ({ db, id, query, file, files, now, person }) =>
    attachToEye(db, id, query.eye, { id: query.id, name: query.name, file }, { now, byId: person.id, files }),
  );
  routes.writes(api.keepFibre, ['stores', 'lots'], ({ db, id, body, now, person }) =>
    keepFibre(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.keepSpent, ['stores', 'lots'], ({ db, id, body, now, person }) =>
    keepSpent(db, id, body, { now, byId: person.id }),
  );
  routes.reads(api.keptOfLot, async ({ db, id, person }) => {
    const veil = await veilFor(db, person.id);
    const kept = await readKept(db, id);
    // A spent dyestuff or a bath would tell what was drawn.
    return (veil?.lotIds.has(id) ? kept.filter((k) => k.treatment !== null) : kept).map((k) => ({
      ...k,
      wentInto: k.wentInto.filter((l) => !veil?.lotIds.has(l.id)),
    }));
  });
  routes.writes(api.setMaster, ['colourways', 'lots'], async ({ db, id, body, now, person }) => {
    // With it a version may be written of a recipe that this person doesn't see.
    if (body.asDoneVersionId !== null && (await veilFor(db, person.id))?.colourwayIds.has(id)) throw notFound('recipe');
    return setMaster(db, id, body, { now, byId: person.id });
  });
  routes.writes(api.writeAsDone, ['recipes'], async ({ db, id, body, now, person }) => {
    await assertLotShown(db, id, person.id);
    return writeAsDone(db, id, body, { now, byId: person.id });
  });
  routes.writes(api.returnLiquor, ['stores', 'lots'], ({ db, id, body, now, person }) =>
    returnLiquor(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.giveVerdict, ['lots', 'stores', 'colourways'], ({ db, id, body, now, person }) =>
    giveVerdict(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.takeVerdictBack, ['lots', 'stores', 'colourways'], ({ db, id, body, now, person }) =>
    takeVerdictBack(db, id, body, { now, byId: person.id }),
  );
}

/** Nobody plans by a recipe that is kept from them: neither the colourway's nor the one that is asked for. */
async function assertColourwayShown(
  db: Db,
  { colourwayId, recipeVersionId }: { readonly colourwayId: string; readonly recipeVersionId?: string | undefined },
  personId: string,
): Promise<void> {
  const veil = await veilFor(db, personId);
  if (veil?.colourwayIds.has(colourwayId)) throw notFound('recipe');
  await assertVersionShown(db, recipeVersionId, personId);
}

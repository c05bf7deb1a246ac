import { api } from '@vestigia/contract';
import { mayAs } from '@vestigia/core';
import { heatSources, vessels, waters } from '../db/schema';
import { addPerson, setHashes } from '../auth/auth-store';
import { hashChosen, hashPassphrase, newCode } from '../shared/passphrase';
import { Refusal, notFound } from '../shared/problem';
import type { Routes } from '../http/routes';
import { readDeeds } from './deeds-store';
import { veilFor } from './veil';
import {
  readStudio,
  removeVessel,
  setRole,
  updateHeatSource,
  updateSettings,
  updateVessel,
  updateWater,
} from './studio-store';

export function studioRoutes(routes: Routes): void {
  routes.reads(api.studio, ({ db }) => readStudio(db));
  routes.writes(api.editSettings, ['studio'], async ({ db, body }) => {
    await updateSettings(db, body);
    return readStudio(db);
  });
  routes.writes(api.addPerson, ['studio'], async ({ db, body }) => {
    await addPerson(db, body, await hashChosen(body.passphrase));
    return { id: body.id };
  });
  routes.writes(api.setRole, ['studio'], async ({ db, id, body }) => {
    await setRole(db, id, body.role);
    return { ok: true as const };
  });
  routes.reads(api.deeds, async ({ db, query, person, role }) => {
    const veil = await veilFor(db, person.id);
    return readDeeds(db, query, { veil, isDoorShown: mayAs(role, 'owner') });
  });
  routes.writes(api.giveCode, ['studio'], async ({ db, id, person }) => {
    if (id === person.id)
      throw new Refusal('refused', $localize`A code is for somebody else. Change your own passphrase instead.`);
    const code = newCode();
    if (!(await setHashes(db, id, { codeHash: await hashPassphrase(code) }))) throw notFound('person');
    return { code };
  });
  routes.writes(api.addVessel, ['studio'], async ({ db, body }) => {
    await db.insert(vessels).values({ ...body, workingMl: Math.round(body.workingMl) });
    return { id: body.id };
  });
  routes.writes(api.editVessel, ['studio'], async ({ db, id, body }) => {
    await updateVessel(db, id, { ...body, workingMl: Math.round(body.workingMl) });
    return { id };
  });
  routes.writes(api.removeVessel, ['studio'], async ({ db, id }) => {
    await removeVessel(db, id);
    return { ok: true as const };
  });
  routes.writes(api.addHeatSource, ['studio'], async ({ db, body }) => {
    await db.insert(heatSources).values(body);
    return { id: body.id };
  });
  routes.writes(api.editHeatSource, ['studio'], async ({ db, id, body }) => {
    await updateHeatSource(db, id, body);
    return { id };
  });
  routes.writes(api.addWater, ['studio'], async ({ db, body }) => {
    await db.insert(waters).values(body);
    return { id: body.id };
  });
  routes.writes(api.editWater, ['studio'], async ({ db, id, body }) => {
    await updateWater(db, id, body);
    return { id };
  });
}

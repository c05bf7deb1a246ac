import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { editHouseTimes, readHouseTimes } from './house-times';
import { acceptPlan, readPlanFacts } from './plan-store';
import { wantLot } from './wanted';

export function planRoutes(routes: Routes): void {
  routes.reads(api.plan, ({ db, now, person }) => readPlanFacts(db, now, person.id));
  routes.writes(api.acceptPlan, ['plan'], async ({ db, body, now, person }) => {
    await acceptPlan(db, body, { now, byId: person.id });
    return { id: body.id };
  });
  routes.reads(api.planTimes, ({ db }) => readHouseTimes(db));
  routes.writes(api.editPlanTimes, ['plan'], ({ db, body }) => editHouseTimes(db, body));
  routes.writes(api.wantLot, ['plan', 'lots'], async ({ db, id, body, now, person }) => {
    await wantLot(db, id, body.wantedOn, { now, byId: person.id });
    return { ok: true as const };
  });
}

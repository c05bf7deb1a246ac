import { api } from '@vestigia/contract';
import type { FileReply, Routes } from '../http/routes';
import { calendarByKey, calendarOf, hasCalendarKey, newCalendarKey, revokeCalendarKey } from './calendar-feed';
import { editHouseTimes, readHouseTimes } from './house-times';
import { awaitMaterial } from './arrivals';
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
  routes.reads(api.calendar, async ({ db, now, person }) => calendarFile(await calendarOf(db, person.id, now)));
  routes.reads(api.calendarByKey, async ({ db, now, query }) => calendarFile(await calendarByKey(db, query.key, now)));
  routes.reads(api.calendarAddress, async ({ db, person }) => ({
    has: await hasCalendarKey(db, person.id),
    key: null,
  }));
  routes.writes(api.newCalendarAddress, [], async ({ db, person }) => ({
    has: true,
    key: await newCalendarKey(db, person.id),
  }));
  routes.writes(api.endCalendarAddress, [], async ({ db, person }) => {
    await revokeCalendarKey(db, person.id);
    return { has: false, key: null };
  });
  routes.writes(api.awaitMaterial, ['plan'], async ({ db, id, body, now, person }) => {
    await awaitMaterial(db, id, body.arrivesOn, { now, byId: person.id });
    return { ok: true as const };
  });
  routes.writes(api.wantLot, ['plan', 'lots'], async ({ db, id, body, now, person }) => {
    await wantLot(db, id, body.wantedOn, { now, byId: person.id });
    return { ok: true as const };
  });
}

const calendarFile = (content: string): FileReply => ({ name: 'plan.ics', type: 'text/calendar', content });

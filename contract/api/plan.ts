import { arrival, calendarAddress, calendarQuery, houseTimesEdit, lotWanted, newHousePlan, planFacts } from '../plan';
import type { Call } from './call';
import { created, done, text } from './call';

export const planCalls = {
  plan: {
    method: 'get',
    path: '/api/plan',
    summary: 'All a plan is made of: open lots, hours, pots, burners, and the plan that was accepted',
    reply: planFacts,
  },
  acceptPlan: {
    method: 'post',
    path: '/api/plan',
    summary: 'Go by this plan from now on',
    body: newHousePlan,
    reply: created,
    role: 'dyer',
  },
  planTimes: {
    method: 'get',
    path: '/api/plan/times',
    summary: 'When the house is open, who works when, what works',
    reply: houseTimesEdit,
  },
  editPlanTimes: {
    method: 'put',
    path: '/api/plan/times',
    summary: 'Change when the house is open, who works when, what works',
    body: houseTimesEdit,
    reply: houseTimesEdit,
    role: 'dyer',
  },
  calendarAddress: {
    method: 'get',
    path: '/api/plan/calendar/address',
    summary: 'Whether there is a private address for one’s calendar',
    reply: calendarAddress,
  },
  newCalendarAddress: {
    method: 'post',
    path: '/api/plan/calendar/address',
    summary: 'A new private address for one’s calendar, told this once; the one before ends',
    reply: calendarAddress,
  },
  endCalendarAddress: {
    method: 'delete',
    path: '/api/plan/calendar/address',
    summary: 'End the private address of one’s calendar',
    reply: calendarAddress,
    role: 'guest',
  },
  calendar: {
    method: 'get',
    path: '/api/plan/calendar',
    summary: 'What one has to do by the accepted plan, as iCalendar',
    reply: text,
    download: 'text/calendar',
  },
  calendarByKey: {
    method: 'get',
    path: '/api/calendar',
    summary: 'The same for a calendar program, by its private address',
    query: calendarQuery,
    reply: text,
    download: 'text/calendar',
    open: true,
  },
  wantLot: {
    method: 'put',
    path: '/api/lots/{id}/wanted',
    summary: 'Say by which day a lot is promised',
    body: lotWanted,
    reply: done,
    role: 'dyer',
  },
  awaitMaterial: {
    method: 'put',
    path: '/api/materials/{id}/arrival',
    summary: 'Say on which day what is short of a material is to be there',
    body: arrival,
    reply: done,
    role: 'dyer',
  },
} as const satisfies Record<string, Call>;

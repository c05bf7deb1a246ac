import { houseTimesEdit, lotWanted, newHousePlan, planFacts } from '../plan';
import type { Call } from './call';
import { created, done } from './call';

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
  wantLot: {
    method: 'put',
    path: '/api/lots/{id}/wanted',
    summary: 'Say by which day a lot is promised',
    body: lotWanted,
    reply: done,
    role: 'dyer',
  },
} as const satisfies Record<string, Call>;

import { z } from 'zod';
import { keepAtHand, pageAtHand, searchHit, today } from '../today';
import type { Call } from './call';

export const todayCalls = {
  today: { method: 'get', path: '/api/today', summary: 'What is in work, what is due, what is short', reply: today },
  search: {
    method: 'get',
    path: '/api/search',
    summary: 'Find lots, jars, recipes and colourways',
    query: z.object({ q: z.string().max(200) }),
    reply: z.array(searchHit),
  },
  atHand: {
    method: 'get',
    path: '/api/at-hand',
    summary: 'The pages that whoever asks wants at hand, newest first',
    reply: z.array(pageAtHand),
  },
  keepAtHand: {
    method: 'put',
    path: '/api/at-hand',
    summary: 'Keep a page at hand, or no longer',
    body: keepAtHand,
    reply: z.array(pageAtHand),
    role: 'guest',
  },
} as const satisfies Record<string, Call>;

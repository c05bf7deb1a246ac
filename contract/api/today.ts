import { z } from 'zod';
import { searchHit, today } from '../today';
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
} as const satisfies Record<string, Call>;

import { matchRecord } from '../match';
import type { Call } from './call';

export const matchCalls = {
  matchRecord: {
    method: 'get',
    path: '/api/match/record',
    summary: 'Everything that was dyed and read, as what it was dyed with: what shades are foretold from',
    reply: matchRecord,
  },
} as const satisfies Record<string, Call>;

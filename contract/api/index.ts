import { authCalls } from './auth';
import { studioCalls } from './studio';
import { notesCalls } from './notes';
import { storesCalls } from './stores';
import { transferCalls } from './transfer';
import { recipesCalls } from './recipes';
import { colourwaysCalls } from './colourways';
import { lotsCalls } from './lots';
import { benchCalls } from './bench';
import { judgeCalls } from './judge';
import { matchCalls } from './match';
import { ordersCalls } from './orders';
import { planCalls } from './plan';
import { todayCalls } from './today';

export type { Call } from './call';
export { leastRole } from './call';

/** Every call of the server. The routes are registered from it and `/api/openapi.json` is made from it. */
export const api = {
  ...authCalls,
  ...studioCalls,
  ...notesCalls,
  ...storesCalls,
  ...transferCalls,
  ...recipesCalls,
  ...colourwaysCalls,
  ...lotsCalls,
  ...benchCalls,
  ...judgeCalls,
  ...matchCalls,
  ...ordersCalls,
  ...planCalls,
  ...todayCalls,
};
export type Api = typeof api;

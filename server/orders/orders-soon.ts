import type { Today } from '@vestigia/contract';
import { addDays } from '@vestigia/core';
import type { Db } from '../db/database';
import { studioToday } from '../studio/studio-store';
import { readOrders } from './read-orders';

const SOON_DAYS = 14;

/** Agreed orders that are wanted within two weeks, or are ready to go out whenever they are wanted. */
export async function ordersSoon(db: Db, now: Date): Promise<Today['orders']> {
  const until = addDays(await studioToday(db, now), SOON_DAYS);
  return (await readOrders(db)).flatMap(({ id, number, customer, wantedOn, stands, state, lines }) => {
    if (state !== 'agreed' || stands === 'handedOver') return [];
    if (stands !== 'ready' && (wantedOn === null || wantedOn > until)) return [];
    const pieces = lines.reduce((sum, l) => sum + Math.max(0, l.pieces - l.standing.handedOver), 0);
    return [{ id, number, customer: customer.name, wantedOn, stands, pieces }];
  });
}

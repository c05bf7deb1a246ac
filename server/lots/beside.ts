import type { LotSummary, LotsBeside } from '@vestigia/contract';
import type { LotConditions } from '@vestigia/core';
import { compareThenAndNow } from '@vestigia/core';
import { Refusal, notFound } from '../shared/problem';
import type { Db } from '../db/database';
import { veilFor } from '../studio/veil';
import type { EarlierLot } from './earlier-lot';
import { readEarlier } from './earlier-lot';
import { findLot, readLotSummaries } from './lots-store';

/** What a lot was made of; while it is still being dyed, what it is planned to be made of. */
const madeOf = ({ state }: LotSummary, { planned, really }: EarlierLot): LotConditions =>
  state === 'planned' || state === 'inWork' ? planned : really;

/**
 * Two lots side by side, each as it really was: what they differ in, and so what moved the colour. What is kept from
 * this person has no factors to show.
 */
export async function readBeside(db: Db, lotId: string, otherId: string, personId: string): Promise<LotsBeside> {
  if (lotId === otherId) throw new Refusal('refused', $localize`A lot lies beside another one. Choose which.`);
  const pair = [await findLot(db, lotId), await findLot(db, otherId)];
  // The earlier first, so that what differs reads as it came.
  const [lot, other] = pair.sort((a, b) => a.number - b.number);
  if (!lot || !other) throw notFound('lot');
  const summaries = await readLotSummaries(db, { ids: [lot.id, other.id] });
  const [one, two] = [lot, other].map(({ id }) => summaries.find((s) => s.id === id));
  if (!one || !two) throw notFound('lot');
  const veil = await veilFor(db, personId);
  if (veil?.lotIds.has(lotId) || veil?.lotIds.has(otherId)) return { lots: [one, two], factors: [], otherwise: [] };
  const [here, there] = [await readEarlier(db, lot), await readEarlier(db, other)];
  return {
    lots: [one, two],
    factors: compareThenAndNow(madeOf(one, here), madeOf(two, there)),
    otherwise: [here, there].map((l) => l.told.deviations),
  };
}

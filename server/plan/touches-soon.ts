import { touchesAhead } from '@vestigia/core';
import type { Today } from '@vestigia/contract';
import type { Db } from '../db/database';
import { plans } from '../db/schema';
import { readPlanFacts } from './plan-store';

/** Today, this evening, and what tomorrow begins with. */
const SOON_MS = 30 * 3_600_000;

/** What hands are asked for soon by the accepted plan, as this person may see it; nothing where there is none. */
export async function touchesSoon(db: Db, now: Date, personId: string): Promise<Today['byPlan']> {
  const any = await db.select({ id: plans.id }).from(plans).limit(1);
  if (any.length === 0) return [];
  const until = new Date(now.getTime() + SOON_MS).toISOString();
  const facts = await readPlanFacts(db, now, personId);
  return touchesAhead(facts)
    .filter((t) => t.startAt <= until)
    .map((t) => ({ ...t, who: facts.people.find((p) => p.id === t.personId)?.name ?? '' }));
}

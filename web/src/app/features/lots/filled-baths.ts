import type { Proposal } from '@vestigia/contract';
import { sayCourse, sayMinutes } from '@vestigia/core';

type Baths = Proposal['plan']['steps'][number]['baths'];

/** Steps that share a bath stand together: it is filled once. */
export function filledBaths({ plan }: Proposal) {
  const filled = new Map<string, { titles: string[]; forWhom: string; course: string; baths: Baths }>();
  for (const s of plan.steps.filter((o) => o.baths.length > 0)) {
    const key = JSON.stringify(s.baths);
    const courseLine = `${s.title}: ${sayCourse(s) || sayMinutes(s.durationMin)}`;
    const before = filled.get(key);
    filled.set(key, {
      titles: [...(before?.titles ?? []), s.title],
      forWhom: s.forWhom,
      baths: s.baths,
      course: before ? `${before.course} · ${courseLine}` : courseLine,
    });
  }
  return [...filled.values()].map((b) => ({ ...b, title: b.titles.join(' → ') }));
}

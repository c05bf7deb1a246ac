import type { Compiled, CompiledStep } from './compile-problem';
import type { Schedule } from './schedule';

/** Things and people, by number, in a stretch of time. */
interface Stretch {
  readonly things: readonly number[];
  readonly people: readonly number[];
  readonly from: number;
  readonly to: number;
}

/** Other lots that take up something where the accepted plan has a lot: it can’t go back there before they give way. */
export function inTheWayBack(c: Compiled, schedule: Schedule, lot: number): number[] {
  return lotsIn(
    c,
    schedule,
    lot,
    (c.queues[lot] ?? []).flatMap((n) => stretchesOf(c, n)),
  );
}

/** Other lots that take up, so long before and after a moment, what a step could be done with. */
export function inTheWayAround(c: Compiled, schedule: Schedule, n: number, atMin: number, marginMin: number): number[] {
  const s = c.steps[n];
  if (!s) return [];
  const things = [
    ...s.ways.flatMap((way) => [...way.needs, ...way.holds]),
    ...s.within.flatMap((h) => schedule.holdOn[h] ?? []),
  ];
  const stretch = { things, people: s.people, from: atMin - marginMin, to: atMin + marginMin };
  return lotsIn(c, schedule, s.lot, [stretch]);
}

/** What a step took up in the accepted plan: its things, the hands at both its ends, and what it held from then on. */
function stretchesOf(c: Compiled, n: number): Stretch[] {
  const s = c.steps[n];
  const was = s?.previous;
  if (!s || !was) return [];
  const person = (id: string | null): number[] => c.problem.people.flatMap((p, i) => (p.id === id ? [i] : []));
  const things = c.problem.resources.flatMap((r, i) => (was.resourceIds.includes(r.id) ? [i] : []));
  return [
    { things, people: [], from: was.startMin, to: was.endMin },
    {
      things: [],
      people: person(was.beginBy),
      from: was.startMin,
      to: s.step.watched ? was.endMin : was.aloneFromMin,
    },
    { things: [], people: person(was.endBy), from: was.aloneToMin, to: was.endMin },
    ...s.begins.map((h, i) => ({
      things: s.previousHolds.slice(i, i + 1).filter((thing) => thing >= 0),
      people: [],
      from: was.startMin,
      to: lastOf(c, h)?.previous?.endMin ?? was.endMin,
    })),
  ];
}

const lastOf = (c: Compiled, h: number): CompiledStep | undefined => c.steps[c.holds[h]?.to ?? -1];

function lotsIn(c: Compiled, schedule: Schedule, lot: number, stretches: readonly Stretch[]): number[] {
  const found = new Set<number>();
  const addOwners = (owners: readonly number[] | undefined): void => {
    for (const owner of owners ?? []) {
      // A thing is taken by steps, and behind their numbers by holds.
      const of = c.steps[owner] ?? c.steps[c.holds[owner - c.steps.length]?.from ?? -1];
      if (of && of.lot !== lot) found.add(of.lot);
    }
  };
  for (const { things, people, from, to } of stretches) {
    for (const thing of things) addOwners(schedule.resources[thing]?.ownersWithin(from, to));
    for (const person of people) addOwners(schedule.people[person]?.ownersWithin(from, to));
  }
  return [...found].filter((other) => (c.queues[other] ?? []).length > 0);
}

import type { PlanProblem, PlanStep } from './plan-problem';
import type { SolveAsked } from './solve-plan';
import { solvePlan } from './solve-plan';

/** Something a studio could do so that a promise is kept, as facts. */
export type PlanHelp =
  | { readonly code: 'evenings'; readonly name: string }
  | { readonly code: 'another'; readonly kind: 'vessel' | 'heat'; readonly name: string }
  | { readonly code: 'hands' }
  | { readonly code: 'first'; readonly name: string }
  | { readonly code: 'coldMordant' }
  /** Everything that was settled may move. */
  | { readonly code: 'anew' };

/** What each would bring: by how much a lot would then be late. */
export interface HelpTried {
  readonly help: PlanHelp;
  readonly lateMin: number;
}

/** A lot that is late in a plan. */
export interface LateLot {
  readonly lotId: string;
  readonly lateMin: number;
  readonly hotMordantIds: readonly string[];
}

/** A lot before all others weighs so much more than they do. */
const FIRST = 1000;
const EVENING_MIN = 240;
/** A cold mordant lies a day at least, a week at most. */
const [COLD_MIN, COLD_MOST_MIN] = [1440, 7 * 1440];

/**
 * What would let a lot be done by its day, each tried by itself: somebody staying on, one more of a pot or a burner it
 * uses, another pair of hands, or going before the other lots. Those that help, the most helpful first.
 * @param lotId a lot that is late in the plan
 * @param lateMin by how much it is late there
 * @param hotMordantIds its steps that mordant hot: cold, each takes a day and no burner
 */
export function whatWouldMakeIt(
  problem: PlanProblem,
  { lotId, lateMin, hotMordantIds }: LateLot,
  asked: SolveAsked,
): HelpTried[] {
  const lot = problem.lots.find((l) => l.id === lotId);
  if (!lot) return [];
  const used = new Set([
    ...lot.holds.flatMap((h) => h.resourceIds),
    ...lot.steps.flatMap((s) => s.needs.flatMap((n) => n.options.map((o) => o.resourceId))),
  ]);
  const late = (changed: PlanProblem): number =>
    solvePlan({ ...changed, previous: [], previousHolds: [] }, asked).lots.find((l) => l.lotId === lotId)?.lateMin ?? 0;
  const now = late(problem);
  const hot = lot.steps.filter((s) => !s.fixed && hotMordantIds.includes(s.id));
  const helps: { help: PlanHelp; changed: PlanProblem }[] = [
    ...problem.people.map((person) => ({
      help: { code: 'evenings' as const, name: person.name },
      changed: {
        ...problem,
        people: problem.people.map((p) =>
          p === person
            ? { ...p, evenings: [...p.evenings, ...p.hours.map(([, to]) => [to, to + EVENING_MIN] as const)] }
            : p,
        ),
      },
    })),
    ...problem.resources.flatMap((r) =>
      used.has(r.id) && (r.kind === 'vessel' || r.kind === 'heat')
        ? [
            {
              help: { code: 'another' as const, kind: r.kind, name: r.name },
              changed: {
                ...problem,
                resources: problem.resources.map((x) => (x === r ? { ...x, capacity: x.capacity + 1, out: [] } : x)),
              },
            },
          ]
        : [],
    ),
    ...(hot.length === 0
      ? []
      : [
          {
            help: { code: 'coldMordant' as const },
            changed: {
              ...problem,
              lots: problem.lots.map((l) =>
                l === lot ? { ...l, steps: l.steps.map((s) => (hot.includes(s) ? inTheCold(problem, s) : s)) } : l,
              ),
            },
          },
        ]),
    {
      help: { code: 'hands' },
      changed: {
        ...problem,
        people: [
          ...problem.people,
          {
            id: 'another pair of hands',
            name: '',
            hours: problem.open,
            evenings: [],
            may: [...new Set(lot.steps.flatMap((s) => s.hazards))],
          },
        ],
      },
    },
    {
      help: { code: 'first', name: lot.name },
      changed: {
        ...problem,
        weights: { ...problem.weights, late: problem.weights.late * FIRST },
        lots: problem.lots.map((l) => (l === lot ? l : { ...l, dueMin: null })),
      },
    },
  ];
  // What planning anew brings by itself is no merit of the others.
  const anew: HelpTried[] = now < lateMin ? [{ help: { code: 'anew' }, lateMin: now }] : [];
  if (now === 0) return anew;
  const others = helps.map(({ help, changed }) => ({ help, lateMin: late(changed) })).filter((h) => h.lateMin < now);
  return [...anew, ...others].sort((a, b) => a.lateMin - b.lateMin);
}

/** A mordant that lies cold: for a day or longer, off the burner, and overnight too. */
function inTheCold(problem: PlanProblem, step: PlanStep): PlanStep {
  const isHeat = (id: string): boolean => problem.resources.find((r) => r.id === id)?.kind === 'heat';
  return {
    ...step,
    aloneMin: COLD_MIN,
    aloneMaxMin: COLD_MOST_MIN,
    overnight: true,
    needs: step.needs.filter((n) => !n.options.some((o) => isHeat(o.resourceId))),
  };
}

/** What it would take, in a sentence. */
export function sayPlanHelp(help: PlanHelp): string {
  switch (help.code) {
    case 'evenings':
      return $localize`${help.name} stays four hours longer`;
    case 'another':
      return help.kind === 'vessel'
        ? $localize`a second pot like ${help.name}`
        : $localize`room for one more pot on ${help.name}, or another like it`;
    case 'hands':
      return $localize`another pair of hands in all opening hours`;
    case 'coldMordant':
      return $localize`a cold mordant of a day to a week instead of the hot one; it may give another colour, so dye a strip first`;
    case 'anew':
      return $localize`planning all lots anew, which moves what is settled`;
    case 'first':
      return $localize`${help.name} goes before all other lots, whatever was promised for them`;
  }
}

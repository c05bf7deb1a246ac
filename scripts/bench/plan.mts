// npm run bench -- --plan [--small N] [--middle N] [--large 0]: how good plans are. Small ones against an exact solver,
// mid-sized ones against the bound it finds; what a studio of the size aimed at waits for its first, its good and its
// changed plan.
import '@angular/localize/init';
import { checkPlan, problemFault, solvePlan } from '../../core/index';
import type { PlanAnswer, PlanProblem } from '../../core/index';
import { asOf, asSlipped } from '../../core/plan/as-of.fixture';
import { randomProblem } from '../../core/plan/random-problem.fixture';
import { solveMip } from './plan-mip.mjs';
import { report } from './report.mjs';

const SMALL = { lots: 3, stepsALot: 3, vessels: 2, burners: 1, people: 2, days: 4, gridMin: 60 };
const MIDDLE = { lots: 5, stepsALot: 4, vessels: 3, burners: 1, people: 2, days: 5, gridMin: 60 };
const LARGE = { lots: 60, stepsALot: 15, vessels: 6, burners: 2, people: 3, days: 60, gridMin: 5 };
const EXACT_SECONDS = 120;
const EQUAL = 0.5;
/** The exact solver stops when its own bound is this near: a plan is measured against that bound. */
const GAP = 0.01;

const say = (what: string, found: string): void => report(what, '', found);
const option = (name: string, otherwise: number): number => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};

function breaches(problem: PlanProblem, plan: PlanAnswer): number {
  return checkPlan(problem, plan).length;
}

async function small(): Promise<void> {
  const wanted = option('small', 100);
  let equal = 0;
  let proven = 0;
  let broken = 0;
  let dearest = 0;
  for (let seed = 1, tried = 0; tried < wanted; seed += 1) {
    const problem = randomProblem(seed, SMALL);
    if (problemFault(problem)) continue;
    tried += 1;
    const plan = solvePlan(problem, { seed: 1, rounds: 20_000 });
    broken += breaches(problem, plan);
    const exact = await solveMip(problem, SMALL.gridMin, EXACT_SECONDS);
    const hasNone = exact.status === 'Infeasible';
    if (exact.status !== 'Optimal' && !hasNone) continue;
    proven += 1;
    const isEqual = hasNone ? plan.unplaced.length > 0 : Math.abs(plan.cost.total - exact.cost) < EQUAL;
    if (isEqual) equal += 1;
    else {
      dearest = Math.max(dearest, plan.cost.total / exact.cost - 1);
      say(`  not equal: problem ${seed}`, `${plan.cost.total.toFixed(1)} against ${exact.cost.toFixed(1)}`);
    }
  }
  say(`small: ${SMALL.lots} lots, ${SMALL.lots * SMALL.stepsALot} steps`, `${equal} of ${proven} equal to the optimum`);
  say('  solved exactly within the time', `${proven} of ${wanted}`);
  say('  dearest of the others', `${(dearest * 100).toFixed(2)} %`);
  say('  rules broken', `${broken}`);
}

async function middle(): Promise<void> {
  const wanted = option('middle', 10);
  const over: number[] = [];
  let broken = 0;
  for (let seed = 1001; over.length < wanted; seed += 1) {
    const problem = randomProblem(seed, MIDDLE);
    if (problemFault(problem)) continue;
    const plan = solvePlan(problem, { seed: 1, rounds: 60_000 });
    broken += breaches(problem, plan);
    const exact = await solveMip(problem, MIDDLE.gridMin, EXACT_SECONDS, GAP);
    if (exact.status !== 'Optimal') {
      say(`  problem ${seed}`, `${exact.status}: the exact solver has no optimum in ${EXACT_SECONDS} s`);
      over.push(Number.NaN);
      continue;
    }
    over.push(plan.cost.total / (exact.cost * (1 - GAP)) - 1);
  }
  const known = over.filter((x) => !Number.isNaN(x)).sort((a, b) => a - b);
  say(
    `middle: ${MIDDLE.lots} lots, ${MIDDLE.lots * MIDDLE.stepsALot} steps, aim 5 % above the bound`,
    `median ${percent(known[known.length >> 1])}, worst ${percent(known.at(-1))}, known of ${known.length} of ${over.length}`,
  );
  say('  rules broken', `${broken}`);
}

const percent = (share: number | undefined): string => (share === undefined ? '-' : `${(share * 100).toFixed(2)} %`);

function large(): void {
  for (const seed of [7, 8, 9]) {
    const problem = randomProblem(seed, LARGE);
    const began = performance.now();
    let firstMs = 0;
    let feasibleMs = 0;
    const plan = solvePlan(problem, {
      seed: 1,
      rounds: 1e9,
      goOn: () => performance.now() - began < 15_000,
      onBetter: (best) => {
        firstMs ||= performance.now() - began;
        if (feasibleMs === 0 && best().unplaced.length === 0) feasibleMs = performance.now() - began;
      },
    });
    say(`large ${seed}: 60 lots, 900 steps`, `first ${ms(firstMs)}, with all lots ${ms(feasibleMs)} (aim 2 s)`);
    say(
      '  after 15 s',
      `${plan.rounds} rounds, late ${plan.cost.lateMin} min, done on day ${(plan.cost.finishMin / 60 / 1440).toFixed(1)} at the mean, ` +
        `${plan.cost.outOfHours} touches out of hours, ${plan.unplaced.length} without a place, ${breaches(problem, plan)} rules broken`,
    );
    slipped(problem, plan);
    burnerBroke(problem, plan);
  }
}

/** A step in the middle runs on for ten hours. */
function slipped(problem: PlanProblem, plan: PlanAnswer): void {
  const middleMin = problem.horizonMin / 4;
  const running = plan.placed.find((p) => p.startMin < middleMin && p.endMin > middleMin);
  if (!running) return;
  planAgain('a step slips by ten hours', plan, asSlipped(problem, plan, running, 600));
}

/** A burner breaks and its spare part takes three days. */
function burnerBroke(problem: PlanProblem, plan: PlanAnswer): void {
  const nowMin = Math.round(problem.horizonMin / 4);
  const still = plan.placed.filter((p) => p.startMin < nowMin && p.resourceIds.includes('burner 1'));
  const outFrom = Math.max(nowMin, ...still.map((p) => p.endMin));
  const broken = {
    ...problem,
    resources: problem.resources.map((r) =>
      r.id === 'burner 1' ? { ...r, out: [[outFrom, outFrom + 3 * 1440] as const] } : r,
    ),
  };
  planAgain('a burner breaks for three days', plan, asOf(broken, plan, nowMin));
}

/** Two seconds of planning anew; a lot is unaffected where all of it could have stayed. */
function planAgain(what: string, before: PlanAnswer, problem: PlanProblem): void {
  const stood = new Map(before.placed.map((p) => [p.stepId, p]));
  const unplanned = solvePlan(problem, { seed: 1, rounds: 1 });
  const elsewhere = (plan: PlanAnswer, id: string): boolean =>
    plan.placed.find((p) => p.stepId === id)?.startMin !== stood.get(id)?.startMin;
  const open = problem.lots.flatMap((l) => l.steps.filter((s) => !s.fixed).map((s) => ({ id: s.id, lot: l.id })));
  const affected = new Set(open.filter(({ id }) => elsewhere(unplanned, id)).map(({ lot }) => lot));
  const began = performance.now();
  const next = solvePlan(problem, { seed: 1, rounds: 1e9, goOn: () => performance.now() - began < 2000 });
  const others = open.filter(({ lot }) => !affected.has(lot));
  const moved = others.filter(({ id }) => elsewhere(next, id));
  say(
    `  ${what}, 2 s later`,
    `${affected.size} lots had to move; of ${others.length} other steps ${moved.length} moved ` +
      `(${percent(moved.length / others.length)}, aim 10 %); late ${next.cost.lateMin} min, ` +
      `${next.unplaced.length} lots without a place, ${breaches(problem, next)} rules broken`,
  );
}

const ms = (value: number): string => `${Math.round(value)} ms`;

if (option('large', 1)) large();
await small();
await middle();

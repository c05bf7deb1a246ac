// npm run --silent solve-plan -- problem.json --seconds 15 [--seed 1] [--rounds N]
// Places the lots of a plan problem and prints the plan, both as docs/solve-plan.schema.json has them.
import '@angular/localize/init';
import { parseArgs } from 'node:util';
import { planProblem } from '../contract/index';
import { problemFault, sayPlanFault, solvePlan } from '../core/index';
import { readJson } from './read-json.mjs';

const DEFAULT_SECONDS = 15;
/** Writing the answer out and starting up are within the seconds asked for. */
const SPARE_MS = 300;

const say = (answer: object): void => console.log(JSON.stringify(answer));
const refuse = (reason: string): void => {
  say({ format: 'vestigia-plan-refused', version: 1, reason });
  process.exitCode = 1;
};

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { seconds: { type: 'string' }, seed: { type: 'string' }, rounds: { type: 'string' } },
});
const [path] = positionals;
const seconds = Number(values.seconds ?? DEFAULT_SECONDS);
const seed = Number(values.seed ?? 1);
const rounds = Number(values.rounds ?? 1e9);
if (path === undefined || !(seconds > 0) || !Number.isInteger(seed) || !(rounds > 0)) {
  console.error('npm run --silent solve-plan -- problem.json --seconds 15 [--seed 1] [--rounds N]');
  process.exit(2);
}
const given = readJson(path);
const read = planProblem.safeParse('json' in given ? given.json : undefined);
if ('problem' in given) refuse(given.problem);
else if (!read.success) {
  const [issue] = read.error.issues;
  refuse(`The problem is not as docs/solve-plan.schema.json has it: ${issue?.path.join('.')}: ${issue?.message}`);
} else {
  const fault = problemFault(read.data);
  if (fault) refuse(sayPlanFault(fault));
  else {
    const until = seconds * 1000 - SPARE_MS;
    say(solvePlan(read.data, { seed, rounds, goOn: () => performance.now() < until }));
  }
}

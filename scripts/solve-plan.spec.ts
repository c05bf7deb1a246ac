import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { planCommandAnswer } from '@vestigia/contract';
import { checkPlan } from '@vestigia/core';
import { afterAll, describe, expect, it } from 'vitest';
import { randomProblem } from '../core/plan/random-problem.fixture';

const root = join(import.meta.dirname, '..');
const folder = mkdtempSync(join(tmpdir(), 'vestigia-plan-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const solve = (problem: unknown, ...more: string[]): { status: number | null; answer: unknown } => {
  const path = join(folder, 'problem.json');
  writeFileSync(path, typeof problem === 'string' ? problem : JSON.stringify(problem));
  const { status, stdout } = spawnSync(
    process.execPath,
    [join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs'), join(root, 'scripts', 'solve-plan.mts'), path, ...more],
    { cwd: root, encoding: 'utf8' },
  );
  return { status, answer: JSON.parse(stdout) as unknown };
};
const small = randomProblem(3, { lots: 4, stepsALot: 4, vessels: 2, burners: 1, people: 2, days: 8, gridMin: 5 });

describe('planning by command', () => {
  it('prints a plan that holds to the rules, the same for a seed and as many rounds', () => {
    const [one, two] = [1, 2].map(() => solve(small, '--rounds', '50', '--seconds', '600', '--seed', '4'));
    const plan = planCommandAnswer.parse(one?.answer);
    if (plan.format !== 'vestigia-plan') throw new Error(plan.reason);
    expect(checkPlan(small, plan)).toEqual([]);
    expect(two).toEqual(one);
  });
  it('takes a problem that leaves out what has a default', () => {
    const bare = {
      format: 'vestigia-plan-problem',
      version: 1,
      horizonMin: 1440,
      people: [{ id: 'corin', hours: [[480, 1020]] }],
      resources: [{ id: 'pot' }],
      lots: [{ id: 'l', steps: [{ id: 's', beginHandsMin: 10, aloneMin: 60 }] }],
    };
    expect(solve(bare, '--rounds', '5').answer).toMatchObject({
      placed: [{ stepId: 's', startMin: 480, endMin: 550, beginBy: 'corin' }],
      unplaced: [],
    });
  });
  it.each<[string, unknown, RegExp]>([
    ['no JSON', '{', /is no JSON/],
    ['another file', { format: 'something' }, /not as docs\/solve-plan.schema.json has it/],
    ['a step nobody may do', { ...small, people: [] }, /nobody/i],
  ])('refuses %s with a sentence', (_, problem, says) => {
    const { status, answer } = solve(problem);
    expect([status, answer]).toEqual([
      1,
      { format: 'vestigia-plan-refused', version: 1, reason: expect.stringMatching(says) },
    ]);
  });
});

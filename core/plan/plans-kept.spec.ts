import { describe, expect, it } from 'vitest';
import { Chance } from '../quantity/chance';
import { plansKept, sayPlansKept } from './plans-kept';

const START = Date.parse('2026-06-01T18:00:00.000Z');
const late = (minutes: number) => ({
  saidAt: new Date(START).toISOString(),
  doneAt: new Date(START + minutes * 60_000).toISOString(),
});

describe('plans people went by', () => {
  it('say nothing of fewer than four lots', () => expect(plansKept([1, 2, 3].map(late))).toBeNull());
  it.each([
    [[0, 0, 0, 0], 'half were done when it said, or sooner, four in five when it said, or sooner.'],
    [[-120, -60, -60, 30], 'half were done at least 1 h sooner than it said, four in five no more than 30 min later'],
    [
      [30, 60, 90, 1440],
      'half were done no more than 1 h 30 min later than it said, four in five no more than 24 h later',
    ],
  ])('that were off by %j minutes are told by how far', (minutes, says) => {
    const kept = plansKept(minutes.map(late));
    expect(kept && sayPlansKept(kept)).toContain(says);
  });
  it.each([4, 12, 40])('tell the next of a steady studio four times in five or oftener, of %i lots', (lots) => {
    const chance = new Chance(lots);
    const draw = (): number => Math.round(600 * (chance.next() + chance.next() - 0.7));
    let [held, all] = [0, 0];
    for (let trial = 0; trial < 2000; trial += 1) {
      const kept = plansKept(Array.from({ length: lots }, () => late(draw())));
      all += 1;
      if (draw() <= (kept?.fourInFiveMin ?? -Infinity)) held += 1;
    }
    expect(held / all).toBeGreaterThanOrEqual(0.78);
  });
});

import { describe, expect, it } from 'vitest';
import type { StepRecord } from '../run/step-record';
import { cutCourse, pulledOut, samplesRead } from './early-out';

const at = (minute: number): string => new Date(Date.UTC(2026, 0, 5, 9, minute)).toISOString();
const record: StepRecord = {
  stepIndex: 2,
  startedAt: at(0),
  pausedMs: 5 * 60_000,
  temperaturesC: [],
  weighings: [],
  pulls: [{ at: at(25), piece: 1 }],
  samples: [
    { at: at(15), of: 'piece', depth: 0.4, batch: 1, lab: { L: 70, a: 0, b: 20 } },
    { at: at(16), of: 'piece', depth: 0.4, batch: 1 },
    { at: at(17), of: 'liquor', depth: 0.4, batch: 1, lab: { L: 70, a: 0, b: 20 } },
  ],
};

describe('fibre that came out before the rest', () => {
  it('a pulled piece was in for what is between, pauses left out', () => {
    expect(pulledOut([record], '1')).toEqual({ stepIndex: 2, minute: 20 });
    expect(pulledOut([record], '2')).toBeUndefined();
    expect(pulledOut([record], 'the long one')).toBeUndefined();
  });
  it('a snippet counts where it is fibre and was read; steps to hold against and liquor don’t', () =>
    expect(samplesRead([record])).toEqual([{ stepIndex: 2, minute: 10, batch: 1, lab: { L: 70, a: 0, b: 20 } }]));
});

describe('a course that is cut short', () => {
  const course = {
    stage: 'dye' as const,
    points: [
      { minute: 0, celsius: 20 },
      { minute: 40, celsius: 80 },
      { minute: 100, celsius: 80 },
    ],
  };
  it.each([
    [20, [0, 20], 50],
    [40, [0, 40], 80],
    [70, [0, 40, 70], 80],
    [400, [0, 40, 100], 80],
  ])('at %s minutes is as hot as it was then', (minute, minutes, celsius) => {
    const points = cutCourse(course, minute)?.points ?? [];
    expect(points.map((p) => p.minute)).toEqual(minutes);
    expect(points.at(-1)?.celsius).toBe(celsius);
  });
  it('is none where nothing of it was run', () => expect(cutCourse(course, 0)).toBeUndefined());
});

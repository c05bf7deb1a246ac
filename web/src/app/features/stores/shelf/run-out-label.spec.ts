import type { RunOut } from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import { sayRunOut } from './run-out-label';

describe('sayRunOut', () => {
  it.each<[string, RunOut | null]>([
    ['too little use to say', null],
    ['now: nothing is free', { likelyDays: 0, earlyDays: 0, lateDays: 0 }],
    ['in 12 days (9 days to 4 weeks)', { likelyDays: 12.2, earlyDays: 9, lateDays: 28 }],
    ['in 10 weeks (6 weeks to 5 months)', { likelyDays: 70, earlyDays: 42, lateDays: 152 }],
    ['in 22 months (17 months to 3 years)', { likelyDays: 670, earlyDays: 520, lateDays: 1100 }],
    ['in 8 months (17 weeks or more)', { likelyDays: 240, earlyDays: 119, lateDays: null }],
    ['not in ten years', { likelyDays: null, earlyDays: null, lateDays: null }],
    ['in 9 years at the earliest', { likelyDays: null, earlyDays: 3300, lateDays: null }],
  ])('says “%s”', (label, out) => expect(sayRunOut(out)).toBe(label));
});

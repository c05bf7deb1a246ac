import { describe, expect, it } from 'vitest';
import type { GivenVerdict } from './judged-alone';
import { TAKE_VERDICT_BACK_WITHIN_MS, judgedAlone, standingVerdicts, takeBackable } from './judged-alone';

const NOON = Date.parse('2026-11-30T12:00:00Z');
const PIECE = { batch: 1, group: null, zone: null, piece: '2', dip: null };
const at = (minutes: number): string => new Date(NOON + minutes * 60_000).toISOString();
const given = (verdict: GivenVerdict['verdict'], minutes: number, rest: Partial<GivenVerdict> = {}): GivenVerdict => ({
  verdict,
  of: null,
  at: at(minutes),
  takenBack: null,
  ...rest,
});
const BACK = { takenBack: {} };

describe('a verdict that was taken back', () => {
  it('no longer stands, and what stood before it does again', () => {
    const all = [given('hold', 0), given('pass', 10, BACK)];
    expect(standingVerdicts(all).map((v) => v.verdict)).toEqual(['hold']);
    const alone = [given('hold', 0, { of: PIECE }), given('refuse', 5, { of: PIECE, ...BACK })];
    expect(judgedAlone(alone).map((v) => v.verdict)).toEqual(['hold']);
    expect(judgedAlone([given('hold', 0, { of: PIECE, ...BACK })])).toEqual([]);
  });

  it.each<[string, readonly GivenVerdict[], number, string | undefined]>([
    ['none was given', [], 0, undefined],
    ['just now', [given('pass', 0)], 1, 'pass'],
    ['to the very hour', [given('pass', 0)], 60, 'pass'],
    ['a moment past the hour', [given('pass', 0)], 60.001, undefined],
    ['the last of two', [given('hold', 0), given('refuse', 5)], 10, 'refuse'],
    ['the one before, once the last was', [given('hold', 0), given('refuse', 5, BACK)], 10, 'hold'],
    ['all were already', [given('hold', 0, BACK)], 10, undefined],
    ['the clock was set back meanwhile', [given('pass', 5)], 0, 'pass'],
  ])('%s', (_name, all, minutes, which) => expect(takeBackable(all, NOON + minutes * 60_000)?.verdict).toBe(which));

  it('is an hour’s grace', () => expect(TAKE_VERDICT_BACK_WITHIN_MS).toBe(3_600_000));
});

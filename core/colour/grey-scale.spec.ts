import { describe, expect, it } from 'vitest';
import { gradeOfChange, gradeOfStaining, sayGreyGrade } from './grey-scale';

describe('grey-scale grades', () => {
  // A neutral that changes in lightness alone: ΔE_F is ΔL*, and the limits are those of the standard.
  it.each<[number, string]>([
    [0, '5'],
    [0.39, '5'],
    [0.41, '4–5'],
    [1.26, '4'],
    [2.11, '3–4'],
    [2.96, '3'],
    [4.11, '2–3'],
    [5.81, '2'],
    [8.21, '1–2'],
    [11.7, '1'],
  ])('of change: ΔL* %d of a grey is %s', (deltaL, grade) =>
    expect(sayGreyGrade(gradeOfChange({ L: 50, a: 0, b: 0 }, { L: 50 + deltaL, a: 0, b: 0 }).grade)).toBe(grade),
  );
  it('of change forgive a vivid colour more than a grey', () => {
    const vivid = gradeOfChange({ L: 50, a: 0, b: 60 }, { L: 50, a: 0, b: 63 });
    expect(vivid.deltaEF).toBeLessThan(3);
    expect(vivid.grade).toBeGreaterThan(gradeOfChange({ L: 50, a: 0, b: 0 }, { L: 50, a: 0, b: 3 }).grade);
  });
  // The cloth darkens in lightness alone, so that ΔE_GS is ΔE*: 6.1 − 1.45 ln ΔE, or 5 − 0.23 ΔE above 4.
  it.each<[number, number, string]>([
    [0, 5, '5'],
    [2.2, 4.494, '4–5'],
    [4.3, 3.985, '4'],
    [8.5, 2.997, '3'],
    [17, 1.992, '2'],
    [34, 0.987, '1'],
  ])('of staining: ΔL* %d of a white cloth is rated %d', (deltaL, rating, grade) => {
    const stained = gradeOfStaining({ L: 95, a: 0, b: 0 }, { L: 95 - deltaL, a: 0, b: 0 });
    expect(stained.rating).toBeCloseTo(rating, 2);
    expect(sayGreyGrade(stained.grade)).toBe(grade);
  });
  it('of staining count a tint less than a darkening', () => {
    const tinted = gradeOfStaining({ L: 95, a: 0, b: 0 }, { L: 95, a: 0, b: 5 });
    expect(tinted.deltaEGS).toBeCloseTo(3, 9);
  });
});

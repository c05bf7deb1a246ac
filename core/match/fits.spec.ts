import { describe, expect, it } from 'vitest';
import type { Dyeing } from './dyeing';
import { readFits } from './fits';
import type { FitKind } from './fits';
import type { Observation } from './posterior';
import { REFERENCES, dose, dyeing, pastLots, trueShade } from './small-dyehouse.fixture';

const alone = (percent: number, rest: Partial<Dyeing> = {}): Dyeing =>
  dyeing([dose('weld', 'weld 1', percent)], { colourwayId: null, ...rest });
const read = (id: string, d: Dyeing, as: Dyeing = d): Observation => ({
  id,
  dyeing: d,
  colour: { lab: trueShade(as), spectrum: null },
  day: null,
});
/** The fixture dyes at once and leaves nothing: what time and a dip take is put into the dose. */
const course = (minute: number): Dyeing['courses'] =>
  alone(1).courses.map((c) =>
    c.stage === 'dye'
      ? {
          ...c,
          points: [
            { minute: 0, celsius: 80 },
            { minute, celsius: 80 },
          ],
        }
      : c,
  );
const pulled = [8, 20, 45].map((minute) =>
  read(`pulled ${minute}`, alone(40, { courses: course(minute) }), alone(40 * (1 - Math.exp(-0.05 * minute)))),
);
const dips = [1, 2, 3].map((dip) => read(`dip ${dip}`, alone(40, { dip }), alone(40 * 0.5 ** (dip - 1))));
const told = readFits([...pastLots(14), ...pulled, ...dips], REFERENCES)!;
const fitOf = (kind: FitKind) => told.fits.find((f) => f.kind === kind && f.materialId === 'weld');

describe('what was learnt, as it is shown', () => {
  it('a stay rises with its minutes at 80 °C and levels off, its readings on it', () => {
    const fit = fitOf('minutes');
    expect(fit?.points.map((p) => p.id)).toEqual(expect.arrayContaining(pulled.map((p) => p.id)));
    const depths = fit?.curve.map((c) => c.fromUndyed) ?? [];
    expect(depths).toEqual([...depths].sort((x, y) => x - y));
    const [first, , , last] = [0, 8, 16, 23].map((i) => depths[i] ?? 0);
    expect((depths[5] ?? 0) - (first ?? 0)).toBeGreaterThan((last ?? 0) - (depths[18] ?? 0));
    expect(fit?.points.find((p) => p.id === 'pulled 20')?.at).toBeCloseTo(20, 0);
  });
  it('what each dip leaves falls from dip to dip', () => {
    const fit = fitOf('dip');
    expect(fit?.curve.map((c) => c.at)).toEqual([1, 2, 3]);
    const depths = fit?.curve.map((c) => c.fromUndyed) ?? [];
    expect(depths).toEqual([...depths].sort((x, y) => y - x));
    expect(fit?.medianResidual).toBeLessThan(2);
  });
  it('nothing is followed that was never varied, and what was read too seldom is declined', () => {
    expect(fitOf('mordant')).toBeUndefined();
    expect(fitOf('modifier')).toBeUndefined();
    const few = readFits([...pastLots(14), ...dips.slice(0, 2)], REFERENCES)!;
    expect(few.fits.filter((f) => f.kind === 'dip')).toEqual([]);
    expect(few.declined).toContainEqual({
      kind: 'dip',
      materialId: 'weld',
      mordantIds: ['alum'],
      modifierId: null,
      fibre: 'wool',
      readings: 2,
    });
  });
  it('a modifier and a mordant are followed by their doses', () => {
    const iron = (percent: number): Dyeing =>
      dyeing([dose('weld', 'weld 1', 40), dose('iron', 'iron 1', percent, { stage: 'modifier', role: 'modifier' })], {
        colourwayId: null,
      });
    const sad = [0.5, 1, 2, 4].map((percent): Observation => {
      const { L, a, b } = trueShade(alone(40));
      return {
        ...read(`iron ${percent}`, iron(percent)),
        colour: { lab: { L: L - 6 * Math.log1p(percent), a, b: b - 8 * Math.log1p(percent) }, spectrum: null },
      };
    });
    const alum = [4, 8, 16].map((percent) => {
      const d = alone(40);
      const doses = d.doses.map((x) => (x.role === 'mordant' ? { ...x, percentOwf: percent } : x));
      return read(`alum ${percent}`, { ...d, doses }, alone(40 * (percent / 12) ** 0.3));
    });
    const { fits } = readFits([...pastLots(14), ...sad, ...alum], REFERENCES)!;
    const modifier = fits.find((f) => f.kind === 'modifier');
    expect(modifier).toMatchObject({ modifierId: 'iron', materialId: 'weld' });
    expect(modifier?.points.map((p) => p.at)).toEqual([0.5, 1, 2, 4]);
    expect(modifier?.medianResidual).toBeLessThan(2);
    const mordant = fits.find((f) => f.kind === 'mordant');
    expect(mordant?.points.map((p) => p.at)).toEqual(expect.arrayContaining([4, 8, 16]));
    expect(mordant?.curve.at(-1)?.fromUndyed).toBeGreaterThan(mordant?.curve[3]?.fromUndyed ?? Infinity);
  });
});

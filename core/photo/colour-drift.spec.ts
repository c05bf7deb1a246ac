import { describe, expect, it } from 'vitest';
import type { Lab } from '../colour/lab';
import { colourDrift } from './colour-drift';
import { seeded } from './seeded';

const blocks = (of: (x: number, y: number) => Lab) =>
  Array.from({ length: 36 }, (_, i) => {
    const [x, y] = [i % 6, Math.floor(i / 6)];
    return { x: x * 20, y: y * 30, lab: of(x / 5, y / 5) };
  });

describe('two lights on one piece', () => {
  const random = seeded(3);
  it('turn its colour steadily from edge to edge', () => {
    const drift = colourDrift(blocks((x) => ({ L: 60, a: 5 + 4 * x + 0.4 * random.normal(), b: 20 - 6 * x })));
    expect(drift).toBeGreaterThan(6);
    expect(drift).toBeLessThan(8.5);
  });
  it.each<[string, (x: number, y: number) => Lab]>([
    ['an even piece', () => ({ L: 60, a: 5 + 0.5 * random.normal(), b: 20 })],
    ['light that falls off', (x, y) => ({ L: 60 - 12 * x - 5 * y, a: 5, b: 20 + 0.4 * random.normal() })],
    ['a patch in the middle', (x, y) => ({ L: 60, a: Math.hypot(x - 0.5, y - 0.5) < 0.3 ? 14 : 5, b: 20 })],
    ['nothing', () => ({ L: 60, a: 5, b: 20 })],
  ])('are not seen in %s', (_name, of) => expect(colourDrift(blocks(of))).toBeUndefined());
  it('are not told of a few spots', () =>
    expect(colourDrift(blocks((x) => ({ L: 60, a: 20 * x, b: 0 })).slice(0, 6))).toBeUndefined());
});

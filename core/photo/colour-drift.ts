import type { Lab } from '../colour/lab';

/** A block of a piece, where it lies in the picture. */
export interface PlacedBlock {
  readonly lab: Lab;
  readonly x: number;
  readonly y: number;
}

/** From one edge to the other, in a* and b* together: less is no more than light that falls off. */
const LEAST_DRIFT = 3;
/** So much of what differs in a* and b* must be a slope: patches and folds are none. */
const LEAST_SHARE = 0.7;
const LEAST_BLOCKS = 9;

/**
 * How far the colour of a piece turns steadily from one edge to the other: a window on one side and a lamp on the other
 * do that, and so does a piece that was dyed so. Lightness alone doesn’t count: light falls off.
 * @returns the distance in a* and b* from edge to edge; `undefined` where it doesn’t turn
 */
export function colourDrift(blocks: readonly PlacedBlock[]): number | undefined {
  if (blocks.length < LEAST_BLOCKS) return undefined;
  const mean = (of: (b: PlacedBlock) => number): number => blocks.reduce((sum, b) => sum + of(b), 0) / blocks.length;
  const [x0, y0] = [mean((b) => b.x), mean((b) => b.y)];
  const [xx, yy, xy] = [
    mean((b) => (b.x - x0) ** 2),
    mean((b) => (b.y - y0) ** 2),
    mean((b) => (b.x - x0) * (b.y - y0)),
  ];
  const determinant = xx * yy - xy * xy;
  if (determinant <= 0) return undefined;
  const slopes = (['a', 'b'] as const).map((channel) => {
    const c0 = mean((b) => b.lab[channel]);
    const [cx, cy] = [mean((b) => (b.lab[channel] - c0) * (b.x - x0)), mean((b) => (b.lab[channel] - c0) * (b.y - y0))];
    const [sx, sy] = [(cx * yy - cy * xy) / determinant, (cy * xx - cx * xy) / determinant];
    return { sx, sy, told: sx * cx + sy * cy, all: mean((b) => (b.lab[channel] - c0) ** 2) };
  });
  const all = slopes.reduce((sum, s) => sum + s.all, 0);
  if (all === 0 || slopes.reduce((sum, s) => sum + s.told, 0) / all < LEAST_SHARE) return undefined;
  const at = ({ x, y }: PlacedBlock): readonly number[] => slopes.map(({ sx, sy }) => sx * (x - x0) + sy * (y - y0));
  const corners = blocks.map(at);
  let drift = 0;
  for (const [a = 0, b = 0] of corners)
    for (const [c = 0, d = 0] of corners) drift = Math.max(drift, Math.hypot(a - c, b - d));
  return drift >= LEAST_DRIFT ? drift : undefined;
}

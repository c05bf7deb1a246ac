import type { Triple } from '../colour/xyz';
import { decodeSrgb } from '../colour/xyz';
import type { Picture, Rect } from './picture';

/** What the pixels of a patch say together. */
export interface PatchMean {
  /** Mean of the three channels, linear, 0-1. */
  readonly linear: Triple;
  /** Standard error of that mean, by blocks, so that noise that hangs together counts as what it is. */
  readonly standardError: Triple;
  /** Share of pixels that lie at the top in some channel: how bright they were, nobody knows. */
  readonly clippedShare: number;
  /** Means of blocks across the patch, for its evenness: each with where it lies in the picture. */
  readonly blocks: readonly { readonly linear: Triple; readonly x: number; readonly y: number }[];
}

/** Its rim is left out: neighbours bleed into it, by the lens and by JPEG. */
const RIM_SHARE = 0.1;
const BLOCKS_ACROSS = 6;
const CLIPPED_FROM = 253;

const LINEAR = Float64Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));

/** Averages a patch in linear light, within its rim. Range of a channel 0-1. */
export function meanOfPatch({ data, width }: Picture, rect: Rect): PatchMean {
  const inset = (length: number): number => Math.floor(length * RIM_SHARE);
  const x0 = Math.round(rect.x) + inset(rect.width);
  const y0 = Math.round(rect.y) + inset(rect.height);
  const x1 = Math.max(x0 + 1, Math.round(rect.x + rect.width) - inset(rect.width));
  const y1 = Math.max(y0 + 1, Math.round(rect.y + rect.height) - inset(rect.height));
  const across = Math.min(BLOCKS_ACROSS, x1 - x0);
  const down = Math.min(BLOCKS_ACROSS, y1 - y0);
  const sums = Array.from({ length: across * down }, () => ({ r: 0, g: 0, b: 0, n: 0 }));
  let clipped = 0;
  for (let y = y0; y < y1; y += 1) {
    const row = Math.floor(((y - y0) * down) / (y1 - y0)) * across;
    for (let x = x0; x < x1; x += 1) {
      const at = (y * width + x) * 4;
      const [r, g, b] = [data[at] ?? 0, data[at + 1] ?? 0, data[at + 2] ?? 0];
      if (r >= CLIPPED_FROM || g >= CLIPPED_FROM || b >= CLIPPED_FROM) clipped += 1;
      const block = sums[row + Math.floor(((x - x0) * across) / (x1 - x0))];
      if (!block) continue;
      block.r += LINEAR[r] ?? 0;
      block.g += LINEAR[g] ?? 0;
      block.b += LINEAR[b] ?? 0;
      block.n += 1;
    }
  }
  const pixels = sums.reduce((n, block) => n + block.n, 0);
  const blocks = sums.map(({ r, g, b, n }, i) => ({
    linear: [r / n, g / n, b / n] as Triple,
    x: x0 + (((i % across) + 0.5) * (x1 - x0)) / across,
    y: y0 + ((Math.floor(i / across) + 0.5) * (y1 - y0)) / down,
  }));
  const of = (channel: 0 | 1 | 2): { mean: number; error: number } => {
    const mean = blocks.reduce((sum, block) => sum + block.linear[channel], 0) / blocks.length;
    const variance = blocks.reduce((sum, block) => sum + (block.linear[channel] - mean) ** 2, 0);
    return { mean, error: blocks.length < 2 ? 0 : Math.sqrt(variance / (blocks.length - 1) / blocks.length) };
  };
  const [r, g, b] = [of(0), of(1), of(2)];
  return {
    linear: [r.mean, g.mean, b.mean],
    standardError: [r.error, g.error, b.error],
    clippedShare: clipped / pixels,
    blocks,
  };
}

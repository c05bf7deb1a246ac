import { CARD, CARD_GREYS, CARD_PATCHES, FINDER } from './patch-card';
import type { Picture, Rect } from './picture';

/** The card as it lies in a picture; or that it is none, or too much on the slant to be trusted. */
export type FoundCard =
  | { readonly ok: true; readonly patches: readonly Rect[] }
  | { readonly ok: false; readonly reason: 'notFound' | 'slanted' };

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A small grey picture to look for marks in. */
interface Grey {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
  /** Pixels of the picture in one of these. */
  readonly scale: number;
}

const LOOKED_AT_PX = 1000;
/** A pixel is dark where it lies below this share of what is around it. */
const DARK_SHARE = 0.78;
const AROUND_SHARE = 1 / 14;
const RATIO = [1, 1, 3, 1, 1] as const;
const RATIO_SLACK = 0.5;
const MOST_CANDIDATES = 12;
/** Opposite edges further apart than this lie in different distances: the light on them differs too. */
const MOST_SLANT = 1.4;
/** The greys have to fall from pale to deep as well as this. */
const LEAST_LIKENESS = 0.9;
/** So much of a patch is measured: its rim bleeds. */
const INNER = 0.5;

/** Finds the printed card by the four marks in its corners, whichever way up it lies. */
export function findCard(picture: Picture): FoundCard {
  const grey = shrink(picture);
  const marks = findMarks(grey).slice(0, MOST_CANDIDATES);
  let best: { readonly quad: readonly Point[]; readonly like: number } | undefined;
  for (const four of foursOf(marks)) {
    for (let turn = 0; turn < 4; turn += 1) {
      const quad = four.map((_, i) => four[(i + turn) % 4] as Point);
      const like = likeness(grey, quad);
      if (like > (best?.like ?? LEAST_LIKENESS)) best = { quad, like };
    }
  }
  if (!best) return { ok: false, reason: 'notFound' };
  if (slantOf(best.quad) > MOST_SLANT) return { ok: false, reason: 'slanted' };
  const onto = homography(CORNERS, best.quad);
  if (!onto) return { ok: false, reason: 'notFound' };
  return {
    ok: true,
    patches: CARD_PATCHES.map(({ x, y, width, height }) => {
      const middle = onto({ x: x + width / 2, y: y + height / 2 });
      const [right, below] = [onto({ x: x + width, y: y + height / 2 }), onto({ x: x + width / 2, y: y + height })];
      const side = INNER * Math.min(distance(middle, right), distance(middle, below)) * grey.scale;
      return {
        x: middle.x * grey.scale - side,
        y: middle.y * grey.scale - side,
        width: 2 * side,
        height: 2 * side,
      };
    }),
  };
}

const CORNERS: readonly Point[] = [
  { x: FINDER.inset, y: FINDER.inset },
  { x: CARD.width - FINDER.inset, y: FINDER.inset },
  { x: CARD.width - FINDER.inset, y: CARD.height - FINDER.inset },
  { x: FINDER.inset, y: CARD.height - FINDER.inset },
];

const distance = (p: Point, q: Point): number => Math.hypot(p.x - q.x, p.y - q.y);

/** The picture in grey, no longer than `LOOKED_AT_PX`, each value the mean of what it stands for. */
function shrink({ data, width, height }: Picture): Grey {
  const scale = Math.max(1, Math.max(width, height) / LOOKED_AT_PX);
  const [w, h] = [Math.floor(width / scale), Math.floor(height / scale)];
  const values = new Float32Array(w * h);
  for (let y = 0; y < h; y += 1)
    for (let x = 0; x < w; x += 1) {
      const [x0, x1] = [Math.floor(x * scale), Math.max(Math.floor(x * scale) + 1, Math.floor((x + 1) * scale))];
      const [y0, y1] = [Math.floor(y * scale), Math.max(Math.floor(y * scale) + 1, Math.floor((y + 1) * scale))];
      let sum = 0;
      for (let py = y0; py < y1; py += 1)
        for (let px = x0; px < x1; px += 1) {
          const at = (py * width + px) * 4;
          sum += 0.3 * (data[at] ?? 0) + 0.59 * (data[at + 1] ?? 0) + 0.11 * (data[at + 2] ?? 0);
        }
      values[y * w + x] = sum / ((x1 - x0) * (y1 - y0));
    }
  return { width: w, height: h, values, scale };
}

/** What is dark beside its surroundings: by the mean of a square about each pixel. */
function darkness({ width, height, values }: Grey): (x: number, y: number) => boolean {
  const around = Math.max(4, Math.round((Math.max(width, height) * AROUND_SHARE) / 2));
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      sums[(y + 1) * (width + 1) + x + 1] =
        (values[y * width + x] ?? 0) +
        (sums[y * (width + 1) + x + 1] ?? 0) +
        (sums[(y + 1) * (width + 1) + x] ?? 0) -
        (sums[y * (width + 1) + x] ?? 0);
  return (x, y) => {
    const [x0, x1] = [Math.max(0, x - around), Math.min(width, x + around + 1)];
    const [y0, y1] = [Math.max(0, y - around), Math.min(height, y + around + 1)];
    const at = (px: number, py: number): number => sums[py * (width + 1) + px] ?? 0;
    const mean = (at(x1, y1) - at(x0, y1) - at(x1, y0) + at(x0, y0)) / ((x1 - x0) * (y1 - y0));
    return (values[y * width + x] ?? 0) < DARK_SHARE * mean;
  };
}

/** Middles of squares in squares, the surest first: dark, light, dark, light and dark as 1 : 1 : 3 : 1 : 1 both ways. */
function findMarks(grey: Grey): Point[] {
  const isDark = darkness(grey);
  const found: { x: number; y: number; size: number; votes: number }[] = [];
  for (let y = 0; y < grey.height; y += 1) {
    const runs = runsOf(grey.width, (x) => isDark(x, y));
    for (const across of fitsOf(runs)) {
      const x = Math.round(across.middle);
      const down = fitsOf(runsOf(grey.height, (py) => isDark(x, py))).find(
        (d) => Math.abs(d.middle - y) < across.size / 4 && d.size / across.size > 0.6 && d.size / across.size < 1.7,
      );
      if (!down) continue;
      const near = found.find((f) => Math.hypot(f.x - across.middle, f.y - down.middle) < across.size / 2);
      if (!near) found.push({ x: across.middle, y: down.middle, size: across.size, votes: 1 });
      else {
        near.votes += 1;
        near.x += (across.middle - near.x) / near.votes;
        near.y += (down.middle - near.y) / near.votes;
      }
    }
  }
  return found.sort((p, q) => q.votes - p.votes);
}

interface Run {
  readonly from: number;
  readonly to: number;
  readonly dark: boolean;
}

function runsOf(length: number, isDark: (at: number) => boolean): Run[] {
  const runs: Run[] = [];
  for (let at = 0; at < length; at += 1) {
    const dark = isDark(at);
    const last = runs.at(-1);
    if (last?.dark === dark) runs[runs.length - 1] = { ...last, to: at + 1 };
    else runs.push({ from: at, to: at + 1, dark });
  }
  return runs;
}

/** Where runs lie as those of a mark, and how large it is. */
function fitsOf(runs: readonly Run[]): { readonly middle: number; readonly size: number }[] {
  const fits: { middle: number; size: number }[] = [];
  for (let i = 0; i + 4 < runs.length; i += 1) {
    const five = runs.slice(i, i + 5);
    const [first, , third, , last] = five;
    if (!first?.dark || !third || !last) continue;
    const size = last.to - first.from;
    const module = size / 7;
    if (module < 1) continue;
    const isFit = five.every(({ from, to }, j) => {
      const want = (RATIO[j] ?? 1) * module;
      return Math.abs(to - from - want) <= RATIO_SLACK * Math.max(module, 2);
    });
    if (isFit) fits.push({ middle: (third.from + third.to) / 2, size });
  }
  return fits;
}

/** Every four of the marks, in order round their middle. */
function foursOf(marks: readonly Point[]): Point[][] {
  const fours: Point[][] = [];
  const n = marks.length;
  for (let a = 0; a < n; a += 1)
    for (let b = a + 1; b < n; b += 1)
      for (let c = b + 1; c < n; c += 1)
        for (let d = c + 1; d < n; d += 1) {
          const four = [marks[a], marks[b], marks[c], marks[d]] as Point[];
          const x = four.reduce((sum, p) => sum + p.x, 0) / 4;
          const y = four.reduce((sum, p) => sum + p.y, 0) / 4;
          // Clockwise on the screen, where y goes down.
          fours.push(four.sort((p, q) => Math.atan2(p.y - y, p.x - x) - Math.atan2(q.y - y, q.x - x)));
        }
  return fours;
}

/** How far opposite edges differ. */
function slantOf(quad: readonly Point[]): number {
  const edge = (i: number): number => distance(quad[i] as Point, quad[(i + 1) % 4] as Point);
  const ratio = (p: number, q: number): number => Math.max(p, q) / Math.max(1e-9, Math.min(p, q));
  return Math.max(ratio(edge(0), edge(2)), ratio(edge(1), edge(3)));
}

/** How well the greys of the card, read through four corners, fall as they should: their correlation, −1 to 1. */
function likeness(grey: Grey, quad: readonly Point[]): number {
  const edge = (i: number): number => distance(quad[i] as Point, quad[(i + 1) % 4] as Point);
  const [long, high] = [(edge(0) + edge(2)) / 2, (edge(1) + edge(3)) / 2];
  const wanted = (CARD.width - 2 * FINDER.inset) / (CARD.height - 2 * FINDER.inset);
  if (long / high < wanted * 0.6 || long / high > wanted * 1.6) return -1;
  const onto = homography(CORNERS, quad);
  if (!onto) return -1;
  const seen = CARD_PATCHES.slice(0, CARD_GREYS).map(({ x, y, width, height }) => {
    const at = onto({ x: x + width / 2, y: y + height / 2 });
    return grey.values[Math.round(at.y) * grey.width + Math.round(at.x)] ?? 0;
  });
  const meant = CARD_PATCHES.slice(0, CARD_GREYS).map((p) => p.lab.L);
  return correlation(seen, meant);
}

function correlation(xs: readonly number[], ys: readonly number[]): number {
  const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;
  const [mx, my] = [mean(xs), mean(ys)];
  const sum = (of: (i: number) => number): number => xs.reduce((total, _, i) => total + of(i), 0);
  const both = sum((i) => ((xs[i] ?? 0) - mx) * ((ys[i] ?? 0) - my));
  const size = Math.sqrt(sum((i) => ((xs[i] ?? 0) - mx) ** 2) * sum((i) => ((ys[i] ?? 0) - my) ** 2));
  return size === 0 ? 0 : both / size;
}

/** The plane map that takes four points onto four others; `undefined` where three of them lie on a line. */
function homography(from: readonly Point[], to: readonly Point[]): ((p: Point) => Point) | undefined {
  const rows = from.flatMap(({ x, y }, i) => {
    const { x: u, y: v } = to[i] as Point;
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  const h = solve(rows);
  if (!h) return undefined;
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, k = 0] = h;
  return ({ x, y }) => {
    const w = g * x + k * y + 1;
    return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
  };
}

/** Gauss’s elimination with the largest pivot; rows of coefficients, each with its right side last. */
function solve(rows: readonly (readonly number[])[]): number[] | undefined {
  const m = rows.map((row) => [...row]);
  const n = m.length;
  for (let i = 0; i < n; i += 1) {
    const pivot = m
      .slice(i)
      .reduce((best, row, j) => (Math.abs(row[i] ?? 0) > Math.abs(m[best]?.[i] ?? 0) ? i + j : best), i);
    [m[i], m[pivot]] = [m[pivot] as number[], m[i] as number[]];
    const own = m[i] as number[];
    if (Math.abs(own[i] ?? 0) < 1e-9) return undefined;
    for (let j = 0; j < n; j += 1) {
      const other = m[j] as number[];
      const factor = (other[i] ?? 0) / (own[i] ?? 1);
      if (j !== i) for (let k = i; k <= n; k += 1) other[k] = (other[k] ?? 0) - factor * (own[k] ?? 0);
    }
  }
  return m.map((row, i) => (row[n] ?? 0) / (row[i] ?? 1));
}

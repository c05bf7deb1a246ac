import type { Station } from '@vestigia/contract';

/** Lengths of strand one after another, or side by side, that look alike: a page of threads is quick to draw by few of them. */
export interface StrandPart {
  readonly path: string;
  /** Up to and with the mordant a strand has the base's own colour; from the bath on, the dyed one. */
  readonly dyed: boolean;
  /** Solid where done, open where planned. */
  readonly solid: boolean;
  /** Stroke: strands that run side by side are thinner. */
  readonly width: number;
}

export interface StationMark {
  readonly x: number;
  readonly y: number;
  readonly index: number;
  readonly station: Station;
}

export interface ThreadDrawing {
  readonly width: number;
  readonly height: number;
  readonly strandWidth: number;
  readonly parts: readonly StrandPart[];
  readonly marks: readonly StationMark[];
}

/** Each length begins a little inside the one before, so that no seam shows. */
const OVERLAP = 0.8;
const DYES: readonly Station['kind'][] = ['dye', 'tannin'];
const TOGETHER: readonly Station['kind'][] = ['fibre', 'dry', 'cure', 'wash', 'rinse'];

/**
 * Lays a lot out as one strand through its stations, left to right. Where several vessels are in use the strand parts
 * into as many, and rejoins at the rinse.
 * @param batches how many vessels; strands drawn are at most four, more would not be told apart
 */
export function layThread(
  stations: readonly Station[],
  batches: number,
  { width, height, strandWidth }: { width: number; height: number; strandWidth: number },
): ThreadDrawing {
  const strands = Math.max(1, Math.min(4, batches));
  const margin = strandWidth * 1.6;
  const step = stations.length > 1 ? (width - 2 * margin) / (stations.length - 1) : 0;
  const middle = height / 2;
  const width1 = strands === 1 ? strandWidth : strandWidth * 0.55;
  const gap = Math.min(width1 * 2, (height - width1) / strands);
  const apart = (s: Station): boolean => strands > 1 && !TOGETHER.includes(s.kind);
  const yOf = (strand: number, s: Station): number => (apart(s) ? middle + (strand - (strands - 1) / 2) * gap : middle);
  const xOf = (i: number): number => margin + i * step;
  const firstDyed = stations.findIndex((s) => DYES.includes(s.kind));

  const parts: StrandPart[] = [];
  const draw = (next: StrandPart): void => {
    const before = parts.at(-1);
    if (before && before.dyed === next.dyed && before.solid === next.solid && before.width === next.width)
      parts[parts.length - 1] = { ...before, path: `${before.path} ${next.path}` };
    else parts.push(next);
  };
  stations.forEach((to, i) => {
    const from = i === 0 ? to : (stations[i - 1] as Station);
    const solid = to.state === 'done' || to.state === 'running' || to.state === 'paused';
    const dyed = firstDyed >= 0 && i >= firstDyed;
    const count = apart(from) || apart(to) ? strands : 1;
    for (let strand = 0; strand < count; strand += 1) {
      const [x1, y1, x2, y2] = [i === 0 ? 0 : xOf(i - 1), yOf(strand, from), xOf(i), yOf(strand, to)];
      const bend = (x2 - x1) / 2;
      draw({
        width: r(count > 1 ? width1 : strandWidth),
        path: `M${r(x1 - OVERLAP)} ${r(y1)} L${r(x1)} ${r(y1)} C${r(x1 + bend)} ${r(y1)} ${r(x2 - bend)} ${r(y2)} ${r(x2)} ${r(y2)}`,
        dyed,
        solid,
      });
    }
  });
  const last = stations.at(-1);
  if (last)
    draw({
      width: strandWidth,
      path: `M${r(xOf(stations.length - 1) - OVERLAP)} ${r(middle)} L${r(width)} ${r(middle)}`,
      dyed: firstDyed >= 0,
      solid: last.state === 'done',
    });
  return {
    width,
    height,
    strandWidth,
    parts,
    marks: stations.map((station, index) => ({ x: r(xOf(index)), y: middle, index, station })),
  };
}

const r = (n: number): number => Math.round(n * 10) / 10;

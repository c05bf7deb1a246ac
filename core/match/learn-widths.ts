import type { ChannelSpace } from './channels';
import type { KnownStrength } from './dyeing';
import type { Observation, Posterior, Widths } from './posterior';
import { USUAL_WIDTHS, learn } from './posterior';
import type { PriorGroup } from './priors';

/** Widths that are taken wider or narrower together. */
const KNOBS: readonly {
  readonly name: string;
  readonly priors?: readonly PriorGroup[];
  readonly scatter?: 'reading' | 'luck';
}[] = [
  { name: 'reading', scatter: 'reading' },
  { name: 'hue', priors: ['jarHue', 'ageHue'] },
  { name: 'jar', priors: ['jar', 'age'] },
  { name: 'water', priors: ['water', 'waterHue', 'metal', 'metalHue'] },
  { name: 'family', priors: ['family'] },
  { name: 'luck', scatter: 'luck' },
];
const FACTOR = 1.7;
/** Nothing is taken further than this from what is usual: few readings say anything. */
const FURTHEST = 6;
/** A wider or narrower width has to explain the record better by this. */
const LEAST_GAIN = 0.7;
const ROUNDS = 2;

const scaled = (widths: Widths, { priors = [], scatter }: (typeof KNOBS)[number], by: number): Widths => ({
  priors: { ...widths.priors, ...Object.fromEntries(priors.map((p) => [p, (widths.priors[p] ?? 1) * by])) },
  scatter: scatter
    ? {
        ...widths.scatter,
        [scatter]: widths.scatter[scatter] * by,
        ...(scatter === 'luck' ? { luckHue: widths.scatter.luckHue * by } : {}),
      }
    : widths.scatter,
});

/**
 * Learns, and lets the record say how wide its priors and its scatter are: knob by knob, as long as that explains the
 * readings better (largest evidence; MacKay, Neural Computation 4, 1992). Steady: the same readings, the same widths.
 */
export function learnWithWidths(
  space: ChannelSpace,
  readings: readonly Observation[],
  strengths: readonly KnownStrength[],
  start: Widths = USUAL_WIDTHS,
): Posterior {
  let best = learn(space, readings, strengths, start);
  const turned = new Map<string, number>();
  for (let round = 0; round < ROUNDS; round += 1) {
    let gained = false;
    for (const knob of KNOBS) {
      for (const by of [1 / FACTOR, FACTOR]) {
        let moved = false;
        for (;;) {
          const at = (turned.get(knob.name) ?? 1) * by;
          if (at > FURTHEST || at < 1 / FURTHEST) break;
          const next = learn(space, readings, strengths, scaled(best.widths, knob, by), best);
          if (next.evidence < best.evidence + LEAST_GAIN) break;
          best = next;
          turned.set(knob.name, at);
          moved = true;
          gained = true;
        }
        if (moved) break;
      }
    }
    if (!gained) break;
  }
  return best;
}

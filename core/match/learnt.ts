import type { ChannelSpace } from './channels';
import { BROAD_BANDS, broadChannels, spectralChannels } from './channels';
import type { KnownStrength } from './dyeing';
import { dyedAndRead } from './enough-read';
import { learnMore } from './learn-more';
import type { Observation, Posterior } from './posterior';
import { learn, usualWidths } from './posterior';

/** So many posteriors are kept in mind: a page asks about one record, or about two beside each other. */
const KEPT = 4;
/**
 * So long a record is learnt as a whole, but for strike-offs that were read last; of a longer one whole blocks are. What
 * came since is taken in one by one.
 */
const WHOLE = 256;
const BLOCK = 64;
const MOST_STRUCK_OFF = 4;
/** What a smooth spectrum in place of an unknown one may be off, four times in five, ΔE00. */
const GUESSED_WITHIN_80 = 2.5;

/** How far a record is learnt: of so many readings about so much, 0-1. */
export interface Learning {
  readonly readings: number;
  readonly share: number;
}
/** Of what is left to be learnt every step is taken to do so much: nobody knows beforehand how many there are. */
const EACH_STEP = 0.13;
let heard: (learning: Learning) => void = () => undefined;
/** Has it told how far learning has come; nobody else is told any more. */
export const watchLearning = (listener: (learning: Learning) => void): void => void (heard = listener);

interface Kept {
  /** What it was learnt with: strengths and bands. */
  readonly with: string;
  /** Readings at its beginning that were learnt at one time. */
  readonly whole: number;
  readonly readings: readonly string[];
  readonly posterior: Posterior;
}
const kept: Kept[] = [];

/** Sixteen bands where everything that was dyed was read with its spectrum, else three broad ones. */
export const spaceFor = (readings: readonly Observation[]): ChannelSpace =>
  dyedAndRead(readings).every((r) => r.colour.spectrum !== null) ? spectralChannels() : broadChannels();

/** A colour without its spectrum says so much less where the others have theirs. */
const withGuessed = (r: Observation): Observation =>
  r.colour.spectrum === null ? { ...r, readWithin80: Math.hypot(r.readWithin80 ?? 0, GUESSED_WITHIN_80) } : r;

/** Of what was never dosed before, as much as in its first reading is usual. */
function withUsual(posterior: Posterior, { dyeing }: Observation): Posterior {
  const fresh = dyeing.doses.filter((d) => !posterior.usual.has(d.materialId));
  if (fresh.length === 0) return posterior;
  const inAll = (id: string): number =>
    fresh.filter((d) => d.materialId === id).reduce((sum, d) => sum + d.percentOwf, 0);
  return {
    ...posterior,
    usual: new Map([...posterior.usual, ...fresh.map((d) => [d.materialId, inAll(d.materialId)] as const)]),
  };
}

/** How much of a record is learnt as a whole. */
function wholeOf(readings: readonly Observation[]): number {
  const { length } = readings;
  if (length > WHOLE) return length - ((length - WHOLE) % BLOCK);
  let struckOff = 0;
  while (struckOff < MOST_STRUCK_OFF && readings[length - 1 - struckOff]?.dyeing.purpose === 'strikeOff')
    struckOff += 1;
  return length - struckOff;
}

function keep(own: Kept): void {
  kept.unshift(own);
  kept.splice(KEPT);
}

/**
 * What a record teaches. The same record is learnt once, and one that only grew is taken in by what is new of it: what is
 * asked of it again, with another dose or another bound, is answered at once. The same record gives the same answer,
 * whatever was learnt before.
 */
export function learntOf(readings: readonly Observation[], strengths: readonly KnownStrength[]): Posterior {
  const space = spaceFor(readings);
  const taken = space.bands > BROAD_BANDS ? readings.map(withGuessed) : readings;
  const keys = taken.map((r) => JSON.stringify(r));
  const own = JSON.stringify([space.bands, strengths]);
  const { length } = keys;
  const whole = wholeOf(taken);
  const [longest] = kept
    .filter(
      (k) =>
        k.with === own &&
        k.whole === whole &&
        k.readings.length <= length &&
        k.readings.every((key, i) => key === keys[i]),
    )
    .sort((x, y) => y.readings.length - x.readings.length);
  let from = longest;
  if (!from) {
    let left = 1;
    const posterior = learn(space, taken.slice(0, whole), strengths, usualWidths(space), undefined, () => {
      heard({ readings: whole, share: 1 - left });
      left *= 1 - EACH_STEP;
    });
    from = { with: own, whole, readings: keys.slice(0, whole), posterior };
    keep(from);
  }
  const since = taken.slice(from.readings.length);
  if (since.length === 0) return from.posterior;
  const posterior = since.reduce((so, r) => learnMore(withUsual(so, r), r), from.posterior);
  keep({ with: own, whole, readings: keys, posterior });
  return posterior;
}

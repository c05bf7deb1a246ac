import type { ChannelSpace } from './channels';
import { BROAD_BANDS, broadChannels, spectralChannels } from './channels';
import type { KnownStrength } from './dyeing';
import type { Observation, Posterior } from './posterior';
import { dyedAndRead } from './enough-read';
import { learn } from './posterior';

/** So many records are kept in mind: a page asks about one, or about two beside each other. */
const KEPT = 3;
const kept: { readonly key: string; readonly posterior: Posterior }[] = [];

/** What a smooth spectrum in place of an unknown one may be off, four times in five, ΔE00. */
const GUESSED_WITHIN_80 = 2.5;

/** Sixteen bands where everything that was dyed was read with its spectrum, else three broad ones. */
export const spaceFor = (readings: readonly Observation[]): ChannelSpace =>
  dyedAndRead(readings).every((r) => r.colour.spectrum !== null) ? spectralChannels() : broadChannels();

/** A colour without its spectrum says so much less where the others have theirs. */
const withGuessed = (r: Observation): Observation =>
  r.colour.spectrum === null ? { ...r, readWithin80: Math.hypot(r.readWithin80 ?? 0, GUESSED_WITHIN_80) } : r;

/**
 * What a record teaches. The same record is learnt once: what is asked of it again, with another dose
 * or another bound, is answered at once.
 */
export function learntOf(readings: readonly Observation[], strengths: readonly KnownStrength[]): Posterior {
  const key = JSON.stringify([readings, strengths]);
  const before = kept.find((k) => k.key === key);
  if (before) return before.posterior;
  const space = spaceFor(readings);
  const posterior = learn(space, space.bands > BROAD_BANDS ? readings.map(withGuessed) : readings, strengths);
  kept.unshift({ key, posterior });
  kept.splice(KEPT);
  return posterior;
}

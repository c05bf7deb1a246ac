import { trimZeros } from '../quantity/weight';
import { sayPh } from '../quantity/say-ph';
/** One try: what was in the bath by then, in the reagent's own unit (g or ml), and what the bath read. */
export interface PhTry {
  readonly totalDose: number;
  readonly ph: number;
}

/** What to do next about the pH: nothing, the next small dose (g or ml), or why none is advised. */
export interface PhAdvice {
  readonly state: 'untested' | 'inRange' | 'doseMore' | 'overshot' | 'noEffect';
  /** The next dose, in the unit the tries were in; `null` when there is nothing to add. */
  readonly nextDose: number | null;
  readonly message: string;
}

/** Of what is thought to be missing, this share goes in at once: baths buffer, and then suddenly don't. */
const CAUTIOUS_SHARE = 0.5;
/** pH that a dose must have moved to have done anything that a strip or a meter can tell. */
const NOTICEABLE = 0.05;
/** No dose is more than this many times what went in so far. */
const MAX_TIMES_SO_FAR = 1;

/**
 * The next small dose towards a pH, from the doses tried so far. What a unit of it moves is taken from the last try,
 * and only half of what is missing is offered, less as the range comes near; inside the range it says stop.
 * @param tries in the order they were made, the first usually with nothing in the bath @param range wanted @param
 * firstDose what the water alone would ask for, where known; a third of it goes in first
 */
export function nextPhDose(
  tries: readonly PhTry[],
  range: { readonly low: number; readonly high: number },
  { firstDose, unit }: { firstDose: number | null; unit: string },
): PhAdvice {
  const last = tries.at(-1);
  const say = (state: PhAdvice['state'], nextDose: number | null, message: string): PhAdvice => ({
    state,
    nextDose,
    message,
  });
  if (!last) return say('untested', null, $localize`Take the pH first.`);
  const label = $localize`${sayPh(last.ph)}, wanted ${trimZeros(range.low, 2)} to ${trimZeros(range.high, 2)}`;
  if (last.ph >= range.low && last.ph <= range.high)
    return say('inRange', null, $localize`${label}:label:: stop here, and take it once more after stirring a minute.`);
  const middle = (range.low + range.high) / 2;
  const missing = middle - last.ph;
  const before = tries.at(-2);
  if (!before || last.totalDose === before.totalDose) {
    const start = firstDose === null ? null : dose(firstDose / 3);
    return say(
      'doseMore',
      start,
      start === null
        ? $localize`${label}:label:: put in a small pinch or spoon, stir, and take it again.`
        : $localize`${label}:label:: put in ${start} ${unit} first, stir, and take it again.`,
    );
  }
  const moved = last.ph - before.ph;
  const wantedBefore = middle - before.ph;
  if (Math.sign(wantedBefore) !== Math.sign(missing)) {
    return say(
      'overshot',
      null,
      $localize`${label}:label:: it has gone past. Stop; thin the bath with fresh water, or bring it back with the opposite in half the dose.`,
    );
  }
  const added = last.totalDose - before.totalDose;
  if (Math.abs(moved) < NOTICEABLE)
    return say(
      'noEffect',
      dose(added),
      $localize`${label}:label:: the last ${added} ${unit} moved nothing yet, the bath is buffering. Put in as much again, stir well, and take it again: it may go suddenly.`,
    );
  if (Math.sign(moved) !== Math.sign(missing))
    return say(
      'noEffect',
      null,
      $localize`${label}:label:: the last dose moved it the wrong way. Check which jar it was before anything else goes in.`,
    );
  const byStep = (missing / moved) * added * CAUTIOUS_SHARE;
  const next = dose(Math.min(byStep, last.totalDose * MAX_TIMES_SO_FAR || byStep));
  return say(
    'doseMore',
    next,
    $localize`${label}:label:: put in ${next} ${unit} more, about half of what seems to be missing, stir, and take it again.`,
  );
}

/** Two digits are more than a spoon has. */
function dose(value: number): number {
  return value <= 0 ? 0 : Number(value.toPrecision(2));
}

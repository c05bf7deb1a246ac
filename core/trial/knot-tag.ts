/** Knots a group can have before the fingers stop telling them apart. */
const MAX_KNOTS = 4;
const PLACES = 3;
/** Different knot tags there are. */
export const MAX_TAGS = MAX_KNOTS * (MAX_KNOTS + 1) ** (PLACES - 1);

/**
 * A mark that survives the pot: groups of knots in an undyed cord, read from the loop outwards. The first group has
 * one to four, each further one none to four; groups stand a thumb's width apart, knots of a group touch.
 * @param number 1 to 100
 * @returns knots in each group, the last never empty
 */
export function knotTag(number: number): readonly number[] {
  if (!Number.isInteger(number) || number < 1 || number > MAX_TAGS)
    throw new RangeError(`number must be a whole number from 1 to ${MAX_TAGS}, got ${number}`);
  const groups = [((number - 1) % MAX_KNOTS) + 1];
  for (let rest = Math.floor((number - 1) / MAX_KNOTS); rest > 0; rest = Math.floor(rest / (MAX_KNOTS + 1)))
    groups.push(rest % (MAX_KNOTS + 1));
  return groups;
}

/** The number a tag stands for. Inverse of `knotTag`. */
export function readKnotTag(groups: readonly number[]): number {
  return groups.reduce((sum, knots, i) => sum + (i === 0 ? knots : knots * MAX_KNOTS * (MAX_KNOTS + 1) ** (i - 1)), 0);
}

/** How to tie it, in words. */
export function sayKnotTag(groups: readonly number[]): string {
  const label = groups.map((n) =>
    n === 0 ? $localize`a gap of a thumb` : n === 1 ? $localize`1 knot` : $localize`${n} knots close together`,
  );
  return label.join($localize`, a thumb’s width, `);
}

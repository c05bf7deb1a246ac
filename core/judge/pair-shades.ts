import type { Standard } from './verdict';

/** One shade of a lot by its label; empty for the lot as a whole. */
export interface NamedShade {
  readonly label: string;
  readonly lab: Standard | null;
}

/** A shade of one lot beside that of another. */
export interface ShadePair {
  readonly label: string;
  readonly first: Standard | null;
  readonly second: Standard | null;
}

/**
 * Shades of two lots side by side: those called alike belong together, whatever order they came in; what only one has
 * stands alone. Where each has but one they are a pair, whatever they are called.
 */
export function pairShades(first: readonly NamedShade[], second: readonly NamedShade[]): ShadePair[] {
  const [one, two] = [first[0], second[0]];
  if (one && two && first.length === 1 && second.length === 1)
    return [{ label: one.label === two.label ? one.label : '', first: one.lab, second: two.lab }];
  const labels = [...new Set([...first, ...second].map((s) => s.label))];
  const labOf = (shades: readonly NamedShade[], label: string): Standard | null =>
    shades.find((s) => s.label === label)?.lab ?? null;
  return labels.map((label) => ({ label, first: labOf(first, label), second: labOf(second, label) }));
}

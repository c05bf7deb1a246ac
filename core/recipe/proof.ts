import { countLabel } from '../quantity/word-list';
/** How far a recipe version has come. */
export const RECIPE_STATUSES = ['trial', 'proof', 'proven', 'retired'] as const;
/** One of `RECIPE_STATUSES`. */
export type RecipeStatus = (typeof RECIPE_STATUSES)[number];

/** What speaks for a version. */
export interface Evidence {
  /** Lots of it that were judged and passed within tolerance. */
  readonly lotsInTolerance: number;
  /** Small proofs of it read within tolerance. */
  readonly proofsInTolerance: number;
}

/** Lots or proofs within tolerance that prove a version, where the studio says nothing else. */
export const DEFAULT_PROOFS_NEEDED = 3;
const NEXT: Readonly<Record<RecipeStatus, readonly RecipeStatus[]>> = {
  trial: ['proof', 'proven', 'retired'],
  proof: ['trial', 'proven', 'retired'],
  proven: ['proof', 'retired'],
  retired: ['trial'],
};

/**
 * Whether a version may stand there: forward as it is proven, back when it disappoints, retired for good reason.
 * Proven wants the studio's number of judged lots or proofs within tolerance. The sentence says what is missing.
 */
export function mayHaveStatus(
  from: RecipeStatus,
  to: RecipeStatus,
  { lotsInTolerance, proofsInTolerance }: Evidence,
  needed: number,
): { readonly ok: true } | { readonly ok: false; readonly message: string } {
  if (from === to) return { ok: false, message: $localize`This version is ${to} already.` };
  if (!NEXT[from].includes(to))
    return {
      ok: false,
      message:
        from === 'retired'
          ? $localize`A retired version begins again as a trial.`
          : $localize`A version goes from trial to proof to proven; ${from} can’t become ${to}.`,
    };
  const has = lotsInTolerance + proofsInTolerance;
  if (to !== 'proven' || has >= needed) return { ok: true };
  return {
    ok: false,
    message: $localize`Proven here wants ${needed} lots or proofs judged within tolerance; this version has ${countLabel(lotsInTolerance, 'lot')} and ${countLabel(proofsInTolerance, 'proof')}. Dye and judge ${needed - has} more.`,
  };
}

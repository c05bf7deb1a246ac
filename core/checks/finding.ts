import { fibreFamily } from '../bath/fibre';
import type { FibreKind } from '../bath/fibre';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import type { RecipeVersion } from '../recipe/recipe';

/** One thing looked at before a lot may start. A stop can't be gone past; a caution can, with a reason that is kept. */
export interface LotCheck {
  /** Stands for this check in this lot: what is acknowledged. */
  readonly key: string;
  readonly severity: 'stop' | 'caution';
  /** Gloves, masks: acknowledged by saying that it is at hand. */
  readonly protection: boolean;
  readonly message: string;
  readonly why: string;
  /** The recipe line or the catalogue line it rests on. */
  readonly cites: string;
}

/** A check before it has its key. */
export type Found = Omit<LotCheck, 'key' | 'protection'> & { readonly code: string; readonly protection?: boolean };

/** A check that can't be gone past. */
export const stop = (code: string, message: string, why: string, cites: string): Found => ({
  code,
  severity: 'stop',
  message,
  why,
  cites,
});

/** A check that can be gone past with a reason. */
export const caution = (code: string, message: string, why: string, cites: string): Found => ({
  code,
  severity: 'caution',
  message,
  why,
  cites,
});

/** A recipe version as it is cited. */
export const named = (recipe: RecipeVersion): string => `${recipe.recipeName}, version ${recipe.number}`;

/** A step of a recipe as it is cited. */
export const line = (recipe: RecipeVersion, step: Pick<PlannedStep, 'title'>): string =>
  `${named(recipe)}: “${step.title}”`;

/** The steps of a plan that fill a vessel. */
export const bathSteps = (plan: LotPlan): PlannedStep[] => plan.steps.filter((s) => s.baths.length > 0);

/** Every fibre in a lot, once. */
export const fibresOf = (plan: LotPlan): FibreKind[] => [...new Set(plan.groups.map((g) => g.fibre))];

/** Whether any fibre of a lot is of this family. */
export const has = (plan: LotPlan, family: 'protein' | 'cellulose'): boolean =>
  fibresOf(plan).some((f) => fibreFamily(f) === family);

import { fibreFamily, fibresIn } from '../bath/fibre';
import type { FibreKind } from '../bath/fibre';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import type { RecipeVersion } from '../recipe/recipe';
import type { CheckInput } from './check-input';

/** One thing looked at before a lot may start. A stop can't be gone past; a caution can, with a reason that is kept. */
export interface LotCheck {
  /** Stands for this check in this lot: what is acknowledged. Its code and its facts. */
  readonly key: string;
  readonly severity: 'stop' | 'caution';
  /** Gloves, masks: acknowledged by saying that it is at hand. */
  readonly protection: boolean;
  readonly message: string;
  readonly why: string;
  /** The recipe line or the catalogue line it rests on. */
  readonly cites: string;
}

/** How a finding is said. */
export type CheckText = Omit<LotCheck, 'key'>;

/** Something found, as facts: a code, and what is needed to say it. */
export interface Finding {
  readonly code: string;
}

/** Looks at a lot for one family of findings, and says each. */
export type CheckFamily = (input: CheckInput) => LotCheck[];

/** A family of findings: how they are found, and the one place where they are said. */
export const checkFamily =
  <F extends Finding>(find: (input: CheckInput) => F[], say: (finding: F) => CheckText): CheckFamily =>
  (input) =>
    find(input).map((finding) => ({ key: findingKey(finding), ...say(finding) }));

/** Names a finding by its code and its facts. */
const findingKey = ({ code, ...facts }: Finding): string =>
  [code, ...Object.values(facts).map((fact) => (typeof fact === 'object' ? JSON.stringify(fact) : String(fact)))].join(
    ' · ',
  );

/** Said as a check that can't be gone past. */
export const stop = (message: string, why: string, cites: string): CheckText => ({
  severity: 'stop',
  protection: false,
  message,
  why,
  cites,
});

/** Said as a check that can be gone past with a reason. */
export const caution = (message: string, why: string, cites: string): CheckText => ({
  severity: 'caution',
  protection: false,
  message,
  why,
  cites,
});

/** A recipe version as it is cited. */
export const named = (recipe: RecipeVersion): string => $localize`${recipe.recipeName}, version ${recipe.number}`;

/** A step of a recipe as it is cited. */
export const line = (recipe: RecipeVersion, step: Pick<PlannedStep, 'title'>): string =>
  `${named(recipe)}: “${step.title}”`;

/** The steps of a plan that fill a vessel. */
export const bathSteps = (plan: LotPlan): PlannedStep[] => plan.steps.filter((s) => s.baths.length > 0);

/** Every fibre in a lot, once. */
export const fibresOf = (plan: LotPlan): FibreKind[] => [...new Set(plan.groups.flatMap(fibresIn))];

/** Whether any fibre of a lot is of this family. */
export const has = (plan: LotPlan, family: 'protein' | 'cellulose'): boolean =>
  fibresOf(plan).some((f) => fibreFamily(f) === family);

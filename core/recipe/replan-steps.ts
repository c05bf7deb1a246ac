import type { FibreKind } from '../bath/fibre';
import type { DyestuffNeed } from '../catalogue/catalogue-entry';
import type { RecipeVersion } from './recipe';
import type { RecipeStep } from './recipe-step';
import { takesPieces } from './step-kind';

/** What laying a chain anew looks at. */
export type ChainBody = Pick<RecipeVersion, 'steps' | 'fibres'>;

/** The studio's own materials that laying a chain anew doses, by id; `null` where it has none. */
export interface PracticeMaterials {
  /** Ids of the studio's own materials, where it has them. */
  readonly alum: string | null;
  readonly acetate: string | null;
  readonly tartar: string | null;
  readonly soy: string | null;
  readonly chalk: string | null;
  readonly bran: string | null;
  /** Dyestuffs that are dyed from a vat. */
  readonly vats: readonly string[];
}

/** The studio's own alum, acetate (or lactate) and tartar, by what each says it is of the catalogue. */
export function practiceMaterials(
  all: readonly {
    readonly id: string;
    readonly catalogueKey: string | null;
    readonly needs: DyestuffNeed | null;
  }[],
): PracticeMaterials {
  const find = (...keys: readonly string[]): string | null =>
    keys.map((key) => all.find((m) => m.catalogueKey === key)?.id).find((id) => id !== undefined) ?? null;
  return {
    alum: find('potassium-alum'),
    acetate: find('aluminium-acetate', 'aluminium-lactate'),
    tartar: find('cream-of-tartar'),
    soy: find('soy-milk'),
    chalk: find('chalk'),
    bran: find('wheat-bran'),
    vats: all.filter((m) => m.needs === 'vat').map((m) => m.id),
  };
}

/** Lays the steps of a chain anew for one answer to a question of practice. */
export type Replan = (
  steps: readonly RecipeStep[],
  answer: string,
  materials: PracticeMaterials,
  body: ChainBody,
) => readonly RecipeStep[];

/** Changes every step of a kind. */
export const each = (
  steps: readonly RecipeStep[],
  kind: RecipeStep['kind'],
  change: (s: RecipeStep) => RecipeStep,
): RecipeStep[] => steps.map((s) => (s.kind === kind ? change(s) : s));
/** Whether a step doses a material; no step doses what the studio hasn't got. */
export const dosing = (step: RecipeStep, id: string | null): boolean =>
  id !== null && step.doses.some((d) => d.materialId === id);
/** A step without its dose of a material. */
export const without = (step: RecipeStep, id: string | null): RecipeStep => ({
  ...step,
  doses: step.doses.filter((d) => d.materialId !== id),
});
/** A step with so much of a material, whatever it dosed of it before. */
export const withDose = (step: RecipeStep, materialId: string, percentOwf: number): RecipeStep => ({
  ...step,
  doses: [...step.doses.filter((d) => d.materialId !== materialId), { materialId, by: 'percentOwf', percentOwf }],
});

/** The fibres a step is for: its own, or all the recipe's. */
export const fibresOf = (step: RecipeStep, all: readonly FibreKind[]): readonly FibreKind[] =>
  step.fibres.length > 0 ? step.fibres : all;

/** Key of the last step of a kind. */
export const lastOf = (steps: readonly RecipeStep[], kind: RecipeStep['kind']): string | undefined =>
  steps.filter((s) => s.kind === kind && s.key !== '').at(-1)?.key;

/** Whoever followed a step that is gone follows what that one followed; by the list's order where nothing is named. */
export function relink(step: RecipeStep, gone: string, instead: string | undefined): RecipeStep {
  if (gone === '' || !step.after?.includes(gone)) return step;
  const after = step.after.flatMap((key) => (key === gone ? (instead === undefined ? [] : [instead]) : [key]));
  return { ...step, after: after.length > 0 ? after : null };
}

/** Puts a step after the last of a kind; steps that named that one now follow the new one. */
export function insertAfter(
  steps: readonly RecipeStep[],
  kind: RecipeStep['kind'],
  added: RecipeStep,
): readonly RecipeStep[] {
  const at = steps.map((s) => s.kind).lastIndexOf(kind);
  if (at === -1) return steps;
  const key = (steps[at] as RecipeStep).key;
  const later = steps
    .slice(at + 1)
    .map((s) =>
      key !== '' && s.after?.includes(key) ? { ...s, after: s.after.map((k) => (k === key ? added.key : k)) } : s,
    );
  return [
    ...steps.slice(0, at + 1),
    { ...added, after: key === '' ? null : [key], fibres: (steps[at] as RecipeStep).fibres },
    ...later,
  ];
}

/** Puts a step before the one at a place; pieces that went on from what it follows go through it first. */
export function insertBefore(steps: readonly RecipeStep[], at: number, added: RecipeStep): readonly RecipeStep[] {
  const earlier = steps.slice(0, at).filter((s) => takesPieces(s));
  const previous = earlier.at(-1)?.key ?? '';
  const later = steps
    .slice(at)
    .map((s) =>
      previous !== '' && takesPieces(s) && s.after?.includes(previous)
        ? { ...s, after: s.after.map((k) => (k === previous ? added.key : k)) }
        : s,
    );
  return [...steps.slice(0, at), { ...added, after: previous === '' ? null : [previous] }, ...later];
}

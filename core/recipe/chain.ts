import type { RecipePart } from './recipe';
import { STEP_KIND_LABELS } from './step-kind';
import { hottestC } from './course';
import type { RecipeStep } from './recipe-step';

/** What is wrong with a chain, and a sentence that says what to do. */
export interface ChainFault {
  readonly code: 'circle' | 'unknownStep' | 'twoKeys' | 'waitTooShort' | 'tooHot' | 'unknownPart' | 'partsNotWhole';
  readonly message: string;
}

/** Steps put in an order that respects what each follows; or what is wrong with them. */
export type Chain =
  | {
      readonly ok: true;
      /** Indexes into the steps, each after all that it follows. */ readonly order: readonly number[];
      /** For each step, by its index, the indexes of those it follows. */ readonly after: readonly (readonly number[])[];
    }
  | { readonly ok: false; readonly fault: ChainFault };

/** The key of a step: its own, or its place in the list. */
export const keyOf = (step: RecipeStep, index: number): string => step.key || `step ${index + 1}`;

/**
 * Puts steps into an order in which each comes after all that it follows, as near to the written order as can be
 * (Kahn, Comm. ACM 5, 1962, taking the earliest written of those that are free). Says what is wrong in a plain
 * sentence: a circle, a step that follows one that isn't there, two steps of one key.
 */
export function orderChain(steps: readonly RecipeStep[]): Chain {
  const fault = (code: ChainFault['code'], message: string): Chain => ({ ok: false, fault: { code, message } });
  const at = new Map<string, number>();
  for (const [i, step] of steps.entries()) {
    const key = keyOf(step, i);
    if (at.has(key))
      return fault(
        'twoKeys',
        `Two steps are called “${key}”. Give each its own short name, so that others can follow it.`,
      );
    at.set(key, i);
  }
  const after: number[][] = [];
  for (const [i, step] of steps.entries()) {
    const keys = step.after ?? (i === 0 ? [] : [keyOf(steps[i - 1] as RecipeStep, i - 1)]);
    const unknown = keys.find((key) => !at.has(key));
    if (unknown !== undefined)
      return fault(
        'unknownStep',
        `“${step.title}” follows “${unknown}”, which is no step of this recipe. Choose one that is.`,
      );
    after.push(keys.map((key) => at.get(key) as number));
  }
  const waitsFor = after.map((followed) => new Set(followed));
  const order: number[] = [];
  while (order.length < steps.length) {
    const next = waitsFor.findIndex((waiting, i) => waiting.size === 0 && !order.includes(i));
    if (next === -1) {
      const held = steps.filter((_, i) => !order.includes(i)).map((s) => `“${s.title}”`);
      return fault(
        'circle',
        `The chain goes round in a circle: ${held.slice(0, 4).join(', ')} each wait for another. Let one of them follow an earlier step.`,
      );
    }
    order.push(next);
    for (const waiting of waitsFor) waiting.delete(next);
  }
  return { ok: true, order, after };
}

/** What is wrong with a chain, first fault only; `undefined` when it can be worked. */
export function findChainFault(steps: readonly RecipeStep[], parts: readonly RecipePart[]): ChainFault | undefined {
  const chain = orderChain(steps);
  if (!chain.ok) return chain.fault;
  for (const step of steps) {
    const hot = hottestC(step);
    if (hot !== undefined && step.ceilingC !== undefined && hot > step.ceilingC)
      return {
        code: 'tooHot',
        message: `“${step.title}” goes to ${hot} °C, above its own ceiling of ${step.ceilingC} °C. Lower the one or raise the other.`,
      };
    if (step.wait?.maxMinutes !== null && step.wait !== null && step.wait.maxMinutes < step.wait.minMinutes) {
      return {
        code: 'waitTooShort',
        message: `“${step.title}” may wait ${step.wait.maxMinutes} min at most, but wants ${step.wait.minMinutes} min at least. One of the two is wrong.`,
      };
    }
    const unknown = step.parts.find((key) => !parts.some((p) => p.key === key));
    if (unknown !== undefined)
      return {
        code: 'unknownPart',
        message: `“${step.title}” is for the part “${unknown}”, which this recipe doesn’t have. Add the part, or choose another.`,
      };
  }
  const whole = parts.reduce((sum, p) => sum + p.sharePercent, 0);
  if (parts.length > 0 && Math.abs(whole - 100) > 0.05)
    return {
      code: 'partsNotWhole',
      message: `The parts of the pieces come to ${Math.round(whole * 10) / 10} %, not 100 %. Change their shares.`,
    };
  return undefined;
}

/** How a step follows on, in words, where that isn't simply the one before. */
export function followsLabel(steps: readonly RecipeStep[], index: number): string {
  const step = steps[index];
  if (!step?.after) return '';
  if (step.after.length === 0) return 'may begin at once';
  return `after ${step.after.map((key) => steps.find((s, i) => keyOf(s, i) === key)?.title ?? STEP_KIND_LABELS[step.kind]).join(' and ')}`;
}

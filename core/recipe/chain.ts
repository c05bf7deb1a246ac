import type { RecipePart } from './recipe';
import type { ChainFault } from './chain-fault';
import { STEP_KIND_LABELS } from './step-kind';
import { hottestC } from './course';
import type { RecipeStep } from './recipe-step';

/** Steps put in an order that respects what each follows; or what is wrong with them. */
export type Chain =
  | {
      readonly ok: true;
      /** Indexes into the steps, each after all that it follows. */ readonly order: readonly number[];
      /** For each step, by its index, the indexes of those it follows. */ readonly after: readonly (readonly number[])[];
    }
  | { readonly ok: false; readonly fault: ChainFault };

/** The key of a step: its own, or its place in the list. */
export const keyOf = (step: RecipeStep, index: number): string => step.key || $localize`step ${index + 1}`;

/**
 * Puts steps into an order in which each comes after all that it follows, as near to the written order as can be
 * (Kahn, Comm. ACM 5, 1962, taking the earliest written of those that are free). Says what is
 * wrong: a circle, a step that follows one that isn't there, two steps of one key.
 */
export function orderChain(steps: readonly RecipeStep[]): Chain {
  const refuse = (fault: ChainFault): Chain => ({ ok: false, fault });
  const at = new Map<string, number>();
  for (const [i, step] of steps.entries()) {
    const key = keyOf(step, i);
    if (at.has(key)) return refuse({ code: 'twoKeys', key });
    at.set(key, i);
  }
  const after: number[][] = [];
  for (const [i, step] of steps.entries()) {
    const keys = step.after ?? (i === 0 ? [] : [keyOf(steps[i - 1] as RecipeStep, i - 1)]);
    const unknown = keys.find((key) => !at.has(key));
    if (unknown !== undefined) return refuse({ code: 'unknownStep', stepTitle: step.title, follows: unknown });
    after.push(keys.map((key) => at.get(key) as number));
  }
  const waitsFor = after.map((followed) => new Set(followed));
  const order: number[] = [];
  while (order.length < steps.length) {
    const next = waitsFor.findIndex((waiting, i) => waiting.size === 0 && !order.includes(i));
    if (next === -1) {
      const held = steps.filter((_, i) => !order.includes(i));
      return refuse({ code: 'circle', stepTitles: held.map((s) => s.title) });
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
      return { code: 'tooHot', stepTitle: step.title, hottestC: hot, ceilingC: step.ceilingC };
    const { wait } = step;
    if (wait?.maxMinutes !== null && wait !== null && wait.maxMinutes < wait.minMinutes)
      return {
        code: 'waitTooShort',
        stepTitle: step.title,
        minMinutes: wait.minMinutes,
        maxMinutes: wait.maxMinutes,
      };
    const unknown = step.parts.find((key) => !parts.some((p) => p.key === key));
    if (unknown !== undefined) return { code: 'unknownPart', stepTitle: step.title, part: unknown };
  }
  const whole = parts.reduce((sum, p) => sum + p.sharePercent, 0);
  if (parts.length > 0 && Math.abs(whole - 100) > 0.05)
    return { code: 'partsNotWhole', wholePercent: Math.round(whole * 10) / 10 };
  return undefined;
}

/** How a step follows on, in words, where that isn't simply the one before. */
export function followsLabel(steps: readonly RecipeStep[], index: number): string {
  const step = steps[index];
  if (!step?.after) return '';
  if (step.after.length === 0) return $localize`may begin at once`;
  return $localize`after ${step.after.map((key) => steps.find((s, i) => keyOf(s, i) === key)?.title ?? STEP_KIND_LABELS[step.kind]).join($localize` and `)}`;
}

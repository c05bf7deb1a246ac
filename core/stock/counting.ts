import type { StockMeasure } from '../quantity/amount';
import { formatAmount } from '../quantity/amount';

/** What is known of a jar whose count differs. Amounts in smallest units; several may be unknown. */
export interface CountCase {
  readonly measure: StockMeasure;
  readonly expected: number;
  readonly counted: number;
  readonly tareMg: number | null;
  readonly balanceResolutionG: number;
  readonly form: string | null;
  readonly hygroscopic: boolean;
  /** What left the jar lately, positive, newest first. */
  readonly recentUses: readonly number[];
  readonly reserved: number;
}

const NEAR = 0.02;
const near = (a: number, b: number): boolean => b > 0 && Math.abs(a - b) <= Math.max(b * NEAR, 1);

/** Net from gross and tare, or a sentence: a container can't weigh more than itself with something in it. */
export function netOfTare(
  grossMg: number,
  tareMg: number,
): { readonly ok: true; readonly netMg: number } | { readonly ok: false; readonly message: string } {
  if (grossMg < tareMg)
    return {
      ok: false,
      message: $localize`With its container it weighs ${formatAmount(grossMg, 'weight')}, less than the container alone (${formatAmount(tareMg, 'weight')}). Weigh the container again, or check that it is the same one.`,
    };
  return { ok: true, netMg: grossMg - tareMg };
}

/**
 * Likely reasons for a difference between shelf and screen, likeliest first. They are things to look at before booking,
 * not findings; the last is always that something was not written down.
 */
export function likelyReasons(c: CountCase): string[] {
  const difference = c.counted - c.expected;
  const size = Math.abs(difference);
  if (difference === 0) return [];
  const reasons: string[] = [];
  if (c.measure === 'weight' && size <= c.balanceResolutionG * 1000 * 2)
    reasons.push($localize`within two steps of the balance: nothing happened`);
  if (c.tareMg !== null && near(size, c.tareMg))
    reasons.push(
      difference > 0 ? $localize`the container was weighed with it` : $localize`the container was taken off twice`,
    );
  if (c.expected > 0 && (near(c.counted, c.expected * 10) || near(c.counted * 10, c.expected)))
    reasons.push($localize`a decimal point slipped`);
  if (near(c.counted * 1000, c.expected) || near(c.counted, c.expected * 1000))
    reasons.push($localize`grams and kilograms (or ml and l) were mixed up`);
  if (c.measure === 'weight' && (near(c.counted * 28.35, c.expected) || near(c.counted, c.expected * 28.35)))
    reasons.push($localize`ounces and grams were mixed up`);
  const twin = c.recentUses.find((u) => near(size, u));
  if (twin !== undefined)
    reasons.push(
      difference < 0
        ? $localize`${formatAmount(twin, c.measure)} left it lately: perhaps it was taken twice and written once`
        : $localize`${formatAmount(twin, c.measure)} was written as used lately: perhaps it never left, or came from another jar`,
    );
  if (difference < 0 && c.reserved > 0 && near(size, c.reserved))
    reasons.push($localize`as much as is promised: perhaps weighed out already and not recorded`);
  if (difference < 0 && (c.form === 'fresh' || c.form === 'frozen'))
    reasons.push($localize`it dried out, as fresh stock does`);
  if (difference > 0 && c.hygroscopic) reasons.push($localize`it drew damp from the air`);
  if (c.counted === 0) reasons.push($localize`it was emptied, or the jar is not the one on the label`);
  reasons.push(
    difference < 0
      ? $localize`something was taken and not written down`
      : $localize`something came in and was not written down`,
  );
  return reasons;
}

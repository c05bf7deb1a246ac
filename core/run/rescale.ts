import { formatAmount } from '../quantity/amount';
import type { StepRecord } from './step-record';
import type { LotPlan, PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import { smallestIn } from '../scaling/lot-plan';
import type { Rescaling, RunEntry } from './run-entry';
import { currentEntries, entriesOfKind } from './run-entry';
import { isOver } from './run-record';

/** A way to bring what is still to be weighed into line with what was. */
export interface RescaleOffer {
  readonly key: 'companions' | 'otherBatches' | 'toFibre';
  readonly message: string;
  readonly rescale: readonly Rescaling[];
}

/** What was weighed beside what was asked, what that does, and ways to make up for it. */
export interface OffTarget {
  readonly factor: number;
  /** What it does to shade or fibre, in words. */
  readonly effect: string;
  readonly offers: readonly RescaleOffer[];
}

/** Below this share of its target, or above its inverse, nobody rescales a bath: a figure was mistyped. */
const FAR_OFF = 0.5;

/** What every later weighing's target is multiplied by, from the rescalings that stand. */
export function rescaleFactor(
  entries: readonly RunEntry[],
  stepIndex: number,
  batch: number,
  materialId: string,
): number {
  let factor = 1;
  for (const { detail } of entriesOfKind(currentEntries(entries), 'rescale'))
    for (const r of detail.rescale)
      if (r.stepIndex === stepIndex && r.batch === batch && r.materialId === materialId) factor *= r.factor;
  return factor;
}

/** Target of a weighing now, smallest units: as planned, by what was rescaled since. */
export function targetNow(weighing: PlannedWeighing, stepIndex: number, entries: readonly RunEntry[]): number {
  return Math.round(
    weighing.target.value *
      smallestIn(weighing.measure) *
      rescaleFactor(entries, stepIndex, weighing.batch, weighing.materialId),
  );
}

/**
 * A weighing that came out off its target: what that does, and what could be changed to match. `undefined` where it
 * is within tolerance.
 * @param amount all that was weighed of it, smallest units
 */
export function offTarget(
  plan: LotPlan,
  records: readonly StepRecord[],
  entries: readonly RunEntry[],
  step: PlannedStep,
  weighing: PlannedWeighing,
  amount: number,
): OffTarget | undefined {
  const target = targetNow(weighing, step.index, entries);
  if (target <= 0 || Math.abs(amount - target) <= weighing.tolerance * smallestIn(weighing.measure) + 1e-6)
    return undefined;
  const factor = amount / target;
  if (factor < FAR_OFF || factor > 1 / FAR_OFF)
    return {
      factor,
      effect: $localize`${formatAmount(amount, weighing.measure)} instead of ${formatAmount(target, weighing.measure)}:measure:: that is far off. Correct it below if it was mistyped.`,
      offers: [],
    };
  const stillToWeigh = plan.steps
    .filter((s) => !isOver(records[s.index]))
    .flatMap((s) => s.weighings.filter((w) => !isWeighed(records[s.index], w)).map((w) => ({ step: s, w })));
  const offers: RescaleOffer[] = [];
  const add = (
    key: RescaleOffer['key'],
    label: string,
    found: readonly { step: PlannedStep; w: PlannedWeighing }[],
  ): void => {
    if (found.length === 0) return;
    offers.push({
      key,
      message: `${label}: ${found
        .slice(0, 4)
        .map(
          ({ step: s, w }) =>
            `${w.materialName} ${formatAmount(Math.round(targetNow(w, s.index, entries) * factor), w.measure)}${found.some((f) => f.w.batch !== w.batch) ? $localize` for batch ${w.batch}` : ''}`,
        )
        .join(', ')}${found.length > 4 ? $localize` and ${found.length - 4} more` : ''}.`,
      rescale: found.map(({ step: s, w }) => ({
        stepIndex: s.index,
        batch: w.batch,
        materialId: w.materialId,
        factor,
      })),
    });
  };
  if (step.kind === 'fibre') {
    const batchOnly = new Set(weighing.forBatches);
    add(
      'toFibre',
      $localize`Rescale every dose to the fibre as weighed`,
      stillToWeigh.filter(
        ({ step: s, w }) => s.kind !== 'fibre' && w.measure !== 'pieces' && w.forBatches.some((b) => batchOnly.has(b)),
      ),
    );
  } else {
    add(
      'companions',
      $localize`Rescale what goes with it into this bath`,
      stillToWeigh.filter(
        ({ step: s, w }) =>
          s.index === step.index &&
          w.batch === weighing.batch &&
          w.materialId !== weighing.materialId &&
          w.measure !== 'pieces',
      ),
    );
    add(
      'otherBatches',
      $localize`Weigh the other batches to match`,
      stillToWeigh.filter(
        ({ step: s, w }) =>
          s.index === step.index && w.batch !== weighing.batch && w.materialId === weighing.materialId,
      ),
    );
  }
  return { factor, effect: effectOf(step, weighing, factor), offers };
}

const isWeighed = (record: StepRecord | undefined, { batch, materialId }: PlannedWeighing): boolean =>
  record?.weighings.some((w) => w.batch === batch && w.materialId === materialId) ?? false;

function effectOf(step: PlannedStep, weighing: PlannedWeighing, factor: number): string {
  const percent = Math.round(Math.abs(factor - 1) * 100);
  const more = factor > 1;
  const amount = `${percent} % ${more ? $localize`more` : $localize`less`} ${weighing.materialName}`;
  switch (step.kind) {
    case 'fibre':
      return $localize`The fibre is ${percent} % ${more ? $localize`heavier` : $localize`lighter`} than planned: with the doses as they are, expect it ${more ? $localize`paler` : $localize`deeper`}.`;
    case 'mordant':
      return more
        ? $localize`${amount}:amount:: the shade hardly changes, but too much mordant makes wool harsh and brings ${step.forWhom === '' ? $localize`batches` : $localize`pieces`} apart.`
        : $localize`${amount}:amount:: less dye holds, so expect it paler and less fast.`;
    case 'tannin':
      return `${amount}: ${more ? $localize`a warmer, browner ground` : $localize`less mordant holds, so paler`}.`;
    case 'adjustPh':
      return $localize`${amount}:amount:: take the pH before anything else goes in.`;
    case 'modify':
      return $localize`${amount}:amount:: the modifier acts fast. Expect the shade shifted ${more ? $localize`further: shorten the time and watch it` : $localize`less`}.`;
    case 'scour':
      return more
        ? $localize`${amount}:amount:: rinse longer; strong scour is hard on protein fibre.`
        : $localize`${amount}:amount:: look whether the water beads off the fibre; scour again if it does.`;
    default:
      return $localize`${amount}:amount:: expect it ${more ? $localize`deeper` : $localize`paler`}, about in proportion until the fibre is full.`;
  }
}

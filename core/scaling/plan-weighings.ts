import { balanceFor, roundToResolution, weighingToleranceG } from '../quantity/balance';
import type { StockMeasure } from '../quantity/amount';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { AvailableStock } from '../stock/allocate';
import { allocate, allocateParts } from '../stock/allocate';
import type { Equivalence, GradedStock } from '../stock/equivalence';
import { equivalenceOf } from '../stock/equivalence';
import type { PlannedMaterial, PlannedPick, PlannedWeighing } from './lot-plan';
import { smallestIn } from './lot-plan';
import type { PlanInput, PlanMaterial } from './plan-input';
import { sharePicks } from './share-picks';
import { takingOf } from './stock-solution';
import type { Dose } from '../recipe/dose';

/** A weighing before it is known which jars give it. `target` is in the material the recipe was proven with. */
export interface Wanted extends Omit<PlannedWeighing, 'picks'> {
  readonly dose: Dose | null;
}

/** What taking from stock rests on beside the shelf. */
export type StockRules = Pick<PlanInput, 'balance' | 'recipe' | 'today' | 'outOf'>;

/** How near a dose from a stock solution comes. */
const SOLUTION_WITHIN_SHARE = 0.1;

const UNITS: Readonly<Record<StockMeasure, string>> = { weight: 'g', volume: 'ml', pieces: '' };

/** The finest step, in smallest units, that these needs are measured out by: a small dose on the fine balance. */
function stepOf(measure: StockMeasure, needs: readonly number[], { balance }: StockRules): number {
  if (measure !== 'weight') return measure === 'volume' ? 1000 : 1;
  const steps = needs.filter((n) => n > 0).map((n) => balanceFor(n / 1000, balance).resolutionG);
  return Math.max(1, Math.round(Math.min(balance.resolutionG, ...steps) * 1000));
}

/** How near a weighing must come to its target, in the unit of its measure. */
export function toleranceOf(target: number, measure: StockMeasure, { recipe, balance }: StockRules): number {
  const { resolutionG } = balanceFor(target, balance);
  // What the balance can't show is measured from a solution, to the millilitre.
  if (measure === 'weight' && target < resolutionG) return target * SOLUTION_WITHIN_SHARE;
  // A jug is read to the millilitre, packets are counted.
  return measure === 'pieces'
    ? 0
    : weighingToleranceG(target, measure === 'weight' ? resolutionG : 1, recipe.weighWithinPercent);
}

/**
 * Decides which jars give a material, and how much of each a weighing takes. Jars are reckoned by what they are worth
 * against what the recipe was proven with (strength, dry matter, grams to the litre): a weaker jar gives more. First
 * expired goes first; every weighing gets the same mix of jars, so that batches stay alike.
 * @returns the material's line, and its weighings with their jars and what is really measured out
 */
export function takeFromStock(
  material: PlanMaterial,
  wanted: readonly Wanted[],
  input: StockRules,
  { isBase }: { isBase: boolean },
): { planned: PlannedMaterial; weighings: PlannedWeighing[] } {
  const measure = wanted[0]?.measure ?? material.measure;
  const per = smallestIn(measure);
  const worth = isBase ? new Map<string, Equivalence>() : worthOfStockLots(material, wanted[0]?.dose ?? null);
  const notes: string[] = [];
  const unfit = isBase ? [] : material.stock.filter((s) => s.free > 0 && !worth.has(s.stockLotId));
  if (unfit.length > 0)
    notes.push(
      $localize`${unfit.map((s) => s.tag ?? $localize`a jar`).join(', ')} is of another form and can’t stand in: measure its moisture or its strength first`,
    );

  const factorOf = (id: string | null): number => (id === null ? 1 : (worth.get(id)?.factor ?? 1));
  const inProven = (s: GradedStock): AvailableStock => ({
    ...s,
    free: Math.floor(s.free * factorOf(s.stockLotId) + 1e-6),
  });
  const needs = wanted.map((w) => Math.round(w.target.value * per));
  const total = needs.reduce((sum, n) => sum + n, 0);
  const fit = (isBase ? material.stock : material.stock.filter((s) => worth.has(s.stockLotId))).map(inProven);
  const source = sourceOf(wanted);
  const proven = fit.filter((s) => s.stockLotId === source?.stockLotId);
  const stock = proven.some((s) => s.free >= total) ? proven : fit;
  if (source && stock !== proven && (input.outOf ?? []).every((o) => o.materialId !== material.id))
    notes.push($localize`proven with ${source.tag}, which doesn’t hold enough: dye a strip of what stands in for it`);
  const measurable = stepOf(measure, needs, input);
  const finest = needs.some((n) => n > 0 && n < measurable) ? 1 : measurable;
  const step = isBase ? 1 : finest;
  // Parts are of what is weighed: a weaker jar gives as many grams, and less of what the recipe means.
  const named = (input.outOf ?? [])
    .filter((o) => o.materialId === material.id)
    .map((o) => ({ stockLotId: o.stockLotId, part: o.part * factorOf(o.stockLotId) }));
  const {
    picks,
    short,
    notes: how,
  } = named.length > 0
    ? allocateParts(total, fit, named, { today: input.today, step })
    : allocate(total, stock, { today: input.today, preferOneLot: isBase, step });
  // What a jar lacks by less than a step of the balance nobody weighs: the largest weighing goes without it.
  const dust = total - short - picks.reduce((sum, p) => sum + p.amount, 0);
  const largest = needs.indexOf(Math.max(...needs));
  if (dust > 0 && largest >= 0) needs[largest] = (needs[largest] ?? 0) - dust;
  notes.push(...how);
  const withShort: PlannedPick[] = [
    ...picks.map((p) => ({ stockLotId: p.stockLotId, amount: p.amount })),
    ...(short > 0 ? [{ stockLotId: null, amount: short }] : []),
  ];
  const shares = sharePicks(needs, withShort, { stepMg: step, inOrder: isBase });

  const left = new Map(material.stock.map((s) => [s.stockLotId, s.free]));
  const weighings = wanted.map(({ dose: _dose, ...w }, i): PlannedWeighing => {
    const measured = (shares[i] ?? []).map((p) => asMeasured(p, factorOf(p.stockLotId), step, left));
    const same = measured.every((p, k) => p.amount === shares[i]?.[k]?.amount);
    const target = same ? w.target : byStrength(w.target, measured, measure, material, worth);
    return {
      ...w,
      target,
      tolerance: isBase ? w.tolerance : toleranceOf(target.value, measure, input),
      solution: w.solution && takingOf(w.solution, target.value / w.target.value),
      picks: measured,
    };
  });
  for (const [id, e] of worth)
    if (
      e.assumed &&
      picks.some((p) => p.stockLotId === id) &&
      material.stock.some((s) => (s.strengthPercent ?? null) !== null)
    )
      notes.push(`${tagOf(material, id)}: ${e.how}`);
  const summed = sumPicks(weighings);
  const totalValue = weighings.reduce((sum, w) => sum + Math.round(w.target.value * per), 0) / per;
  const planned: PlannedMaterial = {
    materialId: material.id,
    name: material.name,
    kind: material.kind ?? null,
    measure,
    short,
    notes,
    picks: summed.filter((p) => p.stockLotId !== null),
    total: figure(
      totalValue,
      UNITS[measure],
      $localize`sum of what is measured out, each as it can be measured`,
      weighings.map((w) => ({
        name:
          w.forBatches.length > 1
            ? $localize`batches ${w.forBatches.join($localize` and `)}`
            : $localize`batch ${w.batch}`,
        value: w.target.value,
        unit: UNITS[measure],
        source: $localize`measured out for that vessel`,
      })),
    ),
  };
  return { planned, weighings };
}

/** What a customer brought is weighed like any fibre, and comes from no jar. */
export function takeOwnGoods(
  base: PlanMaterial,
  wanted: readonly Wanted[],
): { planned: PlannedMaterial; weighings: PlannedWeighing[] } {
  const weighings = wanted.map(({ dose: _dose, ...w }): PlannedWeighing => {
    const amount = Math.round(w.target.value * smallestIn(w.measure));
    return { ...w, picks: [{ stockLotId: null, amount }] };
  });
  const planned: PlannedMaterial = {
    materialId: base.id,
    name: base.name,
    kind: base.kind ?? null,
    measure: 'weight',
    short: 0,
    ownGoods: true,
    notes: [$localize`a customer’s own: it never stood on the shelf`],
    picks: [],
    total: figure(
      weighings.reduce((sum, w) => sum + w.target.value, 0),
      'g',
      $localize`sum of what is weighed`,
      weighings.map((w) => ({
        name: $localize`batch ${w.batch}`,
        value: w.target.value,
        unit: 'g',
        source: $localize`as written`,
      })),
    ),
  };
  return { planned, weighings };
}

/** The jar that a dose was proven with. */
const sourceOf = (wanted: readonly Wanted[]) =>
  wanted.flatMap(({ dose }) => (dose?.by === 'percentOwf' && dose.source ? [dose.source] : []))[0];

function worthOfStockLots(material: PlanMaterial, dose: Dose | null): Map<string, Equivalence> {
  const provenForm = dose?.by === 'percentOwf' ? (dose.form ?? null) : null;
  const provenGPerL = dose?.by === 'solution' && material.measure === 'volume' ? dose.gPerL : null;
  return new Map(
    material.stock.flatMap((s) => {
      const e = equivalenceOf(s, provenForm, { dryFactor: material.dryFactor, provenGPerL });
      return e ? [[s.stockLotId, e] as const] : [];
    }),
  );
}

/**
 * From what it is worth to what is measured out: more of a weaker jar, in steps that can be measured, never more than
 * it holds.
 */
function asMeasured(pick: PlannedPick, factor: number, step: number, left: Map<string, number>): PlannedPick {
  if (pick.stockLotId === null) return pick;
  const has = left.get(pick.stockLotId) ?? 0;
  const amount =
    factor === 1 ? pick.amount : Math.min(has, Math.max(step, Math.round(pick.amount / factor / step) * step));
  left.set(pick.stockLotId, has - amount);
  return { ...pick, amount };
}

function byStrength(
  target: Figure,
  picks: readonly PlannedPick[],
  measure: StockMeasure,
  material: PlanMaterial,
  worth: ReadonlyMap<string, Equivalence>,
): Figure {
  const per = smallestIn(measure);
  const value = picks.reduce((sum, p) => sum + p.amount, 0) / per;
  const inputs = picks.flatMap((p) =>
    p.stockLotId === null
      ? []
      : [
          {
            name: tagOf(material, p.stockLotId),
            value: p.amount / per,
            unit: UNITS[measure],
            source: worth.get(p.stockLotId)?.how ?? '',
          },
        ],
  );
  return figure(
    roundToResolution(value, 1e-3),
    target.unit,
    $localize`${target.working.formula}, ÷ what each jar is worth`,
    [
      ...target.working.inputs,
      { name: $localize`as proven`, value: target.value, unit: target.unit, source: $localize`before strength` },
      ...inputs,
    ],
    target.working.notes,
  );
}

const tagOf = (material: PlanMaterial, id: string): string =>
  material.stock.find((s) => s.stockLotId === id)?.tag ?? $localize`a jar`;

function sumPicks(weighings: readonly PlannedWeighing[]): PlannedPick[] {
  const sums = new Map<string | null, number>();
  for (const p of weighings.flatMap((w) => w.picks)) sums.set(p.stockLotId, (sums.get(p.stockLotId) ?? 0) + p.amount);
  return [...sums].map(([stockLotId, amount]) => ({ stockLotId, amount }));
}

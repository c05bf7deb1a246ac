import { figure } from '../quantity/figure';
import { collectBaths } from './collect-baths';
import { fibreStep } from './fibre-step';
import type { LotPlan, PlanResult } from './lot-plan';
import { planAllBaths } from './plan-all-baths';
import { planCautions } from './plan-cautions';
import { groupPieces } from './plan-groups';
import type { PlanInput } from './plan-input';
import { orderSteps } from './plan-order';
import { refuseInput } from './refuse-input';
import { planStep } from './plan-step';
import { splitOverVessels } from './split-over-vessels';
import { takeAll } from './take-all';
import { ironMarks } from './vessel-choice';
import { mergeWanted, wantAll } from './wanted-weighings';

/**
 * Scales a recipe version to a lot: pieces into groups and batches over vessels, a filling for every bath of the
 * chain, each dose turned into what is measured out, which stock lots give it and what is short, heating, lifting,
 * mixing. Pure; every figure carries its working.
 *
 * Refusals (no vessel of an allowed metal, a piece or a lot too big, a fibre the recipe is not for, a dose that can't
 * be measured) are values with a plain sentence and the ways out. Throws RangeError if the recipe doses a material
 * that was not given.
 */
export function planLot(input: PlanInput): PlanResult {
  const { recipe, bases } = input;
  const liquorRatio = input.liquorRatio ?? recipe.liquorRatio;
  const refusal = refuseInput(input, liquorRatio);
  if (refusal) return { ok: false, refusal };

  const groups = groupPieces(input);
  const baths = collectBaths(input, liquorRatio, groups);
  const split = splitOverVessels(groups, baths, liquorRatio, input);
  if ('refusal' in split) return { ok: false, refusal: split.refusal };
  const { batches } = split;
  const planned = planAllBaths(baths, split, groups, input);
  if (!planned.ok) return planned;
  const { bathsOf, liquorOf, waits, potWaits } = planned;

  const wanted = wantAll(input, planned, batches, groups);
  if (!wanted.ok) return wanted;
  const merged = wanted.steps.map((weighings) => mergeWanted(weighings, input));
  const { materials, baseWeighings, weighings } = takeAll(groups, batches, merged, input);

  const order = orderSteps(recipe, groups, waits);
  if (!order.ok) return order;
  const steps = order.steps.map(({ step, stepIndex, ...placed }) =>
    planStep(step, {
      ...placed,
      weighings: weighings[stepIndex] ?? [],
      baths: bathsOf(step).map(({ bath }) => bath),
      liquor: liquorOf(step),
      groups,
      input,
    }),
  );
  const notes = order.steps.flatMap(({ step }) => bathsOf(step)).flatMap((bath) => bath.notes);
  return {
    ok: true,
    plan: {
      pieces: groups.reduce((sum, g) => sum + g.pieces, 0),
      pieceWeightG: bases[0].pieceWeightG,
      wof: weightOfFibre(input, groups),
      liquorRatio,
      groups,
      batches,
      materials,
      steps: [fibreStep(bases, baseWeighings), ...steps],
      ...(recipe.placed ? { placed: recipe.placed } : {}),
      cautions: planCautions(batches, materials, groups, notes, [...potWaits, ...ironMarks(baths, bathsOf, input)]),
    },
  };
}

const weightOfFibre = ({ bases }: PlanInput, groups: LotPlan['groups']): LotPlan['wof'] =>
  figure(
    groups.reduce((sum, g) => sum + g.pieces * g.pieceWeightG, 0),
    'g',
    $localize`pieces × dry weight of a piece`,
    bases.flatMap((b) => [
      { name: $localize`${b.pieceWord}s of ${b.name}`, value: b.pieces, unit: '', source: $localize`as written` },
      { name: $localize`dry weight of one`, value: b.pieceWeightG, unit: 'g', source: $localize`as written` },
    ]),
  );

import { figure } from '../quantity/figure';
import { findChainFault, keyOf, orderChain } from '../recipe/chain';
import { fibreStep } from './fibre-step';
import type { PlannedBath, PlanResult } from './lot-plan';
import { measureDose } from './measure-dose';
import type { DescribedBath } from './plan-baths';
import { planBath } from './plan-baths';
import { collectBaths } from './collect-baths';
import { goesThrough, groupPieces } from './plan-groups';
import type { PlanInput } from './plan-input';
import { materialById } from './plan-input';
import type { Wanted } from './plan-weighings';
import { toleranceOf } from './plan-weighings';
import { joinList } from '../quantity/word-list';
import type { RecipeStep } from '../recipe/recipe-step';
import { planCautions } from './plan-cautions';
import { planStep } from './plan-step';
import { refuse, noVessel } from './plan-refusal';
import { splitOverVessels } from './split-over-vessels';
import { mergeWanted, auxiliariesOf, placedMaterials, placesFor } from './wanted-weighings';
import { takeAll } from './take-all';

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
  const fault = findChainFault(recipe.steps, recipe.parts);
  if (fault) return refuse('chainFault', fault.message);
  const unsuited = bases.find((b) => !recipe.fibres.includes(b.fibre));
  if (unsuited)
    return refuse(
      'fibreNotSuited',
      `${recipe.recipeName} is a recipe for ${joinList(recipe.fibres)}; ${unsuited.name} is ${unsuited.fibre}. Choose a recipe proven on ${unsuited.fibre}.`,
    );
  const liquorRatio = input.liquorRatio ?? recipe.liquorRatio;
  const min = recipe.minLiquorRatio ?? recipe.liquorRatio;
  if (liquorRatio < min || liquorRatio > Math.max(recipe.liquorRatio, min) * 2)
    return refuse(
      'ratioOutside',
      `1:${liquorRatio} is outside what ${recipe.recipeName} allows: 1:${min} to 1:${recipe.liquorRatio * 2}. Choose one within.`,
    );

  const groups = groupPieces(input);
  const baths = collectBaths(recipe, liquorRatio);
  const split = splitOverVessels(groups, baths, liquorRatio, input);
  if ('refusal' in split) return { ok: false, refusal: split.refusal };
  const { batches, mainOf } = split;

  const planned = new Map<string, readonly DescribedBath[]>();
  for (const bath of baths) {
    const fillings = planBath(bath, batches, groups, mainOf.has(bath.key), input);
    if (fillings.length === 0 && bath.steps.some((s) => groups.some((g) => goesThrough(s, g))))
      return { ok: false, refusal: noVessel(bath, input) };
    const over = fillings.find(({ bath: filled }) => filled.fillLevel.value > 100)?.bath;
    if (over)
      return refuse(
        'pieceTooBig',
        `A single piece is more than ${over.vesselName} holds for “${bath.steps[0]?.title ?? ''}”, and no other vessel of ${joinList(bath.metals, 'or')} is bigger. Divide the pieces, or add a bigger vessel.`,
      );
    planned.set(bath.key, fillings);
  }
  const describedBathsOf = (step: RecipeStep): readonly DescribedBath[] =>
    planned.get(baths.find((b) => b.steps.includes(step))?.key ?? '') ?? [];
  const bathsOf = (step: RecipeStep): readonly PlannedBath[] => describedBathsOf(step).map(({ bath }) => bath);

  const wanted: Wanted[][] = [];
  for (const [i, step] of recipe.steps.entries()) {
    const stepWeighings: Wanted[] = [];
    for (const dose of step.doses)
      for (const place of placesFor(step, bathsOf(step), batches, groups)) {
        const material = materialById(input, dose.materialId);
        const measured = measureDose(
          dose,
          material,
          { ...place, water: input.water },
          input.balance,
          `${recipe.recipeName}, version ${recipe.number}`,
        );
        if (!measured.ok) return refuse('doseUnknown', measured.message);
        const at = { batch: place.batches[0] ?? 1, forBatches: place.batches };
        stepWeighings.push({
          ...at,
          materialId: material.id,
          materialName: material.name,
          measure: measured.measure,
          target: measured.target,
          tolerance: toleranceOf(measured.target.value, measured.measure, input),
          advice: measured.advice,
          dose,
        });
        if (dose.by === 'packet')
          stepWeighings.push(...auxiliariesOf(material, measured.target.value, input).map((w) => ({ ...at, ...w })));
      }
    wanted[i] = stepWeighings;
  }
  for (const { stepIndex, ...w } of placedMaterials(recipe, batches, input)) wanted[stepIndex]?.push(w);
  const { materials, baseWeighings, weighings } = takeAll(
    groups,
    batches,
    wanted.map((stepWeighings) => mergeWanted(stepWeighings, input)),
    input,
  );
  const chain = orderChain(recipe.steps);
  if (!chain.ok) return refuse('chainFault', chain.fault.message);
  // A branch that none of this lot's pieces go through is left out; whoever followed it follows what it followed.
  const taken = chain.order.filter((i) => groups.some((g) => goesThrough(recipe.steps[i] as RecipeStep, g)));
  const place = new Map(taken.map((stepIndex, n) => [stepIndex, n + 1]));
  const follows = (stepIndex: number): number[] => [
    ...new Set(
      (chain.after[stepIndex] ?? []).flatMap((k) => {
        const at = place.get(k);
        return at === undefined ? follows(k) : [at];
      }),
    ),
  ];
  const steps = taken.map((stepIndex) => {
    const step = recipe.steps[stepIndex] as RecipeStep;
    const after = follows(stepIndex).filter((n) => n > 0);
    return planStep(step, {
      index: place.get(stepIndex) ?? 0,
      key: keyOf(step, stepIndex),
      after: after.length > 0 ? after : [0],
      weighings: weighings[stepIndex] ?? [],
      baths: bathsOf(step),
      groups,
      input,
    });
  });
  const pieces = groups.reduce((sum, g) => sum + g.pieces, 0);
  const wof = figure(
    groups.reduce((sum, g) => sum + g.pieces * g.pieceWeightG, 0),
    'g',
    'pieces × dry weight of a piece',
    bases.flatMap((b) => [
      { name: `${b.pieceWord}s of ${b.name}`, value: b.pieces, unit: '', source: 'as written' },
      { name: 'dry weight of one', value: b.pieceWeightG, unit: 'g', source: 'as written' },
    ]),
  );
  return {
    ok: true,
    plan: {
      pieces,
      pieceWeightG: bases[0].pieceWeightG,
      wof,
      liquorRatio,
      groups,
      batches,
      materials,
      steps: [
        fibreStep(
          bases.map((b) => ({ pieces: b.pieces, pieceWord: b.pieceWord })),
          baseWeighings,
        ),
        ...steps,
      ],
      cautions: planCautions(
        batches,
        materials,
        groups,
        taken.flatMap((i) => describedBathsOf(recipe.steps[i] as RecipeStep)).flatMap(({ notes }) => notes),
      ),
    },
  };
}

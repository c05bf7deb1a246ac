import type { DosedReagent } from '../bath/ph';
import type { PhReagent } from '../bath/ph-reagent';
import { balanceFor, weighableDose } from '../quantity/balance';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { Dose } from '../recipe/dose';
import type { PlannedBatch, PlannedBath, PlannedGroup } from './lot-plan';
import type { AllBaths } from './plan-all-baths';
import { smallestIn } from './lot-plan';
import { measureDose } from './measure-dose';
import { goesThrough } from './plan-groups';
import { stepsOfZones } from './placed-zones';
import type { PlanInput, PlanMaterial } from './plan-input';
import { freeOf, materialById } from './plan-input';
import type { PlanRefusal } from './plan-refusal';
import { refusal } from './plan-refusal';
import type { Wanted } from './plan-weighings';
import { toleranceOf } from './plan-weighings';
import type { RecipeStep } from '../recipe/recipe-step';
import { solutionFor } from './stock-solution';

type Filled = Extract<AllBaths, { readonly ok: true }>;

/** What every step of the recipe asks for, in its order; or the dose that can't be measured. */
export function wantAll(
  input: PlanInput,
  { bathsOf, liquorOf }: Pick<Filled, 'bathsOf' | 'liquorOf'>,
  batches: readonly PlannedBatch[],
  groups: readonly PlannedGroup[],
):
  | { readonly ok: true; readonly steps: readonly (readonly Wanted[])[] }
  | { readonly ok: false; readonly refusal: PlanRefusal } {
  const steps: Wanted[][] = input.recipe.steps.map(() => []);
  const reagentsIn = new Map<string, DosedReagent[]>();
  const dosesToPh = input.recipe.steps.some((s) => s.doses.some((d) => d.by === 'toPh'));
  for (const [i, step] of input.recipe.steps.entries()) {
    const fillings = bathsOf(step).map(({ bath }) => bath);
    const liquor = liquorOf(step);
    const places = placesFor(step, fillings, batches, groups);
    for (const dose of step.doses)
      for (const place of places) {
        // What is in a bath already counts only where something is dosed to a pH.
        const bath = dosesToPh && step.usesBath ? fillings.find((b) => b.batches === place.batches) : undefined;
        const pot = bath ? $localize`${liquor} in ${bath.vesselId}` : undefined;
        const before = (pot === undefined ? undefined : reagentsIn.get(pot)) ?? [];
        const wanted = wantDose(dose, { ...place, before }, input);
        if (!wanted.ok) return wanted;
        steps[i]?.push(...wanted.weighings);
        const added = pot === undefined ? [] : wanted.weighings.flatMap((w) => reagentOf(w, input));
        if (pot !== undefined && added.length > 0) reagentsIn.set(pot, [...before, ...added]);
      }
  }
  for (const { stepIndex, ...w } of placedMaterials(input.recipe, batches, input)) steps[stepIndex]?.push(w);
  return { ok: true, steps };
}

/** What a weighing does to the pH of its bath, where its stuff is known. */
function reagentOf({ materialId, target, measure }: Wanted, input: PlanInput): DosedReagent[] {
  const reagent = PH_REAGENT_OF[materialById(input, materialId).catalogueKey ?? ''];
  const unit = reagent === 'vinegar5' || reagent === 'ammonia10' ? 'volume' : 'weight';
  return reagent && measure === unit && target.value > 0 ? [{ reagent, amount: target.value }] : [];
}

const PH_REAGENT_OF: Readonly<Record<string, PhReagent>> = {
  'white-vinegar': 'vinegar5',
  'citric-acid': 'citricAcid',
  'tartaric-acid': 'tartaricAcid',
  'soda-ash': 'sodaAsh',
  'washing-soda-crystals': 'sodaCrystals',
  'bicarbonate-of-soda': 'bicarbonate',
  'household-ammonia': 'ammonia10',
};

/** What one dose asks for at one filling; a packet brings its auxiliaries. */
function wantDose(
  dose: Dose,
  place: Place & { readonly before: readonly DosedReagent[] },
  input: PlanInput,
):
  { readonly ok: true; readonly weighings: readonly Wanted[] } | { readonly ok: false; readonly refusal: PlanRefusal } {
  const { recipe, water, balance } = input;
  const material = materialById(input, dose.materialId);
  const source = $localize`${recipe.recipeName}, version ${recipe.number}`;
  const free = (freeOf(material) * place.share) / smallestIn(material.measure);
  const measured = measureDose(dose, material, { ...place, free, water }, balance, source);
  if (!measured.ok) return { ok: false, refusal: refusal({ code: 'doseUnknown', unknown: measured.unknown }) };
  const { measure, target, advice, solution = null } = measured;
  const at = { batch: place.batches[0] ?? 1, forBatches: place.batches };
  const tolerance = toleranceOf(target.value, measure, input);
  const { id: materialId, name: materialName } = material;
  const auxiliaries = dose.by === 'packet' ? auxiliariesOf(material, target.value, input) : [];
  return {
    ok: true,
    weighings: [
      { ...at, materialId, materialName, measure, target, tolerance, advice, solution, dose },
      ...auxiliaries.map((w) => ({ ...at, ...w })),
    ],
  };
}

/** One material is measured out once for a bath at a step, however many lines ask for it. */
export function mergeWanted(wanted: readonly Wanted[], input: PlanInput): Wanted[] {
  const merged = new Map<string, Wanted>();
  const keyOf = ({ materialId }: Wanted) => materialById(input, materialId).catalogueKey;
  for (const w of wanted) {
    const key = `${w.batch} ${w.materialId}`;
    const before = merged.get(key);
    const value = before ? Math.round((before.target.value + w.target.value) * 1000) / 1000 : 0;
    const line = (of: Wanted): Figure['working']['inputs'][number] => ({
      name: of.target.working.formula,
      value: of.target.value,
      unit: of.target.unit,
      source: of.target.working.inputs[0]?.source ?? '',
    });
    merged.set(
      key,
      before
        ? {
            ...before,
            advice: [...new Set([...before.advice, ...w.advice])],
            tolerance: toleranceOf(value, w.measure, input),
            solution: w.measure === 'weight' ? solutionFor(value, balanceFor(value, input.balance), keyOf(w)) : null,
            target: figure(
              value,
              w.target.unit,
              $localize`sum of what this step asks for`,
              [line(before), line(w)],
              [...before.target.working.notes, ...w.target.working.notes],
            ),
          }
        : w,
    );
  }
  return [...merged.values()];
}

/** What goes with each packet, by the packet’s own facts: an auxiliary is dosed with it and never by itself. */
export function auxiliariesOf(
  packet: PlanMaterial,
  packets: number,
  input: PlanInput,
): Omit<Wanted, 'batch' | 'forBatches'>[] {
  return (packet.packet?.auxiliaries ?? []).map(({ materialId, amount }) => {
    const material = materialById(input, materialId);
    const each = amount / smallestIn(material.measure);
    const unit = material.measure === 'weight' ? 'g' : material.measure === 'volume' ? 'ml' : '';
    const target = figure(Math.round(each * packets * 1000) / 1000, unit, $localize`for one packet × packets`, [
      { name: $localize`for one packet`, value: each, unit, source: packet.name },
      { name: $localize`packets`, value: packets, unit: '' },
    ]);
    return {
      materialId,
      materialName: material.name,
      measure: material.measure,
      target,
      tolerance: toleranceOf(target.value, material.measure, input),
      advice: [],
      dose: null,
    };
  });
}

/**
 * What placed colour puts on each piece: liquids by the millilitre, dyestuff and powders by the gram, at the step the
 * zone belongs to.
 */
export function placedMaterials(
  recipe: PlanInput['recipe'],
  batches: readonly PlannedBatch[],
  input: PlanInput,
): (Wanted & { stepIndex: number })[] {
  const { placed } = recipe;
  if (placed === null) return [];
  const stepOf = stepsOfZones(placed, recipe.steps);
  return placed.zones.flatMap((zone, i) => {
    const material = zone.materialId === null ? undefined : materialById(input, zone.materialId);
    const each =
      material?.measure === 'volume'
        ? (zone.mlPerPiece ?? 0)
        : material?.measure === 'weight'
          ? (zone.gPerPiece ?? 0)
          : 0;
    if (!material || each <= 0) return [];
    const unit = material.measure === 'volume' ? 'ml' : 'g';
    return batches.map((b) => {
      const inputs = [
        { name: zone.title, value: each, unit: `${unit} a piece`, source: $localize`placed colour` },
        { name: $localize`pieces`, value: b.pieces, unit: '', source: $localize`batch ${b.number}` },
      ];
      const target =
        unit === 'g'
          ? weighableDose(each * b.pieces, input.balance, $localize`g a piece × pieces`, inputs)
          : figure(Math.round(each * b.pieces * 10) / 10, 'ml', $localize`ml a piece × pieces`, inputs);
      return {
        stepIndex: stepOf[i] ?? -1,
        batch: b.number,
        forBatches: [b.number],
        materialId: material.id,
        materialName: material.name,
        measure: material.measure,
        target,
        tolerance: toleranceOf(target.value, material.measure, input),
        advice: [$localize`For “${zone.title}”: ${each} ${unit} a piece.`],
        dose: null,
      };
    });
  });
}

/** Where a dose is measured out: batches, dry weight in g, liquor in ml, pieces. */
export interface Place {
  readonly batches: readonly number[];
  readonly wofG: number;
  readonly liquorMl: number;
  readonly pieces: number;
  /** Times the vessel is filled, one after another. */
  readonly turns: number;
  /** Of all the fibre that the step is for, the share that is here. */
  readonly share: number;
}

/**
 * Where a step's doses go: into each filling of its bath, or, without a bath, to each batch; only the pieces the step
 * is for count.
 */
export function placesFor(
  step: RecipeStep,
  baths: readonly PlannedBath[],
  batches: readonly PlannedBatch[],
  groups: readonly PlannedGroup[],
): Place[] {
  const ofBatch = (numbers: readonly number[]): { wofG: number; pieces: number } => {
    let [wofG, pieces] = [0, 0];
    for (const part of batches.filter((b) => numbers.includes(b.number)).flatMap((b) => b.groups)) {
      const group = groups.find((g) => g.key === part.key);
      if (!group || !goesThrough(step, group)) continue;
      wofG += part.pieces * group.pieceWeightG;
      pieces += part.pieces;
    }
    return { wofG, pieces };
  };
  const places = step.usesBath
    ? baths.map((b) => ({
        batches: b.batches,
        liquorMl: b.liquor.value * b.turns,
        turns: b.turns,
        ...ofBatch(b.batches),
      }))
    : batches.map((b) => ({ batches: [b.number], liquorMl: b.liquor.value, turns: 1, ...ofBatch([b.number]) }));
  const wholeG = places.reduce((sum, p) => sum + p.wofG, 0);
  return places.filter((p) => p.wofG > 0).map((p) => ({ ...p, share: p.wofG / wholeG }));
}

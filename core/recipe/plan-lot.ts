import type { FibreKind } from '../bath/fibre';
import { fibreDisplacementMl } from '../bath/fibre';
import { liquorVolume } from '../bath/liquor';
import type { Vessel } from '../bath/vessel';
import { piecesThatFit } from '../bath/vessel';
import type { Balance } from '../quantity/balance';
import { weighingToleranceG } from '../quantity/balance';
import { figure } from '../quantity/figure';
import { convertGramsToMilligrams, convertMilligramsToGrams } from '../quantity/smallest-units';
import { formatVolume, formatWeight } from '../quantity/weight';
import { cautionsForStep } from '../safety/cautions';
import type { Hazard } from '../safety/hazards';
import type { AvailableStock } from '../stock/allocate';
import { allocate } from '../stock/allocate';
import { fibreStep } from './fibre-step';
import type { LotPlan, PlannedBatch, PlannedMaterial, PlannedPick, PlannedStep, PlannedWeighing, PlanRefusal, PlanResult } from './lot-plan';
import type { RecipeStep, RecipeVersion } from './recipe';
import { scaleDose } from './scale-dose';
import { sharePicks } from './share-picks';
import type { BatchShare } from './split-batches';
import { splitBatches } from './split-batches';

/** A material as planning needs it. `stock` is what is free, by stock lot, in mg. */
export interface PlanMaterial {
  readonly id: string;
  readonly name: string;
  readonly hazards: readonly Hazard[];
  readonly stock: readonly AvailableStock[];
}

export interface PlanInput {
  readonly pieces: number;
  readonly pieceWeightG: number;
  readonly recipe: RecipeVersion;
  readonly base: PlanMaterial & { readonly fibre: FibreKind; readonly pieceWord: string };
  /** Every material the recipe doses. */
  readonly materials: readonly PlanMaterial[];
  readonly vessels: readonly Vessel[];
  readonly balance: Balance;
  /** ISO date, for best-before. */
  readonly today: string;
}

/**
 * Scales a recipe version to a lot: batches over vessels, liquor, grams of everything rounded to the balance,
 * which stock lots it takes from and what is short. Pure; every figure carries its working.
 *
 * Refusals (no vessel of an allowed metal, a piece too big, a lot too big, a fibre the recipe is not for) are values
 * with a plain sentence. Throws RangeError if the recipe doses a material that was not given.
 */
export function planLot(input: PlanInput): PlanResult {
  const { recipe, base, pieces, pieceWeightG } = input;
  if (!recipe.fibres.includes(base.fibre)) {
    return refusal({ code: 'fibreNotSuited', sentence: `${recipe.recipeName} is a recipe for ${listWords(recipe.fibres)}; ${base.name} is ${base.fibre}. Choose a recipe proven on ${base.fibre}.` });
  }
  const split = splitOverVessels(input);
  if ('code' in split) return refusal(split);

  const batches = split.map((share, i) => planBatch(share, i + 1, input));
  const weighings = recipe.steps.map((step) => step.doses.flatMap((dose) => batches.map((batch) => planWeighing(dose.materialId, dose.percentOwf, batch, input))));
  const baseWeighings = batches.map((batch) => baseWeighing(batch, input));

  const allocated = new Map<string, PlannedMaterial>();
  const pickShares = new Map<PlannedWeighing, readonly PlannedPick[]>();
  const allocateAll = (material: PlanMaterial, its: readonly PlannedWeighing[], preferOneLot: boolean): void => {
    const planned = planMaterial(material, its, input.today, preferOneLot);
    allocated.set(material.id, planned);
    const stepMg = preferOneLot ? 1 : convertGramsToMilligrams(input.balance.resolutionG);
    const shares = sharePicks(its.map((w) => convertGramsToMilligrams(w.target.value)), withShortage(planned), { stepMg, inOrder: preferOneLot });
    its.forEach((w, i) => pickShares.set(w, shares[i] ?? []));
  };
  allocateAll(base, baseWeighings, true);
  const all = weighings.flat();
  for (const id of new Set(all.map((w) => w.materialId))) allocateAll(materialById(input, id), all.filter((w) => w.materialId === id), false);

  const withPicks = (list: readonly PlannedWeighing[]): PlannedWeighing[] => list.map((w) => ({ ...w, picks: pickShares.get(w) ?? [] }));
  const steps: PlannedStep[] = [
    fibreStep(pieces, base.pieceWord, withPicks(baseWeighings)),
    ...recipe.steps.map((step, i) => planStep(step, i + 1, withPicks(weighings[i] ?? []), input)),
  ];
  const wof = figure(pieces * pieceWeightG, 'g', 'pieces × dry weight of a piece', [
    { name: `${base.pieceWord}s`, value: pieces, unit: '', source: 'as written' },
    { name: 'dry weight of one', value: pieceWeightG, unit: 'g', source: 'as written' },
  ]);
  const plan: LotPlan = {
    pieces, pieceWeightG, wof, liquorRatio: recipe.liquorRatio, batches, materials: [...allocated.values()], steps,
    cautions: planCautions(batches, [...allocated.values()], base.pieceWord),
  };
  return { ok: true, plan };
}

const refusal = (r: PlanRefusal): PlanResult => ({ ok: false, refusal: r });

function splitOverVessels({ pieces, pieceWeightG, recipe, base, vessels }: PlanInput): readonly BatchShare[] | PlanRefusal {
  const allowed = vessels.filter((v) => recipe.allowedMetals.includes(v.metal));
  if (allowed.length === 0) {
    const metals = listWords(recipe.allowedMetals, 'or');
    return { code: 'noVesselOfMetal', allowedMetals: recipe.allowedMetals, sentence: `This recipe wants a vessel of ${metals}, and none was chosen or owned. Add one under Studio, or choose another recipe.` };
  }
  const rooms = allowed.map((vessel) => ({ vessel, roomForPieces: piecesThatFit(vessel, pieceWeightG, recipe.liquorRatio, base.fibre) }));
  const split = splitBatches(pieces, rooms);
  if (split.ok) return split.shares;
  if (split.mostPieces === 0) {
    const biggest = allowed.reduce((a, b) => (b.workingMl > a.workingMl ? b : a));
    return { code: 'pieceTooBig', sentence: `One ${base.pieceWord} of ${formatWeight(pieceWeightG)} at 1:${recipe.liquorRatio} needs more than ${biggest.name}, the biggest, holds (${formatVolume(biggest.workingMl)}). Divide the ${base.pieceWord}, or add a bigger vessel.` };
  }
  return {
    code: 'lotTooBig', mostPieces: split.mostPieces,
    sentence: `${pieces} ${base.pieceWord}s are more than the vessels hold together: ${split.mostPieces} is the most at 1:${recipe.liquorRatio}. Make two lots, or add a vessel.`,
  };
}

function planBatch(share: BatchShare, number: number, { pieceWeightG, recipe, base }: PlanInput): PlannedBatch {
  const wofG = share.pieces * pieceWeightG;
  const liquor = liquorVolume(wofG, recipe.liquorRatio);
  const displacedMl = fibreDisplacementMl(base.fibre, wofG);
  const { vessel } = share;
  return {
    number, vesselId: vessel.id, vesselName: vessel.name, metal: vessel.metal, pieces: share.pieces,
    wof: figure(wofG, 'g', `${base.pieceWord}s in this vessel × dry weight of one`, [
      { name: `${base.pieceWord}s`, value: share.pieces, unit: '', source: 'split over the vessels' },
      { name: 'dry weight of one', value: pieceWeightG, unit: 'g', source: 'as written' },
    ]),
    liquor,
    fill: figure(Math.round(((liquor.value + displacedMl) / vessel.workingMl) * 100), '%', '(liquor + room the fibre takes) ÷ working volume', [
      { name: 'liquor', value: liquor.value, unit: 'ml', source: 'this batch' },
      { name: 'room the fibre takes', value: Math.round(displacedMl), unit: 'ml', source: `density of ${base.fibre}` },
      { name: 'working volume', value: vessel.workingMl, unit: 'ml', source: vessel.name },
    ]),
  };
}

function planWeighing(materialId: string, percentOwf: number, batch: PlannedBatch, input: PlanInput): PlannedWeighing {
  const target = scaleDose(percentOwf, batch.wof.value, input.balance, { doseSource: `${input.recipe.recipeName}, version ${input.recipe.number}` });
  return {
    batch: batch.number, materialId, materialName: materialById(input, materialId).name, target,
    toleranceG: weighingToleranceG(target.value, input.balance.resolutionG), picks: [],
  };
}

function baseWeighing(batch: PlannedBatch, { base }: PlanInput): PlannedWeighing {
  return { batch: batch.number, materialId: base.id, materialName: base.name, target: batch.wof, toleranceG: weighingToleranceG(batch.wof.value, 1), picks: [] };
}

function planMaterial(material: PlanMaterial, weighings: readonly PlannedWeighing[], today: string, preferOneLot: boolean): PlannedMaterial {
  const totalMg = weighings.reduce((sum, w) => sum + convertGramsToMilligrams(w.target.value), 0);
  const { picks, short, notes } = allocate(totalMg, material.stock, { today, preferOneLot });
  const inputs = weighings.map((w) => ({ name: `batch ${w.batch}`, value: w.target.value, unit: 'g', source: 'weighed out for that vessel' }));
  return {
    materialId: material.id, name: material.name, shortMg: short, notes,
    total: figure(convertMilligramsToGrams(totalMg), 'g', 'sum of the batches, each rounded to the balance', inputs),
    picks: picks.map((p) => ({ stockLotId: p.stockLotId, amountMg: p.amount })),
  };
}

const withShortage = ({ picks, shortMg }: PlannedMaterial): readonly PlannedPick[] =>
  shortMg > 0 ? [...picks, { stockLotId: null, amountMg: shortMg }] : picks;

function planStep(step: RecipeStep, index: number, weighings: readonly PlannedWeighing[], input: PlanInput): PlannedStep {
  const { doses, ...rest } = step;
  const hazards = doses.flatMap((d) => materialById(input, d.materialId).hazards);
  return { ...rest, index, weighings, cautions: cautionsForStep(step, hazards) };
}

function planCautions(batches: readonly PlannedBatch[], materials: readonly PlannedMaterial[], pieceWord: string): string[] {
  const cautions: string[] = [];
  for (const m of materials) if (m.shortMg > 0) cautions.push(`${m.name} is short by ${formatWeight(convertMilligramsToGrams(m.shortMg))}.`);
  const most = Math.max(...batches.map((b) => b.pieces));
  const least = Math.min(...batches.map((b) => b.pieces));
  if (most !== least) cautions.push(`The batches differ by ${most - least} ${pieceWord}${most - least === 1 ? '' : 's'}: the same ratio and doses, but they heat at different speeds.`);
  else if (batches.length > 1) cautions.push(`${batches.length} baths: take readings of every batch before the lot is passed.`);
  return cautions;
}

function materialById({ materials, base }: PlanInput, id: string): PlanMaterial {
  const found = id === base.id ? base : materials.find((m) => m.id === id);
  if (!found) throw new RangeError(`the recipe doses material ${id}, which was not given`);
  return found;
}

function listWords(words: readonly string[], last = 'and'): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)}`;
}

import { fibreFamily } from '../bath/fibre';
import { liquorVolume } from '../bath/liquor';
import type { Vessel } from '../bath/vessel';
import { weighableDose, weighingToleranceG } from '../quantity/balance';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import { formatAmount } from '../quantity/amount';
import { cautionsForStep } from '../safety/cautions';
import { findChainFault, orderChain } from './chain';
import { fibreStep } from './fibre-step';
import { houseHints, practiceOf } from './house-practice';
import type {
  PlannedBatch,
  PlannedBath,
  PlannedGroup,
  PlannedMaterial,
  PlannedStep,
  PlannedWeighing,
  PlanRefusal,
  PlanResult,
} from './lot-plan';
import { smallestIn } from './lot-plan';
import { measureDose } from './measure-dose';
import type { BathOfSteps } from './plan-baths';
import { collectBaths, fillFigure, planBath } from './plan-baths';
import { asPieces, forWhom, goesThrough, groupPieces } from './plan-groups';
import type { PlanInput, PlanMaterial } from './plan-input';
import { countWords, listWords, materialById } from './plan-input';
import type { Wanted } from './plan-weighings';
import { takeFromStock, toleranceOf } from './plan-weighings';
import type { RecipeStep } from './recipe';
import { hottestC, stepMinutes } from './recipe';
import { splitGroups } from './split-groups';
import { refuseSplit, roomAt } from './ways-out';

/**
 * Scales a recipe version to a lot: pieces into groups and batches over vessels, a filling for every bath of the chain, each dose
 * turned into what is measured out, which stock lots give it and what is short, heating, lifting, mixing. Pure; every figure
 * carries its working.
 *
 * Refusals (no vessel of an allowed metal, a piece or a lot too big, a fibre the recipe is not for, a dose that can't be
 * measured) are values with a plain sentence and the ways out. Throws RangeError if the recipe doses a material that was not given.
 */
export function planLot(input: PlanInput): PlanResult {
  const { recipe, bases } = input;
  const fault = findChainFault(recipe.steps, recipe.parts);
  if (fault) return refuse('chainFault', fault.sentence);
  const unsuited = bases.find((b) => !recipe.fibres.includes(b.fibre));
  if (unsuited)
    return refuse(
      'fibreNotSuited',
      `${recipe.recipeName} is a recipe for ${listWords(recipe.fibres)}; ${unsuited.name} is ${unsuited.fibre}. Choose a recipe proven on ${unsuited.fibre}.`,
    );
  const liquorRatio = input.liquorRatio ?? recipe.liquorRatio;
  const least = recipe.liquorRatioLeast ?? recipe.liquorRatio;
  if (liquorRatio < least || liquorRatio > Math.max(recipe.liquorRatio, least) * 2)
    return refuse(
      'ratioOutside',
      `1:${liquorRatio} is outside what ${recipe.recipeName} allows: 1:${least} to 1:${recipe.liquorRatio * 2}. Choose one within.`,
    );

  const groups = groupPieces(input);
  const baths = collectBaths(recipe, liquorRatio);
  const split = splitOverVessels(groups, baths, liquorRatio, input);
  if ('refusal' in split) return { ok: false, refusal: split.refusal };
  const { batches, mainOf } = split;

  const planned = new Map<string, readonly PlannedBath[]>();
  for (const bath of baths) {
    const its = planBath(bath, batches, groups, mainOf.has(bath.key), input);
    if (its.length === 0 && bath.steps.some((s) => groups.some((g) => goesThrough(s, g))))
      return { ok: false, refusal: noVessel(bath, input) };
    const over = its.find((b) => b.fill.value > 100);
    if (over)
      return refuse(
        'pieceTooBig',
        `A single piece is more than ${over.vesselName} holds for “${bath.steps[0]?.title ?? ''}”, and no other vessel of ${listWords(bath.metals, 'or')} is bigger. Divide the pieces, or add a bigger vessel.`,
      );
    planned.set(bath.key, its);
  }
  const bathsOf = (step: RecipeStep): readonly PlannedBath[] =>
    planned.get(baths.find((b) => b.steps.includes(step))?.key ?? '') ?? [];

  const wanted: Wanted[][] = [];
  for (const [i, step] of recipe.steps.entries()) {
    const its: Wanted[] = [];
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
        if (!measured.ok) return refuse('doseUnknown', measured.sentence);
        const at = { batch: place.batches[0] ?? 1, forBatches: place.batches };
        its.push({
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
          its.push(...auxiliariesOf(material, measured.target.value, input).map((w) => ({ ...at, ...w })));
      }
    wanted[i] = its;
  }
  for (const { stepIndex, ...w } of placedMaterials(recipe, batches, input)) wanted[stepIndex]?.push(w);
  const { materials, baseWeighings, weighings } = takeAll(
    groups,
    batches,
    wanted.map((its) => mergeWanted(its, input)),
    input,
  );
  const chain = orderChain(recipe.steps);
  if (!chain.ok) return refuse('chainFault', chain.fault.sentence);
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
      cautions: planCautions(batches, materials, groups, [...new Set(steps.flatMap((s) => s.baths))]),
    },
  };
}

const refuse = (code: PlanRefusal['code'], sentence: string): PlanResult => ({
  ok: false,
  refusal: { code, sentence, ways: [] },
});

function noVessel(bath: Pick<BathOfSteps, 'metals' | 'steps'>, { vessels }: PlanInput): PlanRefusal {
  const step = bath.steps[0];
  const sentence =
    bath.metals.length === 0
      ? `The steps that share the bath of “${step?.title ?? 'this recipe'}” allow no metal in common. Give one of them a bath of its own.`
      : `${step ? `“${step.title}”` : 'This recipe'} wants a vessel of ${listWords(bath.metals, 'or')}, and none was chosen or owned${vessels.length > 0 ? '' : ': there is no vessel yet'}. Add one under Studio, or choose another recipe.`;
  return { code: 'noVesselOfMetal', sentence, ways: [] };
}

/** The bath that decides a group's batches: where it is dyed, or else the last bath it is in. */
function mainBath(group: PlannedGroup, baths: readonly BathOfSteps[]): BathOfSteps | undefined {
  const its = baths.filter((b) => b.withPieces && b.steps.some((s) => goesThrough(s, group)));
  return its.find((b) => b.steps.some((s) => s.kind === 'dye' && goesThrough(s, group))) ?? its.at(-1);
}

type Split =
  { readonly batches: PlannedBatch[]; readonly mainOf: ReadonlySet<string> } | { readonly refusal: PlanRefusal };

/** Splits the groups over the vessels of the bath they are dyed in; groups dyed in different baths get batches of their own. */
function splitOverVessels(
  groups: readonly PlannedGroup[],
  baths: readonly BathOfSteps[],
  liquorRatio: number,
  input: PlanInput,
): Split {
  const loose: BathOfSteps = {
    key: '',
    steps: [],
    metals: input.recipe.allowedMetals,
    liquorRatio,
    matterMlPerG: 0,
    withPieces: true,
  };
  const mains = new Map<string, { bath: BathOfSteps; groups: PlannedGroup[] }>();
  for (const group of groups) {
    const bath = mainBath(group, baths) ?? loose;
    mains.set(bath.key, { bath, groups: [...(mains.get(bath.key)?.groups ?? []), group] });
  }
  const batches: PlannedBatch[] = [];
  for (const { bath, groups: its } of mains.values()) {
    const allowed = input.vessels.filter((v) => bath.metals.includes(v.metal));
    if (allowed.length === 0) return { refusal: noVessel(bath, input) };
    const clean = allowed.filter((v) => v.heldIron !== true);
    const unused = clean.filter((v) => !batches.some((b) => b.vesselId === v.id));
    const attempts = [unused, clean, allowed].filter(
      (vessels, i, all) => vessels.length > 0 && (i === 0 || vessels.length > (all[i - 1]?.length ?? 0)),
    );
    const pieces = its.map((g) => asPieces(g, bath.matterMlPerG));
    const runs = Array.from({ length: input.runs ?? 1 }, (_, n) => n + 1);
    const tried = attempts.map((vessels) =>
      splitGroups(
        pieces,
        runs.flatMap((run) => vessels.map((vessel) => ({ ...vessel, run }))),
        roomAt(bath.liquorRatio),
      ),
    );
    const found = tried.find((t) => t.ok);
    if (!found?.ok)
      return {
        refusal: refuseSplit(its, bath, allowed, Math.max(0, ...tried.map((t) => (t.ok ? 0 : t.mostPieces))), input),
      };
    for (const share of [...found.shares].sort((a, b) => a.vessel.run - b.vessel.run))
      batches.push(planBatch(share.vessel, share.counts, its, bath, batches.length + 1));
  }
  return { batches, mainOf: new Set(mains.keys()) };
}

function planBatch(
  vessel: Vessel & { readonly run: number },
  counts: readonly number[],
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  number: number,
): PlannedBatch {
  const its = groups.map((group, i) => ({ group, pieces: counts[i] ?? 0 })).filter((g) => g.pieces > 0);
  const wofG = its.reduce((sum, { group, pieces }) => sum + pieces * group.pieceWeightG, 0);
  const displacedMl = its.reduce(
    (sum, { group, pieces }) => sum + pieces * group.pieceWeightG * asPieces(group, bath.matterMlPerG).displacedMlPerG,
    0,
  );
  const liquor = liquorVolume(wofG, bath.liquorRatio);
  return {
    number,
    vesselId: vessel.id,
    vesselName: vessel.name,
    metal: vessel.metal,
    run: vessel.run,
    pieces: its.reduce((sum, g) => sum + g.pieces, 0),
    groups: its.map(({ group, pieces }) => ({ key: group.key, pieces })),
    wof: figure(
      wofG,
      'g',
      'pieces in this vessel × dry weight of one',
      its.flatMap(({ group, pieces }) => [
        {
          name: `${group.pieceWord}s${group.partName === '' ? '' : `, ${group.partName}`}`,
          value: pieces,
          unit: '',
          source: 'split over the vessels',
        },
        { name: 'dry weight of one', value: group.pieceWeightG, unit: 'g', source: 'as written' },
      ]),
    ),
    liquor,
    fill: fillFigure(liquor.value, displacedMl, vessel),
  };
}

/** One material is measured out once for a bath at a step, however many lines ask for it. */
function mergeWanted(wanted: readonly Wanted[], input: PlanInput): Wanted[] {
  const merged = new Map<string, Wanted>();
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
            target: figure(
              value,
              w.target.unit,
              'sum of what this step asks for',
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
function auxiliariesOf(
  packet: PlanMaterial,
  packets: number,
  input: PlanInput,
): Omit<Wanted, 'batch' | 'forBatches'>[] {
  return (packet.packet?.auxiliaries ?? []).map(({ materialId, amount }) => {
    const material = materialById(input, materialId);
    const each = amount / smallestIn(material.measure);
    const unit = material.measure === 'weight' ? 'g' : material.measure === 'volume' ? 'ml' : '';
    const target = figure(Math.round(each * packets * 1000) / 1000, unit, 'for one packet × packets', [
      { name: 'for one packet', value: each, unit, source: packet.name },
      { name: 'packets', value: packets, unit: '' },
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

/** What placed colour puts on each piece: liquids by the millilitre, dyestuff and powders by the gram, at the step the zone belongs to. */
function placedMaterials(
  recipe: PlanInput['recipe'],
  batches: readonly PlannedBatch[],
  input: PlanInput,
): (Wanted & { stepIndex: number })[] {
  const stepFor = (way: string): number => {
    const kinds = way === 'modify' ? ['modify', 'dye'] : ['dye', 'modify'];
    return (
      kinds.map((kind) => recipe.steps.map((s) => s.kind as string).lastIndexOf(kind)).find((i) => i !== -1) ??
      recipe.steps.length - 1
    );
  };
  return (recipe.placed?.zones ?? []).flatMap((zone) => {
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
        { name: zone.title, value: each, unit: `${unit} a piece`, source: 'placed colour' },
        { name: 'pieces', value: b.pieces, unit: '', source: `batch ${b.number}` },
      ];
      const target =
        unit === 'g'
          ? weighableDose(each * b.pieces, input.balance, 'g a piece × pieces', inputs)
          : figure(Math.round(each * b.pieces * 10) / 10, 'ml', 'ml a piece × pieces', inputs);
      return {
        stepIndex: stepFor(zone.way),
        batch: b.number,
        forBatches: [b.number],
        materialId: material.id,
        materialName: material.name,
        measure: material.measure,
        target,
        tolerance: toleranceOf(target.value, material.measure, input),
        advice: [`For “${zone.title}”: ${each} ${unit} a piece.`],
        dose: null,
      };
    });
  });
}

interface Place {
  readonly batches: readonly number[];
  readonly wofG: number;
  readonly liquorMl: number;
  readonly pieces: number;
}

/** Where a step's doses go: into each filling of its bath, or, without a bath, to each batch; only the pieces the step is for count. */
function placesFor(
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
    ? baths.map((b) => ({ batches: b.batches, liquorMl: b.liquor.value * b.turns, ...ofBatch(b.batches) }))
    : batches.map((b) => ({ batches: [b.number], liquorMl: b.liquor.value, ...ofBatch([b.number]) }));
  return places.filter((p) => p.wofG > 0);
}

function takeAll(
  groups: readonly PlannedGroup[],
  batches: readonly PlannedBatch[],
  wanted: readonly (readonly Wanted[])[],
  input: PlanInput,
) {
  const materials: PlannedMaterial[] = [];
  const baseWeighings: PlannedWeighing[] = [];
  for (const base of input.bases) {
    const its = batches.flatMap((batch): Wanted[] => {
      const parts = batch.groups.flatMap(({ key, pieces }) =>
        groups.filter((g) => g.key === key && g.baseId === base.id).map((g) => ({ g, pieces })),
      );
      const wofG = parts.reduce((sum, { g, pieces }) => sum + pieces * g.pieceWeightG, 0);
      if (wofG === 0) return [];
      const target = figure(wofG, 'g', 'pieces in this vessel × dry weight of one', [
        {
          name: `${base.pieceWord}s`,
          value: parts.reduce((sum, p) => sum + p.pieces, 0),
          unit: '',
          source: 'split over the vessels',
        },
        { name: 'dry weight of one', value: base.pieceWeightG, unit: 'g', source: 'as written' },
      ]);
      return [
        {
          batch: batch.number,
          forBatches: [batch.number],
          materialId: base.id,
          materialName: base.name,
          measure: 'weight',
          target,
          tolerance: weighingToleranceG(wofG, 1),
          advice: [],
          dose: null,
        },
      ];
    });
    const taken = takeFromStock(base, its, input, { isBase: true });
    materials.push(taken.planned);
    baseWeighings.push(...taken.weighings);
  }
  const weighings: PlannedWeighing[][] = wanted.map(() => []);
  const flat = wanted.flatMap((its, stepIndex) => its.filter((w) => w.target.value > 0).map((w) => ({ w, stepIndex })));
  for (const id of new Set(flat.map(({ w }) => w.materialId))) {
    const its = flat.filter(({ w }) => w.materialId === id);
    const taken = takeFromStock(
      materialById(input, id),
      its.map(({ w }) => w),
      input,
      { isBase: false },
    );
    materials.push(taken.planned);
    taken.weighings.forEach((w, i) => weighings[its[i]?.stepIndex ?? 0]?.push(w));
  }
  baseWeighings.sort((a, b) => a.batch - b.batch);
  return { materials, baseWeighings, weighings };
}

interface StepPlace {
  readonly index: number;
  readonly after: readonly number[];
  readonly weighings: readonly PlannedWeighing[];
  readonly baths: readonly PlannedBath[];
  readonly groups: readonly PlannedGroup[];
  readonly input: PlanInput;
}

function planStep(step: RecipeStep, { index, after, weighings, baths, groups, input }: StepPlace): PlannedStep {
  const {
    kind,
    title,
    instruction,
    ceilingC,
    attended,
    lookFor,
    usesBath,
    finishedBy,
    wait,
    course,
    repeats,
    strain,
    targetPh,
  } = step;
  const temperatureC = hottestC(step);
  const hazards = step.doses.flatMap((d) => materialById(input, d.materialId).hazards);
  return {
    index,
    kind,
    title,
    instruction,
    durationMin: stepMinutes(step),
    attended,
    lookFor,
    usesBath,
    finishedBy,
    wait,
    course,
    repeats,
    strain,
    targetPh,
    after,
    weighings,
    baths,
    ...(temperatureC === undefined ? {} : { temperatureC }),
    ...(ceilingC === undefined ? {} : { ceilingC }),
    forWhom: forWhom(step, groups, input.recipe),
    cautions: [
      ...step.cautions,
      ...houseHints(step, [...new Set(groups.map((g) => g.fibre))], (key) =>
        practiceOf(input.recipe.practice, input.house ?? {}, key),
      ),
      ...cautionsForStep({ kind, temperatureC, usesBath }, hazards),
    ],
  };
}

function planCautions(
  batches: readonly PlannedBatch[],
  materials: readonly PlannedMaterial[],
  groups: readonly PlannedGroup[],
  baths: readonly PlannedBath[],
): string[] {
  const cautions: string[] = [];
  for (const m of materials)
    if (m.short > 0) cautions.push(`${m.name} is short by ${formatAmount(m.short, m.measure)}.`);
  const word = groups[0]?.pieceWord ?? 'piece';
  const weights = batches.map((b) => b.wof.value);
  const [most, least] = [Math.max(...weights), Math.min(...weights)];
  if (most - least > 0.5) {
    const pieces = Math.max(...batches.map((b) => b.pieces)) - Math.min(...batches.map((b) => b.pieces));
    cautions.push(
      `The batches differ by ${groups.length === 1 && pieces > 0 ? countWords(pieces, word) : `${Math.round(most - least)} g`}: the same ratio and doses, but they heat at different speeds.`,
    );
  } else if (batches.length > 1)
    cautions.push(`${batches.length} baths: take readings of every batch before the lot is passed.`);
  if (batches.some((b) => b.run > 1))
    cautions.push('Two runs: the second is dyed after the first. Judge them side by side before either is passed.');
  for (const bath of new Set(baths))
    for (const note of bath.notes) if (/no further|at most; this step/.test(note)) cautions.push(note);
  cautions.push(...unlikeCaution(batches, groups), ...fibreCautions(groups));
  return [...new Set(cautions)];
}

/** Batches of several bases or parts that don't hold the same mix: how unlike, and what it risks. */
function unlikeCaution(batches: readonly PlannedBatch[], groups: readonly PlannedGroup[]): string[] {
  const shareOf = (b: PlannedBatch, baseId: string): number =>
    b.groups.reduce((sum, part) => {
      const g = groups.find((o) => o.key === part.key);
      return sum + (g?.baseId === baseId ? part.pieces * g.pieceWeightG : 0);
    }, 0) / b.wof.value;
  return [...new Set(groups.map((g) => g.baseId))].flatMap((baseId) => {
    const its = batches.map((b) => Math.round(shareOf(b, baseId) * 100));
    const [least, most] = [Math.min(...its), Math.max(...its)];
    return batches.length > 1 && most - least > 2
      ? [
          `${groups.find((g) => g.baseId === baseId)?.baseName ?? 'One base'} is ${least} to ${most} % of the fibre, batch by batch: fibres share the dye otherwise in each, and the shades may differ. Make the pieces divide alike, or dye it in one bath.`,
        ]
      : [];
  });
}

/** What a mixed pot will do. */
function fibreCautions(groups: readonly PlannedGroup[]): string[] {
  const families = new Set(groups.map((g) => fibreFamily(g.fibre)));
  const cautions: string[] = [];
  if (families.has('synthetic')) cautions.push('Synthetic fibre takes nothing from these baths: it stays as it is.');
  if (families.has('protein') && families.has('cellulose'))
    cautions.push(
      'Protein and cellulose in one pot: protein takes the dye first and deeper. Mark them, and judge each against its own shade.',
    );
  else if (new Set(groups.map((g) => g.fibre)).size > 1)
    cautions.push('Several fibres in one pot come out as different shades: tie a mark to each that survives the pot.');
  return cautions;
}

import { fibreFamily } from '../bath/fibre';
import type { FibreKind } from '../bath/fibre';
import type { Vessel } from '../bath/vessel';
import { mostC } from '../bath/vessel';
import type { WaterFacts } from '../bath/water';
import { answerWater } from '../bath/water';
import type { Hazard } from '../safety/hazards';
import { HAZARD_WORDS } from '../safety/hazards';
import type { MaterialForm, MaterialKind } from '../stock/material-facts';
import { againstHouse, practiceOf } from './house-practice';
import type { LotPlan, PlannedStep } from './lot-plan';
import type { Practice } from './practice';
import type { RecipeVersion } from './recipe';
import { hottestC } from './recipe';
import type { Standing } from './proof';

export const INTAKE_FLAGS = [
  'stain',
  'deposit',
  'syntheticShare',
  'blend',
  'dyed',
  'mordanted',
  'scoured',
  'machineWash',
  'unevenWeights',
  'notWeighed',
] as const;
export type IntakeFlag = (typeof INTAKE_FLAGS)[number];
export const INTAKE_FLAG_WORDS: Readonly<Record<IntakeFlag, string>> = {
  stain: 'stains or stain-remover spots',
  deposit: 'under-arm deposits',
  syntheticShare: 'a share of synthetic',
  blend: 'protein and cellulose in one piece',
  dyed: 'dyed before',
  mordanted: 'mordanted already',
  scoured: 'scoured already',
  machineWash: 'machine-washable finish',
  unevenWeights: 'pieces of different weight',
  notWeighed: 'weight only guessed',
};

export interface CheckedMaterial {
  readonly id: string;
  readonly name: string;
  readonly kind: MaterialKind;
  readonly hazards: readonly Hazard[];
  readonly ceilingC: number | null;
  readonly bringsTannin: boolean;
}

export interface CheckedJar {
  readonly id: string;
  readonly tag: string;
  readonly materialId: string;
  readonly receivedOn: string;
  readonly form: MaterialForm | null;
  readonly strengthPercent: number | null;
}

export interface CheckInput {
  readonly plan: LotPlan;
  readonly recipe: RecipeVersion;
  readonly standing: Standing;
  readonly materials: readonly CheckedMaterial[];
  readonly vessels: readonly Vessel[];
  readonly jars: readonly CheckedJar[];
  readonly intake: { readonly flags: readonly IntakeFlag[]; readonly syntheticPercent: number | null };
  readonly house: Practice;
  readonly water: WaterFacts | null;
  readonly otherWaters: readonly WaterFacts[];
  /** ISO date. */
  readonly today: string;
}

/** One thing looked at before a lot may start. A stop can't be gone past; a caution can, with a reason that is kept. */
export interface LotCheck {
  /** Stands for this check in this lot: what is acknowledged. */
  readonly key: string;
  readonly severity: 'stop' | 'caution';
  /** Gloves, masks: acknowledged by saying that it is at hand. */
  readonly protection: boolean;
  readonly sentence: string;
  readonly why: string;
  /** The recipe line or the catalogue line it rests on. */
  readonly cites: string;
}

/** Fibre dropped into a bath this much hotter or colder felts (protein). */
const HEAT_JUMP_C = 25;
const ALKALINE_PH = 9;
const OLD_DAYS = 3 * 365;
const DAY_MS = 86_400_000;

type Found = Omit<LotCheck, 'key' | 'protection'> & { readonly code: string; readonly protection?: boolean };
const stop = (code: string, sentence: string, why: string, cites: string): Found => ({
  code,
  severity: 'stop',
  sentence,
  why,
  cites,
});
const caution = (code: string, sentence: string, why: string, cites: string): Found => ({
  code,
  severity: 'caution',
  sentence,
  why,
  cites,
});

/** Looks a proposed lot over before it may start. Stops first; each names why, and the line it rests on. */
export function checkLot(input: CheckInput): LotCheck[] {
  const found = [
    ...standingChecks(input),
    ...intakeChecks(input),
    ...vesselChecks(input),
    ...fibreChecks(input),
    ...preparationChecks(input),
    ...ceilingChecks(input),
    ...stockChecks(input),
    ...waterChecks(input),
    ...ratioCheck(input),
    ...houseChecks(input),
    ...protectionChecks(input),
  ];
  const seen = new Set<string>();
  const checks = found
    .map(({ code, ...c }) => ({ ...c, protection: c.protection ?? false, key: `${code}: ${c.sentence}` }))
    .filter((c) => !seen.has(c.key) && seen.add(c.key));
  return [...checks.filter((c) => c.severity === 'stop'), ...checks.filter((c) => c.severity === 'caution')];
}

const named = (recipe: RecipeVersion): string => `${recipe.recipeName}, version ${recipe.number}`;
const line = (recipe: RecipeVersion, step: Pick<PlannedStep, 'title'>): string => `${named(recipe)}: “${step.title}”`;
const bathSteps = (plan: LotPlan): PlannedStep[] => plan.steps.filter((s) => s.baths.length > 0);
const fibresOf = (plan: LotPlan): FibreKind[] => [...new Set(plan.groups.map((g) => g.fibre))];
const has = (plan: LotPlan, family: 'protein' | 'cellulose'): boolean =>
  fibresOf(plan).some((f) => fibreFamily(f) === family);

function standingChecks({ recipe, standing }: CheckInput): Found[] {
  if (standing === 'retired')
    return [
      stop(
        'retired',
        `${named(recipe)} is retired.`,
        'It was taken out of use, with a reason kept with it.',
        named(recipe),
      ),
    ];
  return standing === 'proven'
    ? []
    : [
        caution(
          'unproven',
          `${named(recipe)} is ${standing === 'trial' ? 'a trial' : 'at the proof'}, not proven.`,
          'Nothing says yet that it repeats: dye a proof before a whole lot.',
          named(recipe),
        ),
      ];
}

function intakeChecks({ intake: { flags, syntheticPercent }, recipe }: CheckInput): Found[] {
  const cites = 'what was seen at intake';
  const found: Found[] = [];
  if (flags.includes('notWeighed'))
    found.push(
      stop(
        'notWeighed',
        'The fibre was not weighed dry.',
        'The weight of fibre drives every dose: a guess spoils all of them. Weigh it, and write the weight.',
        cites,
      ),
    );
  if (flags.includes('unevenWeights'))
    found.push(
      caution(
        'unevenWeights',
        'The pieces differ in weight.',
        'Batches are made of whole pieces of one weight; weigh each batch at the bench and go by that.',
        cites,
      ),
    );
  if (flags.includes('syntheticShare')) {
    const share = syntheticPercent ?? 0;
    found.push(
      share >= 50
        ? stop(
            'synthetic',
            `${share} % of it is synthetic.`,
            'Synthetic takes nothing from these baths: most of the piece would stay as it is.',
            cites,
          )
        : caution(
            'synthetic',
            `${share > 0 ? `${share} % of it` : 'A share of it'} is synthetic.`,
            'Synthetic takes nothing: expect it paler, in a heather.',
            cites,
          ),
    );
  }
  if (flags.includes('blend'))
    found.push(
      caution(
        'blend',
        'Protein and cellulose are in one piece.',
        'Each takes the dye otherwise: expect a heather, and a mordant that suits only one of them.',
        cites,
      ),
    );
  if (flags.includes('stain'))
    found.push(
      caution('stain', 'There are stains.', 'A stained piece stays stained, and remover takes dye in patches.', cites),
    );
  if (flags.includes('deposit'))
    found.push(
      caution(
        'deposit',
        'There are under-arm deposits.',
        'Aluminium salts there mordant by themselves, in patches.',
        cites,
      ),
    );
  if (flags.includes('dyed'))
    found.push(
      caution('dyed', 'It was dyed before.', 'The old colour shows through, and may come off into the bath.', cites),
    );
  if (flags.includes('machineWash'))
    found.push(
      caution(
        'machineWash',
        'It has a machine-washable finish.',
        'It drinks dye faster than other wool: begin cooler, raise slower.',
        cites,
      ),
    );
  if (flags.includes('mordanted') && recipe.steps.some((s) => s.kind === 'mordant'))
    found.push(
      caution(
        'mordantedTwice',
        'It is mordanted already, and the recipe mordants it again.',
        'Twice the salt shifts the shade and roughens wool: skip that step, or say why not.',
        cites,
      ),
    );
  return found;
}

function vesselChecks({ plan, recipe, vessels, materials }: CheckInput): Found[] {
  const irons = materials.filter((m) => m.hazards.includes('ironSalt')).map((m) => m.id);
  const recipeUsesIron = plan.steps.some((s) => s.weighings.some((w) => irons.includes(w.materialId)));
  return bathSteps(plan).flatMap((step) =>
    step.baths.flatMap((bath) => {
      const vessel = vessels.find((v) => v.id === bath.vesselId);
      const found: Found[] = [];
      const metals = recipe.steps.find((s) => s.title === step.title && s.kind === step.kind)?.metals ?? [];
      const allowed = metals.length > 0 ? metals : recipe.allowedMetals;
      if (!allowed.includes(bath.metal))
        found.push(
          stop(
            'potMetal',
            `${bath.vesselName} is of ${bath.metal}, which “${step.title}” doesn’t allow.`,
            'The metal of the pot joins in the colour.',
            line(recipe, step),
          ),
        );
      if (vessel?.heldIron === true && !recipeUsesIron)
        found.push(
          caution(
            'ironPot',
            `${bath.vesselName} once held iron.`,
            'What is left of it saddens whatever is dyed in it, however it was scrubbed.',
            `the card of ${bath.vesselName}`,
          ),
        );
      const caustic = step.weighings.find((w) =>
        materials.find((m) => m.id === w.materialId)?.hazards.includes('caustic'),
      );
      if (bath.metal === 'aluminium' && caustic)
        found.push(
          stop(
            'causticAluminium',
            `${caustic.materialName} goes into ${bath.vesselName}, which is aluminium.`,
            'Caustic eats aluminium and gives off gas.',
            line(recipe, step),
          ),
        );
      const most = vessel ? mostC(vessel) : null;
      if (vessel && most !== null && step.temperatureC !== undefined && step.temperatureC > most)
        found.push(
          stop(
            'vesselHeat',
            `${bath.vesselName} takes ${most} °C; “${step.title}” goes to ${step.temperatureC} °C.`,
            'Hot liquor through a sagging or cracked vessel scalds.',
            `the card of ${bath.vesselName}`,
          ),
        );
      if (
        bath.heating &&
        !bath.heating.ok &&
        step.temperatureC !== undefined &&
        step.temperatureC > bath.heating.reachesC
      )
        found.push(
          stop(
            'tooLittleHeat',
            `${bath.vesselName} never reaches ${step.temperatureC} °C for “${step.title}”.`,
            bath.heating.sentence,
            `the heat source of ${bath.vesselName}`,
          ),
        );
      return found;
    }),
  );
}

function fibreChecks({ plan, recipe, materials }: CheckInput): Found[] {
  if (!has(plan, 'protein')) return [];
  const found: Found[] = [];
  const forProtein = recipe.steps.filter(
    (s) => s.fibres.length === 0 || s.fibres.some((f) => fibreFamily(f) === 'protein'),
  );
  forProtein.forEach((step, i) => {
    const caustic = step.doses.find((d) => materials.find((m) => m.id === d.materialId)?.hazards.includes('caustic'));
    const ph =
      step.targetPh?.high ??
      (step.doses.find((d) => d.by === 'toPh') as { targetPh: number } | undefined)?.targetPh ??
      0;
    if (caustic && !['extract', 'strain', 'makeUp'].includes(step.kind))
      found.push(
        stop(
          'causticProtein',
          `“${step.title}” puts ${materials.find((m) => m.id === caustic.materialId)?.name} on protein fibre.`,
          'Alkali and heat dissolve wool and silk.',
          line(recipe, step),
        ),
      );
    else if (ph > ALKALINE_PH)
      found.push(
        caution(
          'alkaliProtein',
          `“${step.title}” is at pH ${ph}, on protein fibre.`,
          'Above pH 9 wool yellows and weakens: keep it cool and short, and neutralise after.',
          line(recipe, step),
        ),
      );
    const [first] = step.course;
    const before = forProtein[i - 1];
    const was = before ? hottestC(before) : undefined;
    const is = hottestC(step);
    if (first && first.do === 'hold' && (first.toC ?? 0) > 20 + HEAT_JUMP_C)
      found.push(
        caution(
          'heatJump',
          `“${step.title}” begins at ${first.toC} °C.`,
          'Wool dropped into a hot bath felts: begin lukewarm and raise.',
          line(recipe, step),
        ),
      );
    else if (
      before &&
      was !== undefined &&
      is !== undefined &&
      was - is > HEAT_JUMP_C &&
      (step.kind === 'rinse' || step.kind === 'wash') &&
      !before.course.some((leg) => leg.do === 'cool' || leg.do === 'steep')
    )
      found.push(
        caution(
          'heatJump',
          `“${step.title}” at ${is} °C follows “${before.title}” at ${was} °C.`,
          'A sudden change of temperature felts wool: let it cool in the bath first.',
          line(recipe, step),
        ),
      );
  });
  return found;
}

function preparationChecks({ plan, recipe, materials, intake, house }: CheckInput): Found[] {
  const found: Found[] = [];
  const dyes = recipe.steps
    .flatMap((s) => s.doses.map((d) => materials.find((m) => m.id === d.materialId)))
    .filter((m): m is CheckedMaterial => m?.kind === 'dyestuff' || m?.kind === 'tannin');
  if (dyes.length === 0) return found;
  for (const fibre of fibresOf(plan)) {
    const its = recipe.steps.filter((s) => s.fibres.length === 0 || s.fibres.includes(fibre));
    if (!its.some((s) => s.kind === 'scour') && !intake.flags.includes('scoured'))
      found.push(
        caution(
          'noScour',
          `Nothing in the chain scours the ${fibre}.`,
          'Oil, size and finish keep dye out in patches. Say at intake that it is scoured, or add the step.',
          named(recipe),
        ),
      );
    const tannin = dyes.some((m) => m.bringsTannin || m.kind === 'tannin') || its.some((s) => s.kind === 'tannin');
    const mordanted = its.some((s) => s.kind === 'mordant') || intake.flags.includes('mordanted');
    if (!mordanted && !tannin)
      found.push(
        caution(
          'noMordant',
          `Nothing in the chain mordants the ${fibre}.`,
          `${dyes.map((d) => d.name).join(' and ')} brings no tannin of its own: without a mordant the colour is fugitive.`,
          named(recipe),
        ),
      );
    else if (!mordanted && practiceOf(recipe.practice, house, 'mordantOnTannin') === 'always')
      found.push(
        caution(
          'schoolMordant',
          `The ${fibre} is not mordanted, and the house always mordants.`,
          'House practice says: always mordant, also on what brings tannin.',
          'house practice',
        ),
      );
  }
  return found;
}

function ceilingChecks({ recipe, materials }: CheckInput): Found[] {
  const found: Found[] = [];
  const dyes = recipe.steps
    .flatMap((step) => step.doses.map((dose) => ({ step, material: materials.find((m) => m.id === dose.materialId) })))
    .filter(({ material }) => material?.kind === 'dyestuff' && material.ceilingC !== null);
  for (const { step: dosed, material } of dyes) {
    const from = recipe.steps.indexOf(dosed);
    // The dyestuff is in the liquor from where it is weighed in to where another is extracted, or that bath is done with.
    const until = recipe.steps.findIndex((s, i) => i > from && s.kind === 'extract');
    const its = recipe.steps
      .slice(from, until === -1 ? undefined : until)
      .filter(
        (s) =>
          s === dosed ||
          (['dye', 'exhaust'].includes(s.kind) && (s.bath === dosed.bath || s.bath === '' || dosed.bath === '')),
      );
    for (const step of its) {
      const hot = hottestC(step);
      if (hot !== undefined && material?.ceilingC !== null && material && hot > (material.ceilingC ?? 0))
        found.push(
          caution(
            'ceiling',
            `“${step.title}” goes to ${hot} °C; ${material.name} dulls above ${material.ceilingC} °C.`,
            'Yellows brown and reds go to brick when they are boiled.',
            `${material.name} in the catalogue of Stores`,
          ),
        );
    }
  }
  return found;
}

function stockChecks({ plan, jars, materials, recipe, today }: CheckInput): Found[] {
  return plan.materials.flatMap((planned) => {
    const its = planned.picks.flatMap((p) => jars.filter((j) => j.id === p.stockLotId));
    const isDye = materials.find((m) => m.id === planned.materialId)?.kind === 'dyestuff';
    const found: Found[] = [];
    for (const jar of its) {
      const days = Math.floor((Date.parse(today) - Date.parse(jar.receivedOn)) / DAY_MS);
      if (isDye && days > OLD_DAYS)
        found.push(
          caution(
            'age',
            `${jar.tag} is ${Math.floor(days / 365)} years old.`,
            'Dyestuff weakens in the jar: dye a strip first.',
            `the label of ${jar.tag}`,
          ),
        );
      const meant = recipe.steps
        .flatMap((s) => s.doses)
        .find((d) => d.materialId === planned.materialId && d.by === 'percentOwf') as
        { form?: MaterialForm | null } | undefined;
      if (meant?.form && jar.form && jar.form !== meant.form)
        found.push(
          caution(
            'form',
            `${jar.tag} is ${jar.form}; the recipe means ${meant.form}.`,
            'Its dose was converted; hue may still differ. Dye a strip first.',
            `the label of ${jar.tag}`,
          ),
        );
    }
    if (isDye && its.length > 1 && its.some((j) => j.strengthPercent === null))
      found.push(
        caution(
          'untestedMix',
          `${planned.name} comes from ${its.map((j) => j.tag).join(' and ')}, and not all of them were tested.`,
          'Two harvests differ: every batch gets the same mix, but the shade may move. Dye a strike-off.',
          its.map((j) => `the label of ${j.tag}`).join(', '),
        ),
      );
    return found;
  });
}

function waterChecks({ plan, recipe, water, otherWaters }: CheckInput): Found[] {
  const litres = [...new Set(plan.steps.flatMap((s) => s.baths))].reduce(
    (sum, b) => sum + (b.liquor.value * b.turns) / 1000,
    0,
  );
  return answerWater(recipe.water, water, litres, otherWaters).lines.map((sentence) =>
    caution(
      'water',
      sentence,
      'Hardness and iron in the water shift the shade of the very same recipe.',
      named(recipe),
    ),
  );
}

function ratioCheck({ plan, recipe }: CheckInput): Found[] {
  return plan.liquorRatio < recipe.liquorRatio
    ? [
        caution(
          'ratio',
          `The bath is 1:${plan.liquorRatio}, shorter than the 1:${recipe.liquorRatio} it was proven with.`,
          'A shorter bath gives deeper colour and less room to turn.',
          named(recipe),
        ),
      ]
    : [];
}

function houseChecks(input: CheckInput): Found[] {
  return againstHouse(input).map((sentence) =>
    caution(
      'house',
      sentence,
      'Another way may be right for this lot: say why, and it is kept with it.',
      'house practice',
    ),
  );
}

function protectionChecks({ plan, materials }: CheckInput): Found[] {
  const used = new Set(plan.materials.map((m) => m.materialId));
  return materials
    .filter((m) => used.has(m.id) && m.hazards.length > 0)
    .map((m) => ({
      code: 'protection',
      severity: 'caution',
      protection: true,
      sentence: `${m.name}: ${[...new Set(m.hazards)].map((h) => HAZARD_WORDS[h]).join('; ')}.`,
      why: 'Read the supplier’s safety data sheet; local rules decide about waste.',
      cites: `${m.name} in Stores`,
    }));
}

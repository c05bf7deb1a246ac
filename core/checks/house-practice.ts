import { said } from '../words/said';
import type { VesselMetal } from '../bath/vessel';
import { PRACTICE, practiceChoice } from '../recipe/practice-questions';
import type { MaterialForm, MaterialKind } from '../stock/material-facts';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily } from './finding';

type HouseFinding =
  | {
      readonly code: 'vesselMetal';
      readonly vesselName: string;
      readonly metal: VesselMetal;
      /** What the house answers, as it stands on screen. */
      readonly rule: string;
    }
  | {
      readonly code: 'dosedBy';
      readonly materialName: string;
      readonly way: 'piece' | 'litre' | 'spoon';
      readonly rule: string;
    }
  | { readonly code: 'homeMade'; readonly materialName: string; readonly rule: string }
  | { readonly code: 'form'; readonly tag: string; readonly form: MaterialForm; readonly houseForm: MaterialForm };

const INERT: readonly VesselMetal[] = ['stainless', 'enamel', 'glass', 'plastic'];
const FORMS: readonly MaterialForm[] = ['fresh', 'frozen', 'dried'];
const DOSED_BY = { perPiece: 'piece', gPerLitre: 'litre' } as const;

/** Whether the house has this answer to a question, and the recipe none of its own. */
type HouseSays = (key: string, answer: string) => boolean;

function findHouse(input: CheckInput): HouseFinding[] {
  const { recipe, house } = input;
  const says: HouseSays = (key, answer) => recipe.practice[key] === undefined && house[key] === answer;
  const found = [...findVessels(input, says), ...findDoses(input, says), ...findForms(input, says)];
  return [...new Map(found.map((finding) => [JSON.stringify(finding), finding])).values()];
}

function findVessels({ plan, house }: CheckInput, says: HouseSays): HouseFinding[] {
  const baths = plan.steps.flatMap((s) => s.baths);
  const odd = (metal: VesselMetal): boolean =>
    says('vessel', 'inert')
      ? !INERT.includes(metal)
      : says('vessel', 'aluminium') && (metal === 'iron' || metal === 'copper');
  return baths
    .filter((bath) => odd(bath.metal))
    .map(({ vesselName, metal }) => ({
      code: 'vesselMetal',
      vesselName,
      metal,
      rule: practiceChoice('vessel', house.vessel)?.label ?? '',
    }));
}

function findDoses({ recipe, house, materials, stockLots }: CheckInput, says: HouseSays): HouseFinding[] {
  const rule = (key: string): string =>
    `${PRACTICE.find((q) => q.key === key)?.question ?? ''}: ${practiceChoice(key, house[key])?.label ?? ''}`.toLowerCase();
  return recipe.steps
    .flatMap((s) => s.doses)
    .flatMap((dose) => {
      const material = materials.find((m) => m.id === dose.materialId);
      const materialName = material?.name ?? 'A material';
      const is = (kind: MaterialKind): boolean => material?.kind === kind;
      const homeMade = stockLots.some((j) => j.materialId === dose.materialId && j.form === 'liquor');
      const found: HouseFinding[] = [];
      if (says('doseBy', 'fibre') && is('dyestuff') && (dose.by === 'perPiece' || dose.by === 'gPerLitre'))
        found.push({ code: 'dosedBy', materialName, way: DOSED_BY[dose.by], rule: rule('doseBy') });
      if (says('measuring', 'balance') && dose.by === 'spoons')
        found.push({ code: 'dosedBy', materialName, way: 'spoon', rule: rule('measuring') });
      if (says('modifiers', 'crystals') && is('modifier') && homeMade)
        found.push({ code: 'homeMade', materialName, rule: rule('modifiers') });
      return found;
    });
}

function findForms({ materials, stockLots }: CheckInput, says: HouseSays): HouseFinding[] {
  const houseForm = FORMS.find((form) => says('form', form));
  if (houseForm === undefined) return [];
  const dyestuffs = materials.filter((m) => m.kind === 'dyestuff').map((m) => m.id);
  return stockLots.flatMap(({ tag, materialId, form }) =>
    form !== null && FORMS.includes(form) && form !== houseForm && dyestuffs.includes(materialId)
      ? [{ code: 'form' as const, tag, form, houseForm }]
      : [],
  );
}

function sayHouse(finding: HouseFinding): CheckText {
  const why = $localize`Another way may be right for this lot: say why, and it is kept with it.`;
  return caution(sayOtherwise(finding), why, $localize`house practice`);
}

function sayOtherwise(finding: HouseFinding): string {
  switch (finding.code) {
    case 'vesselMetal':
      return $localize`${finding.vesselName} is of ${said(finding.metal)}. The house says of vessels: ${finding.rule}.`;
    case 'dosedBy':
      return $localize`${finding.materialName} is dosed by the ${finding.way}. The house says, ${finding.rule}.`;
    case 'homeMade':
      return $localize`${finding.materialName} is a home-made liquor. The house says, ${finding.rule}.`;
    case 'form':
      return $localize`${finding.tag} is ${said(finding.form)}. The house dyes with ${said(finding.houseForm)}.`;
  }
}

/** Where the lot is dyed otherwise than the house does, and its recipe doesn't say so. */
export const houseChecks = checkFamily(findHouse, sayHouse);

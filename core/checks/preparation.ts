import { said } from '../words/said';
import type { FibreKind } from '../bath/fibre';
import { practiceOf } from '../scaling/house-practice';
import type { CheckedMaterial, CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, fibresOf, named } from './finding';

type PreparationFinding =
  | { readonly code: 'noScour'; readonly fibre: FibreKind; readonly cites: string }
  | {
      readonly code: 'noMordant';
      readonly fibre: FibreKind;
      readonly dyes: readonly string[];
      readonly cites: string;
    }
  | { readonly code: 'houseMordants'; readonly fibre: FibreKind };

function findPreparation({ plan, recipe, materials, intake, house }: CheckInput): PreparationFinding[] {
  const dyes = recipe.steps
    .flatMap((s) => s.doses.map((d) => materials.find((m) => m.id === d.materialId)))
    .filter((m): m is CheckedMaterial => m?.kind === 'dyestuff' || m?.kind === 'tannin');
  if (dyes.length === 0) return [];
  const houseMordants = practiceOf(recipe.practice, house, 'mordantOnTannin') === 'always';
  return fibresOf(plan).flatMap((fibre) => {
    const found: PreparationFinding[] = [];
    const cites = named(recipe);
    const steps = recipe.steps.filter((s) => s.fibres.length === 0 || s.fibres.includes(fibre));
    if (!steps.some((s) => s.kind === 'scour') && !intake.flags.includes('scoured'))
      found.push({ code: 'noScour', fibre, cites });
    if (steps.some((s) => s.kind === 'mordant') || intake.flags.includes('mordanted')) return found;
    const wanting = dyes.filter((m) => m.kind === 'dyestuff' && (m.needs ?? 'mordant') === 'mordant');
    const tannin = dyes.some((m) => m.bringsTannin || m.kind === 'tannin') || steps.some((s) => s.kind === 'tannin');
    if (wanting.length === 0) return found;
    if (!tannin) found.push({ code: 'noMordant', fibre, dyes: wanting.map((d) => d.name), cites });
    else if (houseMordants) found.push({ code: 'houseMordants', fibre });
    return found;
  });
}

function sayPreparation(finding: PreparationFinding): CheckText {
  switch (finding.code) {
    case 'noScour':
      return caution(
        $localize`Nothing in the chain scours the ${said(finding.fibre)}.`,
        $localize`Oil, size and finish keep dye out in patches. Say at intake that it is scoured, or add the step.`,
        finding.cites,
      );
    case 'noMordant':
      return caution(
        $localize`Nothing in the chain mordants the ${said(finding.fibre)}.`,
        $localize`${finding.dyes.join($localize` and `)} brings no tannin of its own: without a mordant the colour is fugitive.`,
        finding.cites,
      );
    case 'houseMordants':
      return caution(
        $localize`The ${said(finding.fibre)} is not mordanted, and the house always mordants.`,
        $localize`House practice says: always mordant, also on what brings tannin.`,
        $localize`house practice`,
      );
  }
}

/** Whether each fibre is scoured and mordanted before it is dyed. */
export const preparationChecks = checkFamily(findPreparation, sayPreparation);

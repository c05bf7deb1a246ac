import { fibreFamily } from '../bath/fibre';
import { hottestC } from '../recipe/course';
import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { stop, caution, line, has } from './finding';

/** Fibre dropped into a bath this much hotter or colder felts (protein). */
export const HEAT_JUMP_C = 25;

/** Above this, protein fibre yellows and weakens. */
export const ALKALINE_PH = 9;

/** What a chain does to protein fibre that it does not bear: caustic, high pH, sudden heat. */
export function fibreChecks({ plan, recipe, materials }: CheckInput): Found[] {
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

import type { RecipeStatus } from '../recipe/proof';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, named, stop } from './finding';

interface StatusFinding {
  readonly code: 'retired' | 'unproven';
  readonly recipe: string;
  readonly status: RecipeStatus;
}

const findStatus = ({ recipe, status }: CheckInput): StatusFinding[] =>
  status === 'proven' ? [] : [{ code: status === 'retired' ? 'retired' : 'unproven', recipe: named(recipe), status }];

function sayStatus({ code, recipe, status }: StatusFinding): CheckText {
  switch (code) {
    case 'retired':
      return stop(
        $localize`${recipe} is retired.`,
        $localize`It was taken out of use, with a reason kept with it.`,
        recipe,
      );
    case 'unproven':
      return caution(
        $localize`${recipe} is ${status === 'trial' ? $localize`a trial` : $localize`at the proof`}, not proven.`,
        $localize`Nothing says yet that it repeats: dye a proof before a whole lot.`,
        recipe,
      );
  }
}

/** Whether the recipe version is proven, or retired. */
export const statusChecks = checkFamily(findStatus, sayStatus);

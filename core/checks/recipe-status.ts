import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { stop, caution, named } from './finding';

/** Whether the recipe version is proven, or retired. */
export function statusChecks({ recipe, status }: CheckInput): Found[] {
  if (status === 'retired')
    return [
      stop(
        'retired',
        `${named(recipe)} is retired.`,
        'It was taken out of use, with a reason kept with it.',
        named(recipe),
      ),
    ];
  return status === 'proven'
    ? []
    : [
        caution(
          'unproven',
          `${named(recipe)} is ${status === 'trial' ? 'a trial' : 'at the proof'}, not proven.`,
          'Nothing says yet that it repeats: dye a proof before a whole lot.',
          named(recipe),
        ),
      ];
}

import { againstHouse } from '../scaling/house-practice';
import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { caution } from './finding';

/** Where the lot is dyed otherwise than the house does. */
export function houseChecks(input: CheckInput): Found[] {
  return againstHouse(input).map((message) =>
    caution(
      'house',
      message,
      'Another way may be right for this lot: say why, and it is kept with it.',
      'house practice',
    ),
  );
}

import { againstHouse } from '../scaling/house-practice';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily } from './finding';

interface HouseFinding {
  readonly code: 'house';
  readonly otherwise: string;
}

const findHouse = (input: CheckInput): HouseFinding[] =>
  againstHouse(input).map((otherwise) => ({ code: 'house', otherwise }));

const sayHouse = ({ otherwise }: HouseFinding): CheckText =>
  caution(otherwise, 'Another way may be right for this lot: say why, and it is kept with it.', 'house practice');

/** Where the lot is dyed otherwise than the house does. */
export const houseChecks = checkFamily(findHouse, sayHouse);

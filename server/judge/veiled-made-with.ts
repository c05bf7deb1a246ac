import type { MadeWith } from '@vestigia/core';
import { privateRecipe } from '../studio/veil';

/** Of a private lot: the base and the dip are there for all to see, what went in is not told. */
export const veiledMadeWith = (made: MadeWith): MadeWith => ({
  ...made,
  dyestuffs: [privateRecipe()],
  mordants: [],
  modifiers: [],
  part: '',
  materialIds: [],
});

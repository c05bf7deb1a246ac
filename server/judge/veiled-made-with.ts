import type { MadeWith } from '@vestigia/core';
import { PRIVATE_RECIPE } from '../studio/veil';

/** Of a private lot: the base and the dip are there for all to see, what went in is not told. */
export const veiledMadeWith = (made: MadeWith): MadeWith => ({
  ...made,
  dyestuffs: [PRIVATE_RECIPE],
  mordants: [],
  modifiers: [],
  part: '',
  materialIds: [],
});

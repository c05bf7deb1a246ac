import '@angular/localize/init';
import type { Lab, Sets } from '@vestigia/core';
import { ciede2000, sortIntoSets } from '@vestigia/core';

/** Pieces that are to be sorted, by their colours, and how many make a set. */
export interface SetsAsk {
  readonly labs: readonly Lab[];
  readonly size: number;
}

const EVEN = { kL: 1, kC: 1, kH: 1 };

/** Sorts off the page's own thread: a few hundred pieces take a second or so. */
addEventListener('message', ({ data: { labs, size } }: MessageEvent<SetsAsk>) => {
  const apart = (one: number, two: number): number => {
    const [x, y] = [labs[one], labs[two]];
    return x && y ? ciede2000(x, y, EVEN).deltaE : 0;
  };
  const sets: Sets = sortIntoSets(labs.length, size, apart);
  postMessage(sets);
});

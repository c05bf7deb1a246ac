import { worded } from '../words/worded';

/** What stands before the last of a list. */
const LAST = worded(() => ({ and: $localize`and`, or: $localize`or` }));

/** “a, b and c”. */
export function joinList(items: readonly string[], last: 'and' | 'or' = 'and'): string {
  return items.length < 2 ? (items[0] ?? '') : `${items.slice(0, -1).join(', ')} ${LAST[last]} ${items.at(-1)}`;
}

/** What this program counts, as one and as several. */
const COUNTED: Readonly<Record<string, readonly [one: string, many: string]>> = worded(() => ({
  ball: [$localize`ball`, $localize`balls`],
  batch: [$localize`batch`, $localize`batches`],
  caution: [$localize`caution`, $localize`cautions`],
  cone: [$localize`cone`, $localize`cones`],
  day: [$localize`day`, $localize`days`],
  dip: [$localize`dip`, $localize`dips`],
  form: [$localize`form`, $localize`forms`],
  garment: [$localize`garment`, $localize`garments`],
  hank: [$localize`hank`, $localize`hanks`],
  item: [$localize`item`, $localize`items`],
  jar: [$localize`jar`, $localize`jars`],
  length: [$localize`length`, $localize`lengths`],
  lot: [$localize`lot`, $localize`lots`],
  month: [$localize`month`, $localize`months`],
  packet: [$localize`packet`, $localize`packets`],
  piece: [$localize`piece`, $localize`pieces`],
  portion: [$localize`portion`, $localize`portions`],
  proof: [$localize`proof`, $localize`proofs`],
  pull: [$localize`pull`, $localize`pulls`],
  reading: [$localize`reading`, $localize`readings`],
  reel: [$localize`reel`, $localize`reels`],
  scarf: [$localize`scarf`, $localize`scarves`],
  set: [$localize`set`, $localize`sets`],
  shawl: [$localize`shawl`, $localize`shawls`],
  skein: [$localize`skein`, $localize`skeins`],
  step: [$localize`step`, $localize`steps`],
  strip: [$localize`strip`, $localize`strips`],
  tag: [$localize`tag`, $localize`tags`],
  turn: [$localize`turn`, $localize`turns`],
  week: [$localize`week`, $localize`weeks`],
  weighing: [$localize`weighing`, $localize`weighings`],
  year: [$localize`year`, $localize`years`],
}));

/** The form of a word that goes with a count: one this program counts, a studio’s own, or both forms as given. */
export function pluralOf(n: number, one: string, many?: string): string {
  const [single, several] = many !== undefined ? [one, many] : (COUNTED[one] ?? [one, $localize`${one}s`]);
  return Math.abs(n) === 1 ? single : several;
}

/** “1 hank”, “12 hanks”. @param many where the two forms are given */
export const countLabel = (n: number, one: string, many?: string): string => `${n} ${pluralOf(n, one, many)}`;

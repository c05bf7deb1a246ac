import type { FastnessTest } from '@vestigia/contract';
import type { Dyed, FastnessCard, FastnessForetold } from '@vestigia/core';
import { said, decimals, currentEntries, joinList, learnFastness } from '@vestigia/core';

/** What each test says of what it was dyed with, as it is learnt from. */
export const cardsOf = (tests: readonly FastnessTest[]): FastnessCard[] =>
  tests.map(({ kind, place, madeWith: { fibre, dyestuffs, mordants }, readings, curve }) => ({
    kind,
    place,
    fibre,
    dyestuffs,
    mordants,
    readings: currentEntries(readings)
      .filter((r) => r.cloth === null)
      .sort((x, y) => x.days - y.days),
    curve,
  }));

const one = (value: number): string => decimals(value, 1);
/** As it is shown: “4.2”, and below it “2.9 to 6.1”. */
export interface SaidFastness {
  readonly value: string;
  readonly span: string;
}
export const sayFastness = (f: FastnessForetold | null): SaidFastness =>
  f === null
    ? { value: $localize`not tested`, span: '' }
    : { value: one(f.deltaE00), span: $localize`${one(f.fromDeltaE00)} to ${one(f.toDeltaE00)}` };

/** What is known of one family: a dyestuff over its mordants on a fibre. */
export interface FastnessFamily {
  readonly name: string;
  readonly light: SaidFastness;
  readonly wash: SaidFastness;
  readonly cards: number;
}

/** Every family that was tried by itself, the least fast to light first. */
export function fastnessFamilies(tests: readonly FastnessTest[]): FastnessFamily[] {
  const cards = cardsOf(tests);
  const [light, wash] = [learnFastness(cards, 'light'), learnFastness(cards, 'wash')];
  const families = new Map<string, { dyed: Dyed; cards: number }>();
  for (const { fibre, dyestuffs, mordants, readings } of cards) {
    if (dyestuffs.length === 0 || readings.length === 0) continue;
    const key = JSON.stringify([fibre, [...dyestuffs].sort(), [...mordants].sort()]);
    families.set(key, { dyed: { fibre, dyestuffs, mordants }, cards: (families.get(key)?.cards ?? 0) + 1 });
  }
  return [...families.values()]
    .map(({ dyed, cards: many }) => ({ dyed, many, byLight: light.foretell(dyed), byWash: wash.foretell(dyed) }))
    .sort((x, y) => (y.byLight?.deltaE00 ?? -1) - (x.byLight?.deltaE00 ?? -1))
    .map(({ dyed, many, byLight, byWash }) => ({
      name: `${joinList(dyed.dyestuffs)}${dyed.mordants.length === 0 ? '' : $localize` over ${joinList(dyed.mordants)}`}, ${said(dyed.fibre)}`,
      light: sayFastness(byLight),
      wash: sayFastness(byWash),
      cards: many,
    }));
}

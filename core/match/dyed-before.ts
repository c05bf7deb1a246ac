import { median } from '../quantity/median';
import type { BathCourse, Dyeing, MatchDose } from './dyeing';
import { dyedAndRead } from './enough-read';
import type { Observation } from './posterior';

/** A way a dyestuff was dyed here: over which mordants, how much of them, how long and how hot. */
export interface WayDyed {
  /** Names the mordants: ways that share them can share a bath. */
  readonly key: string;
  readonly mordants: readonly Pick<MatchDose, 'materialId' | 'percentOwf'>[];
  readonly courses: readonly BathCourse[];
  readonly liquorRatio: number;
  /** Readings of this way, in all and on the fibre that is asked for. */
  readonly readings: number;
  readonly onFibre: number;
}

/** What the record has of a dyestuff. */
export interface DyedBefore {
  readonly materialId: string;
  readonly readings: number;
  readonly onFibre: number;
  readonly usualPercent: number;
  /** The most of it that was ever dosed here, %. */
  readonly mostPercent: number;
  /** Most often dyed on that fibre first. */
  readonly ways: readonly WayDyed[];
}

/** Fewer readings of a dyestuff than this, and nothing is said of it. */
export const LEAST_OF_DYESTUFF = 3;

const whole = (dyeing: Dyeing, materialId: string): number =>
  dyeing.doses.filter((d) => d.materialId === materialId).reduce((sum, d) => sum + d.percentOwf, 0);
const unique = (all: readonly string[]): string[] => [...new Set(all)];
const mordantsOf = (dyeing: Dyeing): string[] =>
  unique(dyeing.doses.filter((d) => d.role === 'mordant').map((d) => d.materialId)).sort();

/**
 * How each dyestuff was dyed here before. Masters say nothing of it: nobody knows what they were dyed with.
 * @param fibre the one that is to be dyed now: ways known on it come first
 */
export function dyedBefore(readings: readonly Observation[], fibre: string): DyedBefore[] {
  const dyed = dyedAndRead(readings).map((r) => r.dyeing);
  const dyestuffs = unique(dyed.flatMap((d) => d.doses.filter((x) => x.role === 'dyestuff').map((x) => x.materialId)));
  return dyestuffs.sort().flatMap((materialId) => {
    const own = dyed.filter((d) => d.doses.some((x) => x.materialId === materialId));
    if (own.length < LEAST_OF_DYESTUFF) return [];
    const keys = unique(own.map((d) => mordantsOf(d).join('+')));
    const ways = keys.map((key): WayDyed => {
      const like = own.filter((d) => mordantsOf(d).join('+') === key);
      const here = like.filter((d) => d.fibre === fibre);
      const last = (here.length > 0 ? here : like).at(-1);
      return {
        key,
        mordants: (last ? mordantsOf(last) : []).map((id) => ({
          materialId: id,
          percentOwf: median(like.map((d) => whole(d, id))),
        })),
        courses: (last?.courses ?? []).filter((c) => c.stage !== 'modifier'),
        liquorRatio: last?.liquorRatio ?? 20,
        readings: like.length,
        onFibre: here.length,
      };
    });
    return {
      materialId,
      readings: own.length,
      onFibre: own.filter((d) => d.fibre === fibre).length,
      usualPercent: median(own.map((d) => whole(d, materialId))),
      mostPercent: Math.max(...own.map((d) => whole(d, materialId))),
      ways: ways.sort((x, y) => y.onFibre - x.onFibre || y.readings - x.readings || (x.key < y.key ? -1 : 1)),
    };
  });
}

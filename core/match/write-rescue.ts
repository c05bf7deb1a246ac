import { worded } from '../words/worded';
import { describeDifference } from '../colour/describe';
import type { Lab } from '../colour/lab';
import { joinList } from '../quantity/word-list';
import type { RescueAnswer, RescueWay } from './rescue';
import type { LetterNames } from './write-letter';
import { sayDips } from './write-letter';
import { decimals } from '../quantity/shown-in';

/** What can be done about a lot that missed, as a dyer would say it. */
export interface RescueLetter {
  readonly opening: string;
  readonly ways: readonly { readonly what: string; readonly comes: string; readonly how: string }[];
  readonly soldAs: string;
}

const grams = (g: number): string => `${g < 1 ? decimals(g, 2) : decimals(g, 1)} g`;

const HOW: Readonly<Record<RescueWay['how'], string>> = worded(() => ({
  moreDye: $localize`In a fresh bath, in the same water and as hot: what is on the fibre stays there.`,
  longer: $localize`Only while its bath still stands.`,
  overdye: $localize`In a fresh bath of its own, over what is on it.`,
  modifier: $localize`In a bath after, by itself.`,
}));

/** What goes in, out of which jar; or how much longer, or how many dips more. */
export function sayRescue({ added, longerMin, dipsMore }: RescueWay, weightG: number, names: LetterNames): string {
  const doses = added.map(
    ({ materialId, stockLotId, percentOwf }) =>
      $localize`${grams((percentOwf / 100) * weightG)} ${names.material(materialId)} out of ${names.jar(stockLotId)}`,
  );
  if (dipsMore > 0) return joinList([...doses, sayDips(dipsMore)]);
  return joinList(longerMin >= 1 ? [...doses, $localize`${Math.round(longerMin)} min longer in the dye`] : doses);
}

/**
 * Writes what can still be done.
 * @param weightG of dry fibre that missed @param nameOf what a colourway is called
 */
export function writeRescue(
  answer: RescueAnswer,
  standard: Lab,
  weightG: number,
  names: LetterNames,
  nameOf: (colourwayId: string) => string,
): RescueLetter {
  if (answer.state === 'tooFew')
    return {
      opening: $localize`Too little was dyed and read so far to say what would help: ${answer.readings} of ${answer.needed} readings.`,
      ways: [],
      soldAs: '',
    };
  const { missedBy, isDeeper, ways, soldAs } = answer;
  const near = soldAs.filter((s) => s.isWithin);
  const [nearest] = soldAs;
  return {
    opening: isDeeper
      ? $localize`It lies ΔE00 ${decimals(missedBy, 1)} from what was wanted, and deeper all over. Whatever is added only makes it deeper; nothing here takes dye off again.`
      : ways.length === 0
        ? $localize`It lies ΔE00 ${decimals(missedBy, 1)} from what was wanted, and nothing on the shelf promises to bring it clearly nearer.`
        : $localize`It lies ΔE00 ${decimals(missedBy, 1)} from what was wanted. ${ways.length === 1 ? $localize`One thing promises` : $localize`These promise`} to bring it nearer, surest first.`,
    ways: ways.map((way) => ({
      what: sayRescue(way, weightG, names),
      comes: $localize`should come out ${describeDifference(standard, way.lab).summary} (ΔE00 ${decimals(way.deltaE00, 1)}), within ${decimals(way.within80, 1)} four times in five`,
      how: HOW[way.how],
    })),
    soldAs:
      near.length > 0
        ? $localize`As it is, it lies within the tolerance of ${joinList(near.map((s) => `${nameOf(s.id)} (ΔE00 ${decimals(s.deltaE00, 1)})`))}, and could be sold as that.`
        : nearest
          ? $localize`The nearest other colourway on this base is ${nameOf(nearest.id)}, ΔE00 ${decimals(nearest.deltaE00, 1)} away: too far to be sold as that.`
          : '',
  };
}

import { DELTA_E_LABELS } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import { describeDifference } from '../colour/describe';
import { joinList } from '../quantity/word-list';
import type { Dyeing } from './dyeing';
import { isBathItself } from './dyeing';
import type { LeverTurned, StrikeOffWorth, ReorderAnswer, ReorderFactor, ReorderWay } from './reorder';
import { NOTHING_LIKE_DELTA_E } from './reorder';
import { decimals } from '../quantity/shown-in';

/** What things are called on screen. */
export interface LetterNames {
  material(materialId: string): string;
  jar(stockLotId: string): string;
  water(waterId: string): string;
}

/** What a good dyer would write: one sentence, what to do, and the rest for whoever asks. */
export interface Letter {
  readonly opening: string;
  readonly advice: string;
  /** Empty where no strike-off is worth its while. */
  readonly strikeOff: string;
  readonly standsOn: string;
}

/** So much fibre goes into a strike-off, g: less can’t be weighed well, more is a lot. */
export const STRIKE_OFF_G = 20;

/** Below this no part of a difference gets a word of its own, ΔE00. */
const LIKE_DELTA_E = 0.65;
const percent = (share: number): string => `${Math.round(Math.abs(share - 1) * 100)} %`;
const grams = (value: number): string => (value < 1 ? decimals(value, 2) : decimals(value, 1));

/** How far from the standard, in words and as a number. */
function sayShade(standard: Lab, { lab, deltaE00 }: ReorderWay): string {
  const { summary, deltaE } = describeDifference(standard, lab);
  const words = joinList(summary.split(', '));
  return deltaE < LIKE_DELTA_E
    ? $localize`as the master (ΔE00 ${decimals(deltaE00, 1)})`
    : $localize`${words} than the master (ΔE00 ${decimals(deltaE00, 1)})`;
}

/** One lever, as it is said to whoever weighs: “weld 12 % more”, “a little madder, 0.4 % of the fibre”. */
function sayTurned({ doses }: ReorderWay, { materialId, share, percentOwf }: LeverTurned, names: LetterNames): string {
  const name = names.material(materialId);
  const isAfter = doses.some((d) => d.materialId === materialId && d.stage === 'modifier');
  const much = $localize`${decimals(percentOwf, percentOwf < 1 ? 2 : 1)} % of the fibre`;
  if (share === null)
    return isAfter ? $localize`a touch of ${name} after the dye, ${much}` : $localize`a little ${name}, ${much}`;
  return Math.abs(share - 1) < LEAST_SAID
    ? $localize`${name} ${decimals(percentOwf, 1)} % of the fibre`
    : `${name} ${percent(share)} ${share > 1 ? $localize`more` : $localize`less`}`;
}

/** Out of which jars a material comes where that is not as planned: “weld 30 % out of B and 12 % out of C, 5 % more in all”. */
function sayJars({ doses }: ReorderWay, { materialId, share }: LeverTurned, names: LetterNames): string {
  const each = doses
    .filter((d) => d.materialId === materialId)
    .map((d) => $localize`${decimals(d.percentOwf, 1)} % out of ${names.jar(d.stockLotId)}`);
  const inAll =
    share === null || Math.abs(share - 1) < LEAST_SAID
      ? ''
      : $localize`, ${percent(share)} ${share > 1 ? $localize`more` : $localize`less`} in all`;
  return `${names.material(materialId)} ${joinList(each)}${inAll}`;
}

/** A stay in the dye told apart from the planned one. */
const LEAST_TIME = 0.03;
/** A share told apart from 1. */
const LEAST_SAID = 0.015;

/** What a way asks for, in words. */
export function sayWay(way: ReorderWay, names: LetterNames): string {
  const said = [...sayWeighed(way, names), ...sayBath(way, names)];
  return said.length === 0 ? $localize`as the recipe says` : joinList(said);
}

function sayWeighed(way: ReorderWay, names: LetterNames): string[] {
  const elsewhere = new Set(way.turned.filter((t) => t.isOtherJar && t.share !== null).map((t) => t.materialId));
  return [
    ...new Set(
      way.turned.map((t) => (elsewhere.has(t.materialId) ? sayJars(way, t, names) : sayTurned(way, t, names))),
    ),
  ];
}

/** “one dip more”, “2 dips fewer”. */
export function sayDips(more: number): string {
  const many = Math.abs(more);
  return `${many === 1 ? $localize`one dip` : $localize`${many} dips`} ${more > 0 ? $localize`more` : $localize`fewer`}`;
}

/** On what, in what, and how long, where that is not as planned. */
function sayBath(way: ReorderWay, names: LetterNames): string[] {
  const said = way.baseLotId === null ? [] : [$localize`on ${names.jar(way.baseLotId)}, another lot of the base`];
  if (way.waterId !== null) said.push($localize`in ${names.water(way.waterId)}`);
  if (way.dipsMore !== 0) said.push(sayDips(way.dipsMore));
  else if (Math.abs(way.timeShare - 1) > LEAST_TIME)
    said.push(
      $localize`${percent(way.timeShare)} ${way.timeShare > 1 ? $localize`longer` : $localize`shorter`} in the dye`,
    );
  return said;
}

/** A way as a sentence begins with it: “With weld 12 % more”, “In the rain water and 20 % longer in the dye”. */
function beginWay(way: ReorderWay, names: LetterNames): string {
  const said = sayWay(way, names);
  return sayWeighed(way, names).length > 0 ? $localize`With ${said}` : said.charAt(0).toUpperCase() + said.slice(1);
}

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** What was otherwise, named. */
export function sayFactor(factor: ReorderFactor, names: LetterNames): string {
  switch (factor.of) {
    case 'material':
      return names.material(factor.materialId);
    case 'water':
      return $localize`the water`;
    case 'pot':
      return $localize`the pot’s metal`;
    case 'bath':
      return $localize`the length of the bath`;
    case 'base':
      return $localize`the lot of the base`;
    case 'time':
      return $localize`time and heat`;
  }
}

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** Writes what earlier lots say of a lot to come. */
export function writeLetter(answer: ReorderAnswer, standard: Lab, plan: Dyeing, names: LetterNames): Letter {
  if (answer.state === 'tooFew')
    return {
      opening: $localize`Too little was dyed and read so far to say what will come out: ${count(answer.readings, 'reading')}, and ${answer.needed} are needed.`,
      advice: $localize`Dye it as the recipe says, and read it dry: that is what the next can be foretold from.`,
      strikeOff: '',
      standsOn: '',
    };
  const { unchanged, ways, strikeOff } = answer;
  const standsOn = $localize`It stands on ${count(answer.ofColourway, 'reading')} of this colourway and ${answer.readings} in all.`;
  if (unchanged.deltaE00 > NOTHING_LIKE_DELTA_E)
    return {
      opening: $localize`As it is planned it should come out nothing like the master (ΔE00 ${decimals(unchanged.deltaE00, 0)}).`,
      advice: $localize`Look at what it is dyed with now: a bath that is used up, or a jar that is empty, can’t be made up for by more of the rest.`,
      strikeOff: '',
      standsOn,
    };
  const [best] = ways;
  return {
    opening: $localize`As it is planned it should come out ${sayShade(standard, unchanged)}, within ΔE00 ${decimals(unchanged.within80, 1)} of that four times in five.`,
    advice: best
      ? $localize`${best.isStruckOff ? $localize`By the strike-off: ${lowerFirst(beginWay(best, names))}` : beginWay(best, names)} it should come out ${sayShade(standard, best)}, within ΔE00 ${decimals(best.within80, 1)}.`
      : strikeOff
        ? $localize`No change can be named yet that promises to come clearly nearer: what is unsure of it a strike-off shows first.`
        : $localize`No change promises to come clearly nearer: dye it as the recipe says.`,
    strikeOff: strikeOff ? sayStrikeOff(strikeOff, plan, names) : '',
    standsOn,
  };
}

function sayStrikeOff(
  { way, withoutDeltaE, afterDeltaE, formula }: StrikeOffWorth,
  plan: Dyeing,
  names: LetterNames,
): string {
  const { doses, waterId, baseLotId, timeShare, dipsMore } = way;
  const weights = [...new Set(doses.map((d) => d.materialId))].map((materialId) => {
    const own = doses.filter((d) => d.materialId === materialId);
    const isAsPlanned = own.length === 1 && plan.doses.some((p) => p.stockLotId === own[0]?.stockLotId);
    const each = own.map((d) => {
      // A vat is not weighed in: the strike-off goes into it.
      if (isBathItself(d, plan.liquorRatio)) return $localize`as it stands`;
      const weight = `${grams((d.percentOwf / 100) * STRIKE_OFF_G)} g`;
      return isAsPlanned ? weight : $localize`${weight} out of ${names.jar(d.stockLotId)}`;
    });
    return `${names.material(materialId)} ${joinList(each)}`;
  });
  const water = waterId === null ? $localize`in the same water` : $localize`in ${names.water(waterId)}`;
  const fibre = baseLotId === null ? $localize`the same lot of the base` : names.jar(baseLotId);
  const time =
    dipsMore !== 0
      ? $localize`${sayDips(dipsMore)} and as hot`
      : Math.abs(timeShare - 1) > LEAST_TIME
        ? $localize`${percent(timeShare)} ${timeShare > 1 ? $localize`longer` : $localize`shorter`} in the dye and as hot`
        : $localize`as long and as hot`;
  return $localize`A strike-off is worth its while: without one the lot is likely to lie ${DELTA_E_LABELS[formula]} ${decimals(withoutDeltaE, 1)} from the master, after one ${decimals(afterDeltaE, 1)}. Dye ${STRIKE_OFF_G} g of ${fibre} ${water}, ${time}, at 1:${plan.liquorRatio}:liquorRatio:: ${joinList(weights)}. A small pot loses heat sooner than the lot’s, so go by the thermometer. Read it dry, then look here again.`;
}

import { said } from '../words/said';
import { worded } from '../words/worded';
import { joinList } from '../quantity/word-list';
import type { ShadeOf } from '../scaling/shade-of';
import type { ReadingState } from './verdict';

/** What a lot is held against by eye. */
export const EYE_AGAINST = ['master', 'lastLot', 'ladder', 'nothing'] as const;
/** How each is said on screen. */
export const EYE_AGAINST_LABELS: Readonly<Record<(typeof EYE_AGAINST)[number], string>> = worded(() => ({
  master: $localize`the master swatch`,
  lastLot: $localize`the last lot`,
  ladder: $localize`a ladder`,
  nothing: $localize`nothing: as it is`,
}));
/** Ways a hue is seen to lean. */
export const EYE_HUES = ['redder', 'yellower', 'greener', 'bluer'] as const;
/** How even it is seen to be. */
export const EYE_EVENNESS = ['even', 'patchy', 'foldMarks', 'palerEnds', 'spotted'] as const;
/** How each is said on screen. */
export const EYE_EVENNESS_LABELS: Readonly<Record<(typeof EYE_EVENNESS)[number], string>> = worded(() => ({
  even: $localize`even`,
  patchy: $localize`patchy`,
  foldMarks: $localize`with fold marks`,
  palerEnds: $localize`paler at the ends`,
  spotted: $localize`spotted`,
}));
/** The light it is seen in. */
export const EYE_LIGHTS = ['daylight', 'shade', 'lamp'] as const;
/** How each is said on screen. */
export const EYE_LIGHT_LABELS: Readonly<Record<(typeof EYE_LIGHTS)[number], string>> = worded(() => ({
  daylight: $localize`in daylight`,
  shade: $localize`in the shade`,
  lamp: $localize`under a lamp`,
}));

/** What an eye says: two steps paler to two deeper, a lean in hue, one step duller or clearer, how even. */
export interface EyeSeen {
  readonly against: (typeof EYE_AGAINST)[number];
  /** −2 much paler, −1 paler, 0 the same, 1 deeper, 2 much deeper. */
  readonly depth: number;
  readonly hue: (typeof EYE_HUES)[number] | null;
  /** −1 duller, 0 the same, 1 clearer. */
  readonly clarity: number;
  readonly evenness: (typeof EYE_EVENNESS)[number];
  /** Where it is not even. */
  readonly where: string;
  readonly light: (typeof EYE_LIGHTS)[number];
}

/** One person’s look at one shade of a lot, in the state the fibre was in. */
export interface EyeReading extends ShadeOf {
  readonly state: ReadingState;
  readonly seen: EyeSeen;
  readonly byId: string;
}

const DEPTHS: Readonly<Record<number, string>> = worded(() => ({
  [-2]: $localize`much paler`,
  [-1]: $localize`paler`,
  0: '',
  1: $localize`deeper`,
  2: $localize`much deeper`,
}));
const CLARITIES: Readonly<Record<number, string>> = worded(() => ({
  [-1]: $localize`duller`,
  0: '',
  1: $localize`clearer`,
}));

/** Whether an eye saw no difference worth a word, and an even piece. */
export const isSeenSame = ({ depth, hue, clarity, evenness }: EyeSeen): boolean =>
  depth === 0 && hue === null && clarity === 0 && evenness === 'even';

/** What an eye said, in a dyer’s words: “paler, a bit redder than the master swatch, even, in daylight”. */
export function sayEye({ against, depth, hue, clarity, evenness, where, light }: EyeSeen): string {
  const how = [DEPTHS[depth] ?? '', hue === null ? '' : said(hue), CLARITIES[clarity] ?? ''].filter((w) => w !== '');
  const beside =
    against === 'nothing'
      ? how.length === 0
        ? $localize`looked at by itself`
        : $localize`${joinList(how)} than hoped`
      : how.length === 0
        ? $localize`the same as ${EYE_AGAINST_LABELS[against]}`
        : $localize`${joinList(how)} than ${EYE_AGAINST_LABELS[against]}`;
  const even = `${EYE_EVENNESS_LABELS[evenness]}${evenness !== 'even' && where !== '' ? ` (${where})` : ''}`;
  return `${beside}, ${even}, ${EYE_LIGHT_LABELS[light]}`;
}

/** What a studio passes lots by. */
export const JUDGE_RULES = ['eye', 'twoEyes', 'reading'] as const;
/** One of `JUDGE_RULES`. */
export type JudgeRule = (typeof JUDGE_RULES)[number];
/** How each is said on screen. */
export const JUDGE_RULE_LABELS: Readonly<Record<JudgeRule, string>> = worded(() => ({
  eye: $localize`one eye is enough`,
  twoEyes: $localize`two people look`,
  reading: $localize`only with a reading`,
}));

import { readLength } from '../quantity/length-text';

/** A time as somebody remembers it: by the clock, or so long after what came before. */
export type ToldTime =
  | {
      readonly by: 'clock';
      /** `HH:MM`, on the studio's clock. */
      readonly clock: string;
      /** It is of the day after the one it is written under. */
      readonly nextDay: boolean;
      /** As it was told, where it is only about right. */
      readonly about: string | null;
    }
  | { readonly by: 'length'; readonly minutes: number; readonly about: string | null };

/** Times of day that have a name; where they lie is only about right. */
const NAMED: readonly (readonly [RegExp, string, boolean])[] = [
  [/^(?:overnight|over night|the next morning|next morning|über nacht|(?:am )?nächsten morgen)$/, '08:00', true],
  [/^(?:early|early morning|first thing|früh|frühmorgens)$/, '07:00', false],
  [/^(?:(?:in the )?morning|morgens|(?:am )?(?:morgen|vormittag)|vormittags)$/, '09:00', false],
  [/^(?:at )?(?:noon|midday|lunch|lunchtime|(?:am |zu )?mittag|mittags)$/, '12:00', false],
  [/^(?:(?:in the )?afternoon|(?:am )?nachmittag|nachmittags)$/, '15:00', false],
  [/^(?:(?:in the )?evening|(?:am )?abend|abends)$/, '19:00', false],
  [/^(?:at )?(?:night|bedtime|nachts)$/, '22:00', false],
];
const ABOUT = /^(?:about|around|etwa|ungefähr|gegen|ca\.?|circa|roughly|some|~|≈)\s*|\s*(?:or so|oder so|ish|-ish)$/g;

/**
 * Reads a time as it was told: `9:40`, `14.05`, `about 9`, `noon`, `overnight`, `40 min`, `an hour or so`, `1 h 30`,
 * `two days`. What is only about right keeps its words. `undefined` where it is none.
 * @param text as written by hand
 */
export function readToldTime(text: string): ToldTime | undefined {
  const written = text.trim().toLowerCase();
  const plain = written.replace(ABOUT, '').replace(ABOUT, '').trim();
  const about = plain === written ? null : text.trim();
  const named = NAMED.find(([words]) => words.test(plain));
  if (named) return { by: 'clock', clock: named[1], nextDay: named[2], about: text.trim() };
  // `9h30` and `14h05` are the clock, `1h30` and `2 h 30` are lengths: nobody begins in the small hours.
  const minutes = /^(?:[6-9]|[12]\d)h\d{2}$/.test(plain) ? undefined : readLength(plain);
  if (minutes !== undefined) return { by: 'length', minutes, about };
  const clock = /^(\d{1,2})(?:[:.,h ]?(\d{2}))?(?: ?(am|pm))?$/.exec(plain);
  // A bare number is an hour only where it is said to be about right, or of which half of the day.
  if (!clock || (clock[2] === undefined && clock[3] === undefined && about === null)) return undefined;
  const hours = Number(clock[1]) + (clock[3] === 'pm' && clock[1] !== '12' ? 12 : 0);
  const past = Number(clock[2] ?? 0);
  if (hours > 23 || past > 59) return undefined;
  return { by: 'clock', clock: `${two(hours)}:${two(past)}`, nextDay: false, about };
}

const two = (n: number): string => String(n).padStart(2, '0');

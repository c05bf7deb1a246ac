/** How a studio reads its figures. What is kept, sent and reckoned with is grams, millilitres and °C everywhere. */
export interface ShownIn {
  readonly weight: 'metric' | 'pounds';
  readonly volume: 'metric' | 'us' | 'imperial';
  readonly temperature: 'celsius' | 'fahrenheit';
  readonly decimalMark: '.' | ',';
  readonly days: 'dayMonthYear' | 'monthDayYear' | 'yearMonthDay';
  readonly weekBegins: 'monday' | 'sunday' | 'saturday';
}

/** Weights: grams and kilograms, or pounds and ounces. */
export const WEIGHT_SYSTEMS = ['metric', 'pounds'] as const satisfies readonly ShownIn['weight'][];
/** Volumes: litres, or whose gallons. */
export const LIQUID_SYSTEMS = ['metric', 'us', 'imperial'] as const satisfies readonly ShownIn['volume'][];
/** Temperatures. */
export const TEMPERATURE_SCALES = ['celsius', 'fahrenheit'] as const satisfies readonly ShownIn['temperature'][];
/** Marks before a fraction. */
export const DECIMAL_MARKS = ['.', ','] as const satisfies readonly ShownIn['decimalMark'][];
/** Orders of a date. */
export const DAY_FORMS = ['dayMonthYear', 'monthDayYear', 'yearMonthDay'] as const satisfies readonly ShownIn['days'][];

/** First days of a week. */
export const WEEK_BEGINS = ['monday', 'sunday', 'saturday'] as const satisfies readonly ShownIn['weekBegins'][];

/** What a new studio begins with. */
export const SHOWN_AT_FIRST: ShownIn = {
  weight: 'metric',
  volume: 'metric',
  temperature: 'celsius',
  decimalMark: '.',
  days: 'dayMonthYear',
  weekBegins: 'monday',
};

let shown = SHOWN_AT_FIRST;

/**
 * Says how figures are written out from here on, in this process or page: each serves one studio. A sentence is put
 * together in many places, and a figure in it must read as every other on the sheet does; so this is the one thing in
 * core that is set and not handed over. Nothing is reckoned by it.
 */
export function showFiguresIn(how: ShownIn): void {
  shown = how;
}

/** How figures are written out just now. */
export const figuresShownIn = (): ShownIn => shown;

/** Writes a number with this decimal mark. @param text as `toFixed` gives it */
export const withDecimalMark = (text: string): string => (shown.decimalMark === ',' ? text.replace('.', ',') : text);

/** A number with so many figures after the studio’s decimal mark, “1.20”. */
export const decimals = (value: number, places: number): string => withDecimalMark(value.toFixed(places));

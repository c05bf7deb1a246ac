import { readNumberText } from './number-text';
import { figuresShownIn, withDecimalMark } from './shown-in';
import { withoutGuess } from './weight';

/**
 * A temperature as people write it, in °C to a tenth: `82`, `82C`, `82 °C`, `170 F`, `180°F`. A bare number is in the
 * scale the studio reads. `undefined` where it is none.
 */
export function readTemperatureC(text: string): number | undefined {
  const match = /^(.*?)\s*°?\s*([cf])?$/is.exec(withoutGuess(text).text.trim());
  const value = readNumberText(match?.[1] ?? '');
  if (value === undefined) return undefined;
  const scale = match?.[2]?.toLowerCase() ?? (isFahrenheit() ? 'f' : 'c');
  return scale === 'f' ? Math.round(((value - 32) * 50) / 9) / 10 : value;
}

const isFahrenheit = (): boolean => figuresShownIn().temperature === 'fahrenheit';

/** The mark of the scale the studio reads: `°C` or `°F`. */
export const degreeMark = (): string => (isFahrenheit() ? '°F' : '°C');

/** A temperature in the studio's scale, as a number: °C as it is, °F to a whole degree. @param temperatureC °C */
export const degreesShown = (temperatureC: number): number =>
  isFahrenheit() ? Math.round((temperatureC * 9) / 5 + 32) : temperatureC;

/** Writes a temperature for reading: `82 °C`, or `180 °F`. @param temperatureC °C */
export const formatTemperature = (temperatureC: number): string =>
  `${withDecimalMark(String(degreesShown(temperatureC)))} ${degreeMark()}`;

/**
 * Stands before the mark where two temperatures are apart from each other, a plain space where there is one: on the
 * screen they look alike, and whoever reads the text again (`other-unit`) can tell them.
 */
export const APART_SPACE = '\u00a0';

/** Writes how far two temperatures are apart: 2 °C are 3.6 °F. @param apartC °C */
export const formatDegreesApart = (apartC: number): string =>
  `${withDecimalMark(String(isFahrenheit() ? Math.round(apartC * 18) / 10 : apartC))}${APART_SPACE}${degreeMark()}`;

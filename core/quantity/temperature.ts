import { readNumberText } from './number-text';
import { withoutGuess } from './weight';

/**
 * A temperature as people write it, in °C to a tenth: `82`, `82C`, `82 °C`, `170 F`, `180°F`. A bare number is °C.
 * `undefined` where it is none.
 */
export function readTemperatureC(text: string): number | undefined {
  const match = /^(.*?)\s*°?\s*([cf])?$/is.exec(withoutGuess(text).text.trim());
  const value = readNumberText(match?.[1] ?? '');
  if (value === undefined) return undefined;
  return match?.[2]?.toLowerCase() === 'f' ? Math.round(((value - 32) * 50) / 9) / 10 : value;
}

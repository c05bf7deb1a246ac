import type { ColourConditions, Lab } from '../colour/lab';
import { sameConditions } from '../colour/lab';
import type { Spectrum } from '../colour/spectrum';
import { labOfSpectrum } from '../colour/spectrum';
import { adaptXyz, convertLabToXyz, convertXyzToLab } from '../colour/xyz';
import { MATCH_CONDITIONS } from './channels';
import type { MeasuredColour } from './dyeing';

/**
 * A colour as the match takes it, under D65 and 10°: out of its spectrum where there is one; `undefined` where it was read
 * under another light.
 */
export function underOurLight(read: Lab & ColourConditions, spectrum: Spectrum | null): MeasuredColour | undefined {
  const { L, a, b } = read;
  if (spectrum) return { lab: labOfSpectrum(spectrum, MATCH_CONDITIONS), spectrum };
  return sameConditions(read, MATCH_CONDITIONS) ? { lab: { L, a, b }, spectrum: null } : undefined;
}

/** The same of a ground, which is only the beginning of a shade: of another light it is taken as it would look (Bradford). */
export const groundUnderOurLight = (read: Lab & ColourConditions, spectrum: Spectrum | null): MeasuredColour =>
  underOurLight(read, spectrum) ?? {
    lab: convertXyzToLab(adaptXyz(convertLabToXyz(read, read), read, MATCH_CONDITIONS), MATCH_CONDITIONS),
    spectrum: null,
  };

/** The mean of spectra, band by band; `null` where one is missing. */
export function meanSpectrum(all: readonly (Spectrum | null)[]): Spectrum | null {
  const [first] = all;
  if (!first || all.some((s) => s === null)) return null;
  return first.map((_, i) => all.reduce((sum, s) => sum + (s?.[i] ?? 0), 0) / all.length);
}

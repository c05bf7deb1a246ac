import type { ColourConditions, Lab } from './lab';
import type { Triple } from './xyz';
import { convertXyzToLab, weightsFor } from './xyz';

/** Bands of the tables: 400 to 700 nm by 10. */
const FROM_NM = 400;
const TO_NM = 700;
const STEP_NM = 10;
const BANDS = (TO_NM - FROM_NM) / STEP_NM + 1;
/** The wavelengths a spectrum is kept at, nm. */
export const BANDS_NM: readonly number[] = Array.from({ length: BANDS }, (_, i) => FROM_NM + i * STEP_NM);
/** A white tile may read a hair above a perfect diffuser; more than that is another scale, or a fluorescing white. */
const MOST_REFLECTANCE = 1.2;

/** Reflectance factors, 0-1, at `BANDS_NM`. */
export type Spectrum = readonly number[];

/** What is wrong with a spectrum as it was brought. */
export type SpectrumRefusal =
  | { readonly code: 'lengths'; readonly bands: number; readonly values: number }
  | { readonly code: 'order' }
  | { readonly code: 'step'; readonly stepNm: number }
  | { readonly code: 'missingBands'; readonly fromNm: number; readonly toNm: number }
  | { readonly code: 'notANumber'; readonly nm: number }
  | { readonly code: 'belowZero'; readonly nm: number; readonly value: number }
  | { readonly code: 'aboveOne'; readonly nm: number; readonly value: number };

/** What is wrong with a spectrum, in a sentence that says what to do. */
export function saySpectrumRefusal(refusal: SpectrumRefusal): string {
  switch (refusal.code) {
    case 'lengths':
      return $localize`There are ${refusal.bands} wavelengths and ${refusal.values} values. Bring one value for each wavelength.`;
    case 'order':
      return $localize`The wavelengths are not in rising order. Sort them from 400 up to 700 nm, each with its value.`;
    case 'step':
      return $localize`The wavelengths lie ${refusal.stepNm} nm apart. A spectrum here is read every 10 or 20 nm.`;
    case 'missingBands':
      return $localize`The spectrum goes from ${refusal.fromNm} to ${refusal.toNm} nm. Bring 400 to 700 nm without gaps.`;
    case 'notANumber':
      return $localize`At ${refusal.nm} nm there is no number. Read the swatch again, or leave the spectrum out.`;
    case 'belowZero':
      return $localize`At ${refusal.nm} nm the reflectance is ${refusal.value}, below nothing. Calibrate the reader on its black trap and read again.`;
    case 'aboveOne':
      return $localize`At ${refusal.nm} nm the reflectance is ${refusal.value}; white is 1. If it is in per cent, divide by 100; if not, calibrate the reader on its white tile.`;
  }
}

/** A spectrum on our bands; or why it can’t be read. */
export type ReadSpectrum =
  { readonly ok: true; readonly spectrum: Spectrum } | { readonly ok: false; readonly refusal: SpectrumRefusal };

/**
 * Reads reflectance factors (0-1) at rising wavelengths, every 10 or 20 nm, that cover 400 to 700 nm; bands beyond are
 * left out. Every 20 nm is filled in between by cubic interpolation (Lagrange, four points), as CIE 167:2005 allows for
 * smooth spectra.
 */
export function readSpectrum(wavelengths: readonly number[], values: readonly number[]): ReadSpectrum {
  const refuse = (refusal: SpectrumRefusal): ReadSpectrum => ({ ok: false, refusal });
  if (wavelengths.length !== values.length)
    return refuse({ code: 'lengths', bands: wavelengths.length, values: values.length });
  const [first, second] = wavelengths;
  const last = wavelengths.at(-1);
  if (first === undefined || second === undefined || last === undefined)
    return refuse({ code: 'missingBands', fromNm: first ?? 0, toNm: last ?? 0 });
  if (wavelengths.some((nm, i) => i > 0 && !(nm > (wavelengths[i - 1] ?? 0)))) return refuse({ code: 'order' });
  const stepNm = second - first;
  if (stepNm !== STEP_NM && stepNm !== 2 * STEP_NM) return refuse({ code: 'step', stepNm });
  const isEven = wavelengths.every((nm, i) => nm === first + i * stepNm);
  const onGrid = (FROM_NM - first) % stepNm === 0 && (TO_NM - first) % stepNm === 0;
  if (!isEven || !onGrid || first > FROM_NM || last < TO_NM)
    return refuse({ code: 'missingBands', fromNm: first, toNm: last });
  for (const [i, value] of values.entries()) {
    const nm = wavelengths[i] ?? 0;
    if (!Number.isFinite(value)) return refuse({ code: 'notANumber', nm });
    if (value < 0) return refuse({ code: 'belowZero', nm, value });
    if (value > MOST_REFLECTANCE) return refuse({ code: 'aboveOne', nm, value });
  }
  const at = (nm: number): number => values[Math.round((nm - first) / stepNm)] ?? 0;
  if (stepNm === STEP_NM) return { ok: true, spectrum: BANDS_NM.map(at) };
  return {
    ok: true,
    spectrum: BANDS_NM.map((nm) => ((nm - first) % stepNm === 0 ? at(nm) : between(at, nm, first, last))),
  };
}

/** Half-way between two bands 20 nm apart, through the two on either side; at an end through the three that are there. */
function between(at: (nm: number) => number, nm: number, first: number, last: number): number {
  const [far, near] = [3 * STEP_NM, STEP_NM];
  if (nm - far < first) return (3 * at(nm - near) + 6 * at(nm + near) - at(nm + far)) / 8;
  if (nm + far > last) return (3 * at(nm + near) + 6 * at(nm - near) - at(nm - far)) / 8;
  return (9 * (at(nm - near) + at(nm + near)) - at(nm - far) - at(nm + far)) / 16;
}

/** XYZ of a spectrum, a perfect white at Y = 1: the weighted sum of ASTM E308, section 7. */
export function xyzOfSpectrum(spectrum: Spectrum, conditions: ColourConditions): Triple {
  const weights = weightsFor(conditions);
  if (spectrum.length !== weights.length) throw new RangeError(`a spectrum has ${weights.length} bands`);
  let [x, y, z, white] = [0, 0, 0, 0];
  for (const [i, w] of weights.entries()) {
    const r = spectrum[i] ?? 0;
    x += r * w[0];
    y += r * w[1];
    z += r * w[2];
    white += w[1];
  }
  return [x / white, y / white, z / white];
}

/** L*a*b* of a spectrum under a light and observer. */
export const labOfSpectrum = (spectrum: Spectrum, conditions: ColourConditions): Lab =>
  convertXyzToLab(xyzOfSpectrum(spectrum, conditions), conditions);

import type { ColourConditions, Lab } from './lab';
import type { Triple } from './xyz';
import { convertLabToLinearSrgb, encodeSrgb } from './xyz';

/** What a screen can show of a colour: CSS, and whether it lies outside what sRGB holds. */
export interface ScreenColour {
  /** For a style: `rgb(r g b)` with whole 0-255 parts. */
  readonly css: string;
  /** The screen can't show this colour; what is shown is the same hue and lightness with less chroma. */
  readonly outOfGamut: boolean;
}

const fits = (rgb: Triple): boolean => rgb.every((c) => c >= -0.0005 && c <= 1.0005);

/**
 * What a screen shows for a reading: adapted to the screen's D65 white (Bradford), in sRGB.
 * Where the screen can't show it, chroma is lowered at the same hue and lightness until it can, and it is said.
 */
export function screenColour(lab: Lab, conditions: ColourConditions): ScreenColour {
  let rgb = convertLabToLinearSrgb(lab, conditions);
  const outOfGamut = !fits(rgb);
  if (outOfGamut) {
    let low = 0;
    let high = 1;
    for (let i = 0; i < 16; i += 1) {
      const share = (low + high) / 2;
      rgb = convertLabToLinearSrgb({ L: lab.L, a: lab.a * share, b: lab.b * share }, conditions);
      if (fits(rgb)) low = share;
      else high = share;
    }
    rgb = convertLabToLinearSrgb({ L: lab.L, a: lab.a * low, b: lab.b * low }, conditions);
  }
  const bytes = rgb.map((c) => Math.round(255 * Math.min(1, Math.max(0, encodeSrgb(Math.min(1, Math.max(0, c)))))));
  return { css: `rgb(${bytes.join(' ')})`, outOfGamut };
}

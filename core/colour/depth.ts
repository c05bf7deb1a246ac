import { ksOfReflectance } from './kubelka-munk';

/**
 * Kubelka and Munk's K/S of an opaque layer from its lightness (Z. tech. Phys. 12, 1931), by way of L* (CIE 15:2018).
 * Range 0 to about 500.
 */
export function depthOfLightness(lightness: number): number {
  const f = (lightness + 16) / 116;
  return ksOfReflectance(lightness > 8 ? f ** 3 : lightness / (24_389 / 27));
}

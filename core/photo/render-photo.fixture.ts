import type { Lab } from '../colour/lab';
import type { Triple } from '../colour/xyz';
import { SCREEN, convertLabToXyz, convertXyzToLinearSrgb, encodeSrgb } from '../colour/xyz';
import type { Picture, Rect } from './picture';
import { seeded } from './seeded';

/** What a rendered photograph suffers from. */
export interface Suffering {
  /** Colour temperature of the light, K; the camera stands at 6500. */
  readonly kelvin: number;
  readonly stops: number;
  /** Share of the light that is lost from one edge to the other, and towards the corners. */
  readonly falloff: number;
  readonly corners: number;
  /** Standard deviation of a channel, of 255. */
  readonly noise: number;
  /** Direction in which the light falls off, radians. */
  readonly towards: number;
  /** Whether the cast scales X, Y and Z or the camera’s own channels: no two cameras do alike. */
  readonly castBy: 'xyz' | 'channels';
}

/** Nothing at all. */
export const IN_GOOD_LIGHT: Suffering = {
  kelvin: 6504,
  stops: 0,
  falloff: 0,
  corners: 0,
  noise: 0,
  towards: 0,
  castBy: 'xyz',
};

/** Chromaticity of daylight, CIE 15:2018, section 3.1 (4000-25000 K; below, its curve is gone on with). */
function daylightXyz(kelvin: number): Triple {
  const t = 1000 / kelvin;
  const x =
    kelvin <= 7000
      ? -4.607 * t ** 3 + 2.9678 * t ** 2 + 0.09911 * t + 0.244063
      : -2.0064 * t ** 3 + 1.9018 * t ** 2 + 0.24748 * t + 0.23704;
  const y = -3 * x * x + 2.87 * x - 0.275;
  return [x / y, 1, (1 - x - y) / y];
}

/** A patch as it is drawn: where, in what colour under D65 and 2°. */
export interface Drawn {
  readonly rect: Rect;
  readonly lab: Lab;
}

/** Draws patches on a grey table, in a light and with a camera that suffer: the true answer is known. */
export function renderPhoto(
  { width, height }: Pick<Picture, 'width' | 'height'>,
  patches: readonly Drawn[],
  { kelvin, stops, falloff, corners, noise, towards, castBy }: Suffering,
  seed: number,
): Picture {
  const random = seeded(seed);
  const white = daylightXyz(6504);
  const light = daylightXyz(kelvin);
  const gains = convertXyzToLinearSrgb([light[0], 1, light[2]]);
  const exposure = 2 ** stops;
  const linearOf = (lab: Lab): Triple => {
    const [x, y, z] = convertLabToXyz(lab, SCREEN);
    if (castBy === 'channels') {
      const [r, g, b] = convertXyzToLinearSrgb([x, y, z]);
      return [r * gains[0], g * gains[1], b * gains[2]];
    }
    // The light itself is another: what the camera catches is scaled band by band, here by X, Y and Z.
    return convertXyzToLinearSrgb([(x * light[0]) / white[0], y, (z * light[2]) / white[2]]);
  };
  const data = new Uint8ClampedArray(width * height * 4);
  const fills = [{ rect: { x: 0, y: 0, width, height }, lab: { L: 55, a: 0, b: 0 } }, ...patches].map(
    ({ rect, lab }) => ({ rect, linear: linearOf(lab) }),
  );
  const half = Math.max(width, height) / 2;
  for (const { rect, linear } of fills)
    for (let y = Math.round(rect.y); y < Math.round(rect.y + rect.height); y += 1)
      for (let x = Math.round(rect.x); x < Math.round(rect.x + rect.width); x += 1) {
        const [u, v] = [(x - width / 2) / half, (y - height / 2) / half];
        const along = (u * Math.cos(towards) + v * Math.sin(towards) + 1) / 2;
        const shade = exposure * (1 - falloff * along) * (1 - (corners * (u * u + v * v)) / 2);
        const at = (y * width + x) * 4;
        for (let c = 0; c < 3; c += 1) {
          const value = encodeSrgb(Math.min(1, Math.max(0, (linear[c] ?? 0) * shade)));
          data[at + c] = Math.round(255 * value + noise * random.normal());
        }
        data[at + 3] = 255;
      }
  return { width, height, data };
}

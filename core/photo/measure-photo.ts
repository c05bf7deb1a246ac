import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { chroma, meanLab } from '../colour/lab';
import type { Triple } from '../colour/xyz';
import { SCREEN, convertLabToLinearSrgb } from '../colour/xyz';
import { colourDrift } from './colour-drift';
import type { Evenness } from './evenness';
import { evennessOf } from './evenness';
import type { FittedLight } from './fit-light';
import { fitLight } from './fit-light';
import { solveUpper } from './least-squares';
import { LIGHT_PARAMETERS, labThroughLight } from './light-model';
import type { PatchMean } from './patch-mean';
import { meanOfPatch } from './patch-mean';
import type { PhotoRefusal } from './photo-refusal';
import type { Picture, Rect } from './picture';
import { isInside } from './picture';
import { seeded } from './seeded';

/** Something in a picture whose colour is known: L*a*b* under D65 and 2°. */
export interface KnownArea {
  readonly rect: Rect;
  readonly lab: Lab;
}

/** A piece in a picture that is to be measured. */
export interface WantedArea {
  readonly name: string;
  readonly rect: Rect;
}

/** What a picture says of one piece. */
export interface MeasuredArea {
  readonly name: string;
  /** Under D65 and 2°. */
  readonly lab: Lab;
  /** The truth lies no further than this four times in five, ΔE00. */
  readonly deltaE00Within80: number;
  readonly evenness: Evenness;
  /** How far its colour turns steadily from edge to edge, as two lights make it; `undefined`: it doesn’t. */
  readonly drift: number | undefined;
  /** How far each block of the piece lies from their mean, ΔE00, row by row; `across` of them in a row. */
  readonly map: { readonly across: number; readonly deltaE00: readonly number[] };
}

/** What a picture says; or why it says nothing. */
export type PhotoMeasure =
  | { readonly ok: true; readonly areas: readonly MeasuredArea[]; readonly light: FittedLight }
  | { readonly ok: false; readonly refusal: PhotoRefusal };

/** More than this is not opened: it takes more memory than a tablet has. */
export const MOST_MEGAPIXELS = 50;
const LEAST_SIDE_PX = 6;
const MOST_CLIPPED_SHARE = 0.02;
const LEAST_LINEAR = 0.002;
/** A patch of less chroma counts as neutral. */
const NEUTRAL_CHROMA = 10;
const MOST_RESIDUAL = 6;
const DRAWS = 240;
/** The same draws every time: the same picture says the same error. */
const DRAWN_FROM = 0x9e3779b9;
const WITHIN = 0.8;

/**
 * Measures pieces in a photograph by the known patches in it: the light is fitted to those (`fitLight`) and taken out of
 * the pieces; what is not sure of it, the noise of the pixels and the scatter of the patches make the error that is said.
 * @param knownWithinDeltaE00 how far the known patches may all lie from what they are said to be: a card that was never
 *   measured is only as the printer made it
 */
export function measurePhoto(
  picture: Picture,
  known: readonly KnownArea[],
  wanted: readonly WantedArea[],
  knownWithinDeltaE00 = 0,
): PhotoMeasure {
  const refuse = (refusal: PhotoRefusal): PhotoMeasure => ({ ok: false, refusal });
  const megapixels = (picture.width * picture.height) / 1e6;
  if (megapixels > MOST_MEGAPIXELS) return refuse({ code: 'tooLarge', megapixels });
  if (known.length === 0) return refuse({ code: 'noPatch' });
  if (!known.some(({ lab }) => chroma(lab) < NEUTRAL_CHROMA && lab.L > 25)) return refuse({ code: 'noNeutral' });

  const named = [
    ...known.map(({ rect }, i) => ({ rect, name: $localize`known patch ${i + 1}`, isKnown: true })),
    ...wanted.map(({ rect, name }) => ({ rect, name, isKnown: false })),
  ];
  const means: PatchMean[] = [];
  for (const { rect, name, isKnown } of named) {
    if (!isInside(picture, rect)) return refuse({ code: 'outside', name });
    if (Math.min(rect.width, rect.height) < LEAST_SIDE_PX) return refuse({ code: 'tooSmall', name });
    const mean = meanOfPatch(picture, rect);
    if (mean.clippedShare > MOST_CLIPPED_SHARE && !isKnown) return refuse({ code: 'clipped', name });
    if (Math.max(...mean.linear) < LEAST_LINEAR && !isKnown) return refuse({ code: 'tooDark', name });
    means.push(mean);
  }
  const half = Math.max(picture.width, picture.height) / 2;
  const placeOf = (x: number, y: number) => ({
    u: (x - picture.width / 2) / half,
    v: (y - picture.height / 2) / half,
  });
  const middle = (rect: Rect) => placeOf(rect.x + rect.width / 2, rect.y + rect.height / 2);
  const usable = known.flatMap(({ rect, lab }, i) => {
    const mean = means[i];
    const isClear =
      mean && canBeShown(lab) && mean.clippedShare <= MOST_CLIPPED_SHARE && Math.max(...mean.linear) >= LEAST_LINEAR;
    return isClear ? [{ lab, linear: mean.linear, standardError: mean.standardError, ...middle(rect) }] : [];
  });
  const clippedKnown = means.findIndex((m, i) => i < known.length && m.clippedShare > MOST_CLIPPED_SHARE);
  if (!usable.some(({ lab }) => chroma(lab) < NEUTRAL_CHROMA))
    return refuse(
      clippedKnown >= 0
        ? { code: 'clipped', name: $localize`known patch ${clippedKnown + 1}` }
        : { code: 'tooDark', name: $localize`the known patches` },
    );
  const light = fitLight(usable);
  if (light.residual > MOST_RESIDUAL) return refuse({ code: 'mixedLight', deltaE: light.residual });
  const draws = drawsOf(light);
  const areas = wanted.map(({ name, rect }, i): MeasuredArea => {
    const mean = means[known.length + i] as PatchMean;
    const place = middle(rect);
    const lab = labThroughLight(light.parameters, mean.linear, place);
    const blocks = mean.blocks.map((b) => labThroughLight(light.parameters, b.linear, placeOf(b.x, b.y)));
    const middleOf = meanLab(blocks);
    return {
      name,
      lab,
      deltaE00Within80: Math.hypot(errorOf(lab, mean, place, draws, light.scatter), knownWithinDeltaE00),
      evenness: evennessOf(blocks),
      drift: colourDrift(mean.blocks.map(({ x, y }, at) => ({ x, y, lab: blocks[at] ?? lab }))),
      map: {
        across: new Set(mean.blocks.map((b) => b.x)).size,
        deltaE00: blocks.map((b) => ciede2000(middleOf, b, { kL: 1, kC: 1, kH: 1 }).deltaE),
      },
    };
  });
  return { ok: true, areas, light };
}

/** A colour that no picture holds is no measure of one. */
const canBeShown = (lab: Lab): boolean =>
  convertLabToLinearSrgb(lab, SCREEN).every((channel) => channel > -0.002 && channel < 1.02);

interface Draw {
  readonly parameters: readonly number[];
  /** Independent deviates: three for the noise of the pixels, three for the scatter of patches. */
  readonly noise: readonly number[];
}

/** Lights as they might have been, by how sure the fit is; the same every time. */
function drawsOf({ parameters, precision }: FittedLight): Draw[] {
  const { normal } = seeded(DRAWN_FROM);
  return Array.from({ length: DRAWS }, () => {
    const off = solveUpper(
      precision,
      Array.from({ length: LIGHT_PARAMETERS }, () => normal()),
    );
    return {
      parameters: parameters.map((p, i) => p + (off[i] ?? 0)),
      noise: Array.from({ length: 6 }, () => normal()),
    };
  });
}

/** The radius that holds four in five of what the colour might have been. */
function errorOf(
  lab: Lab,
  { linear, standardError }: PatchMean,
  place: { readonly u: number; readonly v: number },
  draws: readonly Draw[],
  scatter: number,
): number {
  const far = draws.map(({ parameters, noise }) => {
    const [n0 = 0, n1 = 0, n2 = 0, n3 = 0, n4 = 0, n5 = 0] = noise;
    const noisy: Triple = [
      linear[0] + n0 * standardError[0],
      linear[1] + n1 * standardError[1],
      linear[2] + n2 * standardError[2],
    ];
    const might = labThroughLight(parameters, noisy, place);
    const scattered = { L: might.L + n3 * scatter, a: might.a + n4 * scatter, b: might.b + n5 * scatter };
    return ciede2000(lab, scattered, { kL: 1, kC: 1, kH: 1 }).deltaE;
  });
  far.sort((x, y) => x - y);
  return far[Math.min(far.length - 1, Math.floor(WITHIN * far.length))] ?? 0;
}

import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { SCREEN, convertLabToLinearSrgb, encodeSrgb } from '../colour/xyz';
import { findCard } from './find-card';
import { measurePhoto } from './measure-photo';
import { CARD, CARD_PATCHES, FINDER } from './patch-card';
import type { Picture } from './picture';
import { seeded } from './seeded';

const PAPER: Lab = { L: 96, a: 0, b: 0 };
const INK: Lab = { L: 8, a: 0, b: 0 };
const TABLE: Lab = { L: 52, a: 3, b: 8 };
const PIECE: Lab = { L: 58, a: 12, b: 38 };

/** The colour of a point of the card, in its own measure. */
function onCard(x: number, y: number): Lab {
  for (const cx of [FINDER.inset, CARD.width - FINDER.inset])
    for (const cy of [FINDER.inset, CARD.height - FINDER.inset]) {
      const out = Math.max(Math.abs(x - cx), Math.abs(y - cy)) / (FINDER.size / 7);
      if (out < 3.5) return out < 1.5 || out >= 2.5 ? INK : PAPER;
    }
  return CARD_PATCHES.find((p) => x >= p.x && x < p.x + p.width && y >= p.y && y < p.y + p.height)?.lab ?? PAPER;
}

interface Laid {
  readonly degrees: number;
  readonly scale: number;
  /** How much nearer its right edge is to the camera than its left. */
  readonly slant?: number;
  readonly noise?: number;
  readonly without?: boolean;
}

/** A photograph of the card on a table, turned and slanted, a dyed piece beside it. */
function photograph({ degrees, scale, slant = 0, noise = 0, without = false }: Laid, seed = 1): Picture {
  const [width, height] = [800, 600];
  const data = new Uint8ClampedArray(width * height * 4);
  const { normal } = seeded(seed);
  const turn = (degrees * Math.PI) / 180;
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const [dx, dy] = [(x - 300) / scale, (y - 300) / scale];
      const w = 1 / (1 - (slant * (dx * Math.cos(turn) + dy * Math.sin(turn))) / CARD.width);
      const cardX = (dx * Math.cos(turn) + dy * Math.sin(turn)) * w + CARD.width / 2;
      const cardY = (-dx * Math.sin(turn) + dy * Math.cos(turn)) * w + CARD.height / 2;
      const isCard = !without && cardX >= 0 && cardX < CARD.width && cardY >= 0 && cardY < CARD.height;
      const isPiece = x > 640 && x < 780 && y > 230 && y < 380;
      const lab = isCard ? onCard(cardX, cardY) : isPiece ? PIECE : TABLE;
      const linear = convertLabToLinearSrgb(lab, SCREEN);
      for (let c = 0; c < 3; c += 1)
        data[(y * width + x) * 4 + c] =
          255 * encodeSrgb(Math.min(1, Math.max(0, 0.8 * (linear[c] ?? 0)))) + noise * normal();
      data[(y * width + x) * 4 + 3] = 255;
    }
  return { width, height, data };
}

describe('the printed card', () => {
  it.each<[string, Laid]>([
    ['straight', { degrees: 0, scale: 4 }],
    ['small', { degrees: 0, scale: 2.4 }],
    ['turned a little', { degrees: 12, scale: 3.6 }],
    ['upside down', { degrees: 180, scale: 3.6 }],
    ['on its side', { degrees: 90, scale: 3.6 }],
    ['turned, slanted a little and noisy', { degrees: -25, scale: 3.6, slant: 0.15, noise: 4 }],
  ])('is found %s, every patch in its place, and the piece beside it measured', (_name, laid) => {
    const picture = photograph(laid);
    const found = findCard(picture);
    if (!found.ok) throw new Error(found.reason);
    expect(found.patches).toHaveLength(CARD_PATCHES.length);
    const known = found.patches.map((rect, i) => ({ rect, lab: CARD_PATCHES[i]!.lab }));
    const measured = measurePhoto(picture, known, [{ name: 'A', rect: { x: 655, y: 250, width: 110, height: 110 } }]);
    if (!measured.ok) throw new Error(measured.refusal.code);
    expect(ciede2000(PIECE, measured.areas[0]!.lab, { kL: 1, kC: 1, kH: 1 }).deltaE).toBeLessThan(2);
  });
  it('is told to be too much on the slant, and not made up where there is none', () => {
    expect(findCard(photograph({ degrees: 0, scale: 3.6, slant: 0.5 }))).toEqual({ ok: false, reason: 'slanted' });
    expect(findCard(photograph({ degrees: 0, scale: 3.6, without: true }))).toEqual({ ok: false, reason: 'notFound' });
  });
});

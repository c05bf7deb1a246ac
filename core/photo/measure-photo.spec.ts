import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { measurePhoto } from './measure-photo';
import { sayPhotoRefusal } from './photo-refusal';
import type { Picture } from './picture';
import type { Drawn, Suffering } from './render-photo.fixture';
import { IN_GOOD_LIGHT, renderPhoto } from './render-photo.fixture';
import { seeded } from './seeded';

const SIZE = { width: 320, height: 240 };
const NEUTRALS: readonly Lab[] = [80, 62, 46, 31].map((L) => ({ L, a: 0, b: 0 }));
const DYES: readonly Lab[] = [
  { L: 72, a: -4, b: 52 },
  { L: 42, a: 34, b: 18 },
  { L: 38, a: -6, b: -22 },
];
const knownOf = (labs: readonly Lab[]): Drawn[] =>
  labs.map((lab, i) => ({ rect: { x: 10 + i * 50, y: 10, width: 42, height: 42 }, lab }));
const wantedOf = (labs: readonly Lab[]): Drawn[] =>
  labs.map((lab, i) => ({ rect: { x: 12 + i * 80, y: 130, width: 70, height: 90 }, lab }));
const far = (x: Lab, y: Lab): number => ciede2000(x, y, { kL: 1, kC: 1, kH: 1 }).deltaE;

function measured(suffering: Partial<Suffering>, cards: readonly Lab[] = NEUTRALS, dyes = DYES, seed = 1) {
  const [known, wanted] = [knownOf(cards), wantedOf(dyes)];
  const picture = renderPhoto(SIZE, [...known, ...wanted], { ...IN_GOOD_LIGHT, ...suffering }, seed);
  const found = measurePhoto(
    picture,
    known,
    wanted.map(({ rect }, i) => ({ rect, name: `piece ${i + 1}` })),
  );
  if (!found.ok) throw new Error(sayPhotoRefusal(found.refusal));
  return found.areas;
}

describe('pieces in a photograph', () => {
  it('are what they are in good light, and say so with a small error', () => {
    for (const [i, area] of measured({}).entries()) {
      expect(far(DYES[i]!, area.lab)).toBeLessThan(0.5);
      expect(area.deltaE00Within80).toBeLessThan(1.2);
      expect(area.evenness.maxDeltaE00).toBeLessThan(0.5);
    }
  });
  it.each<[string, Partial<Suffering>]>([
    ['a lamp', { kelvin: 5000 }],
    ['a blue sky', { kelvin: 8000 }],
    ['too little exposure', { stops: -1.5 }],
    ['light that falls off', { falloff: 0.1, corners: 0.1, towards: 0.6 }],
    ['noise', { noise: 6 }],
  ])('are found again through %s', (_name, suffering) => {
    for (const [i, area] of measured(suffering).entries()) expect(far(DYES[i]!, area.lab)).toBeLessThan(2.2);
  });

  it('over many lights lie within the error that is said about as often as that says', () => {
    const random = seeded(5);
    const found: { off: number; said: number }[] = [];
    for (let i = 0; i < 60; i += 1) {
      const dyes = DYES.map(() => ({
        L: 30 + 45 * random.uniform(),
        a: -15 + 45 * random.uniform(),
        b: -15 + 60 * random.uniform(),
      }));
      const suffering = {
        kelvin: 6504 + 3000 * (random.uniform() - 0.5),
        stops: -1.5 + 2 * random.uniform(),
        falloff: 0.1 * random.uniform(),
        corners: 0.1 * random.uniform(),
        noise: 1 + 3 * random.uniform(),
        towards: 2 * Math.PI * random.uniform(),
        castBy: i % 3 === 0 ? ('channels' as const) : ('xyz' as const),
      };
      const areas = measured(suffering, i % 2 === 0 ? NEUTRALS : NEUTRALS.slice(1, 2), dyes, i);
      found.push(...areas.map((a, k) => ({ off: far(dyes[k]!, a.lab), said: a.deltaE00Within80 })));
    }
    const off = found.map((f) => f.off).sort((x, y) => x - y);
    expect(off[Math.floor(off.length / 2)]).toBeLessThan(2);
    expect(off[Math.floor(off.length * 0.95)]).toBeLessThan(4);
    const within = found.filter((f) => f.off <= f.said).length / found.length;
    expect([within > 0.72, within < 0.95]).toEqual([true, true]);
  });

  it('are less sure by one grey card than by several patches', () => {
    const [one, four] = [measured({}, NEUTRALS.slice(1, 2)), measured({})];
    for (const [i, area] of one.entries()) expect(area.deltaE00Within80).toBeGreaterThan(four[i]!.deltaE00Within80);
  });

  it('that are patchy say so, and how far', () => {
    const wanted = wantedOf(DYES.slice(0, 1));
    const [{ rect }] = wanted as [Drawn];
    const half = { rect: { ...rect, width: rect.width / 2 }, lab: { L: 66, a: -4, b: 46 } };
    const picture = renderPhoto(SIZE, [...knownOf(NEUTRALS), ...wanted, half], { ...IN_GOOD_LIGHT, noise: 2 }, 3);
    const found = measurePhoto(picture, knownOf(NEUTRALS), [{ rect, name: 'hank' }]);
    const evenness = found.ok ? found.areas[0]?.evenness : undefined;
    expect(evenness?.maxDeltaE00).toBeGreaterThan(1.5);
    expect(evenness?.meanDeltaE00).toBeGreaterThan(1);
  });
});

describe('a photograph that says nothing is refused, with what to do', () => {
  const wanted = wantedOf(DYES).map(({ rect }, i) => ({ rect, name: `piece ${i + 1}` }));
  const taken = (suffering: Partial<Suffering>, more: readonly Drawn[] = []): Picture =>
    renderPhoto(SIZE, [...knownOf(NEUTRALS), ...wantedOf(DYES), ...more], { ...IN_GOOD_LIGHT, ...suffering }, 4);
  it.each<[string, () => ReturnType<typeof measurePhoto>, RegExp]>([
    ['nothing known in it', () => measurePhoto(taken({}), [], wanted), /Lay a grey card/],
    ['no neutral', () => measurePhoto(taken({}), knownOf(DYES), wanted), /No neutral is among/],
    ['too bright', () => measurePhoto(taken({ stops: 2.5 }), knownOf(NEUTRALS), wanted), /too bright/],
    ['too dark', () => measurePhoto(taken({ stops: -9 }), knownOf(NEUTRALS), wanted), /too dark/],
    [
      'a piece beyond its edge',
      () =>
        measurePhoto(taken({}), knownOf(NEUTRALS), [{ name: 'hank', rect: { x: 300, y: 10, width: 60, height: 60 } }]),
      /“hank” lies outside/,
    ],
    [
      'a piece of a few pixels',
      () =>
        measurePhoto(taken({}), knownOf(NEUTRALS), [{ name: 'hank', rect: { x: 20, y: 150, width: 3, height: 3 } }]),
      /too small/,
    ],
    [
      'patches marked in the wrong order',
      () =>
        measurePhoto(
          taken({}),
          knownOf(NEUTRALS).map((k, i) => ({ ...k, lab: NEUTRALS[(i + 2) % 4] as Lab })),
          wanted,
        ),
      /don’t agree/,
    ],
    [
      'sixty megapixels',
      () => measurePhoto({ width: 10_000, height: 6000, data: new Uint8Array(0) }, knownOf(NEUTRALS), wanted),
      /60 megapixels/,
    ],
  ])('%s', (_name, measure, said) => {
    const found = measure();
    expect(found.ok ? 'measured' : sayPhotoRefusal(found.refusal)).toMatch(said);
  });
  it('light of two kinds on the known patches', () => {
    const known = knownOf([...NEUTRALS, NEUTRALS[1]!]);
    const [blue, yellow] = [
      renderPhoto(SIZE, known, { ...IN_GOOD_LIGHT, kelvin: 9000 }, 1),
      renderPhoto(SIZE, known, { ...IN_GOOD_LIGHT, kelvin: 3600 }, 1),
    ];
    const data = Uint8ClampedArray.from(blue.data);
    for (let y = 0; y < SIZE.height; y += 1)
      for (let x = 110; x < SIZE.width; x += 1)
        for (let c = 0; c < 3; c += 1)
          data[(y * SIZE.width + x) * 4 + c] = yellow.data[(y * SIZE.width + x) * 4 + c] ?? 0;
    const found = measurePhoto({ ...SIZE, data }, known, []);
    expect(found.ok ? 'measured' : sayPhotoRefusal(found.refusal)).toMatch(/Two lights may fall/);
  });
});

// What judging costs and how right it is: `npm run bench -- --judge`.
import '@angular/localize/init';
import { converter, differenceCiede2000, modeLab65, useMode } from 'culori/fn';
import jpeg from 'jpeg-js';
import { ciede2000, indexLabs, measurePhoto, sortIntoSets } from '../../core/index';
import type { Lab } from '../../core/index';
import type { Drawn } from '../../core/photo/render-photo.fixture';
import { IN_GOOD_LIGHT, renderPhoto } from '../../core/photo/render-photo.fixture';
import { seeded } from '../../core/photo/seeded';
import { percentile } from './report.mjs';

const EVEN = { kL: 1, kC: 1, kH: 1 };
const anyLab = (random: ReturnType<typeof seeded>): Lab => ({
  L: 100 * random.uniform(),
  a: 200 * random.uniform() - 100,
  b: 200 * random.uniform() - 100,
});

/** CIEDE2000 beside a second library, on random pairs. */
function secondLibrary(): void {
  useMode(modeLab65);
  const asTheirs = converter('lab65');
  const theirs = differenceCiede2000();
  const random = seeded(1);
  let worst = 0;
  for (let i = 0; i < 100_000; i += 1) {
    const [x, y] = [anyLab(random), anyLab(random)];
    const one = ciede2000(x, y, EVEN).deltaE;
    const two = theirs(
      asTheirs({ mode: 'lab65', l: x.L, a: x.a, b: x.b }),
      asTheirs({ mode: 'lab65', l: y.L, a: y.a, b: y.b }),
    );
    worst = Math.max(worst, Math.abs(one - two));
  }
  console.log(`CIEDE2000 beside a second library, 100,000 random pairs: furthest ${worst.toExponential(1)} (aim 1e-6)`);
}

/** The nearest of many, against comparing with every one. */
function nearestOfMany(): void {
  const random = seeded(2);
  const dyes = Array.from({ length: 100_000 }, () => ({
    L: 20 + 70 * random.uniform(),
    a: 70 * random.uniform() - 25,
    b: 90 * random.uniform() - 25,
  }));
  const index = indexLabs(dyes);
  const times: number[] = [];
  const brute: number[] = [];
  let wrong = 0;
  for (let i = 0; i < 60; i += 1) {
    const to = i % 10 === 9 ? anyLab(random) : (dyes[Math.floor(random.uniform() * dyes.length)] as Lab);
    const asked = { L: to.L + 2 * random.normal(), a: to.a + 3 * random.normal(), b: to.b + 3 * random.normal() };
    let began = performance.now();
    const [found] = index.nearest(asked, 1);
    times.push(performance.now() - began);
    began = performance.now();
    let best = Infinity;
    for (const lab of dyes) best = Math.min(best, ciede2000(asked, lab, EVEN).deltaE);
    brute.push(performance.now() - began);
    if (found?.deltaE !== best) wrong += 1;
  }
  console.log(
    `nearest of 100,000 by CIEDE2000: p50 ${percentile(times, 0.5).toFixed(1)} ms, p95 ${percentile(times, 0.95).toFixed(1)} ms, worst ${Math.max(...times).toFixed(1)} ms (aim 15); comparing with all ${percentile(brute, 0.5).toFixed(0)} ms; otherwise than that ${wrong} times`,
  );
}

/** Pieces of a lot into sets, beside filling sets by what lies nearest. */
function sets(pieces: number, size: number, aim: string): void {
  const random = seeded(pieces);
  const labs = Array.from({ length: pieces }, () => ({
    L: 55 + 4 * random.normal(),
    a: 20 + 3 * random.normal(),
    b: 30 + 4 * random.normal(),
  }));
  const apart = (x: number, y: number): number => ciede2000(labs[x] as Lab, labs[y] as Lab, EVEN).deltaE;
  const began = performance.now();
  const { worst } = sortIntoSets(pieces, size, apart);
  const took = performance.now() - began;
  // As hands do it: from the palest, each set filled by what lies nearest.
  const free = labs.map((_, i) => i).sort((x, y) => (labs[x]?.L ?? 0) - (labs[y]?.L ?? 0));
  let byHand = 0;
  while (free.length >= size) {
    const set = [free.shift() ?? 0];
    while (set.length < size) {
      const far = (p: number): number => Math.max(...set.map((q) => apart(p, q)));
      free.sort((x, y) => far(x) - far(y));
      set.push(free.shift() ?? 0);
    }
    for (const x of set) for (const y of set) byHand = Math.max(byHand, x === y ? 0 : apart(x, y));
  }
  console.log(
    `${pieces} pieces into sets of ${size}: ${(took / 1000).toFixed(2)} s (aim ${aim}), worst pair ΔE00 ${worst.toFixed(2)}; by what lies nearest ${byHand.toFixed(2)}`,
  );
}

/** A picture of twelve megapixels, once its pixels are there. */
function largePicture(): void {
  const size = { width: 4000, height: 3000 };
  const card = { rect: { x: 200, y: 200, width: 700, height: 600 }, lab: { L: 49.5, a: 0, b: 0 } };
  const pieces = Array.from({ length: 6 }, (_, i) => ({
    rect: { x: 200 + 620 * i, y: 1200, width: 500, height: 1500 },
    lab: { L: 40 + 6 * i, a: 20, b: 10 + 5 * i },
  }));
  const picture = renderPhoto(size, [card, ...pieces], { ...IN_GOOD_LIGHT, noise: 2 }, 1);
  const began = performance.now();
  measurePhoto(
    picture,
    [card],
    pieces.map(({ rect }, i) => ({ rect, name: String(i) })),
  );
  console.log(
    `12 megapixels, six pieces: ${(performance.now() - began).toFixed(0)} ms (aim 1500, with the picture opened)`,
  );
}

const CHART: readonly Lab[] = [
  { L: 95, a: 0, b: 1 },
  { L: 80, a: 0, b: 0 },
  { L: 62, a: 0, b: 0 },
  { L: 46, a: 0, b: 0 },
  { L: 31, a: 0, b: 0 },
  { L: 50, a: 55, b: 35 },
  { L: 55, a: -40, b: 34 },
  { L: 32, a: 20, b: -50 },
  { L: 80, a: 4, b: 75 },
  { L: 50, a: 48, b: -14 },
  { L: 52, a: -25, b: -26 },
  { L: 40, a: 14, b: 16 },
];

/** How many of the known patches a picture has: a grey card, a few neutrals, a small set, a chart. */
const CARDS: readonly (readonly [name: string, patches: readonly number[]])[] = [
  ['one grey card', [2]],
  ['four neutrals', [0, 1, 3, 4]],
  ['six patches', [1, 3, 5, 6, 7, 8]],
  ['twelve patches', CHART.map((_, i) => i)],
];

/** Photographs made under casts, gradients, noise and JPEG, measured; the true answer is known. */
function photographs(each: number): void {
  const all: { far: number; said: number }[] = [];
  for (const [name, card] of CARDS) {
    const random = seeded(card.length * 97);
    const found: { far: number; said: number }[] = [];
    const refused = new Map<string, number>();
    for (let i = 0; i < each; i += 1) {
      const [width, height] = [800, 600];
      const known: Drawn[] = card.map((c, k) => ({
        rect: { x: 30 + (k % 6) * 125, y: 30 + Math.floor(k / 6) * 120, width: 100, height: 90 },
        lab: CHART[c] as Lab,
      }));
      const wanted: Drawn[] = Array.from({ length: 4 }, (_, k) => ({
        rect: { x: 40 + k * 190, y: 330, width: 150, height: 200 },
        lab: {
          L: 28 + 55 * random.uniform(),
          a: -20 + 55 * random.uniform(),
          b: -20 + 70 * random.uniform(),
        },
      }));
      const picture = renderPhoto(
        { width, height },
        [...known, ...wanted],
        {
          kelvin: 6504 + 3000 * (random.uniform() - 0.5),
          stops: 3 * (random.uniform() - 0.5),
          falloff: 0.1 * random.uniform(),
          corners: 0.1 * random.uniform(),
          noise: 1 + 3 * random.uniform(),
          towards: 2 * Math.PI * random.uniform(),
          castBy: i % 2 === 0 ? 'xyz' : 'channels',
        },
        i + 1,
      );
      const sent = jpeg.decode(jpeg.encode({ ...picture, data: Buffer.from(picture.data) }, 85).data, {
        useTArray: true,
      });
      const measured = measurePhoto(
        sent,
        known,
        wanted.map((w, k) => ({ rect: w.rect, name: String(k) })),
      );
      if (!measured.ok) {
        refused.set(measured.refusal.code, (refused.get(measured.refusal.code) ?? 0) + 1);
        continue;
      }
      for (const [k, area] of measured.areas.entries())
        found.push({ far: ciede2000((wanted[k] as Drawn).lab, area.lab, EVEN).deltaE, said: area.deltaE00Within80 });
    }
    all.push(...found);
    tell(name, each, found, refused);
  }
  tell('all of them', each * CARDS.length, all, new Map());
}

function tell(
  name: string,
  photos: number,
  found: readonly { far: number; said: number }[],
  refused: ReadonlyMap<string, number>,
): void {
  const far = found.map((f) => f.far);
  const within = found.filter((f) => f.far <= f.said).length / found.length;
  const no = [...refused].map(([code, n]) => `${n} ${code}`).join(', ');
  console.log(
    `${photos} photographs, ${name}: error p50 ${percentile(far, 0.5).toFixed(2)}, p95 ${percentile(far, 0.95).toFixed(2)} ΔE00 (aim 2.0 and 4); within what was said ${(100 * within).toFixed(0)} % (aim 75-90); said p50 ${percentile(
      found.map((f) => f.said),
      0.5,
    ).toFixed(2)}${no ? `; refused ${no}` : ''}`,
  );
}

secondLibrary();
nearestOfMany();
sets(60, 5, '2 s');
sets(240, 6, '10 s');
largePicture();
photographs(75);

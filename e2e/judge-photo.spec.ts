import type { LotDetail, LotSummary } from '@vestigia/contract';
import { ciede2000 } from '@vestigia/core';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import jpeg from 'jpeg-js';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { IN_GOOD_LIGHT, renderPhoto } from '../core/photo/render-photo.fixture';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

/** A telephone and a grey card: what a studio has instead of an instrument. */
describe('a lot is read from a photograph', () => {
  const SIZE = { width: 900, height: 600 };
  const card = { rect: { x: 60, y: 60, width: 200, height: 180 }, lab: { L: 49.5, a: 0, b: 0 } };
  const hank = { rect: { x: 420, y: 200, width: 380, height: 320 }, lab: { L: 52, a: 28, b: 16 } };
  let folder: string;
  const demo = inDemoStudio();
  let isaby: Someone;
  let lot: LotSummary;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'vestigia-photo-'));
    ({ isaby } = demo);
    lot = (await isaby.ask<LotSummary[]>('/api/lots')).find((l) => l.state === 'toJudge' || l.state === 'held')!;
  });
  afterAll(() => {
    rmSync(folder, { recursive: true, force: true });
  });

  const picture = (name: string, stops: number): string => {
    const drawn = renderPhoto(SIZE, [card, hank], { ...IN_GOOD_LIGHT, kelvin: 5600, stops, noise: 3 }, 9);
    const path = join(folder, name);
    writeFileSync(path, jpeg.encode({ ...drawn, data: Buffer.from(drawn.data) }, 88).data);
    return path;
  };
  const take = async (path: string): Promise<void> => {
    await isaby.press('Read it from a photograph, with a grey card', 'summary');
    const file = (await isaby.page.waitForSelector(
      'vs-photo-reading input[type=file]',
    )) as ElementHandle<HTMLInputElement>;
    await file.uploadFile(path);
    await isaby.page.waitForSelector('vs-photo-reading .frame canvas[width]');
  };
  /** Drags across a part of the picture, a little within its rim. */
  const drag = async ({ x, y, width, height }: typeof card.rect): Promise<void> => {
    const frame = (await isaby.page.waitForSelector('vs-photo-reading .frame'))!;
    await frame.evaluate((e) => e.scrollIntoView({ block: 'center' }));
    const box = (await frame.boundingBox())!;
    const at = (px: number, py: number): [number, number] => [
      box.x + (px / SIZE.width) * box.width,
      box.y + (py / SIZE.height) * box.height,
    ];
    await isaby.page.mouse.move(...at(x + 12, y + 12));
    await isaby.page.mouse.down();
    await isaby.page.mouse.move(...at(x + width / 2, y + height / 2));
    await isaby.page.mouse.move(...at(x + width - 12, y + height - 12));
    await isaby.page.mouse.up();
  };

  it('the card and the piece are marked, and what was read is kept with how sure it is', async () => {
    await isaby.settled(`/judge/${lot.id}`);
    await take(picture('good.jpg', -0.4));
    await isaby.sees('Mark the grey card first', 'vs-photo-reading');
    await drag(card.rect);
    await isaby.sees('Mark a piece: drag', 'vs-photo-reading');
    await drag(hank.rect);
    await isaby.press('Measure them');
    await isaby.sees(/within ΔE00 \d\.\d four times in five, even/, 'vs-photo-reading');
    await isaby.press('Keep piece A as a reading');
    await isaby.sees('Kept.', 'vs-photo-reading');
    const { readings } = await isaby.ask<LotDetail>(`/api/lots/${lot.id}`);
    const read = readings.at(-1)!;
    expect(read.taken).toMatchObject({ way: 'photo', evenness: { maxDeltaE00: expect.any(Number) as number } });
    const far = ciede2000(hank.lab, read.lab, { kL: 1, kC: 1, kH: 1 }).deltaE;
    expect(far, JSON.stringify(read)).toBeLessThan(3);
    await isaby.sees('from a photograph, within', '.readings table');
  });

  it('a spectrum out of a reader’s file is read under the master’s light, and says so', async () => {
    const nm = Array.from({ length: 31 }, (_, i) => 400 + i * 10);
    const path = join(folder, 'reader.csv');
    writeFileSync(
      path,
      [['name', ...nm].join(','), ['weld', ...nm.map((w) => (w < 500 ? 0.1 : 0.6))].join(',')].join('\n'),
    );
    await isaby.settled(`/judge/${lot.id}`);
    await isaby.press('Out of a reader’s file', 'summary');
    const file = (await isaby.page.waitForSelector(
      'vs-reader-file input[type=file]',
    )) as ElementHandle<HTMLInputElement>;
    await file.uploadFile(path);
    await isaby.sees(/Worked out from its spectrum under D65, 10°/, 'vs-reader-file');
    await isaby.press('Keep the reading');
    await isaby.sees('from a spectrum', '.readings table');
    const { readings } = await isaby.ask<LotDetail>(`/api/lots/${lot.id}`);
    expect([readings.at(-1)?.taken?.way, (readings.at(-1)?.lab.b ?? 0) > 40]).toEqual(['spectrum', true]);
  });

  it('pieces that were read one by one sort into sets that match, in a worker', async () => {
    for (const [i, L] of [50, 62, 51, 63, 80].entries())
      await isaby.send(`/api/lots/${lot.id}/readings`, {
        id: crypto.randomUUID(),
        batch: 1,
        piece: `tag ${'abcde'[i]}`,
        state: 'dry',
        lab: { L, a: 20, b: 15 },
        illuminant: 'D65',
        observer: '10',
        note: '',
        replacesId: null,
      });
    await isaby.settled(`/judge/${lot.id}`);
    await isaby.press('Sort its pieces into sets that match', 'summary');
    await isaby.write('Pieces in a set', '2');
    await isaby.press('Sort 5 pieces into sets');
    await isaby.sees('2 sets; the worst pair in any lies', 'vs-sets-of-lot');
    await isaby.sees('Left over: piece tag e.', 'vs-sets-of-lot');
    const sets = await isaby.page.$$eval('vs-sets-of-lot [role=group]', (groups) =>
      groups.map((g) => [...g.querySelectorAll('figcaption')].map((c) => c.textContent?.trim())),
    );
    expect(sets.map((s) => s.sort()).sort()).toEqual([
      ['tag a', 'tag c'],
      ['tag b', 'tag d'],
    ]);
  });

  it('by figures alone, without a pointer; and a picture that is too bright says what to do', async () => {
    await isaby.settled(`/judge/${lot.id}`);
    await take(picture('bright.jpg', 2.4));
    await isaby.press('Mark it by figures');
    await isaby.press('What is marked, in pixels', 'summary');
    for (const [label, value] of [
      ['Left', 70],
      ['Top', 70],
      ['Width', 170],
      ['Height', 150],
    ] as const)
      await isaby.write(`${label}, grey card`, String(value));
    await isaby.press('Mark it by figures');
    await isaby.press('Measure them');
    await isaby.sees(/too bright.*Take it again, darker/, 'vs-photo-reading');
    expect(isaby.troubles).toEqual([]);
  });
});

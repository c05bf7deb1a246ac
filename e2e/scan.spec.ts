import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Tag } from '@vestigia/contract';
import { PNG } from 'pngjs';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { encode } from 'uqr';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serveDemo } from '../scripts/serve.mjs';
import { Someone } from './person';

const [WIDTH, HEIGHT, MODULE_PX] = [640, 480, 9];

/** What a camera would see of a printed tag: the code in the middle of a grey table. Light as 0 to 255, row by row. */
function seenTag(code: string): Uint8Array {
  const { data, size } = encode(code, { ecc: 'M', border: 4 });
  const light = new Uint8Array(WIDTH * HEIGHT).fill(150);
  const [left, top] = [(WIDTH - size * MODULE_PX) >> 1, (HEIGHT - size * MODULE_PX) >> 1];
  for (let y = 0; y < size * MODULE_PX; y += 1)
    for (let x = 0; x < size * MODULE_PX; x += 1) {
      const dark = data[Math.floor(y / MODULE_PX)]?.[Math.floor(x / MODULE_PX)];
      light[(top + y) * WIDTH + left + x] = dark ? 30 : 225;
    }
  return light;
}

/** The same as a film without colour, for a browser that takes a file for its camera (YUV4MPEG2). */
function asFilm(light: Uint8Array): Buffer {
  const grey = Buffer.alloc((WIDTH * HEIGHT) / 2, 128);
  const frame = Buffer.concat([Buffer.from('FRAME\n'), light, grey]);
  return Buffer.concat([Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F10:1 Ip A1:1 C420jpeg\n`), frame, frame, frame]);
}

function asPicture(light: Uint8Array): Buffer {
  const png = new PNG({ width: WIDTH, height: HEIGHT });
  light.forEach((v, i) => png.data.set([v, v, v, 255], i * 4));
  return PNG.sync.write(png);
}

describe('a tag that is scanned', () => {
  let server: Served;
  let folder: string;
  let jar: Tag;
  let lot: Tag;
  const browsers: Browser[] = [];
  const open = async (...more: string[]): Promise<Someone> => {
    const browser = await launch(more);
    browsers.push(browser);
    const corin = await Someone.at(browser, server.base);
    await corin.signIn('Corin Ashlock', 'mud on the slipway');
    return corin;
  };

  beforeAll(async () => {
    server = await serveDemo();
    folder = mkdtempSync(join(tmpdir(), 'vestigia-scan-'));
    const corin = await open();
    const [stockLot] = await corin.ask<{ id: string }[]>('/api/stores');
    const [newest] = await corin.ask<{ id: string }[]>('/api/lots');
    [jar, lot] = await corin.page.evaluate(
      async (stockLotId, lotId) => {
        const tags = [
          { kind: 'stockLot', stockLotId },
          { kind: 'lot', lotId },
        ];
        const body = JSON.stringify({ id: crypto.randomUUID(), tags });
        const sent = await fetch('/api/tags', {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body,
        });
        return (await sent.json()) as [Tag, Tag];
      },
      stockLot?.id,
      newest?.id,
    );
  });
  afterAll(async () => {
    await Promise.all(browsers.map((b) => b.close()));
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  it('opens what it stands for as soon as the camera sees it', async () => {
    const film = join(folder, 'tag.y4m');
    writeFileSync(film, asFilm(seenTag(jar.code)));
    const corin = await open(
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${film}`,
    );
    await corin.go('/scan');
    await corin.page.waitForFunction((path) => location.pathname === path, {}, jar.path);
    await corin.sees(jar.title, 'main');
    expect(corin.troubles).toEqual([]);
  });

  it('is photographed or typed where the browser gives no camera', async () => {
    const corin = await open();
    await corin.go('/scan');
    await corin.sees('This browser gives no picture from its camera here');
    const upload = async (name: string, light: Uint8Array): Promise<void> => {
      const file = join(folder, name);
      writeFileSync(file, asPicture(light));
      const field = (await corin.page.waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
      await field.uploadFile(file);
    };
    await upload('table.png', new Uint8Array(WIDTH * HEIGHT).fill(150));
    await corin.sees('No code is to be seen in that picture');
    await upload('tag.png', seenTag(lot.code));
    await corin.page.waitForFunction((path) => location.pathname === path, {}, lot.path);
    await corin.go('/scan');
    await corin.write('Or type its code', lot.code.toLowerCase().slice(0, -1) + (lot.code.endsWith('0') ? '1' : '0'));
    await corin.press('Open it');
    await corin.sees('One sign of that code is wrong or two are swapped');
    await corin.write('Or type its code', jar.code.toLowerCase().replaceAll('-', ' '));
    await corin.press('Open it');
    await corin.page.waitForFunction((path) => location.pathname === path, {}, jar.path);
  });
});

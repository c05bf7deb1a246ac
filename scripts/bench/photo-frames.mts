// How long the page stands still while a 12-megapixel photograph is opened and measured: `npm run bench -- --frames`.
import '@angular/localize/init';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import jpeg from 'jpeg-js';
import type { ElementHandle } from 'puppeteer-core';
import { IN_GOOD_LIGHT, renderPhoto } from '../../core/photo/render-photo.fixture';
import { Someone } from '../../e2e/person';
import { launch } from '../browser.mjs';
import { serveDemo } from '../serve.mjs';

const SIZE = { width: 4000, height: 3000 };
const grey = { rect: { x: 1600, y: 1200, width: 800, height: 600 }, lab: { L: 49.5, a: 0, b: 0 } };
const folder = mkdtempSync(join(tmpdir(), 'vestigia-frames-'));
const drawn = renderPhoto(SIZE, [grey], { ...IN_GOOD_LIGHT, noise: 2 }, 3);
const path = join(folder, 'twelve.jpg');
writeFileSync(path, jpeg.encode({ ...drawn, data: Buffer.from(drawn.data) }, 85).data);

const [server, browser] = await Promise.all([serveDemo(), launch()]);
try {
  const isaby = await Someone.at(browser, server.base);
  await isaby.signIn('Isaby Fennimore', 'heron at low tide');
  const lots = await isaby.ask<{ id: string; state: string }[]>('/api/lots');
  await isaby.settled(`/judge/${lots.find((l) => l.state === 'toJudge' || l.state === 'held')?.id}`);
  await isaby.press('Read it from a photograph, with a grey card', 'summary');
  const file = (await isaby.page.waitForSelector(
    'vs-photo-reading input[type=file]',
  )) as ElementHandle<HTMLInputElement>;
  // As text: what is compiled on the way leaves names in it that a page doesn't know.
  await isaby.page.evaluate(`
    window.framesSeen = { last: performance.now(), longest: 0 };
    requestAnimationFrame(function frame() {
      const seen = window.framesSeen;
      const now = performance.now();
      seen.longest = Math.max(seen.longest, now - seen.last);
      seen.last = now;
      requestAnimationFrame(frame);
    });`);
  const longest = async (): Promise<number> =>
    Number(
      await isaby.page.evaluate(
        '(() => { const { longest } = window.framesSeen; window.framesSeen.longest = 0; return longest; })()',
      ),
    );
  await longest();
  let began = performance.now();
  await file.uploadFile(path);
  await isaby.page.waitForSelector('vs-photo-reading .frame canvas[width]');
  console.log(
    `12-megapixel photograph opened, the card looked for: ${Math.round(performance.now() - began)} ms, longest frame ${Math.round(await longest())} ms (aim 50)`,
  );
  await isaby.press('Mark it by figures');
  await isaby.press('Mark it by figures');
  await longest();
  began = performance.now();
  await isaby.press('Measure them');
  await isaby.sees(/within ΔE00/, 'vs-photo-reading');
  console.log(
    `measured: ${Math.round(performance.now() - began)} ms (aim 1500), longest frame ${Math.round(await longest())} ms (aim 50)`,
  );
} finally {
  await browser.close();
  await server.stop();
  server.remove();
  rmSync(folder, { recursive: true, force: true });
}

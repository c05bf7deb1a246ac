import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { AxeResults } from 'axe-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import { serve, temporaryFolder } from '../scripts/serve.mjs';
import { everyPage } from './every-page';
import { inDemoStudio } from './demo-studio';
import { Someone } from './person';
import { cutWords, tooWide } from './too-wide';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
describe('the interface', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  let pages: string[];
  beforeAll(async () => {
    ({ isaby } = demo);
    pages = await everyPage(isaby);
  });

  /** How many pixels have a tint of their own, all that shows dye left out. */
  const tinted = async (): Promise<number> => {
    const hidden = await isaby.page.addStyleTag(hideDye);
    const shot = await isaby.page.screenshot({ encoding: 'base64' });
    await hidden.evaluate((style) => (style as Element).remove());
    return isaby.page.evaluate(async (data) => {
      const image = new Image();
      image.src = `data:image/png;base64,${data}`;
      await image.decode();
      const canvas = new OffscreenCanvas(image.width, image.height).getContext(
        '2d',
      ) as OffscreenCanvasRenderingContext2D;
      canvas.drawImage(image, 0, 0);
      const { data: bytes } = canvas.getImageData(0, 0, image.width, image.height);
      let count = 0;
      for (let i = 0; i < bytes.length; i += 4)
        if (Math.max(bytes[i]!, bytes[i + 1]!, bytes[i + 2]!) - Math.min(bytes[i]!, bytes[i + 1]!, bytes[i + 2]!) > 2)
          count += 1;
      return count;
    }, shot);
  };
  const hideDye = {
    content:
      'vs-swatch svg, vs-thread svg, vs-trace-picture svg, vs-repeats svg, vs-colour-charts svg, vs-plan-picture .dye, vs-plan-picture .held span { visibility: hidden !important }',
  };
  /** What axe finds with everything on the page unfolded. */
  const unheeded = async (): Promise<string[]> => {
    // What the bar at the foot lies over just now is reached by moving the page, and comes before it when tabbed to.
    const lifted = await isaby.page.addStyleTag({ content: 'vs-act-bar { position: static !important }' });
    await isaby.unfold();
    // A colour on its way from light to dark is neither.
    await isaby.page.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished)));
    if (!(await isaby.page.evaluate(() => 'axe' in window))) await isaby.page.evaluate(AXE);
    const results = (await isaby.page.evaluate(() =>
      (window as unknown as { axe: { run(o: object): Promise<unknown> } }).axe.run({
        runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
      }),
    )) as AxeResults;
    await lifted.evaluate((style) => (style as Element).remove());
    return results.violations.map(
      (v) =>
        `${v.id} ${v.nodes
          .map((n) => n.html.slice(0, 160))
          .slice(0, 3)
          .join(' | ')}`,
    );
  };
  /** The bar at the foot stands whole above what lies below the sheet; a form's, as soon as its form has room for it. */
  const barsCut = (): Promise<string[]> =>
    isaby.page.evaluate(() => {
      const sheet = document.querySelector('.middle')?.getBoundingClientRect();
      return [...document.querySelectorAll('vs-act-bar')].flatMap((bar) => {
        const foot = sheet?.bottom ?? innerHeight;
        const { bottom, height } = bar.getBoundingClientRect();
        const below = bottom - foot;
        const begins = bar.closest('form')?.getBoundingClientRect().top ?? 0;
        const isStuck = getComputedStyle(bar).position === 'sticky' && bar.getClientRects().length > 0;
        return isStuck && begins + height <= foot && below > 1 ? [`the bar at the foot, by ${below}`] : [];
      });
    });
  const WINDOWS = [
    [1024, 1],
    [1280, 1],
    [1600, 1],
    [1280, 2],
    [390, 1],
    [320, 1],
  ] as const;
  /**
   * Every page is looked over at 1280 in the light, and in one more of these, in turn: all of them on every page take
   * ten minutes (`AXE=all`).
   */
  const LOOKS = [390, 768, 1024, 1280, 1600].flatMap((width) =>
    (['light', 'dark'] as const).map((scheme) => ({ width, scheme })),
  );

  // One walk looks at everything, since going to fifty pages is what takes the time; each finding is judged by itself
  // below.
  const found = {
    tint: [] as string[],
    rules: [] as string[],
    widths: [] as string[],
    low: [] as string[],
    cut: [] as string[],
  };
  it('is walked through, page by page', async () => {
    for (const [index, path] of pages.entries()) {
      await isaby.moves(`/${path}`);
      found.rules.push(...(await unheeded()).map((v) => `${path}: ${v}`));
      for (const { width, scheme } of process.env['AXE'] === 'all' ? LOOKS : [LOOKS[index % LOOKS.length]!]) {
        await isaby.page.setViewport({ width, height: 800 });
        await isaby.page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: scheme }]);
        found.rules.push(...(await unheeded()).map((v) => `${path}, ${width} wide, ${scheme}: ${v}`));
      }
      await isaby.page.emulateMediaFeatures([]);
      for (const [width, zoom] of WINDOWS) {
        await isaby.page.setViewport({ width: width / zoom, height: 800 / zoom, deviceScaleFactor: zoom });
        await isaby.drawn();
        found.widths.push(...(await tooWide(isaby.page)).map((w) => `${path} at ${width}, zoomed ${zoom}: ${w}`));
        for (const cut of [...(await barsCut()), ...(await cutWords(isaby.page))])
          found.cut.push(`${path} at ${width}, zoomed ${zoom}: ${cut}`);
      }
      await isaby.page.setViewport({ width: 1280, height: 800 });
      const top = await isaby.page.evaluate(() => document.querySelector('main')!.getBoundingClientRect().top);
      if (top !== 0) found.low.push(`${path}: ${top}`);
      const count = await tinted();
      if (count > 0) found.tint.push(`${path}: ${count} pixels`);
    }
    expect(pages.length).toBeGreaterThan(40);
  });
  it('has no colour but the dye', () => expect(found.tint).toEqual([]));
  it('has no colour but the dye in the dark either', async () => {
    await isaby.page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'dark' }]);
    for (const path of pages.slice(-9)) {
      await isaby.moves(`/${path}`);
      expect(await tinted(), path).toBe(0);
    }
    await isaby.page.emulateMediaFeatures([]);
  });
  it('begins every page at the top: what has nothing to say takes no room', () => expect(found.low).toEqual([]));
  it('passes the accessibility rules of WCAG 2.2 AA that a machine can check', () => expect(found.rules).toEqual([]));
  it('fits windows 1024, 1280, 1600, 390 and 320 wide, and 1280 zoomed twice, without scrolling sideways', () =>
    expect(found.widths).toEqual([]));

  it('has the one action of a page whole in sight, in however many rows, and no words cut', () =>
    expect(found.cut).toEqual([]));

  it('is gone through by keyboard alone', async () => {
    const { page } = isaby;
    await isaby.go('/today');
    await page.keyboard.press('6');
    await isaby.sees('Lots', 'h1');
    await page.keyboard.press('?');
    await isaby.sees('the places, down the spine');
    await page.keyboard.press('Escape');
    await page.keyboard.press('/');
    await page.waitForSelector('#search-words:focus');
    await page.keyboard.type('marram');
    await isaby.sees('Marram colourway', '#search-hits');
    // The list is drawn a frame after a key: what is chosen is read only then.
    const isChosen = async (): Promise<boolean> =>
      (await isaby.text('#search-hits [aria-selected=true]')).includes('Marram colourway');
    for (let i = 0; i < 60 && !(await isChosen()); i += 1) {
      await page.keyboard.press('ArrowDown');
      await isaby.drawn();
    }
    expect(await isChosen()).toBe(true);
    await page.keyboard.press('Enter');
    await isaby.sees('Its lots so far');
    const press = async (label: string): Promise<void> => {
      for (let i = 0; i < 80; i += 1) {
        await page.keyboard.press('Tab');
        if ((await page.evaluate(() => (document.activeElement as HTMLElement).innerText?.trim())) === label)
          return page.keyboard.press('Enter');
      }
      throw new Error(`Tab never came to “${label}”`);
    };
    await press('Dye a lot');
    await isaby.sees('A new lot', 'h1');
    for (let i = 0; i < 120; i += 1) {
      if (await page.evaluate(() => document.activeElement?.matches('input[name=written]'))) break;
      await page.keyboard.press('Tab');
    }
    await page.keyboard.type('1 hank of 200 g');
    await isaby.sees('1 hank of 200 g, 200 g dry');
    // What must be at hand is ticked on the way, by Space.
    await page.waitForSelector('vs-lot-checks input');
    for (let i = 0; i < 300; i += 1) {
      if (await page.evaluate(() => document.querySelector('vs-lot-checks input:not(:checked)') === null)) break;
      await page.keyboard.press('Tab');
      if (
        await page.evaluate(() => document.activeElement?.matches('vs-lot-checks input[type=checkbox]:not(:checked)'))
      )
        await page.keyboard.press('Space');
    }
    await press('Plan the lot and promise its stock');
    await isaby.sees('planned', '.head');
    await press('Begin at the bench');
    await isaby.sees('Begin', '.one');
    await page.waitForSelector('.one button.bench:not(:disabled)');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('Space');
    await isaby.sees('200 g', '.target .amount');
    await page.keyboard.type('200 g');
    await page.keyboard.press('Enter');
    await isaby.sees('Done', '.one');
    await page.waitForSelector('.one button.bench:not(:disabled)');
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('Enter');
    await isaby.sees('Scour', '.one h1');
  });

  it('says so when the server can’t be reached, keeps what was typed, and records it once when it is back', async () => {
    await isaby.go('/stores/delivery');
    await isaby.choose('Material', 'Chalk');
    await isaby.write('How much, net', '123 g');
    await isaby.page.setOfflineMode(true);
    await isaby.press('Put it on the shelf');
    await isaby.sees('The server can’t be reached.', '[role=alert]');
    await isaby.page.setOfflineMode(false);
    await isaby.press('Put it on the shelf');
    await isaby.sees('123 g', '.sums');
    isaby.troubles.length = 0;
  });
});

describe('an empty studio', () => {
  it('is opened on the first run, and every empty place says what belongs there', async () => {
    const { folder, remove } = temporaryFolder('empty');
    const server = await serve(join(folder, 'data'));
    const browser = await launch();
    const owner = await Someone.at(browser, server.base);
    await owner.go('/');
    await owner.sees('A studio begins', 'h1');
    await owner.write('The studio’s name', 'Reedmace');
    await owner.write('Its time zone', 'Europe/London');
    await owner.write('Your name', 'Ada Reed');
    await owner.write('Your passphrase', 'short');
    await owner.press('Open the studio');
    await owner.sees('at least 8 characters', '[role=alert]');
    await owner.write('Your passphrase', 'ten green hanks');
    await owner.press('Open the studio');
    await owner.sees('Today', 'h1');
    for (const [place, action] of [
      ['Stores', 'A new material'],
      ['Recipes', 'Write a recipe'],
      ['Colourways', 'Name a colourway'],
      ['Lots', 'Start a lot'],
      ['Bench', 'Start a lot'],
      ['Plan', 'Start a lot'],
    ] as const) {
      await owner.press(place);
      await owner.sees(place, 'h1');
      await owner.sees(action, '.empty');
    }
    await owner.press('Stores');
    await owner.press('A new material', '.empty a');
    await owner.write('Name', 'Weld');
    await owner.press('Add the material');
    await owner.sees('Book in', 'h1');
    await owner.choose('Material', 'Weld');
    await owner.write('How much, net', '2 kg');
    await owner.press('Put it on the shelf');
    await owner.sees('WEL-1 · Weld', 'h1');
    await owner.press('Recipes');
    await owner.press('Write a recipe', 'vs-act-bar a');
    await owner.write('Name', 'Weld plain');
    await owner.press('Keep the recipe as a trial');
    await owner.sees('Weld plain', 'h1');
    await owner.sees('trial');
    expect(owner.troubles).toEqual([]);
    await browser.close();
    await server.stop();
    remove();
  });
});

import type { LotSummary } from '@vestigia/contract';
import { beforeAll, describe, expect, it } from 'vitest';
import { everyPage } from './every-page';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

/** Addresses, times, what tells of a point, and what was written down in words while the studio had a point: a record stands as it was written. */
const AS_WRITTEN = [
  /127\.0\.0\.1/,
  /^a point: 1\.5$/,
  /like 9:40 or 14\.05/,
  /^\d+\.\d+ % WOF from [A-Z]{3}-\d$/,
  /^Tap \(pH 7\.5, 14 °dH\)$/,
  /^from 240 g for 1\.6 kg of wool$/,
  /^25\.25 l back from Lot \d+$/,
  / · pH 10\.\d · \d+ °C$/,
];

describe('a studio that writes a comma', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  beforeAll(async () => {
    ({ isaby } = demo);
    const studio = await isaby.ask<Record<string, unknown> & { shownIn: object }>('/api/studio');
    for (const own of ['people', 'vessels', 'heatSources', 'waters']) delete studio[own];
    await isaby.send('/api/studio', { ...studio, shownIn: { ...studio.shownIn, decimalMark: ',' } }, 'PUT');
    await isaby.settled('/today');
  });

  /** Every text and every field that has a figure with a point in it. */
  const pointed = (): Promise<string[]> =>
    isaby.page.evaluate(() => {
      for (const fold of document.querySelectorAll<HTMLDetailsElement>('main details')) fold.open = true;
      const said: string[] = [];
      const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
      while (texts.nextNode())
        if (!texts.currentNode.parentElement?.closest('script, style'))
          said.push((texts.currentNode.textContent ?? '').replace(/\s+/g, ' ').trim());
      for (const field of document.querySelectorAll('input')) said.push(field.value);
      for (const named of document.querySelectorAll('[aria-label]')) said.push(named.getAttribute('aria-label') ?? '');
      return [...new Set(said.filter((text) => /\d\.\d/.test(text)))];
    });

  it('is told a figure in the other units, where the pointer rests or the keyboard is', async () => {
    const { page } = isaby;
    await isaby.settled('/stores');
    const cell = await page.waitForSelector('[role=row]:not(.top) .onHand');
    const box = (await cell?.boundingBox())!;
    // The figure stands at the right of its cell.
    await page.mouse.move(box.x + box.width - 12, box.y + box.height / 2);
    await isaby.sees(/^\d+(,\d+)? (oz|lb.*)$/, 'vs-other-unit-tip p');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('vs-other-unit-tip p'));
    // A lot's page has figures that show how they were reached; the keyboard goes to the first of a weight.
    const lot = (await isaby.ask<LotSummary[]>('/api/lots')).find((l) => l.state === 'inWork');
    await isaby.settled(`/lots/${lot?.id}`);
    await page.keyboard.press('Tab');
    await page.evaluate(() => {
      const figures = [...document.querySelectorAll<HTMLElement>('main vs-figure button')];
      figures.find((e) => / k?g$/.test(e.innerText.trim()))?.focus();
    });
    await isaby.sees(/ (oz|lb)/, 'vs-other-unit-tip');
  });

  it('sees it in every figure of every page', async () => {
    const found: string[] = [];
    let commas = 0;
    for (const path of await everyPage(isaby)) {
      await isaby.moves(`/${path}`);
      const said = (await pointed()).filter((text) => !AS_WRITTEN.some((as) => as.test(text)));
      found.push(...said.map((text) => `${path}: ${text.slice(0, 160)}`));
      commas += (await isaby.text()).match(/\d,\d/g)?.length ?? 0;
    }
    expect(found).toEqual([]);
    expect(commas).toBeGreaterThan(300);
  });
});

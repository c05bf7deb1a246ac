import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

/** Pixels of a page of A4 between a browser’s usual edges. */
const PAPER = { width: 718, height: 1043 };

interface OnPaper {
  /** The names in the first column of what stands there. */
  readonly names: string[];
  /** What goes over the page’s edge, or is pressed or written into. */
  readonly amiss: string[];
}

describe('a list on paper', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  beforeAll(() => {
    ({ isaby } = demo);
  });

  /** What the browser would put on paper: looked at between its two events, in a window as wide as the page. */
  const printed = async (path: string): Promise<OnPaper> => {
    await isaby.settled(path);
    await isaby.page.setViewport(PAPER);
    await isaby.page.emulateMediaType('print');
    const seen = await isaby.page.evaluate(() => {
      dispatchEvent(new Event('beforeprint'));
      const main = document.querySelector('main') as HTMLElement;
      const shown = (selector: string): HTMLElement[] =>
        [...main.querySelectorAll<HTMLElement>(selector)].filter((e) => e.getClientRects().length > 0);
      const edge = main.getBoundingClientRect().right + 1;
      const said = (e: HTMLElement): string => `${e.tagName} ${e.innerText.slice(0, 40)}`;
      const names = shown('tbody tr, [role=row]:not(.top)').map((row) => row.innerText.trim().split('\n')[0] ?? '');
      const amiss = [
        ...shown('*').filter((e) => e.getBoundingClientRect().right > edge && !e.closest('svg, .unseen')),
        ...shown('input, .act, nav'),
      ].map(said);
      dispatchEvent(new Event('afterprint'));
      return { names, amiss };
    });
    await isaby.page.emulateMediaType();
    await isaby.page.setViewport({ width: 1280, height: 800 });
    return seen;
  };

  it('has every jar, though the screen draws only those in sight', async () => {
    await isaby.settled('/stores');
    const onScreen = await isaby.page.evaluate(() => document.querySelectorAll('main [role=row]:not(.top)').length);
    const jars = (await isaby.ask<{ tag: string; onHand: number }[]>('/api/stores')).filter((j) => j.onHand > 0);
    const { names, amiss } = await printed('/stores');
    expect(names).toHaveLength(jars.length);
    expect(onScreen).toBeLessThan(jars.length);
    expect(amiss).toEqual([]);
  });
  it('has every lot, though the screen begins with the latest', async () => {
    const lots = await isaby.ask<unknown[]>('/api/lots');
    const { names, amiss } = await printed('/lots');
    expect(names).toHaveLength(lots.length);
    expect(amiss).toEqual([]);
  });
  it.each(['/stores/materials', '/recipes', '/colourways', '/judge/book'])('keeps %s on the page', async (path) => {
    const { amiss } = await printed(path);
    expect(amiss).toEqual([]);
  });
  it('goes back to the screen’s list afterwards', async () => {
    await printed('/lots');
    await isaby.page.waitForFunction(() => document.querySelectorAll('main tbody tr').length === 40);
  });
});

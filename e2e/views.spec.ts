import type { LotSummary, PageAtHand } from '@vestigia/contract';
import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

describe('lists as somebody wants to look at them', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  beforeAll(() => {
    ({ isaby } = demo);
  });
  const heads = (): Promise<string[]> =>
    isaby.page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('main [role=columnheader], main thead th')].map((h) =>
        h.innerText.trim(),
      ),
    );
  const query = (): string => new URL(isaby.page.url()).search;
  /** The address follows what is pressed by the router, a moment later; two frames on, the page is drawn by it. */
  const queryIs = async (search: string): Promise<void> => {
    await isaby.page.waitForFunction((s) => location.search === s, {}, search);
    await isaby.drawn();
  };
  const menu = async (item: string | RegExp): Promise<void> => {
    await isaby.press('View');
    await isaby.press(item, '.mat-mdc-menu-panel button');
  };

  it('leave columns out, and keep what is narrowed and sorted by a name', async () => {
    await isaby.settled('/stores');
    await isaby.write('Only jars with …', 'mordant');
    await isaby.press('Free', 'main [role=columnheader] button');
    await menu('✓Place');
    await queryIs('?find=mordant&by=free&without=place');
    await isaby.page.keyboard.press('Escape');
    expect(await heads()).toEqual(['Gave', 'Tag', 'Material', 'Kind', 'On hand', 'Promised', 'Free', 'Best before']);
    await menu('Keep this view by a name …');
    await isaby.write('Call this view', 'Mordants, least first');
    await isaby.press('Keep the view');
    await isaby.page.waitForFunction(() => !document.querySelector('vs-view-menu form'));
    expect(await isaby.ask<PageAtHand[]>('/api/at-hand')).toContainEqual({
      path: '/stores?find=mordant&by=free&without=place',
      title: 'Mordants, least first',
    });
  });

  it('are as they were kept when that is taken again, there and from Today', async () => {
    await menu('All of it, as at first');
    await queryIs('');
    expect(await heads()).toContain('Place');
    await menu('Mordants, least first');
    await queryIs('?find=mordant&by=free&without=place');
    await isaby.settled('/today');
    await isaby.press('Mordants, least first');
    await isaby.sees('Stores', 'h1');
    await isaby.sees('Best before', 'main');
    expect(query()).toBe('?find=mordant&by=free&without=place');
    expect(await heads()).not.toContain('Place');
    await isaby.press('View');
    await isaby.press('Let “Mordants, least first” go', '.mat-mdc-menu-panel button');
    await isaby.page.waitForFunction(
      async () => ((await (await fetch('/api/at-hand')).json()) as unknown[]).length === 0,
    );
  });

  it('of many lots draw those near what is in sight, and all of them can be gone to', async () => {
    const lots = await isaby.ask<LotSummary[]>('/api/lots');
    await isaby.settled('/lots');
    const drawn = (): Promise<string[]> =>
      isaby.page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('main tbody th strong')].map((t) => t.innerText),
      );
    expect((await drawn()).length).toBeLessThan(lots.length);
    expect(await isaby.page.$eval('main table', (t) => t.getAttribute('aria-rowcount'))).toBe(String(lots.length + 1));
    await isaby.page.evaluate(() => {
      const sheet = document.querySelector('.middle') as HTMLElement;
      sheet.scrollTop = sheet.scrollHeight;
    });
    await isaby.sees(/^Lot 1\b/m, 'main');
    expect((await drawn()).length).toBeLessThan(lots.length);
  });

  it('let several lots be chosen, and their tags printed', async () => {
    await isaby.settled('/lots');
    await isaby.press('Choose several');
    await isaby.page.waitForSelector('main input[name=choose]:focus');
    const [first, second] = await isaby.ask<LotSummary[]>('/api/lots');
    for (const lot of [first, second]) await isaby.point(`main input[aria-label="Choose ${lot?.tag}"]`);
    await isaby.sees('2 lots chosen', 'main');
    await isaby.press('Print their tags');
    await isaby.sees('Tags', 'h1');
    await isaby.sees(/^2 tags/m, 'main');
    await isaby.tick('one for each of their pieces, too');
    const pieces = (first?.pieces ?? 0) + (second?.pieces ?? 0);
    await isaby.sees(new RegExp(`^${pieces + 2} tags`, 'm'), 'main');
    await isaby.press('Give them their codes');
    await isaby.sees('Labels to print', 'main');
    const given = await isaby.page.evaluate(() => document.querySelectorAll('main tbody tr').length);
    expect(given).toBe(pieces + 2);
  });

  it('and things are sent to somebody by their link', async () => {
    const [lot] = await isaby.ask<LotSummary[]>('/api/lots');
    await isaby.settled(`/lots/${lot?.id}`);
    await isaby.page.evaluate(() => {
      document.addEventListener('copy', () => {
        document.body.dataset['copied'] = (document.activeElement as HTMLTextAreaElement).value;
      });
    });
    await isaby.press('Copy link');
    await isaby.sees('Link copied.', 'main');
    expect(await isaby.page.evaluate(() => document.body.dataset['copied'])).toBe(isaby.page.url());
  });
});

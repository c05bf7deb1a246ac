import type { Page } from 'puppeteer-core';

/** What is wider than the window; ledgers may be wider than the sheet and move along by themselves, nothing else may. */
export const tooWide = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const sheet = document.querySelector('main') as HTMLElement;
    const right = sheet.getBoundingClientRect().right + 1;
    // The wall stands outside the house, and moves by itself.
    const moved = document.querySelector<HTMLElement>('.middle') ?? sheet;
    const wide = [...sheet.querySelectorAll('*')].filter(
      (e) =>
        !e.closest('.ledger, .scroller, svg, mat-label') &&
        e.getBoundingClientRect().right + sheet.scrollLeft > right &&
        e.getClientRects().length > 0,
    );
    const whole = document.documentElement.scrollWidth - window.innerWidth;
    // At a desk a ledger doesn't move by itself: it has to fit its sheet.
    const ledgers = [...sheet.querySelectorAll<HTMLElement>('.scroller')].filter(
      (e) => getComputedStyle(e).overflowX === 'visible' && e.scrollWidth > e.clientWidth + 1,
    );
    // On a screen as wide as a tablet the house stands still, and only the sheet moves.
    const down = innerWidth > 900 ? document.documentElement.scrollHeight - innerHeight : 0;
    return [
      ...(down > 0 ? [`the house, down by ${down}`] : []),
      ...(whole > 0 ? [`the page, by ${whole}`] : []),
      ...(moved.scrollWidth > moved.clientWidth ? [`the sheet, by ${moved.scrollWidth - moved.clientWidth}`] : []),
      ...ledgers.map((e) => `a ledger, by ${e.scrollWidth - e.clientWidth}: ${e.innerText.slice(0, 40)}`),
      ...wide.slice(0, 3).map((e) => `${e.tagName} ${(e as HTMLElement).innerText?.slice(0, 40)}`),
    ];
  });

/**
 * What is pressed or heads something, or stands in a list, and is wider than its own room: words run over its edge, or
 * are cut by it. What is cut on purpose says so by its overflow, and is said whole under the pointer.
 */
export const cutWords = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const inLists = [...document.querySelectorAll<HTMLElement>('td, th, [role=cell], [role=columnheader]')];
    return [
      ...document.querySelectorAll<HTMLElement>('button, a.act, nav a, summary, h1, h2, h3, legend'),
      ...inLists.filter((e) => getComputedStyle(e).overflowX === 'visible'),
    ]
      .filter((e) => !e.closest('svg, .unseen') && e.clientWidth > 0)
      .filter((e) => e.innerText.trim() !== '' && e.scrollWidth > e.clientWidth + 1)
      .slice(0, 3)
      .map((e) => `${e.tagName} ${e.innerText.slice(0, 40)}: ${e.scrollWidth} in ${e.clientWidth}`);
  });

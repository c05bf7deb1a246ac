// What waits in the interface, on the demo studio: `npm run bench -- --interface`. How long each view takes to open anew
// and the longest its page stands still meanwhile, how soon a place stands there once its link is pressed, how soon a
// press is seen, and what is in sight at 1280 × 800. A machine that others work on stops a task midway, so how long one
// would stand still on a quiet one is told besides: its own time on the processor.
import type { Page } from 'puppeteer-core';
import { everyPage } from '../../e2e/every-page';
import { Someone } from '../../e2e/person';
import { launch } from '../browser.mjs';
import { serveDemo } from '../serve.mjs';
import { report, spread } from './report.mjs';

const TIMES = 15;
const STILL_MS = 200;

/** Kept by every page from its beginning: how long it stood still at the longest. */
const LISTENS = `
  window.__name = (f) => f;
  window.longestMs = 0;
  new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) window.longestMs = Math.max(window.longestMs, duration);
  }).observe({ type: 'longtask', buffered: true });`;

const longestMs = (page: Page): Promise<number> => page.evaluate('window.longestMs') as Promise<number>;
/** From an event in the page until what it brings has been drawn, ms. */
const seenAfter = (page: Page, act: string, isThere: string): Promise<number> =>
  page.evaluate(`new Promise((done, failed) => {
    const began = performance.now();
    const look = () => {
      if (${isThere}) requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
      else if (performance.now() - began > 20000) failed(new Error('never seen: ' + ${JSON.stringify(isThere)}));
      else setTimeout(look, 2);
    };
    ${act};
    look();
  })`) as Promise<number>;

const pressPlace = (name: string): string =>
  `[...document.querySelectorAll('nav.spine a')].find((a) => a.innerText.trim() === ${JSON.stringify(name)}).click()`;

interface TraceEvent {
  name: string;
  pid: number;
  tid: number;
  /** Of a whole event: its own time on the processor, µs. */
  tdur?: number;
  args: { name?: string };
}

/** The longest task of the page's own thread, by its time on the processor. */
function busiestMs(trace: Uint8Array | undefined): number {
  const { traceEvents } = JSON.parse(new TextDecoder().decode(trace)) as { traceEvents: TraceEvent[] };
  const thread = (e: TraceEvent): string => `${e.pid}:${e.tid}`;
  const pages = traceEvents.filter((e) => e.name === 'thread_name' && e.args.name === 'CrRendererMain').map(thread);
  const tasks = traceEvents.filter((e) => e.name.endsWith('RunTask') && pages.includes(thread(e)));
  return Math.max(0, ...tasks.map((e) => e.tdur ?? 0)) / 1000;
}

async function openings(isaby: Someone): Promise<void> {
  const views: { path: string; openMs: number; stillMs: number; busyMs: number }[] = [];
  for (const path of await everyPage(isaby)) {
    await isaby.page.tracing.start({ categories: ['toplevel', '__metadata'] });
    const began = performance.now();
    await isaby.go(`/${path}`);
    await isaby.answered(path);
    const openMs = performance.now() - began;
    // What is drawn when the page is idle isn’t waited for, but may not keep it standing still either.
    await isaby.settles(path);
    const busyMs = busiestMs(await isaby.page.tracing.stop());
    views.push({ path, openMs, stillMs: await longestMs(isaby.page), busyMs });
  }
  const busy = views.filter((v) => v.busyMs > STILL_MS).sort((a, b) => b.busyMs - a.busyMs);
  report('opened anew, until quiet (120 ms of it waiting)', '-', spread(views.map((v) => v.openMs)));
  report(
    'stood still at the longest',
    `${STILL_MS} ms`,
    `${spread(views.map((v) => v.stillMs))}; longer on ${views.filter((v) => v.stillMs > STILL_MS).length}`,
  );
  report('of it on the processor', `${STILL_MS} ms`, `${spread(views.map((v) => v.busyMs))}; longer on ${busy.length}`);
  for (const { path, busyMs } of busy) console.log(`  ${path}: ${busyMs.toFixed(0)} ms`);
}

async function places(isaby: Someone): Promise<void> {
  const [lot] = await isaby.ask<{ id: string; tag: string }[]>('/api/lots');
  const there: readonly (readonly [string, string, string])[] = [
    ['Stores', pressPlace('Stores'), `document.querySelector('main [role=row]:not(.top)')`],
    ['Lots', pressPlace('Lots'), `document.querySelector('main vs-lot-ledger tbody tr:not(.gap)')`],
    ['Bench', pressPlace('Bench'), `location.pathname.startsWith('/bench') && document.querySelector('main .one h1')`],
    [
      'a lot',
      `document.querySelector('main a[href="/lots/${lot?.id}"]').click()`,
      `document.querySelector('main h1')?.innerText.includes('${lot?.tag}')`,
    ],
  ];
  for (const [name, act, isThere] of there) {
    const values: number[] = [];
    for (let i = 0; i < TIMES; i += 1) {
      await isaby.settled(name === 'a lot' ? '/lots' : '/today');
      values.push(await seenAfter(isaby.page, act, isThere));
    }
    report(`${name}, from the press of its link`, '200 ms', spread(values));
  }
}

async function presses(isaby: Someone): Promise<void> {
  const { page } = isaby;
  const filtered: number[] = [];
  await isaby.settled('/stores');
  for (const word of ['weld', 'al', 'iron', 'wool', 'x', 'cut'].flatMap((w) => [w, '']))
    filtered.push(
      await seenAfter(
        page,
        `const shown = document.querySelector('main .filters p').innerText;
         const field = document.querySelector('main input[name=words]');
         field.value = ${JSON.stringify(word)}; field.dispatchEvent(new Event('input'))`,
        `document.querySelector('main .filters p').innerText !== shown`,
      ),
    );
  report('a filter in Stores', '100 ms', spread(filtered));
  const lot = (await isaby.ask<{ id: string; state: string }[]>('/api/lots')).find((l) => l.state === 'inWork');
  const workings: number[] = [];
  for (let i = 0; i < TIMES; i += 1) {
    await isaby.settled(`/lots/${lot?.id}`);
    workings.push(
      await seenAfter(
        page,
        `document.querySelector('main vs-figure button').click()`,
        `document.querySelector('aside').innerText.length > 20`,
      ),
    );
  }
  report('a working', '100 ms', spread(workings));
}

async function inSight(isaby: Someone): Promise<void> {
  for (const [path, rows, aim] of [
    ['stores', '[role=row]:not(.top)', 14],
    ['lots', 'tbody tr', 10],
    ['stores/materials', 'tbody tr', 14],
    ['recipes', 'tbody tr', 14],
  ] as const) {
    await isaby.settled(`/${path}`);
    const count = await isaby.page.evaluate(`(() => {
      const foot = document.querySelector('vs-act-bar')?.getBoundingClientRect().top ?? innerHeight;
      const end = Math.min(foot, document.querySelector('vs-pot-line').getBoundingClientRect().top);
      return [...document.querySelectorAll('main ${rows}')].filter((r) => !r.matches('.gap') && r.getBoundingClientRect().bottom <= end + 1).length;
    })()`);
    report(`rows in sight: ${path}`, `${aim} or more`, String(count));
  }
  for (const [path, aim] of [
    ['stores/delivery', 5],
    ['stores/material', 5],
    ['lots/new', 2],
  ] as const) {
    await isaby.settled(`/${path}`);
    const count = await isaby.page.evaluate(
      // Buttons of which one is chosen are one question.
      `new Set([...document.querySelectorAll('main :is(input, select, textarea)')]
        .filter((e) => e.checkVisibility())
        .map((e) => (e.type === 'radio' ? e.name : e))).size`,
    );
    report(`fields open at first: ${path}`, `${aim} at most`, String(count));
  }
}

const [server, browser] = await Promise.all([serveDemo(), launch()]);
try {
  const isaby = await Someone.at(browser, server.base);
  await isaby.page.evaluateOnNewDocument(LISTENS);
  await isaby.signIn('Isaby Fennimore', 'heron at low tide');
  for (const part of [inSight, presses, places, openings]) await part(isaby);
} finally {
  await browser.close();
  await server.stop();
  server.remove();
}

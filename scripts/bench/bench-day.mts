import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import type { LotDetail, LotSummary, Proposal } from '@vestigia/contract';
import type { Browser, Page } from 'puppeteer-core';
import puppeteer from 'puppeteer-core';
import { chromiumPath } from '../browser.mjs';
import { serveDemo } from '../serve.mjs';
import { signIn } from './come-in.mjs';
import { report, spread } from './report.mjs';

const PASSPHRASE = 'mud on the slipway';
const READINGS = 300_000;
const HOURS = 8;
const DRAFTS = 1000;
const BROWSERS = 6;
const WATCH_S = 20;

/**
 * The dye day's own numbers, on the demo studio: balance to screen, a long run's curve, and touches made without the
 * server.
 */
export async function measureBenchDay(): Promise<void> {
  const server = await serveDemo();
  const browser = await puppeteer.launch({
    executablePath: chromiumPath ?? '',
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--enable-precise-memory-info',
      '--js-flags=--expose-gc',
    ],
  });
  try {
    const pages: Page[] = [];
    for (let i = 0; i < BROWSERS; i += 1) pages.push(await open(browser, server.base));
    await measureLatency(pages);
    await Promise.all(pages.slice(1).map((p) => p.close()));
    const page = pages[0] as Page;
    const lotId = await newLot(page);
    await measureLongRun(page, server.base, lotId);
    await measureSync(page, server.base, await newLot(page));
  } finally {
    await browser.close();
    await server.stop();
    server.remove();
  }
}

async function open(browser: Browser, base: string): Promise<Page> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  // Remembers when the server heard what is being shown, and lets readings be fed in as the server would send them.
  await page.evaluateOnNewDocument(`
    window.heardAt = { balance: 0, probe: 0 };
    const Real = window.EventSource;
    window.EventSource = class extends Real { constructor(url) { super(url); if (String(url).includes('instruments')) { window.instrumentLine = this; this.addEventListener('message', (e) => { const [kind, at] = JSON.parse(e.data); window.heardAt[kind] = at; }); } } };`);
  await signIn(page, base, PASSPHRASE);
  return page;
}

const post = <T,>(page: Page, path: string, body: object): Promise<T> =>
  page.evaluate(
    `fetch(${JSON.stringify(path)}, { method: 'POST', headers: { 'content-type': 'application/json' }, body: ${JSON.stringify(JSON.stringify(body))} }).then((r) => r.json())`,
  ) as Promise<T>;
const get = <T,>(page: Page, path: string): Promise<T> =>
  page.evaluate(`fetch(${JSON.stringify(path)}).then((r) => r.json())`) as Promise<T>;
const draft = (lotId: string, stepIndex: number, kind: string, rest: object = {}): object => ({
  lotId,
  ageMs: 0,
  entry: {
    id: randomUUID(),
    stepIndex,
    kind,
    replacesId: null,
    temperatureC: null,
    text: null,
    weighing: null,
    detail: null,
    ...rest,
  },
});

async function newLot(page: Page): Promise<string> {
  const colourwayId = (await get<LotSummary[]>(page, '/api/lots')).find((l) => l.colourway.name === 'Marram')?.colourway
    .id;
  const ask = { colourwayId, quantityText: '1 hank of 100 g', waterId: null, reorderOfId: null };
  const proposal = await post<Proposal>(page, '/api/lots/proposal', ask);
  const id = randomUUID();
  await post(page, '/api/lots', {
    id,
    ask,
    digest: proposal.digest,
    acceptShortages: true,
    note: '',
    acknowledged: proposal.checks.map((c) => ({ key: c.key, reason: 'measuring' })),
  });
  return id;
}

/**
 * From the moment the server heard the balance to the figure being on the screen, three instruments at ten a second,
 * six browsers watching.
 */
async function measureLatency(pages: readonly Page[]): Promise<void> {
  const [first] = pages;
  if (!first) return;
  const host = (await get<{ inWork: LotSummary[] }>(first, '/api/today')).inWork[0]?.id;
  await post(first, '/api/instruments', { kind: 'probe', do: 'hang', lotId: host, stepIndex: 1 });
  for (const page of pages) {
    await page.evaluate(
      `for (const k of ['balance', 'probe', 'colour']) localStorage.setItem('vestigia-' + k, 'simulated')`,
    );
    await page.goto(`${new URL(page.url()).origin}/bench/instruments`);
    await page.waitForSelector('.reading');
    await page.evaluate(`
      window.latencies = [];
      const shown = document.querySelector('.reading');
      new MutationObserver(() => { const at = window.heardAt.balance; requestAnimationFrame(() => window.latencies.push(Date.now() - at)); }).observe(shown, { characterData: true, subtree: true, childList: true });`);
  }
  // A colour reader speaks when it is pressed: pressed ten times a second, it is the third at that pace.
  const pressing = setInterval(
    () => void post(first, '/api/instruments', { kind: 'colour', do: 'read' }).catch(() => undefined),
    100,
  );
  for (let s = 0; s < WATCH_S; s += 1) {
    await post(first, '/api/instruments', {
      kind: 'balance',
      do: 'put',
      weightG: 20 + Math.round(Math.random() * 20_000) / 10,
    });
    await new Promise((resolve) => setTimeout(resolve, 1000));
  }
  clearInterval(pressing);
  const all = (await Promise.all(pages.map((p) => p.evaluate('window.latencies') as Promise<number[]>))).flat();
  report(`Balance to screen, ${pages.length} browsers`, 'p95 ≤ 150 ms', spread(all));
  await post(first, '/api/instruments', { kind: 'probe', do: 'hang', lotId: null });
}

/**
 * Eight hours of readings through the bench's own line into its own log; then what the page holds, and how long its
 * chart takes to draw anew.
 */
async function measureLongRun(page: Page, base: string, lotId: string): Promise<void> {
  const lot = await get<LotDetail>(page, `/api/lots/${lotId}`);
  const hot = lot.plan.steps.findIndex((s) => (s.temperatureC ?? 0) > 60);
  await post(page, '/api/bench/run-entries', {
    drafts: [
      ...lot.plan.steps.slice(0, hot).map((s) => draft(lotId, s.index, 'skip', { text: 'measuring' })),
      draft(lotId, hot, 'start'),
    ],
  });
  const step = lot.plan.steps[hot];
  await post(page, '/api/bench/run-entries', {
    drafts: (step?.weighings ?? []).flatMap((w) =>
      w.picks
        .filter((p) => p.stockLotId)
        .map((p) =>
          draft(lotId, hot, 'weigh', {
            weighing: {
              batch: w.batch,
              materialId: w.materialId,
              stockLotId: p.stockLotId,
              quantityText: `${p.amount / 1000} ${w.measure === 'volume' ? 'ml' : 'g'}`,
              movementId: randomUUID(),
            },
          }),
        ),
    ),
  });
  await page.goto(`${base}/bench/${lotId}`);
  await page.waitForSelector('vs-heat-watch');
  await post(page, '/api/instruments', { kind: 'probe', do: 'hang', lotId, stepIndex: hot });
  await page.waitForFunction('window.instrumentLine');
  await page.waitForFunction(
    `[...document.querySelectorAll('main button')].some((b) => b.innerText === 'Take the probe out')`,
  );
  await page.evaluate('window.gc && window.gc()');
  const beforeMb = await rendererMb(page);
  await page.evaluate(`(async () => {
    const line = window.instrumentLine; const from = Date.now(); const step = ${(HOURS * 3_600_000) / READINGS};
    for (let i = 0; i < ${READINGS}; i += 1) {
      const c = 20 + 55 * Math.min(1, i / 30000) + Math.sin(i / 500) + (i === 123456 ? 20 : 0);
      line.dispatchEvent(new MessageEvent('message', { data: JSON.stringify(['probe', from + i * step, { kind: 'temperature', temperatureC: c }]) }));
      if (i % 2000 === 0) await new Promise((r) => setTimeout(r));
    }
  })()`);
  await page.waitForSelector('vs-heat-watch svg');
  const draws = (await page.evaluate(`(async () => {
    // Nothing else is said meanwhile: what is timed is one reading thinned, watched and drawn.
    const took = []; const line = window.instrumentLine; line.close(); let at = Date.now() + ${HOURS * 3_600_000};
    for (let i = 0; i < 40; i += 1) {
      await new Promise((r) => setTimeout(r, 90));
      const svg = document.querySelector('vs-heat-watch svg');
      const drawn = new Promise((r) => { const o = new MutationObserver(() => { o.disconnect(); r(performance.now()); }); o.observe(svg, { subtree: true, childList: true, attributes: true }); });
      const begin = performance.now();
      line.dispatchEvent(new MessageEvent('message', { data: JSON.stringify(['probe', at += 1000, { kind: 'temperature', temperatureC: 70 + (i % 7) }]) }));
      const done = await Promise.race([drawn, new Promise((r) => setTimeout(() => r(NaN), 3000))]);
      took.push(done - begin);
    }
    return took;
  })()`)) as number[];
  await page.evaluate('window.gc && window.gc()');
  const heapMb = ((await page.evaluate('performance.memory.usedJSHeapSize')) as number) / 1e6;
  report(
    `A run of ${HOURS} h, ${READINGS.toLocaleString('en')} readings: page’s memory`,
    '≤ 200 MB',
    `${heapMb.toFixed(0)} MB of script memory after collection, ${(await rendererMb(page)).toFixed(0)} MB the page’s process has for itself (${beforeMb.toFixed(0)} MB before the readings)`,
  );
  report('Its chart drawn anew, thinning and all', '≤ 100 ms', spread(draws.filter((d) => Number.isFinite(d))));
}

/** Memory that the largest process which draws pages has for itself (libraries it shares with others left out), MB. */
async function rendererMb(page: Page): Promise<number> {
  const session = await page.browser().target().createCDPSession();
  const { processInfo } = await session.send('SystemInfo.getProcessInfo');
  const kilobytes = processInfo
    .filter((p) => p.type === 'renderer')
    .map((p) =>
      [...readFileSync(`/proc/${p.id}/smaps_rollup`, 'utf8').matchAll(/^Private_(?:Clean|Dirty):\s+(\d+)/gm)].reduce(
        (sum, m) => sum + Number(m[1]),
        0,
      ),
    );
  return Math.max(0, ...kilobytes) / 1000;
}

/** A thousand touches that lie in the tablet, sent when the server is back; and sent again. */
async function measureSync(page: Page, base: string, lotId: string): Promise<void> {
  await post(page, '/api/bench/run-entries', { drafts: [draft(lotId, 0, 'start')] });
  const drafts = Array.from(
    { length: DRAFTS },
    (_, i) =>
      draft(
        lotId,
        0,
        i % 3 === 0 ? 'temperature' : 'note',
        i % 3 === 0 ? { temperatureC: 20 + (i % 60) } : { text: `touch ${i}` },
      ) as { entry: object },
  );
  await page.goto(`${base}/bench/${lotId}`);
  await page.waitForSelector('.one h1');
  await page.setOfflineMode(true);
  const personId = (await page.evaluate(
    `caches.open('vestigia-2').then((c) => c.match('/api/auth')).then((r) => r.json()).then((d) => d.person.id)`,
  )) as string;
  await page.evaluate(
    `new Promise((done, no) => { const open = indexedDB.open('vestigia-bench', 2); open.onsuccess = () => { const t = open.result.transaction('drafts', 'readwrite'); for (const x of ${JSON.stringify(drafts)}) t.objectStore('drafts').add({ lotId: x.lotId, entry: x.entry, label: 'measuring', personId: ${JSON.stringify(personId)}, wallMs: Date.now(), steadyMs: 0, page: 'earlier' }); t.oncomplete = () => done(null); t.onerror = no; }; })`,
  );
  await page.reload({ waitUntil: 'domcontentloaded' });
  await page.waitForSelector(`vs-shell[data-waiting="${DRAFTS}"]`);
  const begin = performance.now();
  await page.setOfflineMode(false);
  await page.evaluate(`window.dispatchEvent(new Event('online'))`);
  await page.waitForSelector('vs-shell[data-waiting="0"]', { timeout: 120_000 });
  const tookMs = performance.now() - begin;
  for (let i = 0; i < DRAFTS; i += 250)
    await post(page, '/api/bench/run-entries', { drafts: drafts.slice(i, i + 250) });
  const { entries } = await get<LotDetail>(page, `/api/lots/${lotId}`);
  const kept = entries.length - 1;
  report(
    `${DRAFTS.toLocaleString('en')} touches made without the server, synced`,
    '≤ 5 s, once',
    `${(tookMs / 1000).toFixed(2)} s; ${kept} entries after sending them all twice`,
  );
}

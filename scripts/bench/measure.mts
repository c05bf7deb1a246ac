import '@angular/localize/init';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import type { ImportJob, LotSummary, ShelfRow, StudioFile } from '@vestigia/contract';
import type { PlanInput } from '@vestigia/core';
import { planLot, sayPlanRefusal } from '@vestigia/core';
import { chromiumPath, launch } from '../browser.mjs';
import { serve, temporaryFolder } from '../serve.mjs';
import { signIn } from './come-in.mjs';
import { measureBenchDay } from './bench-day.mjs';
import { largeLot, mixedLot } from './large-lot.mjs';
import { CSV_ROWS, largeStudio, largeTable } from './large-studio.mjs';
import { percentile, report, spread } from './report.mjs';

const MAX_MEMORY_MB = 1000;
const PASSPHRASE = 'mud on the slipway';

function planned(lot: PlanInput): void {
  const result = planLot(lot);
  if (!result.ok) throw new Error(sayPlanRefusal(result.refusal));
}

async function timed(times: number, act: (i: number) => Promise<unknown> | unknown): Promise<number[]> {
  const ms: number[] = [];
  for (let i = 0; i < times; i += 1) {
    const start = performance.now();
    await act(i);
    ms.push(performance.now() - start);
  }
  return ms;
}

console.log(`${cpus().length} cores, ${cpus()[0]?.model.trim()}, Node ${process.version}`);
if (!process.argv.includes('--large')) {
  for (const [name, aim, lot] of [
    ['Scaling 60 pieces, 5 vessels, 12 steps', '≤ 5 ms', largeLot(60, 5, 12)],
    ['Scaling 200 pieces, 8 vessels, 25 steps', '≤ 20 ms', largeLot(200, 8, 25)],
    ['Scaling 200 pieces of three fibres mixed, 8 vessels, 25 steps', '≤ 20 ms', mixedLot()],
  ] as const) {
    await timed(30, () => planned(lot));
    report(name, aim, spread(await timed(200, () => planned(lot))));
  }
  if (process.argv.includes('--scaling')) process.exit(0);
  if (chromiumPath) await measureBenchDay();
  else console.log('The bench’s own numbers need Chromium.');
  if (process.argv.includes('--day')) process.exit(0);
}

// BENCH_DIR keeps the large studio between runs: making it takes minutes.
const kept = process.env['BENCH_DIR'];
const { folder, remove } = kept ? { folder: kept, remove: () => undefined } : temporaryFolder('bench');
mkdirSync(folder, { recursive: true });
const created = existsSync(join(folder, 'large.json'));
const studioFile = created
  ? (JSON.parse(readFileSync(join(folder, 'large.json'), 'utf8')) as StudioFile)
  : largeStudio();
console.log(
  `Studio: ${studioFile.stockLots.length} stock lots, ${studioFile.movements.length} movements, ${studioFile.lots.length} lots, ${studioFile.runEntries.length} bench entries`,
);
if (!created) writeFileSync(join(folder, 'large.json'), JSON.stringify(studioFile));
const dataDir = join(folder, 'data');
const isOpened = existsSync(dataDir);
const importing = performance.now();
let server = await serve(dataDir, { OPEN_DOCUMENT: join(folder, 'large.json') });
if (!isOpened)
  report(
    'Opening that studio’s file into a new folder',
    '≤ 60 s',
    `${((performance.now() - importing) / 1000).toFixed(1)} s`,
  );
await server.stop();

const starts: number[] = [];
for (let i = 0; i < 5; i += 1) {
  const start = performance.now();
  server = await serve(dataDir);
  await fetch(`${server.base}/api/health`);
  starts.push(performance.now() - start);
  if (i < 4) await server.stop();
}
report(
  'Start to first answer on that folder',
  '≤ 3 s',
  `median ${(percentile(starts, 0.5) / 1000).toFixed(2)} s, worst ${(Math.max(...starts) / 1000).toFixed(2)} s, n 5`,
);

const authState = (await (await fetch(`${server.base}/api/auth`)).json()) as { people: { id: string; name: string }[] };
const entered = await fetch(`${server.base}/api/auth/session`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ personId: authState.people[0]?.id, passphrase: PASSPHRASE }),
});
const cookie = entered.headers.get('set-cookie')?.split(';')[0] ?? '';
const get = async (path: string): Promise<unknown> => (await fetch(server.base + path, { headers: { cookie } })).json();
await timed(20, () => get('/api/stores'));
report('On-hand of 2,000 jars, through HTTP', 'p95 ≤ 30 ms', spread(await timed(300, () => get('/api/stores'))));
const shelf = (await get('/api/stores')) as ShelfRow[];
const stockLotAt = (i: number): string => shelf[(i * 37) % shelf.length]?.id ?? '';
const longest = studioFile.stockLots.find((s) => s.tag === 'EXTRA-1')?.id ?? '';
await timed(20, (i) => get(`/api/stock-lots/${stockLotAt(i)}`));
report(
  'One jar: whole page with its ledger, through HTTP',
  'p95 ≤ 30 ms',
  spread(await timed(300, (i) => get(`/api/stock-lots/${stockLotAt(i)}`))),
);
report(
  'One jar: every line with its balance, through HTTP',
  'p95 ≤ 30 ms',
  spread(await timed(300, (i) => get(`/api/stock-lots/${stockLotAt(i)}/ledger`))),
);
report(
  'The shelf on a day last year',
  '–',
  spread(
    await timed(5, () =>
      get(`/api/stores/on?on=${new Date(Date.parse(studioFile.asOf) - 300 * 86_400_000).toISOString().slice(0, 10)}`),
    ),
  ),
);
await timed(2, () => get('/api/stores/ahead'));
report('Looking ahead, all materials', 'p95 ≤ 150 ms', spread(await timed(20, () => get('/api/stores/ahead'))));
report(
  'A material’s page',
  'p95 ≤ 150 ms',
  spread(await timed(20, () => get(`/api/materials/${shelf.find((r) => r.id === longest)?.materialId}`))),
);
report('Stock in money, all materials, both ways', '≤ 1 s', spread(await timed(3, () => get('/api/stores/valuation'))));
await measureTouches('nothing else is done', () => new Promise((resolve) => setTimeout(resolve, 3000)));
await measureTouches('the shelf is read', () => timed(20, () => get('/api/stores')));
await measureTouches('looking ahead', () => timed(10, () => get('/api/stores/ahead')));
await measureTouches('stock is reckoned in money', () => timed(3, () => get('/api/stores/valuation')));
await measureTouches('the studio file is written', async () => {
  await (await fetch(`${server.base}/api/studio-file`, { headers: { cookie: await ownersCookie() } })).arrayBuffer();
});
await measureTouches('a table of 50,000 rows is read and written', measureImport);
report('Memory of the server, highest so far', `≤ ${MAX_MEMORY_MB} MB`, `${peakMemoryMb(server.pid)} MB`);
const lots = (await get('/api/lots')) as LotSummary[];
const lotAt = (i: number): string => lots[(i * 37) % lots.length]?.id ?? '';
await timed(20, (i) => get(`/api/lots/${lotAt(i)}`));
report('Opening a lot, through HTTP', 'p95 ≤ 30 ms', spread(await timed(300, (i) => get(`/api/lots/${lotAt(i)}`))));
report('All lots as a list, through HTTP', '–', spread(await timed(20, () => get('/api/lots'))));
report(
  'One write, flushed to disk, through HTTP',
  '–',
  spread(
    await timed(100, () =>
      fetch(`${server.base}/api/waters`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie },
        body: JSON.stringify({ id: randomUUID(), name: `Water ${randomUUID()}`, ph: 7, hardnessDh: 1, note: '' }),
      }),
    ),
  ),
);

report('Memory of the server, highest', `≤ ${MAX_MEMORY_MB} MB`, `${peakMemoryMb(server.pid)} MB`);
if (chromiumPath === undefined) console.log('First page: not measured, there is no Chromium on this machine.');
else {
  await measureFirstPage(server.base);
  await measureScrolling(server.base);
}
await server.stop();
remove();

async function ownersCookie(): Promise<string> {
  const owner = authState.people.find((p) => p.name.startsWith('Isaby'));
  const reply = await fetch(`${server.base}/api/auth/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ personId: owner?.id, passphrase: 'heron at low tide' }),
  });
  return reply.headers.get('set-cookie')?.split(';')[0] ?? '';
}

/** How soon a touch at the bench is acknowledged while the server is at something else: one every fifty milliseconds. */
async function measureTouches(meanwhile: string, work: () => Promise<unknown>): Promise<void> {
  const lots = (await get('/api/lots')) as LotSummary[];
  const lotId = lots.find((lot) => lot.state === 'inWork')?.id;
  if (lotId === undefined) throw new Error('no lot is in work');
  let isOver = false;
  const waits: number[] = [];
  const touching = (async () => {
    while (!isOver) {
      const start = performance.now();
      const entry = {
        id: randomUUID(),
        stepIndex: 0,
        kind: 'note',
        replacesId: null,
        temperatureC: null,
        text: 'seen',
        weighing: null,
      };
      const reply = await fetch(`${server.base}/api/bench/run-entries`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie },
        body: JSON.stringify({ drafts: [{ lotId, ageMs: 0, entry }] }),
      });
      const told = (await reply.json()) as { results?: { ok: boolean }[] };
      if (told.results?.[0]?.ok !== true) throw new Error(`a touch was refused: ${JSON.stringify(told)}`);
      waits.push(performance.now() - start);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  })();
  await work();
  isOver = true;
  await touching;
  report(`A touch at the bench while ${meanwhile}`, 'p95 ≤ 200 ms', spread(waits));
}

/** Reads and writes fifty thousand rows, asking how far it is the while, as the page does. */
async function measureImport(): Promise<void> {
  const table = largeTable(studioFile);
  const ask = async (path: string, method = 'GET', body?: string): Promise<ImportJob> =>
    (
      await fetch(server.base + path, {
        method,
        headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'text/csv' }) },
        ...(body === undefined ? {} : { body }),
      })
    ).json() as Promise<ImportJob>;
  let reply = 0;
  const waits: number[] = [];
  const settle = async (job: ImportJob): Promise<ImportJob> => {
    let now = job;
    while (now.state === 'reading' || now.state === 'writing') {
      await new Promise((resolve) => setTimeout(resolve, 100));
      const asked = performance.now();
      const next = await ask(`/api/stores/imports/${job.id}`);
      waits.push(performance.now() - asked);
      if (next.done !== now.done) reply += 1;
      now = next;
    }
    return now;
  };
  const start = performance.now();
  const read = await settle(await ask('/api/stores/imports?kind=movements', 'POST', table));
  const readMs = performance.now() - start;
  const quantityText = await settle(await ask(`/api/stores/imports/${read.id}/run`, 'POST'));
  report(
    `CSV of ${CSV_ROWS} rows, read and written`,
    '≤ 10 s',
    `${((performance.now() - start) / 1000).toFixed(1)} s (read ${(readMs / 1000).toFixed(1)} s), ${quantityText.state}, ${quantityText.fates.new} rows, progress told ${reply} times, longest wait for it ${(Math.max(...waits) / 1000).toFixed(1)} s`,
  );
  const again = performance.now();
  const twice = await settle(await ask('/api/stores/imports?kind=movements', 'POST', table));
  report(
    'The same table a second time, read only',
    '–',
    `${((performance.now() - again) / 1000).toFixed(1)} s, ${twice.fates.new} new, ${twice.fates.here} here already`,
  );
}

/** Highest resident memory of a process since it began (Linux). */
function peakMemoryMb(pid: number): number {
  const found = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'));
  return Math.round(Number(found?.[1] ?? 0) / 1024);
}

/** Scrolls the shelf by a screen's worth every frame for two seconds, and looks at how long each frame took. */
async function measureScrolling(base: string): Promise<void> {
  const browser = await launch();
  const page = await browser.newPage();
  await signIn(page, base, PASSPHRASE);
  await page.goto(`${base}/stores`);
  await page.waitForSelector('cdk-virtual-scroll-viewport .line');
  // As text: what the compiler adds to functions is not known in the page.
  const frames = (await page.evaluate(`new Promise((resolve) => {
    const list = document.querySelector('cdk-virtual-scroll-viewport');
    const times = [];
    let last = performance.now();
    const frame = (now) => {
      times.push(now - last);
      last = now;
      list.scrollTop += 120;
      if (times.length < 240) requestAnimationFrame(frame);
      else resolve(times.slice(5));
    };
    requestAnimationFrame(frame);
  })`)) as number[];
  await browser.close();
  const late = frames.filter((ms) => ms > 1000 / 60 + 4).length;
  report(
    'Scrolling the shelf, time from frame to frame',
    '≤ 16.7 ms',
    `${spread(frames)}; ${late} frames late; mean ${(1000 / (frames.reduce((sum, ms) => sum + ms, 0) / frames.length)).toFixed(0)} frames a second (software rendering)`,
  );
}

async function measureFirstPage(base: string): Promise<void> {
  const browser = await launch();
  const paints: number[] = [];
  let bytes = 0;
  for (let i = 0; i < 5; i += 1) {
    const context = await browser.createBrowserContext();
    const page = await context.newPage();
    const session = await page.createCDPSession();
    await session.send('Network.enable');
    bytes = 0;
    session.on('Network.loadingFinished', (event) => (bytes += event.encodedDataLength));
    await page.goto(`${base}/`, { waitUntil: 'networkidle0' });
    await page.waitForSelector('h1');
    paints.push(await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN));
    await context.close();
  }
  await browser.close();
  report('First page, bytes over the wire before lazy parts', '≤ 300 kB', `${(bytes / 1000).toFixed(0)} kB`);
  report(
    'First page, first contentful paint',
    '≤ 1.5 s',
    `median ${(percentile(paints, 0.5) / 1000).toFixed(2)} s, worst ${(Math.max(...paints) / 1000).toFixed(2)} s, n 5`,
  );
}

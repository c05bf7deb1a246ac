import '@angular/localize/init';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import type { ImportJob, LotSummary, ShelfRow, StudioFile } from '@vestigia/contract';
import type { PlanInput, PlanMaterial } from '@vestigia/core';
import { ANY_WATER, planLot, recipeStep, sayPlanRefusal } from '@vestigia/core';
import { simulateDyehouse } from '../../demo/generator/simulate-dyehouse';
import { chromiumPath, launch } from '../browser.mjs';
import { serve, temporaryFolder } from '../serve.mjs';
import { signIn } from './come-in.mjs';
import { measureBenchDay } from './bench-day.mjs';
import { percentile, report, spread } from './report.mjs';

const MOVEMENTS = 500_000;
const STOCK_LOTS = 2000;
const CSV_ROWS = 50_000;
const MAX_MEMORY_MB = 1000;
const PASSPHRASE = 'mud on the slipway';

/**
 * Two thousand lots of the demo's dyehouse, its shelf filled up to the size the aims name: half a million comings and
 * goings in two thousand jars.
 */
function largeStudio(): StudioFile {
  const asOf = new Date(Math.floor(Date.now() / 60_000) * 60_000 - 3_600_000);
  const document = simulateDyehouse({
    seed: 7,
    asOf: asOf.toISOString(),
    days: 7400,
    daysBetweenLots: 3.3,
    supplyScale: 9,
    supplyEvery: 4,
    countEvery: 5,
    lastStartsDaysBefore: [13, 7.95, 2.03, 0.99, 0.06],
  });
  let n = 0;
  const id = (): string => `01800000-0000-7000-8000-${(n += 1).toString(16).padStart(12, '0')}`;
  const materials = document.materials.filter((m) => m.kind !== 'fibre' && m.measure === 'weight');
  const places = Array.from({ length: 40 }, (_, i) => `Shelf ${i + 1}`);
  const byId = document.people[0]?.id ?? '';
  const own: string[] = [];
  while (document.stockLots.length < STOCK_LOTS) {
    own.push(id());
    document.stockLots.push({
      id: own.at(-1) ?? '',
      materialId: materials[n % materials.length]?.id ?? '',
      tag: `EXTRA-${n}`,
      receivedOn: '2010-01-01',
      bestBefore: null,
      place: places[n % places.length] ?? '',
      source: '',
      note: '',
      costMinor: 1000,
    });
  }
  const missing = MOVEMENTS - document.movements.length;
  const startMs = asOf.getTime() - 3000 * 86_400_000;
  for (let i = 0; i < missing; i += 1) {
    const round = Math.floor(i / own.length);
    document.movements.push({
      id: id(),
      stockLotId: own[i % own.length] ?? '',
      kind: round % 10 === 0 ? 'receive' : 'use',
      amount: round % 10 === 0 ? 1_000_000 : -100_000,
      lotId: null,
      runEntryId: null,
      reversesId: null,
      note: '',
      byId,
      at: new Date(startMs + (i / missing) * 2999 * 86_400_000).toISOString(),
    });
  }
  return document;
}

/** A year's book of one studio as it would come from elsewhere: fifty thousand rows over two hundred of those jars. */
function largeTable(document: StudioFile): string {
  const tags = document.stockLots
    .filter((s) => s.tag.startsWith('EXTRA'))
    .slice(0, 200)
    .map((s) => s.tag);
  const book = Date.now();
  const rows = Array.from({ length: CSV_ROWS }, (_, i) => {
    const into = Math.floor(i / tags.length) % 5 === 0;
    return `${tags[i % tags.length]};${into ? 'receive' : 'use'};${into ? '' : '-'}${into ? 500 : 100},5;g;${document.asOf.slice(0, 10)};book ${book} line ${i}`;
  });
  return `tag;kind;amount;unit;at;note\r\n${rows.join('\r\n')}\r\n`;
}

const ROOM = { roomC: 18, coldWaterC: 12, hotWaterC: 55, liftLimitKg: 15, energyMinorPerKwh: 30 };
const largeMaterial = (id: string, free: number, stockLots: number): PlanMaterial => ({
  id,
  name: `Material ${id}`,
  hazards: [],
  measure: 'weight',
  packet: null,
  spoons: [],
  dryFactor: null,
  stock: Array.from({ length: stockLots }, (_, s) => ({
    stockLotId: `s${id}.${s}`,
    free,
    receivedOn: `2026-0${s + 1}-01`,
    strengthPercent: 90 + s * 5,
  })),
});

/** So many pieces over so many pots through so many steps, each with a dose of its own, heated. */
function largeLot(pieces: number, vessels: number, steps: number): PlanInput {
  const materials = Array.from({ length: steps }, (_, m) => largeMaterial(`m${m}`, 9_000_000, 4));
  return {
    today: '2026-06-01',
    materials,
    water: null,
    room: ROOM,
    balance: { name: 'balance', resolutionG: 0.1, capacityG: 3000 },
    recipe: {
      id: 'r',
      recipeName: 'Large',
      number: 1,
      fibres: ['wool'],
      liquorRatio: 30,
      minLiquorRatio: null,
      allowedMetals: ['stainless'],
      water: ANY_WATER,
      practice: {},
      parts: [],
      placed: null,
      steps: materials.map((m, i) =>
        recipeStep({
          kind: 'dye',
          title: `Step ${i}`,
          usesBath: true,
          temperatureC: 80,
          doses: [{ materialId: m.id, by: 'percentOwf', percentOwf: 10 + i }],
        }),
      ),
    },
    bases: [{ ...largeMaterial('base', 90_000_000, 1), fibre: 'wool', pieceWord: 'hank', pieces, pieceWeightG: 100 }],
    vessels: Array.from({ length: vessels }, (_, v) => ({
      id: `v${v}`,
      name: `Pot ${v}`,
      metal: 'stainless' as const,
      workingMl: 60_000 + v * 12_000,
      heatSource: { id: 'h', name: 'ring', powerW: 7500, efficiencyPercent: 50 },
    })),
  };
}

/** Three fibres of different weights in one pot, some of them saddened: the split has no closed form. */
function mixedLot(): PlanInput {
  const lot = largeLot(80, 8, 25);
  const [first] = lot.bases;
  return {
    ...lot,
    recipe: { ...lot.recipe, fibres: ['wool', 'linen', 'silk'] },
    bases: [
      first,
      { ...first, id: 'linen', fibre: 'linen', pieceWord: 'length', pieces: 70, pieceWeightG: 150 },
      { ...first, id: 'silk', fibre: 'silk', pieceWord: 'reel', pieces: 50, pieceWeightG: 25 },
    ],
  };
}

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
    await timed(100, (i) =>
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

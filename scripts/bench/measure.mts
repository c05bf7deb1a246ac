import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import type { LotSummary, StudioFile } from '@vestigia/contract';
import type { PlanInput } from '@vestigia/core';
import { planLot } from '@vestigia/core';
import { simulateDyehouse } from '../../demo/generator/simulate-dyehouse';
import { chromiumPath, launch } from '../browser.mjs';
import { serve, temporaryFolder } from '../serve.mjs';

const LOTS = 2000;
const MOVEMENTS = 50_000;
const STOCK_LOTS = 200;
const PASSPHRASE = 'mud on the slipway';

const percentile = (values: number[], share: number): number => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? NaN;
const report = (what: string, aim: string, found: string): void => console.log(`${what.padEnd(58)} aim ${aim.padEnd(14)} ${found}`);
const spread = (ms: number[]): string => `p50 ${percentile(ms, 0.5).toFixed(1)} ms, p95 ${percentile(ms, 0.95).toFixed(1)} ms, n ${ms.length}`;

/** Two thousand lots of the demo's dyehouse, its shelf topped up to the size the aims name by small deliveries and counts. */
function largeStudio(): StudioFile {
  const asOf = new Date(Math.floor(Date.now() / 60_000) * 60_000 - 3_600_000);
  const document = simulateDyehouse({ seed: 7, asOf: asOf.toISOString(), days: 7400, daysBetweenLots: 3.3, supplyScale: 9, supplyEvery: 4, countEvery: 5, lastStartsDaysBefore: [13, 7.95, 2.03, 0.99, 0.06] });
  let n = 0;
  const id = (): string => `01800000-0000-7000-8000-${(n += 1).toString(16).padStart(12, '0')}`;
  const weld = document.materials.find((m) => m.name === 'Chalk')?.id ?? '';
  const byId = document.people[0]?.id ?? '';
  while (document.stockLots.length < STOCK_LOTS) document.stockLots.push({ id: id(), materialId: weld, tag: `EXTRA-${n}`, receivedOn: '2025-01-01', bestBefore: null, place: 'Shelf', source: '', note: '' });
  const jars = document.stockLots.slice(0, STOCK_LOTS).map((s) => s.id);
  const missing = MOVEMENTS - document.movements.length;
  for (let i = 0; i < missing; i += 1) document.movements.push({ id: id(), stockLotId: jars[i % jars.length] ?? '', kind: 'count', amount: 100, lotId: null, runEntryId: null, reversesId: null, note: '', byId, at: asOf.toISOString() });
  return document;
}

/** Sixty pieces, twelve materials, five vessels. */
function largeLot(): PlanInput {
  const materials = Array.from({ length: 12 }, (_, m) => ({ id: `m${m}`, name: `Material ${m}`, hazards: [], stock: Array.from({ length: 4 }, (_, s) => ({ stockLotId: `s${m}.${s}`, free: 3_000_000, receivedOn: `2026-0${s + 1}-01` })) }));
  return {
    pieces: 60, pieceWeightG: 100, today: '2026-06-01', materials,
    recipe: { id: 'r', recipeName: 'Large', number: 1, fibres: ['wool'], liquorRatio: 30, allowedMetals: ['stainless'], steps: materials.map((m, i) => ({ kind: 'dye', title: `Step ${i}`, instruction: '', durationMin: 60, attended: false, lookFor: '', usesBath: true, doses: [{ materialId: m.id, percentOwf: 10 + i }] })) },
    base: { id: 'base', name: 'Base', hazards: [], stock: [{ stockLotId: 'b', free: 90_000_000, receivedOn: '2026-01-01' }], fibre: 'wool', pieceWord: 'hank' },
    vessels: Array.from({ length: 5 }, (_, v) => ({ id: `v${v}`, name: `Pot ${v}`, metal: 'stainless' as const, workingMl: 40_000 + v * 5000 })),
    balance: { name: 'balance', resolutionG: 0.1, capacityG: 3000 },
  };
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
const lot = largeLot();
await timed(50, () => planLot(lot));
report('Scaling a 60-piece, 12-material lot', '≤ 5 ms', spread(await timed(400, () => planLot(lot))));

// BENCH_DIR keeps the large studio between runs: making it takes minutes.
const kept = process.env['BENCH_DIR'];
const { folder, remove } = kept ? { folder: kept, remove: () => undefined } : temporaryFolder('bench');
mkdirSync(folder, { recursive: true });
const made = existsSync(join(folder, 'large.json'));
const document = made ? (JSON.parse(readFileSync(join(folder, 'large.json'), 'utf8')) as StudioFile) : largeStudio();
console.log(`Studio: ${document.stockLots.length} stock lots, ${document.movements.length} movements, ${document.lots.length} lots, ${document.runEntries.length} bench entries`);
if (!made) writeFileSync(join(folder, 'large.json'), JSON.stringify(document));
const dataDir = join(folder, 'data');
const importing = performance.now();
let server = await serve(dataDir, { OPEN_DOCUMENT: join(folder, 'large.json') });
if (!made) report('Opening that studio’s file into a new folder', '–', `${((performance.now() - importing) / 1000).toFixed(1)} s`);
await server.stop();

const starts: number[] = [];
for (let i = 0; i < 5; i += 1) {
  const start = performance.now();
  server = await serve(dataDir);
  await fetch(`${server.base}/api/health`);
  starts.push(performance.now() - start);
  if (i < 4) await server.stop();
}
report('Start to first answer on that folder', '≤ 3 s', `median ${(percentile(starts, 0.5) / 1000).toFixed(2)} s, worst ${(Math.max(...starts) / 1000).toFixed(2)} s, n 5`);

const door = (await (await fetch(`${server.base}/api/door`)).json()) as { people: { id: string }[] };
const entered = await fetch(`${server.base}/api/door/session`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ personId: door.people[0]?.id, passphrase: PASSPHRASE }) });
const cookie = entered.headers.get('set-cookie')?.split(';')[0] ?? '';
const get = async (path: string): Promise<unknown> => (await fetch(server.base + path, { headers: { cookie } })).json();
await timed(20, () => get('/api/stores'));
report('On-hand of all jars, through HTTP', 'p95 ≤ 20 ms', spread(await timed(300, () => get('/api/stores'))));
const lots = (await get('/api/lots')) as LotSummary[];
const lotAt = (i: number): string => lots[(i * 37) % lots.length]?.id ?? '';
await timed(20, (i) => get(`/api/lots/${lotAt(i)}`));
report('Opening a lot, through HTTP', 'p95 ≤ 30 ms', spread(await timed(300, (i) => get(`/api/lots/${lotAt(i)}`))));
report('All lots as a list, through HTTP', '–', spread(await timed(20, () => get('/api/lots'))));
report('One write, flushed to disk, through HTTP', '–', spread(await timed(100, (i) => fetch(`${server.base}/api/waters`, { method: 'POST', headers: { 'content-type': 'application/json', cookie }, body: JSON.stringify({ id: randomUUID(), name: `Water ${randomUUID()}`, ph: 7, hardnessDh: 1, note: '' }) }))));

if (chromiumPath === undefined) console.log('First page: not measured, there is no Chromium on this machine.');
else await measureFirstPage(server.base);
await server.stop();
remove();

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
  report('First page, first contentful paint', '≤ 1.5 s', `median ${(percentile(paints, 0.5) / 1000).toFixed(2)} s, worst ${(Math.max(...paints) / 1000).toFixed(2)} s, n 5`);
}

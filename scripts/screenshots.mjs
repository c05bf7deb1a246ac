// One picture of each main view, from the demo studio: npm run screenshots
import { mkdirSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';

await build();
const { launch } = await import('./browser.mjs');
const { serveDemo } = await import('./serve.mjs');
const server = await serveDemo();
const browser = await launch();
const out = process.argv[2] ?? join(root, 'docs', 'screenshots');
const [width, height] = (process.argv[3] ?? '1280x800').split('x').map(Number);
mkdirSync(out, { recursive: true });
try {
  const page = await browser.newPage();
  page.on('requestfailed', (request) => console.error(`failed: ${request.url()} ${request.failure()?.errorText}`));
  page.on('pageerror', (error) => console.error(`page error: ${error.message}`));
  await page.setViewport({ width, height });
  const settle = () => new Promise((resolve) => setTimeout(resolve, 700));
  const shot = async (name) => {
    await settle();
    await page.screenshot({ path: join(out, `${name}.png`) });
    console.log(name);
  };
  const go = async (path) => {
    await page.goto(server.base + path, { waitUntil: 'domcontentloaded' });
    await page.waitForSelector('h1');
  };
  const ask = (path) => page.evaluate(async (p) => (await fetch(p)).json(), path);

  await page.goto(`${server.base}/`);
  await page.waitForSelector('input[type=radio]');
  await page.click('input[type=radio]');
  await page.type('input[type=password]', 'mud on the slipway');
  await page.click('button[type=submit]');
  await page.waitForSelector('vs-shell');
  const lots = await ask('/api/lots');
  const colourways = await ask('/api/colourways');
  const recipes = await ask('/api/recipes');
  const jars = await ask('/api/stores');
  const marram = colourways.find((c) => c.name === 'Marram').id;
  const reordered = lots.find((l) => l.state === 'released' && l.reorderOf && l.batches > 1);
  const withDeviation =
    lots.find((l) => l.state === 'released' && l.batches > 1 && l.stations.some((s) => s.hasDeviation)) ?? reordered;

  for (const place of ['today', 'stores']) {
    await go(`/${place}`);
    await shot(place);
  }
  await go(`/stores/${jars.find((j) => j.tag === 'WEL-2').id}`);
  await shot('jar');
  await go('/plan');
  await page.waitForFunction(
    () => document.querySelector('.block') && !document.querySelector('p[role=status] button'),
  );
  await shot('plan');
  await go('/judge/book');
  await page.waitForSelector('ol.page vs-swatch');
  await shot('swatch-book');
  await go('/judge/fastness');
  await page.waitForSelector('vs-chart svg path');
  await shot('fastness');
  const materials = await ask('/api/materials');
  await go(`/stores/materials/${materials.find((m) => m.name === 'Tansy, dried').id}`);
  await page.waitForSelector('vs-chart svg path');
  await shot('material');
  const version = (name, n = 0) => recipes.find((r) => r.name === name).versions[n].id;
  await go(`/recipes/${version('One weld pot, three fibres')}`);
  await shot('recipe');
  await go(`/recipes/write?from=${version('Tide-line ribbon')}`);
  await page.waitForSelector('.chain');
  await page.evaluate(() => {
    const placed = [...document.querySelectorAll('main summary')].find((s) => s.innerText.includes('Placed colour'));
    placed.click();
    placed.scrollIntoView();
  });
  await shot('placed');
  const trials = await ask('/api/strip-trials');
  await go(`/recipes/strips/${trials.find((t) => t.factor === 'dose').id}`);
  await shot('strips');
  await go(`/colourways/${marram}`);
  await shot('colourway');
  const orders = await ask('/api/orders');
  await go(`/orders/${orders.find((o) => o.number === 2).id}`);
  await page.waitForSelector('vs-line-pieces form');
  await shot('order');
  await go(`/lots/${withDeviation.id}`);
  await shot('lot');
  await go(`/lots/new?again=${reordered.id}`);
  await page.waitForSelector('vs-then-and-now');
  await shot('dye-again');
  // One that has something to say: a correction, and a strike-off that is worth its while.
  const unsure = lots.find((l) => l.state === 'released' && l.colourway.name === 'Sluice') ?? reordered;
  await go(`/lots/new?again=${unsure.id}`);
  await page.waitForSelector('vs-reorder-letter section');
  await page.evaluate(() => document.querySelector('vs-reorder-letter')?.scrollIntoView());
  await shot('letter');
  await go(`/lots/new?colourway=${marram}`);
  await page.waitForSelector('input[name=written]');
  await page.type('input[name=written]', '12 hanks of 8 oz');
  await page.waitForSelector('vs-reorder-letter section');
  await page.focus('tbody tr:nth-child(1) td:nth-child(5) vs-figure button');
  await shot('new-lot');
  await go(`/judge/${lots.find((l) => l.state === 'toJudge').id}`);
  await shot('judge-lot');
  const inWork = lots.find((l) => l.state === 'inWork');
  const press = async (text, selector = 'main button, main summary') => {
    await page.evaluate(
      (t, s) => [...document.querySelectorAll(s)].find((b) => b.innerText.trim().startsWith(t) && !b.disabled)?.click(),
      text,
      selector,
    );
    await settle();
  };
  const send = (path, body) =>
    page.evaluate(
      async (p, b) =>
        (
          await fetch(p, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(b) })
        ).json(),
      path,
      body,
    );
  const draft = (stepIndex, kind, ageMin = 0, rest = {}) => ({
    lotId: inWork.id,
    ageMs: ageMin * 60_000,
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
  // Weighing out, with what lies on the simulated balance.
  const detail = await ask(`/api/lots/${inWork.id}`);
  const mordant = detail.plan.steps.find((s) => s.kind === 'mordant');
  await send('/api/bench/run-entries', {
    drafts: [
      ...detail.plan.steps
        .slice(0, mordant.index)
        .filter((s) => !['done', 'skipped'].includes(detail.summary.stations[s.index].state))
        .map((s) => draft(s.index, 'skip', 52, { text: 'done with the lot before' })),
      draft(mordant.index, 'start', 50, { text: 'the lot before it was poured into the tub' }),
    ],
  });
  await page.evaluate(() => localStorage.setItem('vestigia-balance', 'simulated'));
  await go(`/bench/${inWork.id}`);
  await page.waitForSelector('.live');
  await page.evaluate(() => {
    document.querySelector('vs-simulator-controls details').open = true;
  });
  await press('what is wanted');
  await page.waitForSelector('.live.steady');
  await page.evaluate(() => document.querySelector('main').scrollIntoView());
  await shot('bench');
  await page.evaluate(() => localStorage.removeItem('vestigia-balance'));
  // The same step fifty minutes on, its bath followed by a probe.
  await send('/api/bench/run-entries', {
    drafts: mordant.weighings.map((w) =>
      draft(mordant.index, 'weigh', 48, {
        weighing: {
          batch: w.batch,
          materialId: w.materialId,
          stockLotId: w.picks[0].stockLotId,
          quantityText: `${w.target.value} g`,
          movementId: randomUUID(),
        },
      }),
    ),
  });
  await send(`/api/lots/${inWork.id}/probe`, {
    id: randomUUID(),
    stepIndex: mordant.index,
    points: Array.from({ length: 470 }, (_, i) => [
      (470 - i) * 6000,
      Math.round((24 + 58 * (1 - Math.exp(-i / 130)) + Math.sin(i / 9) * 0.3) * 100) / 100,
    ]),
  });
  await go(`/bench/${inWork.id}`);
  await page.waitForSelector('vs-heat-watch svg path');
  await shot('heat');
} finally {
  await browser.close();
  await server.stop();
  server.remove();
}

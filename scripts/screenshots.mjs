// One picture of each main view, from the demo studio: npm run screenshots
import { mkdirSync } from 'node:fs';
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
  const knotted = lots.find((l) => l.state === 'released' && l.batches > 1 && l.stations.some((s) => s.knotted)) ?? reordered;

  for (const place of ['today', 'stores', 'recipes', 'lots', 'studio']) {
    await go(`/${place}`);
    await shot(place);
  }
  await go(`/stores/${jars.find((j) => j.tag === 'WEL-2').id}`);
  await shot('jar');
  await go('/stores/ahead');
  await shot('ahead');
  const materials = await ask('/api/materials');
  await go(`/stores/materials/${materials.find((m) => m.name === 'Tansy, dried').id}`);
  await page.waitForSelector('vs-chart svg path');
  await shot('material');
  const walk = '01f00000-0000-7000-8000-000000000001';
  await page.evaluate(async (id) => {
    const send = (path, body) => fetch(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
    await send('/api/count-walks', { id, place: 'Mordant cupboard, top', blind: true });
    const { lines } = await (await fetch(`/api/count-walks/${id}`)).json();
    const figures = [`${lines[0].row.onHand / 1000} g`, `${lines[1].row.onHand / 10000} g`];
    for (const [i, written] of figures.entries()) await send(`/api/count-walks/${id}/entries`, { id: `01f00000-0000-7000-8000-00000000001${i}`, stockLotId: lines[i].row.id, written, gross: false, seenOnHand: lines[i].row.onHand, fromBalance: false });
  }, walk);
  await go(`/stores/count/${walk}`);
  await page.waitForSelector('.one');
  await shot('count');
  const version = (name, n = 0) => recipes.find((r) => r.name === name).versions[n].id;
  await go(`/recipes/${version('One weld pot, three fibres')}`);
  await shot('recipe');
  await go(`/recipes/${version('Weld on alum', 1)}/compare?with=${version('Weld on alum')}`);
  await shot('compare');
  await go(`/recipes/write?from=${version('Tide-line ribbon')}`);
  await page.waitForSelector('.chain');
  await page.evaluate(() => { const placed = [...document.querySelectorAll('main summary')].find((s) => s.innerText.includes('Placed colour')); placed.click(); placed.scrollIntoView(); });
  await shot('placed');
  const trials = await ask('/api/strip-trials');
  await go(`/recipes/strips/${trials.find((t) => t.factor === 'dose').id}`);
  await shot('strips');
  await go(`/colourways/${marram}`);
  await shot('colourway');
  await go(`/lots/${knotted.id}`);
  await shot('lot');
  await go(`/lots/new?again=${reordered.id}`);
  await page.waitForSelector('vs-then-and-now');
  await shot('dye-again');
  await go(`/lots/new?colourway=${marram}`);
  await page.waitForSelector('input[name=written]');
  await page.type('input[name=written]', '12 hanks of 8 oz');
  await page.waitForSelector('vs-figure button');
  await page.focus('tbody tr:nth-child(1) td:nth-child(5) vs-figure button');
  await shot('new-lot');
  await go(`/judge/${lots.find((l) => l.state === 'toJudge').id}`);
  await shot('judge-lot');
  await go(`/bench/${lots.find((l) => l.state === 'inWork').id}`);
  const press = async (text) => {
    await page.evaluate((t) => [...document.querySelectorAll('main button')].find((b) => b.textContent.trim() === t)?.click(), text);
    await settle();
  };
  for (let i = 0; i < 3 && !(await page.$('.target')); i += 1) {
    await press('Done');
    await press('Begin');
  }
  await shot('bench');
} finally {
  await browser.close();
  await server.stop();
  server.remove();
}

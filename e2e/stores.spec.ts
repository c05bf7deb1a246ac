import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Material, MaterialPage, ShelfRow, StockLot } from '@vestigia/contract';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serveDemo } from '../scripts/serve.mjs';
import { Someone } from './person';

describe('stores, on the demo studio', () => {
  let server: Served & { remove(): void };
  let browser: Browser;
  let corin: Someone;
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-files-'));
  beforeAll(async () => {
    [server, browser] = await Promise.all([serveDemo(), launch()]);
    corin = await Someone.at(browser, server.base);
    await corin.signIn('Corin Ashlock', 'mud on the slipway');
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
    server.remove();
    rmSync(folder, { recursive: true });
    expect(corin.troubles).toEqual([]);
  });
  const ownStockLot = (): Promise<StockLot> =>
    corin.ask<StockLot>(`/api/stock-lots/${corin.page.url().split('/').at(-1)}`);
  const stockLotTagged = async (tag: string): Promise<StockLot> =>
    corin.ask<StockLot>(
      `/api/stock-lots/${(await corin.ask<ShelfRow[]>('/api/stores')).find((r) => r.tag === tag)?.id}`,
    );
  const tick = async (label: string): Promise<void> => {
    const box = (await corin.page.waitForFunction(
      (w) =>
        [...document.querySelectorAll('main label')].find((l) => (l as HTMLElement).innerText.trim().startsWith(w)),
      {},
      label,
    )) as ElementHandle<Element>;
    await box.evaluate((l) => (l as HTMLElement).click());
  };
  const chooseFile = async (name: string, content: string): Promise<void> => {
    writeFileSync(join(folder, name), content);
    const field = (await corin.page.waitForSelector(
      'input[type=file]:not(:disabled)',
    )) as ElementHandle<HTMLInputElement>;
    await field.uploadFile(join(folder, name));
  };

  it('warns of bad neighbours, and goes down the shelf by keyboard', async () => {
    await corin.go('/stores');
    await corin.sees('acid on chlorine bleach sets free poisonous chlorine gas', 'aside');
    await corin.sees('71 jars');
    await corin.page.focus('cdk-virtual-scroll-viewport');
    await corin.page.keyboard.press('ArrowDown');
    await corin.page.keyboard.press('ArrowDown');
    const at = await corin.page.evaluate(() => (document.activeElement as HTMLElement).innerText);
    expect(at).toBe('ALD-2');
    expect(
      await corin.page.evaluate(() => document.querySelectorAll('cdk-virtual-scroll-viewport .line').length),
    ).toBeLessThan(40);
    await corin.page.evaluate(() =>
      [...document.querySelectorAll('button')].find((b) => b.innerText === 'Free')?.click(),
    );
    await corin.page.waitForFunction(() =>
      document.querySelector('[aria-sort=ascending]')?.textContent?.includes('Free'),
    );
  });

  it('shows the shelf as it stood on another day', async () => {
    await corin.page.evaluate(() => {
      const field = document.querySelector<HTMLInputElement>('input[name=on]');
      if (!field) return;
      field.value = new Date(Date.now() - 200 * 86_400_000).toISOString().slice(0, 10);
      field.dispatchEvent(new Event('input'));
    });
    await corin.sees('The shelf as it stood at the end of that day.');
    expect(await corin.text('main')).not.toContain('BLE-1');
    await corin.press('Back to now');
    await corin.sees('71 jars');
  });

  it('takes a material from the catalogue, books a harvest with leave, and dries it with its factor kept', async () => {
    await corin.go('/stores/material');
    await corin.write('Name', 'tin chloride');
    await corin.sees('Chrome, tin, lead and mercury salts are not in this catalogue');
    await corin.write('Name', 'tagetes');
    await corin.press(/^Marigold/, 'mat-option');
    await corin.sees('Taken from the catalogue: Marigold');
    await corin.press('Add the material');
    await corin.sees('Book in', 'h1');
    await tick('gathered or grown');
    await corin.write('How much, net', '4.5 kg');
    await corin.write('Tag, or one is made', 'MAR-F');
    await corin.press('Put it on the shelf');
    await corin.sees('Say whose permission there was', '[role=alert]');
    await tick('on somebody else’s, or nobody’s');
    await corin.write('Whose leave there was', 'the owner of the carr');
    await corin.write('Share of the stand taken, %', '30');
    await corin.press('Put it on the shelf');
    await corin.sees('MAR-F · Marigold', 'h1');
    expect(await ownStockLot()).toMatchObject({
      facts: {
        origin: 'harvest',
        gathering: { ownGround: false, permission: 'the owner of the carr', sharePercent: 30 },
      },
      lines: [{ kind: 'gather', amount: 4_500_000 }],
    });
    await corin.press('Grind, dry or blend it');
    await corin.write('How much of it', '4.5 kg');
    await corin.write('What it weighs dried', '5 kg');
    await corin.press('Keep what was made');
    await corin.sees('5 kg can’t come out of 4.5 kg', '[role=alert]');
    await corin.write('What it weighs dried', '0.9 kg');
    await corin.sees(/Fresh to dried: 5 g fresh for 1 g dried/);
    await corin.sees('3.6 kg goes off as loss');
    await corin.write('Tag, or one is made', 'MAR-D');
    await corin.press('Keep what was made');
    await corin.sees('MAR-D · Marigold', 'h1');
    await corin.sees(/MAR-F · 4.5 kg/, 'vs-trace-picture');
    expect((await stockLotTagged('MAR-D')).parents).toMatchObject([{ tag: 'MAR-F', kind: 'dry' }]);
    expect((await stockLotTagged('MAR-F')).row.onHand).toBe(0);
  });

  it('teaches a spoon from the simulated balance and plans in spoons with the error shown', async () => {
    const alum = (await corin.ask<Material[]>('/api/materials')).find((m) => m.name === 'Soda ash');
    await corin.go(`/stores/materials/${alum?.id}`);
    for (let n = 1; n <= 3; n += 1) {
      // The page says what it knows of the spoon so far before the next weighing begins.
      if (n > 1)
        await corin.page.waitForFunction(() => !document.querySelector('main')?.textContent?.includes('(simulated)'));
      await corin.press('Read the balance');
      await corin.sees('(simulated)');
      await corin.press('Keep this weighing');
      await corin.page.waitForFunction(
        async (path, times) => ((await (await fetch(path)).json()) as MaterialPage).spoons[0]?.weighings === times,
        {},
        `/api/materials/${alum?.id}`,
        n,
      );
    }
    await corin.sees(/metric tsp\s+\d\.\d\d g/);
    await corin.write('A dose of … in spoons', '20 g');
    await corin.sees('nineteen times in twenty within');
  });

  it('counts a place blind, lists what differs with a likely reason, and books it together', async () => {
    await corin.go('/stores/count');
    await corin.choose('Place', 'Mordant cupboard, top');
    await corin.press('Begin the count');
    await corin.sees('Counting Mordant cupboard, top', 'h1');
    expect(await corin.text('.one')).not.toContain('expects');
    const rows = (await corin.ask<ShelfRow[]>('/api/stores'))
      .filter((r) => r.place === 'Mordant cupboard, top' && r.onHand > 0)
      .sort((a, b) => (a.tag < b.tag ? -1 : 1));
    for (const [i, row] of rows.entries()) {
      await corin.sees(row.tag, '.one .big');
      const gross = (await corin.text('.one')).includes('with its container of')
        ? ((await stockLotTagged(row.tag)).facts.tareMg ?? 0)
        : 0;
      const grams = (i === 0 ? row.onHand / 10 : row.onHand) + gross;
      await corin.write(gross > 0 ? 'It weighs, with its container' : 'How much there is', `${grams / 1000} g`);
      await corin.press('Next jar');
    }
    await corin.sees('Every jar here has a figure. These differ.');
    await corin.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('input.reason')?.value === 'a decimal point slipped',
    );
    await corin.sees('or something was taken and not written down');
    expect((await stockLotTagged(rows[0]?.tag ?? '')).row.onHand).toBe(rows[0]?.onHand);
    await corin.press('Book one difference');
    await corin.sees('Stores', 'h1');
    await corin.page.waitForFunction(() => location.pathname === '/stores');
    expect((await stockLotTagged(rows[0]?.tag ?? '')).lines.at(-1)).toMatchObject({
      kind: 'count',
      note: 'a decimal point slipped',
    });
  });

  it('keeps a mordant bath and says what brings it back', async () => {
    await corin.go('/stores/liquor');
    await corin.write('Its name', 'Alum bath of the linen days');
    await corin.write('Volume', '10 l');
    await corin.choose('Of what', 'Potassium alum');
    await corin.write('Went in', '200 g');
    await corin.sees('Left in it: 80 g');
    await corin.press('Keep the liquor');
    await corin.sees('Alum bath of the linen days', 'h1');
    await corin.press('Replenish it', '[role=tab]');
    await corin.write('Dry fibre that is next', '1 kg');
    await corin.sees('To add: 70 g');
    await corin.write('Added, from the balance', '70 g');
    await corin.choose('From the jar', 'POT-3');
    await corin.press('Keep the entry');
    await corin.sees('70 g of Potassium alum added, from POT-3');
    expect((await ownStockLot()).liquorNow).toMatchObject([{ name: 'Potassium alum', grams: 150 }]);
    await corin.press('Boiled down or topped up', '[role=tab]');
    await corin.write('There is now', '4 l');
    await corin.press('Keep the entry');
    await corin.sees('steamed off: 4 l now, and all that was dissolved');
    expect(await ownStockLot()).toMatchObject({ row: { onHand: 4_000_000 }, liquorNow: [{ grams: 150 }] });
    await corin.press('Dye in it');
    await corin.choose('What goes in', 'Linen scrim');
    await corin.write('How much of it', '1 length of 250 g');
    await corin.press('Plan the lot');
    await corin.sees('A new lot', 'h1');
    await corin.sees(/1 length of 250 g|250 g/);
    await corin.sees('Alum bath of the linen days');
  });

  it('brings a table in with every row’s fate, once, and refuses one that is broken', async () => {
    await corin.go('/stores/files');
    await tick('Movements');
    const text =
      'tag;kind;amount;unit;at;note\r\nCHA-1;give;-12,5;g;2026-11-01;to the school\r\nCHA-1;spoil;-2;g;2026-11-02;damp\r\n';
    await chooseFile('moved.csv', text);
    await corin.sees('2 new, 0 here already, 0 can’t be taken.');
    const before = (await stockLotTagged('CHA-1')).row.onHand;
    await corin.press('Keep all its rows');
    await corin.sees('Written: 2 rows.');
    expect((await stockLotTagged('CHA-1')).row.onHand).toBe(before - 14_500);
    await chooseFile('again.csv', text);
    await corin.sees('0 new, 2 here already, 0 can’t be taken.');
    await chooseFile('bad.csv', 'tag,kind,amount,unit,at\nNOPE,use,-1,g,2026-11-01\nCHA-1,use,-1,furlong,2026-11-01');
    await corin.sees('0 new, 0 here already, 2 can’t be taken.');
    await corin.sees('There is no jar tagged “NOPE” here');
    await chooseFile('cut.csv', 'tag,note\nCHA-1,"half a');
    await corin.sees('it was cut off', '[role=alert]');
    expect((await stockLotTagged('CHA-1')).row.onHand).toBe(before - 14_500);
  });

  it('looks ahead: what to get, when things run out, and what stock is worth', async () => {
    await corin.go('/stores/ahead');
    await corin.sees(/order\s+Pot bleach\s+4 l/);
    const paper = Buffer.from(await corin.page.pdf({ format: 'A4' })).toString('latin1');
    expect(paper.match(/\/Type\s*\/Page\b/g)?.length).toBeGreaterThan(1);
    await corin.press('Potassium alum', 'main table a');
    await corin.sees('On hand, the last year and ahead');
    await corin.page.waitForSelector('vs-chart svg path');
    await corin.go('/stores/worth');
    await corin.sees(/First in, first out\s+£[\d.]+/);
  });
});

import type { Colourway, LotDetail, LotSummary, RecipeSummary, ShelfRow, StockLot, Studio } from '@vestigia/contract';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serveDemo } from '../scripts/serve.mjs';
import { Someone } from './person';

describe('keeping house, on the demo studio', () => {
  let server: Served & { remove(): void };
  let browser: Browser;
  let corin: Someone;
  let wenna: Someone;
  beforeAll(async () => {
    [server, browser] = await Promise.all([serveDemo(), launch()]);
    corin = await Someone.at(browser, server.base);
    wenna = await Someone.at(browser, server.base);
    await corin.signIn('Corin Ashlock', 'mud on the slipway');
    await wenna.signIn('Wenna Tidewell', 'seven wet hanks');
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
    server.remove();
    expect([corin.troubles, wenna.troubles]).toEqual([[], []]);
  });

  it('adds a pot and uses it in the next lot', async () => {
    await corin.press('Studio');
    await corin.press('Add a vessel');
    await corin.write('Name', 'Sea boiler');
    await corin.write('Filled with room to turn, litres', '90');
    await corin.press('Keep the vessel');
    await corin.sees('Sea boiler');
    expect((await corin.ask<Studio>('/api/studio')).vessels.find((v) => v.name === 'Sea boiler')).toMatchObject({
      metal: 'stainless',
      workingMl: 90_000,
      version: 1,
    });
    const marram = (await corin.ask<Colourway[]>('/api/colourways')).find((c) => c.name === 'Marram');
    await corin.go(`/lots/new?colourway=${marram?.id}`);
    await corin.write('How many, of what dry weight', '12 hanks of 8 oz');
    await corin.sees('Sea boiler');
    await corin.sees(/1\s+Sea boiler\s+stainless\s+12/);
  });

  it('leaves a pot out when it is not to be used', async () => {
    await corin.page.evaluate(() => document.querySelector<HTMLElement>('summary')?.click());
    await corin.page.evaluate(() =>
      [...document.querySelectorAll<HTMLLabelElement>('details label')]
        .find((l) => l.innerText.includes('Sea boiler'))
        ?.click(),
    );
    await corin.sees('Pots that may be used: 6 of 7');
    await corin.sees('Tall kettle');
    await corin.page.waitForFunction(
      () => !document.querySelector<HTMLElement>('main .ledger')?.innerText.includes('Sea boiler'),
    );
  });

  it('shows both sides when two people change one label, and overwrites neither', async () => {
    const chalk = (await corin.ask<ShelfRow[]>('/api/stores')).find((r) => r.material === 'Chalk');
    for (const someone of [corin, wenna]) {
      await someone.go(`/stores/${chalk?.id}`);
      await someone.sees('The label');
    }
    // Wenna's browser is cut from the news, so that she edits what is no longer so.
    await wenna.page.evaluate(() => Object.defineProperty(document, 'hidden', { value: true, configurable: true }));
    await wenna.page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
    await corin.write('Place on the shelf', 'High shelf');
    await corin.press('Keep the label');
    await corin.page.waitForFunction(
      async (path) => ((await (await fetch(path)).json()) as StockLot).row.place === 'High shelf',
      {},
      `/api/stock-lots/${chalk?.id}`,
    );
    await wenna.write('Place on the shelf', 'Low shelf');
    await wenna.press('Keep the label');
    await wenna.sees('Someone changed this since you opened it.', '[role=alert]');
    await wenna.sees(/place: was “.*”, is “High shelf” now/, '[role=alert]');
    await wenna.press('Take what stands now');
    await wenna.page.waitForFunction(() =>
      [...document.querySelectorAll('input')].some((i) => i.value === 'High shelf'),
    );
    expect((await corin.ask<StockLot>(`/api/stock-lots/${chalk?.id}`)).row.place).toBe('High shelf');
  });

  it('says of a pot too what somebody else changed, and keeps what was typed', async () => {
    await corin.go('/studio');
    const [pot] = (await corin.ask<Studio>('/api/studio')).vessels;
    await corin.press('Change', `[aria-label="Change ${pot?.name}"]`);
    await corin.write('Note: what it once held', 'walnut, long ago');
    await wenna.go('/studio');
    await wenna.press('Change', `[aria-label="Change ${pot?.name}"]`);
    await wenna.write('Note: what it once held', 'madder');
    await wenna.press('Keep the vessel');
    await corin.sees(/note: was “.*”, is “madder” now/, '[role=alert]');
    await corin.press('Keep what I wrote');
    await corin.press('Keep the vessel');
    await corin.page.waitForFunction(
      async (id) =>
        ((await (await fetch('/api/studio')).json()) as Studio).vessels.find((v) => v.id === id)?.note ===
        'walnut, long ago',
      {},
      pot?.id,
    );
  });

  it('reverses a delivery booked by mistake, and keeps the mistake to be seen', async () => {
    await corin.go('/stores/delivery');
    await corin.choose('Material', 'Soda ash');
    await corin.write('How much, net', '5 kg');
    await corin.write('Tag, or one is made', 'WRONG');
    await corin.press('Put it on the shelf');
    await corin.sees('WRONG · Soda ash', 'h1');
    await corin.sees('gloves and goggles', 'aside');
    await corin.press('Reverse');
    await corin.write('Why is it reversed?', 'booked twice');
    await corin.press('Reverse the entry');
    await corin.sees('−5 kg');
    const id = corin.page.url().split('/').at(-1);
    expect(
      (await corin.ask<StockLot>(`/api/stock-lots/${id}`)).lines.map((l) => [l.kind, l.amount, l.reversed]),
    ).toEqual([
      ['receive', 5_000_000, true],
      ['reverse', -5_000_000, false],
    ]);
  });

  it('writes the next version of a recipe as a trial, and leaves the old one as it was', async () => {
    const recipe = async (): Promise<RecipeSummary | undefined> =>
      (await corin.ask<RecipeSummary[]>('/api/recipes')).find((r) => r.name === 'Cutch brown');
    await corin.go(`/recipes/${(await recipe())?.versions[0]?.id}`);
    await corin.press('Write the next version');
    await corin.sees('The next version of Cutch brown', 'h1');
    await corin.write('Liquor ratio, ml per g', '28');
    await corin.press('Keep the recipe as a trial');
    await corin.sees('version 2', 'h1');
    await corin.sees('1:28');
    expect((await recipe())?.versions.map((v) => [v.number, v.status])).toEqual([
      [1, 'proven'],
      [2, 'trial'],
    ]);
    await corin.choose('Standing', 'proof');
    await corin.write('Why', 'first proof was even');
    await corin.press('Keep the status');
    await corin.sees('first proof was even', 'aside');
    await corin.press('1 (proven)');
    await corin.sees('1:25');
  });

  it('writes down what was seen, corrects a weight beside the wrong one, and calls a lot off', async () => {
    const wreckwood = (await corin.ask<Colourway[]>('/api/colourways')).find((c) => c.name === 'Wreckwood');
    await corin.go(`/lots/new?colourway=${wreckwood?.id}`);
    await corin.write('How many, of what dry weight', '2 hanks of 200 g');
    await corin.sees('2 hanks of 200 g, 400 g dry');
    await corin.lookOver();
    await corin.press('Plan the lot and promise its stock');
    await corin.press('Begin at the bench');
    await corin.press('Begin');
    await corin.sees('400 g', '.target .amount');
    await corin.write('What the balance shows', '40 g');
    await corin.sees('360 g less than planned. It is recorded as it is.');
    await corin.press('Weighed');
    await corin.sees('40 g Rug wool from', 'main .ledger');
    await corin.press('Correct');
    await corin.write('What was really weighed', '402 g');
    await corin.press('Keep the correction');
    await corin.sees('402 g Rug wool from', 'main .ledger');
    await corin.press('Note');
    await corin.write('What you saw', 'One hank has a stain');
    await corin.press('Keep the note');
    await corin.sees('One hank has a stain', 'main .ledger');
    await corin.handedOver();
    const [lot] = (await corin.ask<LotSummary[]>('/api/lots')) as [LotSummary];
    const detail = await corin.ask<LotDetail>(`/api/lots/${lot.id}`);
    expect(detail.entries.map((e) => e.kind)).toEqual(['start', 'weigh', 'weigh', 'note']);
    expect(detail.madeFrom).toMatchObject([{ material: 'Rug wool', amount: 402_000 }]);
    await corin.go(`/lots/${lot.id}`);
    await corin.page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('summary')]
        .find((s) => s.innerText.includes('Call the lot off'))
        ?.click(),
    );
    await corin.press('Call it off, and free its stock');
    await corin.sees('Say why the lot is cancelled.', '[role=alert]');
    await corin.write('Why', 'the customer withdrew');
    await corin.press('Call it off, and free its stock');
    await corin.sees('cancelled', '.head');
    expect((await corin.ask<LotDetail>(`/api/lots/${lot.id}`)).stockLots.every((j) => j.reservedHere === 0)).toBe(true);
  });

  it('refuses a lot it could not dye, in words, and offers nothing to agree to', async () => {
    const marram = (await corin.ask<Colourway[]>('/api/colourways')).find((c) => c.name === 'Marram');
    await corin.go(`/lots/new?colourway=${marram?.id}`);
    for (const [quantityText, message] of [
      ['900 hanks of 200 g', 'hanks are more than the vessels for “Dye” hold together'],
      ['1 hank of 900 kg', 'Check the unit'],
      ['-3 kg', 'can’t be below zero'],
      ['<script>', 'is not a weight'],
    ] as const) {
      await corin.write('How many, of what dry weight', quantityText);
      await corin.sees(message, '[role=alert]');
      expect(
        await corin.page.evaluate(() =>
          [...document.querySelectorAll('button')].some((b) => b.innerText.includes('Agree')),
        ),
      ).toBe(false);
    }
  });

  it('says plainly what an address that is none holds', async () => {
    await corin.go('/nowhere');
    await corin.sees('Nothing is kept here', 'h1');
    await corin.page.goto(`${corin.base}/lots/01900000-0000-7000-8000-000000000000`);
    await corin.sees('There is no such lot here.', '[role=alert]');
  });
});

import type { LotDetail, LotSummary, MatchRecord } from '@vestigia/contract';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serveDemo } from '../scripts/serve.mjs';
import { Someone } from './person';

/** Somebody wants the same again: what earlier lots say, what is changed for it, and how good that has been. */
describe('a reorder is foretold and corrected', () => {
  let server: Served & { remove(): void };
  let browser: Browser;
  let isaby: Someone;
  beforeAll(async () => {
    [server, browser] = await Promise.all([serveDemo(), launch()]);
    isaby = await Someone.at(browser, server.base);
    await isaby.signIn('Isaby Fennimore', 'heron at low tide');
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
    server.remove();
  });

  it('the letter says what will come out; taken, the lot is weighed so and the recipe stays as proven', async () => {
    const lots = await isaby.ask<LotSummary[]>('/api/lots');
    // Whichever of these has something that can be corrected today: the demo’s days go on.
    let earlier: LotSummary | undefined;
    for (const name of ['Winkle', 'Sluice', 'Tide Line', 'Slack Water']) {
      earlier = lots.find((l) => l.state === 'released' && l.colourway.name === name);
      if (!earlier) continue;
      await isaby.settled(`/lots/new?again=${earlier.id}`);
      await isaby.sees(/As it is planned it should come out/, 'vs-reorder-letter');
      if (await isaby.page.$('vs-reorder-letter .ways button')) break;
    }
    if (!earlier) throw new Error('no such colourway was ever released');
    await isaby.sees(/It stands on \d+ readings of this colourway/, 'vs-reorder-letter summary');
    const total = (): Promise<string> =>
      isaby.page.$eval('vs-lot-weighings', (e) => (e as HTMLElement).innerText.replaceAll(/\s+/g, ' '));
    const before = await total();
    await isaby.press('Plan it so', 'vs-reorder-letter button');
    await isaby.sees('Planned with its doses corrected.');
    await isaby.sees(/Corrected for this lot: .* than the recipe says/);
    await isaby.page.waitForFunction(
      (was) => document.querySelector('vs-lot-weighings')?.textContent?.replaceAll(/\s+/g, ' ') !== was,
      {},
      before,
    );
    await isaby.lookOver('so that it matches');
    await isaby.page.$eval('[name=short]', (e) => (e as HTMLInputElement).click()).catch(() => undefined);
    await isaby.press('Agree, and promise the stock');
    await isaby.page.waitForFunction(() => /^\/lots\/[0-9a-f-]{36}$/.test(location.pathname));
    const id = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    const lot = await isaby.ask<LotDetail>(`/api/lots/${id}`);
    expect(lot.extras.corrected.length).toBeGreaterThan(0);
    expect(lot.recipe.versionId).toBe((await isaby.ask<LotDetail>(`/api/lots/${earlier.id}`)).recipe.versionId);
  });

  it('says how good that has been, each lot foretold from the others, and how strong each jar is', async () => {
    await isaby.settled('/judge/foretold');
    await isaby.sees(/each foretold from all the others, half came out within ΔE00 0\.\d of that/);
    await isaby.sees('Marram', 'table');
    const { readings } = await isaby.ask<MatchRecord>('/api/match/record');
    await isaby.sees(new RegExp(`Of ${readings.filter((r) => !r.isMaster).length} readings`));
    expect(await isaby.page.$$eval('.mounts figure', (all) => all.length)).toBe(8);
    expect(isaby.troubles).toEqual([]);
  });
});

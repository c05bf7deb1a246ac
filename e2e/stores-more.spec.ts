import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Material, MaterialPage, ShelfRow, StockLot, Studio } from '@vestigia/contract';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

const PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNgAAAAAgABSK+kcQAAAABJRU5ErkJggg==';

describe('stores by hand and by keyboard, on the demo studio', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-kept-'));
  beforeAll(() => {
    ({ isaby } = demo);
  });
  afterAll(() => {
    rmSync(folder, { recursive: true });
  });
  const stockLotTagged = async (tag: string): Promise<StockLot> =>
    isaby.ask<StockLot>(
      `/api/stock-lots/${(await isaby.ask<ShelfRow[]>('/api/stores')).find((r) => r.tag === tag)?.id}`,
    );
  const openStockLot = async (tag: string): Promise<void> => {
    await isaby.go(`/stores/${(await stockLotTagged(tag)).row.id}`);
    await isaby.sees(tag, 'h1');
  };
  const attach = async (name: string, content: Buffer): Promise<void> => {
    writeFileSync(join(folder, name), content);
    const field = (await isaby.page.waitForSelector('main input[type=file]')) as ElementHandle<HTMLInputElement>;
    await field.uploadFile(join(folder, name));
  };

  it('opens packets whole, and gives some away only with a name', async () => {
    await openStockLot('BLK-1');
    await isaby.page.evaluate(() => document.querySelector<HTMLElement>('summary')?.click());
    await isaby.write('For dry fibre of', '600 g');
    await isaby.sees('That takes 3 packets.');
    await isaby.write('How much', '2.5 packets');
    await isaby.sees('Packets are opened whole');
    await isaby.write('How much', '2 packets');
    await isaby.sees('2 pieces leaves the jar.');
    await isaby.choose('It was …', 'given away');
    await isaby.press('Take it out of stock');
    await isaby.sees('Say to whom it was given.', '[role=alert]');
    await isaby.write('To whom', 'the bookbinder');
    await isaby.press('Take it out of stock');
    await isaby.sees('16 pieces', '.sums');
    expect((await stockLotTagged('BLK-1')).lines.at(-1)).toMatchObject({
      kind: 'give',
      amount: -2,
      balance: 16,
      note: 'the bookbinder',
    });
    await isaby.press('Grind, dry or blend it');
    await isaby.sees('Whole packets into a jar, by weight.');
    await isaby.write('How much of it', '3');
    await isaby.write('What was in them', '60 g');
    await isaby.choose('It is kept as', 'a new material …');
    await isaby.write('Its name', 'Cloth black, loose');
    await isaby.press('Keep what was made');
    await isaby.sees('Cloth black, loose', 'h1');
    expect((await stockLotTagged('BLK-1')).row.onHand).toBe(13);
  });

  it('keeps a safety sheet with its material and a photograph with its jar, and refuses what is neither', async () => {
    const iron = (await isaby.ask<Material[]>('/api/materials')).find((m) => m.name === 'Iron sulphate');
    await isaby.go(`/stores/materials/${iron?.id}`);
    await isaby.sees('dangerous to small children and animals', 'aside');
    await attach('iron.pdf', Buffer.from('not a sheet at all'));
    await isaby.sees('A safety data sheet is kept as a PDF.', '[role=alert]');
    await attach('iron.pdf', Buffer.from('%PDF-1.4 a sheet'));
    await isaby.sees('iron.pdf');
    expect((await isaby.ask<MaterialPage>(`/api/materials/${iron?.id}`)).attachments).toMatchObject([
      { name: 'iron.pdf', by: { name: 'Isaby Fennimore' } },
    ]);
    await openStockLot('IRL-1');
    await attach('bottle.png', Buffer.from(PIXEL, 'base64'));
    await isaby.page.waitForSelector('.photos img');
    expect((await stockLotTagged('IRL-1')).attachments).toHaveLength(1);
  });

  it('measures the iron liquor by a ladder, with its band', async () => {
    await isaby.press('Measure it by a ladder', '[role=tab]');
    for (const [rung, [dose, light]] of [
      ['0.5', '61'],
      ['1', '54'],
      ['2', '46'],
    ].entries()) {
      await isaby.write(`Rung ${rung + 1}: crystals, % of fibre`, dose ?? '');
      await isaby.write(`Rung ${rung + 1}: L*`, light ?? '');
    }
    await isaby.write('The liquor’s strip: L*', '70');
    await isaby.write('it took, ml of liquor', '40');
    await isaby.sees('The strip is lighter than the weakest rung.');
    await isaby.write('The liquor’s strip: L*', '54');
    await isaby.sees(/Strength: 2.5 g\/l, between 1.25 and 2.5 g\/l/);
    await isaby.press('Keep the entry');
    await isaby.sees('2.5 g/l as crystals');
    expect((await stockLotTagged('IRL-1')).liquorNow[0]?.grams).toBe(4.5);
  });

  it('asks which spoon is meant until the studio says, and then says which it took', async () => {
    await isaby.go('/studio');
    await isaby.choose('A spoon, cup or gallon here is', 'US');
    await isaby.press('Keep the settings');
    await isaby.page.waitForFunction(
      async () => ((await (await fetch('/api/studio')).json()) as Studio).volumeSystem === 'us',
    );
    await openStockLot('WHI-2');
    await isaby.page.evaluate(() => document.querySelector<HTMLElement>('summary')?.click());
    await isaby.write('How much', '1 gal');
    await isaby.sees('3.79 l leaves the jar (US gallon of 3785.41 ml).');
    await isaby.write('How much', '1 imperial pint');
    await isaby.sees('568 ml leaves the jar (imperial pint of 568.26 ml).');
  });

  it('counts by keyboard alone: figure, Enter, next', async () => {
    const { page } = isaby;
    await isaby.go('/stores/count');
    await isaby.choose('Place', 'Locked box');
    await isaby.press('Begin the count');
    const rows = (await isaby.ask<ShelfRow[]>('/api/stores'))
      .filter((r) => r.place === 'Locked box' && r.onHand > 0)
      .sort((a, b) => (a.tag < b.tag ? -1 : 1));
    for (const row of rows) {
      await isaby.sees(row.tag, '.one .big');
      await page.waitForFunction(() => document.activeElement?.getAttribute('name') === 'written');
      const tare = (await isaby.text('.one')).includes('with its container of')
        ? ((await stockLotTagged(row.tag)).facts.tareMg ?? 0)
        : 0;
      await page.keyboard.type(
        row.measure === 'volume' ? `${row.onHand / 1000} ml` : `${(row.onHand + tare) / 1000} g`,
      );
      await page.keyboard.press('Enter');
    }
    await isaby.sees('All agree with the screen.');
    await isaby.press('Book the count');
    await page.waitForFunction(() => location.pathname === '/stores');
  });

  it('does the same with several jars at once: carries them elsewhere and back, prints their tags, counts them', async () => {
    const tags = ['IRO-1', 'IRO-2'];
    const places = async (): Promise<string[]> =>
      (await isaby.ask<ShelfRow[]>('/api/stores')).filter((r) => tags.includes(r.tag)).map((r) => r.place);
    await isaby.settled('/stores');
    await isaby.write('Only jars with …', 'iron sulphate');
    await isaby.press('Choose several');
    for (const tag of tags) await isaby.point(`input[aria-label="Choose ${tag}"]`);
    await isaby.sees('2 jars chosen');
    await isaby.press('Move them elsewhere');
    await isaby.write('They stand now at', 'Iron shelf');
    await isaby.press('Move them');
    await isaby.sees('2 jars moved.');
    expect(await places()).toEqual(['Iron shelf', 'Iron shelf']);
    await isaby.press('Put them back');
    await isaby.page.waitForFunction(() => !document.querySelector('main')?.innerText.includes('2 jars moved.'));
    expect(await places()).toEqual(['Locked box', 'Locked box']);
    await isaby.press('Print their tags');
    await isaby.sees(/^2 tags\./, 'main p');
    await isaby.press('Give them their codes');
    await isaby.sees('Labels to print');
    expect((await isaby.text('tbody')).match(/IRO-[12]/g)).toEqual(tags);
    await isaby.settled('/stores?find=iron%20sulphate');
    await isaby.press('Choose several');
    await isaby.point('input[aria-label="Choose all that are shown"]');
    await isaby.press('Count them');
    await isaby.sees(/Counting \d+ jars/, 'h1');
  });

  it('puts a material away once none of it is left, and brings it back', async () => {
    const materials = await isaby.ask<Material[]>('/api/materials');
    const shelf = await isaby.ask<ShelfRow[]>('/api/stores');
    const left = new Set(shelf.filter((r) => r.onHand > 0).map((r) => r.materialId));
    const [used, empty] = [materials.find((m) => left.has(m.id))!, materials.find((m) => !left.has(m.id))!];
    await isaby.settled(`/stores/materials/${used.id}`);
    await isaby.press('Put it away');
    await isaby.sees('on the shelf still', 'vs-put-away');
    await isaby.settled(`/stores/materials/${empty.id}`);
    await isaby.press('Put it away');
    await isaby.sees('Put away: it is in no list that things are chosen from.');
    await isaby.press('Bring it back');
    await isaby.sees('Put it away', 'vs-put-away button');
  });

  it('says that two people changed a material, and keeps both until one chooses', async () => {
    const chalk = (await isaby.ask<Material[]>('/api/materials')).find((m) => m.name === 'Chalk') as Material;
    await isaby.go(`/stores/materials/${chalk.id}`);
    await isaby.sees('What is known of it');
    await isaby.page.evaluate(async ({ id, version, ...fields }) => {
      Object.defineProperty(document, 'hidden', { value: true, configurable: true });
      document.dispatchEvent(new Event('visibilitychange'));
      await fetch(`/api/materials/${id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...fields, version, note: 'from elsewhere' }),
      });
    }, chalk);
    await isaby.write('Order when free falls to', '250 g');
    await isaby.press('Keep the facts');
    await isaby.sees('Someone changed this since you opened it.', '[role=alert]');
    await isaby.press('Take what stands now');
    await isaby.sees('from elsewhere');
    await isaby.write('Order when free falls to', '250 g');
    await isaby.press('Keep the facts');
    await isaby.page.waitForFunction(
      async (path) => ((await (await fetch(path)).json()) as MaterialPage).material.facts.reorderPoint === 250_000,
      {},
      `/api/materials/${chalk.id}`,
    );
  });
});

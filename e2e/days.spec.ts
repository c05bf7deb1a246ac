import type { Colourway, GatheredRow, KeptOfLot, LotDetail, LotSummary, Material, StockLot } from '@vestigia/contract';
import type { Browser } from 'puppeteer-core';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serveDemo } from '../scripts/serve.mjs';
import { dyedUpTo } from './dyed-so-far';
import { Someone } from './person';

/** Whole days at the pots, with what went otherwise: each ends with the truth in the record. */
describe('days at the pots', () => {
  let server: Served & { remove(): void };
  let browser: Browser;
  let isaby: Someone;
  let wenna: Someone;
  beforeAll(async () => {
    [server, browser] = await Promise.all([serveDemo(), launch()]);
    isaby = await Someone.at(browser, server.base);
    await isaby.signIn('Isaby Fennimore', 'heron at low tide');
    wenna = await Someone.at(browser, server.base);
    await wenna.signIn('Wenna Tidewell', 'seven wet hanks');
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
    server.remove();
  });

  const colourwayOf = async (name: string): Promise<Colourway> =>
    (await isaby.ask<Colourway[]>('/api/colourways')).find((c) => c.name === name)!;
  const materialOf = async (name: string): Promise<Material> =>
    (await isaby.ask<Material[]>('/api/materials')).find((m) => m.name === name)!;
  const lotOf = (id: string): Promise<LotDetail> => isaby.ask<LotDetail>(`/api/lots/${id}`);
  const said = async (id: string): Promise<string> => (await lotOf(id)).deviations.map((d) => d.message).join('\n');
  /** Agrees to a lot on the page for it, whatever cautions stand there. */
  const agree = async (colourway: string, size: string, seen: string, more?: () => Promise<void>): Promise<string> => {
    await isaby.go(`/lots/new?colourway=${colourway}`);
    await isaby.write('How many, of what dry weight', size);
    await more?.();
    await isaby.sees(seen);
    await isaby.lookOver();
    await isaby.press('Plan the lot and promise its stock');
    await isaby.sees('Begin at the bench');
    return (await isaby.ask<LotSummary[]>('/api/lots'))[0]?.id ?? '';
  };

  it('gathered by hand: three pick on two days, too heavy for the balance, with the green in; what did an hour give?', async () => {
    await isaby.settled('/stores/delivery');
    await isaby.tick('gathered or grown');
    await isaby.choose('Material', 'Tansy heads, fresh');
    await isaby.tick('on our own ground');
    await isaby.write('How much, net', '600 g');
    await isaby.write('Picked by', 'Isaby');
    await isaby.write('Minutes, each of them', '90');
    await isaby.press('Put it on the shelf');
    await isaby.sees('Pickings', 'h2');
    await isaby.press('Another picking');
    await isaby.write('How much', '640 g');
    await isaby.write('The bag alone, if it is in it', '20 g');
    await isaby.press('Another portion: the balance can’t take it all');
    await isaby.write('Portion 2', '320 g');
    await isaby.sees('920 g in all');
    await isaby.write('Picked by', 'Isaby, Wenna, Corin');
    await isaby.write('Minutes, each of them', '40');
    await isaby.write('Picked with it', 'the green');
    await isaby.press('Add the picking');
    await isaby.sees('with the green');
    const id = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    const jar = await isaby.ask<StockLot>(`/api/stock-lots/${id}`);
    expect([jar.row.onHand, jar.pickings.map((p) => p.pickers.length)]).toEqual([1_520_000, [3, 1]]);
    // 1.52 kg in three and a half hours of hands.
    const row = (await isaby.ask<GatheredRow[]>('/api/stores/gathered')).find((g) => g.stockLotId === id);
    expect(row?.perHour?.value).toBe(434);
    await isaby.go('/stores/gathered');
    await isaby.sees(new RegExp(`${jar.row.tag}[^]*434 g`), 'tr');
  });

  it('a variegated set: bound, dipped, edges in iron, a spray that ran over; next year the same places', async () => {
    const { id: colourway } = await colourwayOf('Tide Line');
    const lotId = await agree(colourway, '2 reels of 25 g', '2 reels of 25 g, 50 g dry');
    await dyedUpTo(isaby, lotId, (s) => (s.zones ?? []).length > 0);
    await isaby.go(`/bench/${lotId}`);
    await isaby.sees('Bound speckle', 'h1');
    await isaby.press('Done');
    await isaby.sees('Gold all over', 'h1');
    await isaby.press('It is in');
    await isaby.press('It is out already');
    await isaby.handedOver();
    expect(await said(lotId)).toMatch(/“Gold all over” was in for .* instead of 45 min, expect paler there/);
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'modify');
    await isaby.go(`/bench/${lotId}`);
    await isaby.sees('First tide', 'h1');
    await isaby.press('Done, untimed');
    await isaby.sees('Last tide', 'h1');
    await isaby.press('Otherwise …');
    await isaby.write('What went otherwise there', 'crept over the rim');
    await isaby.press('Done, untimed');
    // What was done stands in the record once the bench asks for the next thing.
    await isaby.page.waitForFunction(() => !document.querySelector('main h1')?.textContent?.includes('Last tide'));
    await isaby.handedOver();
    const { deviations, plan } = await lotOf(lotId);
    expect(deviations.map((d) => d.message)).toContain('“Last tide”: crept over the rim');
    expect(plan.placed?.zones.map((z) => z.title)).toContain('Spray at the edge');
  });

  it('a customer’s garment: no jar, weighed damp and again dry, and a failure worth keeping', async () => {
    const wool = await materialOf('Rug wool');
    const base = newId();
    await isaby.send('/api/materials', {
      id: base,
      name: 'A customer’s jumper',
      kind: 'fibre',
      measure: 'weight',
      hazards: [],
      note: '',
      base: { ...wool.base, pieceWord: 'piece', usualPieceWeightG: 420 },
    });
    const marram = await colourwayOf('Marram');
    const colourway = newId();
    await isaby.send('/api/colourways', {
      id: colourway,
      name: 'The jumper, green',
      recipeVersionId: marram.recipe.versionId,
      baseMaterialId: base,
      master: null,
      toleranceDeltaE: 4,
      note: '',
    });
    const lotId = await agree(colourway, '1 piece of 420 g', '1 piece of 420 g, 420 g dry', async () => {
      await isaby.press(/^Pots that may be used/, 'summary');
      await isaby.tick(/a customer’s own, never on the shelf/);
    });
    await isaby.press('Begin at the bench');
    await isaby.press('Begin');
    await isaby.choose('It was', 'weighed damp');
    await isaby.write('What the balance shows', '460 g');
    await isaby.press('Weighed');
    await isaby.handedOver();
    expect(await said(lotId)).toContain('was weighed damp');
    expect((await lotOf(lotId)).madeFrom).toEqual([]);
  });

  it('chips drawn once are frozen, and pieces put by: both know their lot, and it knows them', async () => {
    const { id: colourway } = await colourwayOf('Marram');
    const lotId = await agree(colourway, '2 hanks of 200 g', '2 hanks of 200 g, 400 g dry');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/lots/${lotId}`);
    await isaby.press('Keep dyestuff that was drawn once', 'summary');
    await isaby.write('How much', '500 g');
    await isaby.press('Keep it in Stores');
    await isaby.sees('drawn once', 'h1');
    await isaby.settled(`/lots/${lotId}`);
    await isaby.press('Keep pieces: as fibre for a later lot, or finished', 'summary');
    await isaby.write('Dry weight', '200 g');
    await isaby.press('Keep them in Stores');
    await isaby.sees('mordanted', 'h1');
    await isaby.go(`/lots/${lotId}`);
    await isaby.sees('What came of it, in Stores', 'h2');
    const kept = await isaby.ask<KeptOfLot[]>(`/api/lots/${lotId}/kept`);
    expect(kept.map((k) => [k.onHand, k.form, k.treatment])).toEqual(
      expect.arrayContaining([
        [500_000, 'frozen', null],
        [200_000, null, 'mordanted'],
      ]),
    );
  });

  it('the recipe is nobody’s business: kept to one, the others dye by letters and find nothing', async () => {
    const { recipe, id: colourway } = await colourwayOf('Marram');
    const lot = (await isaby.ask<LotSummary[]>('/api/lots')).find((l) => l.colourway.id === colourway)!;
    await isaby.settled(`/recipes/${recipe.versionId}`);
    await isaby.press('Keep it to some of us');
    await isaby.press('Keep it to them');
    await isaby.sees('Kept to Isaby Fennimore');
    const dyes = (await lotOf(lot.id)).plan.materials.filter((m) => m.kind === 'dyestuff').map((m) => m.name);
    await wenna.go('/recipes');
    await wenna.sees('Recipes', 'h1');
    await wenna.settled('/recipes');
    expect(await wenna.text()).not.toContain(recipe.name);
    await wenna.settled(`/lots/${lot.id}`);
    await wenna.sees('letters stand for what goes in');
    const shown = await wenna.text();
    for (const name of [recipe.name, ...dyes]) expect(shown).not.toContain(name);
    await wenna.settled(`/bench/${lot.id}`);
    const bench = await wenna.text();
    for (const name of [recipe.name, ...dyes]) expect(bench).not.toContain(name);
    await isaby.settled(`/lots/${lot.id}`);
    await isaby.press('Code names for the others', 'summary');
    await isaby.sees(dyes[0] ?? '', 'details');
    expect([...isaby.troubles, ...wenna.troubles]).toEqual([]);
  });
});

import type { LotDetail, LotSummary, MatchRecord, StockLot } from '@vestigia/contract';
import { v7 } from 'uuid';
import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

/** Somebody wants the same again: what earlier lots say, what is changed for it, and how good that has been. */
describe('a reorder is foretold and corrected', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  beforeAll(() => {
    ({ isaby } = demo);
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
      if (await isaby.page.$('vs-reorder-letter .ways button.act')) break;
    }
    if (!earlier) throw new Error('no such colourway was ever released');
    await isaby.sees(/It stands on \d+ readings of this colourway/, 'vs-reorder-letter summary');
    const total = (): Promise<string> =>
      isaby.page.$eval('vs-lot-weighings', (e) => (e as HTMLElement).innerText.replaceAll(/\s+/g, ' '));
    const before = await total();
    await isaby.press('Plan it so', 'vs-reorder-letter button');
    await isaby.sees('Planned corrected, for this lot alone.');
    await isaby.sees(/Corrected for this lot, beside what the recipe says: /);
    await isaby.page.waitForFunction(
      (was) => document.querySelector('vs-lot-weighings')?.textContent?.replaceAll(/\s+/g, ' ') !== was,
      {},
      before,
    );
    await isaby.lookOver('so that it matches');
    await isaby.page.$eval('[name=short]', (e) => (e as HTMLInputElement).click()).catch(() => undefined);
    await isaby.press('Plan the lot and promise its stock');
    await isaby.page.waitForFunction(() => /^\/lots\/[0-9a-f-]{36}$/.test(location.pathname));
    const id = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    const lot = await isaby.ask<LotDetail>(`/api/lots/${id}`);
    const { corrected, added, outOf, dyeTimeShare } = lot.extras;
    expect(corrected.length + added.length + outOf.length + Math.abs(dyeTimeShare - 1)).toBeGreaterThan(0);
    expect(lot.recipe.versionId).toBe((await isaby.ask<LotDetail>(`/api/lots/${earlier.id}`)).recipe.versionId);
  });

  it('says how good that has been, each lot foretold from the others, and how strong each jar is', async () => {
    await isaby.settled('/judge/foretold');
    await isaby.sees(/each foretold from all the others, half came out within ΔE00 0\.\d of that/);
    await isaby.sees('Marram', 'table');
    const { readings } = await isaby.ask<MatchRecord>('/api/match/record');
    await isaby.sees(new RegExp(`Of ${readings.filter((r) => !r.isMaster).length} readings`));
    expect(await isaby.page.$$eval('.mounts figure', (all) => all.length)).toBe(8);
  });

  it('a shade that somebody brings: what of the shelf reaches it, at what cost and how fast', async () => {
    await isaby.settled('/judge/reach?lab=72 -3 48');
    await isaby.press('Look what reaches it');
    await isaby.sees(/Surest to come near, in per cent of the fibre: .*ΔE00/, '.say');
    const rows = await isaby.page.$$eval('.ledger tbody tr', (all) => all.map((r) => (r as HTMLElement).innerText));
    expect(rows.length).toBeGreaterThan(4);
    expect(rows.join()).toMatch(/Weld/);
  });

  it('a lot that missed: what goes on top, and what else it could be sold as', async () => {
    const far = (l: LotSummary): number =>
      l.result && l.master ? Math.hypot(l.result.L - l.master.L, l.result.a - l.master.a, l.result.b - l.master.b) : -1;
    const [worst] = (await isaby.ask<LotSummary[]>('/api/lots')).sort((x, y) => far(y) - far(x));
    await isaby.settled(`/judge/${worst?.id}`);
    await isaby.press('It missed: what can still be done', 'main summary');
    await isaby.sees(/It lies ΔE00 \d+\.\d from what was wanted/, 'vs-rescue');
  });

  it('a strike-off is planned from the letter, and once it was read the lot goes out from it', async () => {
    const lots = await isaby.ask<LotSummary[]>('/api/lots');
    let again: LotSummary | undefined;
    for (const name of ['Slack Water', 'Sluice', 'Winkle', 'Tide Line', 'Creek Gold', 'Foreshore']) {
      again = lots.find((l) => l.state === 'released' && l.colourway.name === name);
      if (!again) continue;
      await isaby.settled(`/lots/new?again=${again.id}`);
      await isaby.sees(/As it is planned it should come out/, 'vs-reorder-letter');
      if (await isaby.asksWhether('Plan the strike-off')) break;
    }
    await isaby.sees(/A strike-off is worth its while: .* Dye 20 g of the same lot of the base/, 'vs-reorder-letter');
    await isaby.press('Plan the strike-off');
    await isaby.sees(/A strike-off: dye it as it is planned here/);
    await isaby.lookOver('to see what it needs');
    await isaby.page.$eval('[name=short]', (e) => (e as HTMLInputElement).click()).catch(() => undefined);
    await isaby.press('Plan the lot and promise its stock');
    await isaby.page.waitForFunction(() => /^\/lots\/[0-9a-f-]{36}$/.test(location.pathname));
    const id = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    await isaby.sees(/strike-off, 1 piece of 20 g/);
    const { plan, summary } = await isaby.ask<LotDetail>(`/api/lots/${id}`);
    expect(summary.strikeOff).toBe(true);
    // Dyed as planned; only its weighings are written down, and what was read of it.
    await isaby.send('/api/bench/run-entries', {
      drafts: plan.steps.flatMap((s) =>
        ['start', 'finish'].map((kind) => ({
          lotId: id,
          ageMs: 0,
          entry: {
            id: v7(),
            stepIndex: s.index,
            kind,
            replacesId: null,
            temperatureC: null,
            text: null,
            weighing: null,
          },
        })),
      ),
    });
    const master = summary.master;
    if (!master) throw new Error('this colourway has no master');
    const lab = { L: master.L + 2.5, a: master.a, b: master.b + 1.5 };
    const seen = {
      id: v7(),
      batch: 1,
      state: 'dry',
      lab,
      illuminant: 'D65',
      observer: '10',
      note: '',
      replacesId: null,
    };
    await isaby.send(`/api/lots/${id}/readings`, seen);
    await isaby.settled(`/lots/${id}`);
    await isaby.press('Plan the lot by it');
    await isaby.sees(/By the strike-off: /, 'vs-reorder-letter');
    expect(new URL(isaby.page.url()).searchParams.get('again')).toBe(again?.id);
  });

  it('a graded family is planned with its pulls, and the bench calls them', async () => {
    const marram = (await isaby.ask<{ id: string; name: string }[]>('/api/colourways')).find(
      (c) => c.name === 'Marram',
    );
    await isaby.settled(`/colourways/${marram?.id}`);
    await isaby.press('A graded family');
    await isaby.sees('evenly spaced to the eye');
    await isaby.settled(`/lots/new?colourway=${marram?.id}&size=3 hanks of 100 g&pulls=6 20 60`);
    await isaby.sees(/A graded family:.*at 6, 20, 60 min/);
    await isaby.lookOver('a family');
    await isaby.page.$eval('[name=short]', (e) => (e as HTMLInputElement).click()).catch(() => undefined);
    await isaby.press('Plan the lot and promise its stock');
    await isaby.page.waitForFunction(() => /^\/lots\/[0-9a-f-]{36}$/.test(location.pathname));
    const id = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    const { plan, extras } = await isaby.ask<LotDetail>(`/api/lots/${id}`);
    expect(extras.pullMinutes).toEqual([6, 20, 60]);
    const dye = plan.steps.findIndex((s) => s.kind === 'dye');
    const entry = (stepIndex: number, kind: string, text: string | null = null) => ({
      lotId: id,
      ageMs: 0,
      entry: { id: v7(), stepIndex, kind, replacesId: null, temperatureC: null, text, weighing: null },
    });
    await isaby.send('/api/bench/run-entries', {
      drafts: [...plan.steps.slice(0, dye).map((s) => entry(s.index, 'skip', 'done before')), entry(dye, 'start')],
    });
    await isaby.settled(`/bench/${id}`);
    await isaby.press('Sample');
    await isaby.press('Call them as planned', 'vs-sample-panel button');
    await isaby.sees(/Next pull in/, '.one h1');
    await isaby.handedOver();
    const { entries } = await isaby.ask<LotDetail>(`/api/lots/${id}`);
    expect(entries.find((e) => e.kind === 'pulls')?.detail).toEqual({ pullMinutes: [6, 20, 60] });
  });

  it('a jar is dosed by what lots and strips say of it, from one press on', async () => {
    const { jars, materials, readings } = await isaby.ask<MatchRecord>('/api/match/record');
    const used = (id: string): boolean => readings.some((r) => r.dyeing.doses.some((d) => d.stockLotId === id));
    const read = (id: string): Promise<StockLot> => isaby.ask(`/api/stock-lots/${id}`);
    let jar: string | undefined;
    for (const j of jars) {
      if (j.isReference || j.free <= 0 || !used(j.id)) continue;
      if (materials.find((m) => m.id === j.materialId)?.kind !== 'dyestuff') continue;
      const { facts, liquor } = await read(j.id);
      if (facts.strengthPercent === null && liquor === null) jar = j.id;
    }
    if (!jar) throw new Error('every jar of dyestuff was tested');
    await isaby.settled(`/stores/${jar}`);
    await isaby.sees(/% of the reference; nine times in ten/, 'vs-stock-lot-strength');
    await isaby.press(/^Dose by \d+ % from now on$/, 'vs-stock-lot-strength button');
    await isaby.sees(/Doses go by \d+ %, worked out like this/, 'vs-stock-lot-strength');
    const kept = (await read(jar)).facts;
    expect(kept).toMatchObject({ strengthLearnt: true });
    expect(kept.strengthPercent).toBeGreaterThan(20);
    const told = (await isaby.ask<MatchRecord>('/api/match/record')).strengths;
    expect(told.some((s) => s.stockLotId === jar)).toBe(false);
    expect(isaby.troubles).toEqual([]);
  });
});

import type { LotDetail, LotSummary, ShelfRow, StockLot } from '@vestigia/contract';
import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

/** Days that went otherwise, in the demo studio: the truth stands in the record, and the next lot shows it. */
describe('a true record', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  let colourway: string;
  beforeAll(async () => {
    ({ isaby } = demo);
    colourway =
      (await isaby.ask<{ id: string; name: string }[]>('/api/colourways')).find((c) => c.name === 'Marram')?.id ?? '';
  });

  const newest = async (): Promise<LotSummary> => (await isaby.ask<LotSummary[]>('/api/lots'))[0] as LotSummary;
  const lotOf = (id: string): Promise<LotDetail> => isaby.ask<LotDetail>(`/api/lots/${id}`);
  const line = async (label: string, text: string): Promise<void> => {
    const field = (await isaby.page.waitForSelector(`[aria-label="${label}"]`))!;
    await field.focus();
    await isaby.page.keyboard.type(text);
  };

  it('a notebook from before the books is written down: times about right, nothing off the shelf', async () => {
    await isaby.go(`/lots/new?colourway=${colourway}`);
    await isaby.write('How many, of what dry weight', '1 hank of 200 g');
    await isaby.sees('1 hank of 200 g, 200 g dry');
    await isaby.press('It was dyed already', 'summary');
    await isaby.press(/It was begun before now/, 'label.tick');
    const day = (await isaby.page.waitForSelector('input[name=toldDay]'))!;
    await day.evaluate((e) => {
      (e as HTMLInputElement).value = '2025-05-20';
      e.dispatchEvent(new Event('input', { bubbles: true }));
    });
    await isaby.write('At about', 'morning');
    await isaby.press(/That was before these books began/, 'label.tick');
    await isaby.lookOver();
    await isaby.press('Plan the lot, then write down how it went');
    await isaby.sees('Key in what was written by hand', 'h2');
    const { id } = await newest();
    const { plan } = await lotOf(id);
    const [fibre, second] = plan.steps;
    await line(`Begun, ${fibre?.title}`, 'about 9');
    await line(`Finished, ${fibre?.title}`, '10 min');
    await line(`Weighed, ${fibre?.weighings[0]?.materialName}`, '200 g');
    await line(`Begun, ${second?.title}`, '10:00');
    await line(`Finished, ${second?.title}`, 'an hour or so');
    await isaby.press('Keep what the card says');
    await isaby.sees('lines keyed in.');
    const lot = await lotOf(id);
    expect([lot.summary.offBooks, lot.summary.at.slice(0, 10), lot.madeFrom]).toEqual([true, '2025-05-20', []]);
    const about = lot.entries.map(
      (e) => `${e.kind} ${(e.detail && 'about' in e.detail && e.detail.about) || 'by the clock'}`,
    );
    expect(about).toEqual([
      'start about 9',
      'weigh by the clock',
      'finish by the clock',
      'start by the clock',
      'finish an hour or so',
    ]);
    await isaby.go(`/lots/${id}`);
    await isaby.sees('before these books began, so nothing left the shelf');
  });

  it('a handful thrown in leaves its jar, and is told with the lot', async () => {
    await isaby.go(`/lots/new?colourway=${colourway}`);
    await isaby.write('How many, of what dry weight', '1 hank of 200 g');
    await isaby.sees('1 hank of 200 g, 200 g dry');
    await isaby.lookOver();
    await isaby.press('Plan the lot and promise its stock');
    await isaby.press('Begin at the bench');
    await isaby.press('Begin');
    await isaby.press(/^As asked/);
    await isaby.press('Went otherwise');
    await isaby.press('Something else went in');
    const jars = await isaby.ask<ShelfRow[]>('/api/stores');
    const jar = jars.find((j) => j.kind === 'dyestuff' && j.measure === 'weight' && j.free > 20_000)!;
    await isaby.write('What went in', jar.tag);
    await isaby.sees(`out of ${jar.tag}`);
    await isaby.write('How much', '20 g');
    await isaby.press('Keep it in the record');
    await isaby.sees(`${jar.material} put in as well: 20 g`);
    await isaby.handedOver();
    const { id } = await newest();
    const lot = await lotOf(id);
    expect(lot.deviations.map((d) => d.message)).toEqual([expect.stringContaining('was put in as well, 20 g')]);
    const { row } = await isaby.ask<StockLot>(`/api/stock-lots/${jar.id}`);
    expect(row.onHand).toBe(jar.onHand - 20_000);
    // A slip is taken back where it stands, and the jar is as it was.
    await isaby.press('Take back', 'vs-run-entry-log button');
    await isaby.handedOver();
    expect((await isaby.ask<StockLot>(`/api/stock-lots/${jar.id}`)).row.onHand).toBe(jar.onHand);
    expect((await lotOf(id)).deviations).toEqual([]);
  });

  it('dyed again, what went otherwise stands first: planned then, as it was, as it is now', async () => {
    const released = (await isaby.ask<LotSummary[]>('/api/lots')).filter((l) => l.state === 'released');
    const went = await Promise.all(
      released.map(async (lot) => ({ lot, deviations: (await lotOf(lot.id)).deviations })),
    );
    const { lot, deviations } = went.find((w) => w.deviations.length > 0)!;
    await isaby.settled(`/lots/new?again=${lot.id}`);
    await isaby.sees(`What went otherwise in ${lot.tag}`, 'h2');
    await isaby.sees(deviations[0]?.message ?? '', 'ul');
    await isaby.press('write that as the recipe’s next version');
    await isaby.sees('As it was really dyed', 'summary');
    await isaby.press('As it was really dyed', 'summary');
    await isaby.press('Write it as the recipe’s next version');
    await isaby.sees('trial');
    await isaby.sees(/As Lot \d+ was really dyed, after version/);
    expect(isaby.troubles).toEqual([]);
  });
});

import type { Bench, LotSummary, ShelfRow, Studio } from '@vestigia/contract';
import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import { Someone } from './person';

describe('a studio that reads pounds, gallons and °F, and a form left half-written', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  beforeAll(() => {
    ({ isaby } = demo);
  });

  it('offers a half-written form again, and has forgotten it once it is kept', async () => {
    await isaby.go('/stores/delivery');
    await isaby.sees('Choose the material.', 'vs-act-bar');
    await isaby.choose('Material', 'Chalk');
    await isaby.sees('Say how much came.', 'vs-act-bar');
    await isaby.write('How much, net', '750 g');
    await isaby.write('Tag, or one is made', 'CHA-9');
    await isaby.press('Lots');
    await isaby.sees('Lots', 'h1');
    await isaby.press('Stores');
    await isaby.press('Book in');
    await isaby.press('Go on with it');
    await isaby.sees('750 g of Chalk');
    await isaby.press('Put it on the shelf');
    await isaby.sees('CHA-9 · Chalk', 'h1');
    await isaby.go('/stores/delivery');
    expect(await isaby.text()).not.toContain('You began this');
  });

  it('takes the hand to the heading of the page gone to, names it in the tab, and Back finds the place', async () => {
    await isaby.go('/lots');
    await isaby.sees('Lot 52');
    await isaby.page.evaluate(() => document.querySelector('.middle')?.scrollTo(0, 900));
    await isaby.press('Lot 62', 'main .ledger a');
    await isaby.sees(/^Lot 62/, 'h1');
    await isaby.page.waitForFunction(() => document.activeElement?.tagName === 'H1');
    await isaby.page.waitForFunction(() => /^Lot 62 · /.test(document.title));
    await isaby.page.goBack();
    await isaby.page.waitForFunction(() => document.querySelector('.middle')?.scrollTop === 900);
  });

  it('shows every figure so, and keeps grams and °C', async () => {
    const corin = await Someone.at(demo.browser, demo.server.base);
    await corin.signIn('Corin Ashlock', 'mud on the slipway');
    await corin.go('/stores');
    await isaby.go('/studio');
    await isaby.choose('Weights are read in', 'pounds and ounces');
    await isaby.choose('Volumes are read in', 'US gal, qt, fl oz');
    await isaby.choose('Temperatures are read in', '°F');
    await isaby.choose('A day is written', 'as Nov 5, 2026');
    await isaby.press('Keep the settings');
    await isaby.page.waitForFunction(
      async () =>
        ((await (await fetch('/api/studio')).json()) as Studio).shownIn.temperature === 'fahrenheit' &&
        // Only the page written out anew says so.
        (document.body.textContent ?? '').includes('The room, °F'),
    );
    await isaby.go('/stores');
    const alum = (await isaby.ask<ShelfRow[]>('/api/stores')).find((j) => j.tag === 'ALU-1');
    const ounces = (alum?.onHand ?? 0) / 1000 / 28.349523125;
    await isaby.sees(`${Math.floor(ounces / 16)} lb ${Number((ounces % 16).toFixed(2))} oz`);
    await isaby.sees(/[A-Z][a-z]{2,3} \d{1,2}, 20\d\d/);
    // The tablet beside it is told, and asked: it may be in somebody’s hand.
    await corin.press('Show them so', '.lost button');
    await corin.sees(/\d lb \d/);
    expect(corin.troubles).toEqual([]);
    const bench = await isaby.ask<Bench>('/api/bench');
    const id = (await isaby.ask<LotSummary[]>('/api/lots')).find((l) => l.tag === 'Lot 89')?.id ?? '';
    expect(bench.lots.some((l) => l.summary.id === id)).toBe(true);
    await isaby.go(`/bench/${id}`);
    await isaby.press('Temperature');
    await isaby.write('Temperature, °F', '104');
    await isaby.press('Keep the temperature');
    await isaby.sees('104 °F', '.ledger');
    await isaby.handedOver();
    const now = await isaby.ask<Bench>('/api/bench');
    const entries = now.lots.find((l) => l.summary.id === id)?.entries ?? [];
    expect(entries.at(-1)).toMatchObject({ kind: 'temperature', temperatureC: 40 });
  });
});

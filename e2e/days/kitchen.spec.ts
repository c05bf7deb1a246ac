import type { LotDetail, StripTrialDetail } from '@vestigia/contract';
import { rankByEye } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dyedToTheEnd, dyedUpTo } from '../dyed-so-far';
import type { Someone } from '../person';
import { DayStudio, step } from './day-studio';

/** Days with a kitchen’s means: no instrument, cups and stones, amounts from memory. */
describe('days in a kitchen', () => {
  let day: DayStudio;
  let isaby: Someone;
  beforeAll(async () => {
    day = await DayStudio.open();
    isaby = day.isaby;
  });
  afterAll(() => day.close());

  it('1: six kitchen liquors on strips, placed by eye wet and dry; nothing of it stands in Stores', async () => {
    await day.base('Worn cotton', 'cotton', 'strip', 10);
    await isaby.settled('/recipes/strips/new');
    await isaby.write('Name', 'Kitchen liquors');
    await isaby.choose('One thing varies', 'liquor in the bowl');
    await isaby.choose('On this base', 'Worn cotton');
    await isaby.write(
      'What is in each bowl, one a line',
      'coffee, strained\ncoffee, grounds in\nblack tea\nbeet\nonion\ncabbage',
    );
    await isaby.sees('6 strips, alike but for the liquor in the bowl.');
    await isaby.press('Lay out the trial');
    await isaby.sees('Kitchen liquors', 'h1');
    const id = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    const place = async (state: string, places: readonly number[]): Promise<void> => {
      await isaby.choose('They are', state);
      for (const [i, at] of places.entries())
        await isaby.write('Place by depth', String(at), `[aria-label="strip ${i + 1}"]`);
      if (state === 'dry') {
        await isaby.choose('Evenness', 'spotted', '[aria-label="strip 2"]');
        await isaby.choose('Warmth', 'warm', '[aria-label="strip 5"]');
        await isaby.write('Good for', 'kitchen cloths', '[aria-label="strip 5"]');
      }
      await isaby.press('Write down how I place them');
      await isaby.sees('Write it down in place of what I said', 'button');
    };
    await place('wet', [2, 1, 3, 4, 5, 6]);
    await place('dry', [2, 1, 4, 6, 3, 5]);
    await isaby.sees(/onion: warm, even, deeper dry than wet\. Good for kitchen cloths/, 'ol');
    const trial = await isaby.ask<StripTrialDetail>(`/api/strip-trials/${id}`);
    const ranked = rankByEye(trial.looks.map((l) => ({ ...l, byId: l.by.id })));
    expect(ranked.map((s) => trial.layout[s.number - 1]?.label)).toEqual([
      'coffee, grounds in',
      'coffee, strained',
      'onion',
      'black tea',
      'cabbage',
      'beet',
    ]);
    expect([trial.summary.recipeVersionId, trial.readings.length]).toEqual([null, 0]);
  });

  it('2: a cup of berries, water by eye, lifted next noon; three cloths, written down two days later', async () => {
    const berries = await day.material('Berries', 'dyestuff', { measure: 'volume' });
    const cord = await day.base('Bleached cord', 'cotton', 'length', 20);
    const tape = await day.base('Bleached tape', 'cotton', 'length', 15);
    const raw = await day.base('Raw cloth', 'cotton', 'piece', 40);
    const doses = [{ materialId: berries, by: 'perBath', amount: 1, unit: 'cup', system: 'metric' }];
    const version = await day.recipe(
      'Berries, an afternoon',
      ['cotton'],
      [step('dye', 'Simmer, strain, over the cloth', doses, { temperatureC: 80, durationMin: 180 })],
    );
    const colourway = await day.colourway('Berry', version, cord);
    const also = [
      { baseId: tape, quantityText: '1 length of 15 g' },
      { baseId: raw, quantityText: '1 piece of 40 g' },
    ];
    const begun = new Date(Date.now() - 2 * 86_400_000);
    begun.setUTCHours(9, 0, 0, 0);
    const told = { at: begun.toISOString(), beforeBooks: false };
    const lotId = await day.agreed(colourway, '2 lengths of 20 g', { also, ownGoods: [cord, tape, raw] }, told);
    await isaby.settled(`/bench/card/${lotId}`);
    await isaby.sees('Key in what was written by hand', 'h2');
    const titles = (await day.lot(lotId)).plan.steps.map((s) => s.title);
    const line = async (label: string, text: string): Promise<void> => {
      const field = (await isaby.page.waitForSelector(`[aria-label="${label}"]`))!;
      await field.focus();
      await isaby.page.keyboard.type(text);
    };
    await line(`Begun, ${titles[0]}`, 'noon');
    await line(`Finished, ${titles[0]}`, 'an hour or so');
    await line(`Begun, ${titles.at(-1)}`, 'afternoon');
    await line(`Finished, ${titles.at(-1)}`, 'overnight');
    await isaby.press('Keep what the card says');
    await isaby.sees('lines keyed in.');
    expect(await day.said(lotId)).toMatch(/22 h|1320|instead of 3 h/);
    const lot = await day.lot(lotId);
    expect(lot.summary.recordedAt).not.toBeNull();
    expect(lot.plan.groups).toHaveLength(3);
    await isaby.settled(`/judge/${lotId}`);
    for (const [i, depth] of ['the same', 'paler', 'much paler'].entries()) {
      await isaby.choose('Which pieces', ['Bleached cord', 'Bleached tape', 'Raw cloth'][i] ?? '', 'vs-eye-form');
      await isaby.choose('Depth', depth, 'vs-eye-form');
      await isaby.press('Keep what I see');
      await isaby.page.waitForFunction(
        (n) => document.querySelectorAll('vs-eye-form tbody tr td:nth-child(4)').length === n,
        {},
        i + 1,
      );
    }
    expect((await day.lot(lotId)).eyes.map((e) => e.seen.depth)).toEqual([0, -1, -2]);
    await isaby.press('Pass it');
    await isaby.sees('paler than hoped', '[role=alert]');
    await isaby.write('Reason', 'wanted so: one cup, three shades');
    await isaby.press('Pass it');
    await isaby.sees('The verdict stands.');
    expect(await day.again(lotId)).toMatch(/What went otherwise in Lot/);
  });

  it('3: unknown rind in ounces, one lot from memory, on a skein mordanted last month; “half as much next time”', async () => {
    const rind = await day.material('Unknown rind', 'dyestuff');
    await isaby.settled('/stores/delivery');
    for (const [text, guess] of [
      ['9 oz', false],
      ['7 oz', true],
    ] as const) {
      await isaby.settled('/stores/delivery');
      await isaby.tick('gathered or grown');
      await isaby.choose('Material', 'Unknown rind');
      await isaby.tick('on our own ground');
      await isaby.write('How much, net', text);
      if (guess) await isaby.tick(/guessed/);
      await isaby.press('Put it on the shelf');
      await isaby.sees('Pickings', 'h2');
    }
    const skeins = await day.base('Skein wool', 'wool', 'skein', 100, '500 g');
    const version = await day.recipe(
      'Unknown rind, overnight',
      ['wool'],
      [
        step('dye', 'Steep with the rind in', [{ materialId: rind, by: 'allThere' }], {
          durationMin: 720,
          temperatureC: 40,
        }),
        step('dry', 'Dry', [], { usesBath: false, durationMin: 60 }),
      ],
    );
    const colourway = await day.colourway('What the rind gives', version, skeins);
    const lotId = await day.agreed(colourway, '1 skein of 100 g');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.press('Note');
    await isaby.write('What you saw', 'better than hoped: half as much next time');
    await isaby.tick(/to be heard next time/);
    await isaby.press('Keep the note', 'vs-step-facts-panel button');
    await isaby.handedOver();
    await dyedToTheEnd(isaby, lotId);
    const took = (await day.lot(lotId)).madeFrom.filter((m) => m.materialId === rind);
    // Sixteen ounces on a hundred grams.
    expect(Math.round(took.reduce((sum, m) => sum + m.amount, 0) / 1000)).toBe(454);
    await day.seesByEye(lotId, { Evenness: 'even' });
    await isaby.press('Pass it');
    await isaby.sees('The verdict stands.');
    const again = await day.again(lotId);
    expect(again).toContain('half as much next time');
  });

  it('12: cloths in with the stones, so many stones to the pound, gallons by eye, stirred', async () => {
    const stones = await day.material('Fruit stones', 'dyestuff', { measure: 'pieces' });
    await day.jar(stones, '40 pieces');
    const cloths = await day.base('Kitchen cloth', 'cotton', 'cloth', 113, '2 kg');
    const version = await day.recipe(
      'Stones, cloth in from the start',
      ['cotton'],
      [
        step('dye', 'Stones and cloth together', [{ materialId: stones, by: 'count', piecesPer100G: 2.2 }], {
          temperatureC: 85,
          course: [
            { do: 'raise', toC: 85, minutes: 60 },
            { do: 'hold', minutes: 60 },
          ],
          lookEveryMin: 10,
          lookFor: 'stir, for evenness',
        }),
      ],
    );
    const lotId = await day.agreed(await day.colourway('Stone pink', version, cloths), '4 cloths of 113 g');
    const { plan } = await day.lot(lotId);
    expect(plan.materials.find((m) => m.materialId === stones)?.total.value).toBe(10);
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.sees('stir, for evenness');
    await isaby.sees(/Look again in/);
    await isaby.press('Went otherwise');
    await isaby.write('In your own words', 'a gallon or so, by eye', 'vs-step-facts-panel');
    await isaby.press('Keep the note', 'vs-step-facts-panel button');
    await isaby.handedOver();
    await dyedToTheEnd(isaby, lotId);
    expect((await day.lot(lotId)).madeFrom.find((m) => m.materialId === stones)?.amount).toBe(10);
    expect(await day.heldAndAgain(lotId)).toContain('a gallon or so, by eye');
  });

  it('15: three small cloths of three fibres, a fine balance that went over, pins as marks, one uneven', async () => {
    const [silk, linen, wool] = [
      await day.base('Silk square', 'silk', 'cloth', 60, '300 g'),
      await day.base('Linen square', 'linen', 'cloth', 60, '300 g'),
      await day.base('Wool square', 'wool', 'cloth', 60, '300 g'),
    ];
    const lactate = await day.material('Aluminium lactate', 'mordant');
    await day.jar(lactate, '100 g');
    const leaf = await day.material('Alder leaf', 'dyestuff');
    await day.jar(leaf, '1 kg');
    const version = await day.recipe(
      'Lactate and leaf',
      ['silk', 'linen', 'wool'],
      [
        step('mordant', 'Mordant', [{ materialId: lactate, by: 'percentOwf', percentOwf: 5 }]),
        step('dye', 'Dye', [{ materialId: leaf, by: 'percentOwf', percentOwf: 100 }]),
      ],
    );
    const colourway = await day.colourway('Leaf on three', version, silk);
    const also = [
      { baseId: linen, quantityText: '1 cloth of 60 g' },
      { baseId: wool, quantityText: '1 cloth of 60 g' },
    ];
    const lotId = await day.agreed(colourway, '1 cloth of 60 g', { also });
    const dose = (await day.lot(lotId)).plan.materials.find((m) => m.materialId === lactate);
    expect(dose?.total.value).toBe(9);
    await dyedToTheEnd(isaby, lotId);
    await isaby.settled(`/judge/${lotId}`);
    await isaby.choose('Evenness', 'patchy', 'vs-eye-form');
    await isaby.write('Where', 'one corner', 'vs-eye-form');
    await isaby.write('One piece', 'two pins', 'vs-eye-form');
    await isaby.press('Keep what I see');
    await isaby.sees(/piece two pins/, 'vs-eye-form');
    // That one is held; the others pass without it.
    await isaby.tick(/One part alone/);
    await isaby.write('One piece', 'two pins', '.alone');
    await isaby.write('Reason', 'uneven, over-dye it');
    await isaby.press('Hold it');
    await isaby.sees(/Held, .*piece two pins alone/);
    await isaby.settled(`/judge/${lotId}`);
    for (const base of ['Silk square', 'Linen square', 'Wool square']) {
      await isaby.choose('Which pieces', base, 'vs-eye-form');
      await isaby.press('Keep what I see');
      await isaby.sees(new RegExp(`${base}, dry`), 'vs-eye-form');
    }
    await isaby.press('Pass it');
    await isaby.sees('The verdict stands.');
    const { summary } = await isaby.ask<LotDetail>(`/api/lots/${lotId}`);
    expect([summary.state, summary.family.map((m) => m.apart)]).toEqual(['released', [null, null, null, 'hold']]);
    expect(await day.again(lotId)).toMatch(/two pins[^]*uneven, over-dye it/);
    expect(isaby.troubles).toEqual([]);
  });
});

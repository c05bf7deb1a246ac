import type { Colourway, GatheredRow, KeptOfLot, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dyedToTheEnd, dyedUpTo } from '../dyed-so-far';
import type { Someone } from '../person';
import { DayStudio, step } from './day-studio';

/** Days of what is gathered, of old garments and of secrets: most of what happens there nobody planned. */
describe('days of gatherings and garments', () => {
  let day: DayStudio;
  let isaby: Someone;
  let leaf: string;
  let alum: string;
  beforeAll(async () => {
    day = await DayStudio.open();
    isaby = day.isaby;
    leaf = await day.material('Day leaf', 'dyestuff');
    await day.jar(leaf, '8 kg');
    alum = (await day.materialOf('Potassium alum')).id;
  });
  afterAll(() => day.close());

  const inOwnWords = async (text: string): Promise<void> => {
    await isaby.press('Went otherwise');
    await isaby.write('In your own words', text, 'vs-step-facts-panel');
    await isaby.press('Keep the note', 'vs-step-facts-panel button');
    await isaby.handedOver();
    await isaby.sees(text, 'vs-run-entry-log');
  };

  it('4: a variegated set that crept over the rim; next year eight, in the same places', async () => {
    const colourways = await isaby.ask<Colourway[]>('/api/colourways');
    const tide = colourways.find((c) => c.name === 'Tide Line');
    const lotId = await day.agreed(tide?.id ?? '', '2 reels of 25 g');
    await dyedUpTo(isaby, lotId, (s) => (s.zones ?? []).length > 0);
    await isaby.settled(`/bench/${lotId}`);
    await isaby.sees('Bound speckle', 'h1');
    await isaby.press('Otherwise …');
    await isaby.write('What went otherwise there', 'liquid crept over the tie');
    await isaby.press('Done');
    await isaby.handedOver();
    await dyedToTheEnd(isaby, lotId);
    expect(await day.heldAndAgain(lotId)).toContain('liquid crept over the tie');
    await isaby.write('How many, of what dry weight', '8 reels of 25 g');
    await isaby.sees('8 reels of 25 g, 200 g dry');
    await isaby.lookOver();
    await isaby.press('Plan the lot and promise its stock');
    await isaby.sees('Begin at the bench');
    const next = await day.lot((await day.newest()).id);
    expect([next.plan.pieces, next.summary.reorderOf?.id]).toEqual([8, lotId]);
    expect(next.plan.placed).toEqual((await day.lot(lotId)).plan.placed);
  });

  it('14: napkins under boiling water overnight, the chips frozen and drawn again for a paler shade', async () => {
    const chips = await day.material('Day chips', 'dyestuff', { hazards: ['dust', 'irritant'] });
    await day.jar(chips, '2 kg');
    const napkin = await day.base('Day napkin', 'cotton', 'piece', 60, '2 kg');
    const chalk = await day.material('Day chalk', 'assistant');
    await day.jar(chalk, '500 g');
    const version = await day.recipe(
      'Chips overnight',
      ['cotton'],
      [
        step('mordant', 'Tannin, alum and soda', [{ materialId: alum, by: 'percentOwf', percentOwf: 12 }]),
        step(
          'dye',
          'Chips overnight',
          [
            { materialId: chips, by: 'percentOwf', percentOwf: 100 },
            { materialId: chalk, by: 'percentOwf', percentOwf: 2 },
          ],
          { durationMin: 720 },
        ),
      ],
    );
    const colourway = await day.colourway('Napkins', version, napkin);
    const lotId = await day.agreed(colourway, '5 pieces of 60 g');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.sees(/safety data sheet/, '.cautions');
    await inOwnWords('water poured on boiling, lid off till morning');
    await dyedToTheEnd(isaby, lotId);
    await isaby.settled(`/lots/${lotId}`);
    await isaby.press('Keep dyestuff that was drawn once', 'summary');
    await isaby.write('How much', '280 g');
    await isaby.press('Keep it in Stores');
    await isaby.sees('drawn once', 'h1');
    const [frozen] = await isaby.ask<KeptOfLot[]>(`/api/lots/${lotId}/kept`);
    const drawn = (await day.stock(frozen?.stockLotId ?? '')).row;
    expect([drawn.onHand, frozen?.form]).toEqual([280_000, 'frozen']);
    const paler = await day.recipe(
      'Chips again',
      ['cotton'],
      [step('dye', 'Chips again', [{ materialId: drawn.materialId, by: 'percentOwf', percentOwf: 90 }])],
    );
    const second = await day.agreed(await day.colourway('Napkins, paler', paler, napkin), '5 pieces of 60 g');
    await dyedToTheEnd(isaby, second);
    expect((await day.lot(second)).madeFrom.map((m) => m.stockLotId)).toContain(frozen?.stockLotId);
    expect(await day.heldAndAgain(lotId)).toContain('water poured on boiling, lid off till morning');
    expect(await day.heldAndAgain(second)).toContain(drawn.tag);
  });

  it('18: a stained jumper poured in bands: forgotten overnight, a shoulder missed, the marks show', async () => {
    const jumper = await day.base('A stained jumper', 'wool', 'piece', 420);
    const packet = await day.material('Packet, red', 'dyestuff', { measure: 'pieces' });
    await day.jar(packet, '6 pieces');
    const version = await day.recipe(
      'Packets in bands',
      ['wool'],
      [
        step('dye', 'Pour in bands', [{ materialId: packet, by: 'count', piecesPer100G: 0.5 }], { durationMin: 60 }),
        step('rinse', 'Rinse', [], { durationMin: 10 }),
      ],
    );
    const marks = [{ of: 'the jumper', text: 'pale spots from bleach on the chest' }];
    const intake = { flags: [], syntheticPercent: null, marks };
    const colourway = await day.colourway('The jumper in bands', version, jumper);
    const lotId = await day.agreed(colourway, '1 piece of 420 g', { ownGoods: [jumper], intake });
    await isaby.settled(`/bench/${lotId}`);
    await isaby.sees('pale spots from bleach on the chest');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await inOwnWords('forgotten overnight in the last band');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'rinse');
    await isaby.settled(`/bench/${lotId}`);
    await inOwnWords('eleven rinses, wrists hurt');
    await dyedToTheEnd(isaby, lotId);
    await day.seesByEye(lotId, { Evenness: 'patchy' });
    await isaby.write('Reason', 'a shoulder missed, and the bleach marks show');
    await isaby.press('Refuse it');
    await isaby.sees('the bleach marks show', 'p');
    const { summary, madeFrom } = await day.lot(lotId);
    expect([summary.state, madeFrom.map((m) => m.materialId)]).toEqual(['refused', [packet]]);
    const again = await day.again(lotId);
    for (const said of ['a shoulder missed, and the bleach marks show', 'forgotten overnight', 'eleven rinses'])
      expect(again).toContain(said);
  });

  it('19: four skeins pulled at four times, a salt for the last, and only the amounts are a secret', async () => {
    const yarn = await day.base('Day skein', 'wool', 'skein', 50, '1 kg');
    const salt = await day.material('Day salt', 'assistant');
    await day.jar(salt, '500 g');
    const parts = [
      { key: 'three', name: 'the first three', sharePercent: 75 },
      { key: 'last', name: 'the last', sharePercent: 25 },
    ];
    const version = await day.recipe(
      'Four pulls',
      ['wool'],
      [
        step('dye', 'One bath, four pulls', [{ materialId: leaf, by: 'percentOwf', percentOwf: 80 }]),
        step('modify', 'Salt for the last', [{ materialId: salt, by: 'percentOwf', percentOwf: 5 }], {
          parts: ['last'],
          durationMin: 10,
        }),
      ],
      { parts },
    );
    const lotId = await day.agreed(await day.colourway('Four pulls', version, yarn), '4 skeins of 50 g');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.press('Note');
    await isaby.press('Of one piece or part', 'vs-step-facts-panel button');
    await isaby.write('One piece', '2', 'vs-step-facts-panel');
    await isaby.write('What you saw', 'pulled at 20 min, just right', 'vs-step-facts-panel');
    await isaby.tick(/to be heard next time/);
    await isaby.press('Keep the note', 'vs-step-facts-panel button');
    await isaby.handedOver();
    await isaby.sees(/piece 2: pulled at 20 min/, 'vs-run-entry-log');
    await dyedToTheEnd(isaby, lotId);
    await isaby.settled(`/recipes/${version}`);
    await isaby.press('Keep the amounts to some of us');
    await isaby.press('Keep it to them');
    await isaby.sees('How much goes in is kept to Isaby Fennimore');
    expect(await day.heldAndAgain(lotId)).toMatch(/piece 2: pulled at 20 min, just right/);
    const wenna = await day.somebodyElse('Wenna Tidewell', 'seven wet hanks');
    await wenna.settled('/recipes');
    await wenna.press('Four pulls', 'main a');
    await wenna.sees('How much goes in is kept to Isaby Fennimore');
    await wenna.sees(/Day leaf/, 'ol');
    expect(await wenna.text()).not.toMatch(/80|\d %/);
    await wenna.settled(`/lots/${lotId}`);
    await wenna.sees('letters stand for what goes in');
    expect(await wenna.text()).not.toContain('Day salt');
    expect(wenna.troubles).toEqual([]);
  });

  it('20: gathered over days, alum for two days that became ten, bags in the pot: a dull yellow, petals only next time', async () => {
    await isaby.settled('/stores/delivery');
    await isaby.tick('gathered or grown');
    await isaby.choose('Material', 'Day leaf');
    await isaby.tick('on our own ground');
    await isaby.write('How much, net', '900 g');
    await isaby.write('Picked by', 'Isaby, Wenna, Corin');
    await isaby.write('Minutes, each of them', '60');
    await isaby.press('Put it on the shelf');
    await isaby.sees('Pickings', 'h2');
    const picked = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    const [row] = (await isaby.ask<GatheredRow[]>('/api/stores/gathered')).filter((g) => g.stockLotId === picked);
    expect(row?.perHour?.value).toBe(300);
    const yarn = await day.base('Meadow yarn', 'wool', 'skein', 50, '1 kg');
    const version = await day.recipe(
      'Picked yellow',
      ['wool'],
      [
        step('mordant', 'Alum, cold', [{ materialId: alum, by: 'percentOwf', percentOwf: 10 }], {
          temperatureC: 18,
          durationMin: 2880,
        }),
        step('dye', 'Bags in the pot', [{ materialId: leaf, by: 'percentOwf', percentOwf: 100 }], { strain: 'bag' }),
      ],
    );
    const lotId = await day.agreed(await day.colourway('Picked yellow', version, yarn), '4 skeins of 50 g');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'mordant');
    await isaby.settled(`/bench/${lotId}`);
    await inOwnWords('a burner failed: ten days instead of two');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.press('The bag is out');
    await isaby.sees(/bag/, 'vs-run-entry-log');
    await isaby.handedOver();
    await dyedToTheEnd(isaby, lotId);
    await isaby.settled(`/lots/${lotId}`);
    await isaby.write('A note', 'dull, since the green went in: petals only', 'vs-notes');
    await isaby.choose('Seen again', 'for next time', 'vs-notes');
    await isaby.press('Keep the note', 'vs-notes button');
    await isaby.sees('petals only', 'vs-notes p');
    const again = await day.heldAndAgain(lotId);
    expect(again).toContain('dull, since the green went in: petals only');
    expect(again).toContain('a burner failed: ten days instead of two');
    const jar = await isaby.ask<StockLot>(`/api/stock-lots/${picked}`);
    expect(jar.pickings.map((p) => p.pickers.length)).toEqual([3]);
    expect(isaby.troubles).toEqual([]);
  });
});

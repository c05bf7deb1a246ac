import type { KeptOfLot, LotDetail } from '@vestigia/contract';
import { placeShade } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dyedToTheEnd, dyedUpTo } from '../dyed-so-far';
import type { Someone } from '../person';
import { D65, DayStudio, step } from './day-studio';

const zone = (
  title: string,
  way: string,
  fromPercent: number,
  toPercent: number,
  order: number,
  minutes = 0,
): object => ({
  title,
  way,
  fromPercent,
  toPercent,
  order,
  minutes,
  waitMin: 0,
  mlPerPiece: null,
  materialId: null,
  spacingCm: way === 'bind' ? 10 : null,
});

/** Days of cloth, garments and yarn: dips and iron, gradients, bound points, slow even colour. */
describe('days of cloth and yarn', () => {
  let day: DayStudio;
  let isaby: Someone;
  let leaf: string;
  let linen: string;
  beforeAll(async () => {
    day = await DayStudio.open();
    isaby = day.isaby;
    leaf = await day.material('Day leaf', 'dyestuff');
    await day.jar(leaf, '8 kg');
    linen = await day.base('Day linen', 'linen', 'piece', 40, '2 kg');
  });
  afterAll(() => day.close());

  it('8: a delicate cardigan: alum cold for a day, soda, tartar after, pH brought back by strip, washed once', async () => {
    const cardigan = await day.base('A fine cardigan', 'wool', 'piece', 310);
    const alum = (await day.materialOf('Potassium alum')).id;
    const version = await day.recipe(
      'Cool and careful',
      ['wool'],
      [
        step('mordant', 'Alum, cold', [{ materialId: alum, by: 'percentOwf', percentOwf: 10 }], {
          temperatureC: 18,
          durationMin: 1440,
        }),
        step('dye', 'Cool dyeing, leaves in a bag', [{ materialId: leaf, by: 'percentOwf', percentOwf: 80 }], {
          temperatureC: 40,
          targetPh: { low: 6.5, high: 7.5 },
        }),
        step('rinse', 'Rinse, poured', [], { temperatureC: 20, durationMin: 10 }),
        step('dry', 'Dry flat', [], { usesBath: false, durationMin: 600 }),
      ],
    );
    const colourway = await day.colourway('The cardigan', version, cardigan);
    const marks = [{ of: 'the cardigan', text: 'a darn at the left elbow' }];
    const intake = { flags: [], syntheticPercent: null, marks };
    const lotId = await day.agreed(colourway, '1 piece of 310 g', { ownGoods: [cardigan], intake });
    await isaby.settled(`/bench/${lotId}`);
    await isaby.sees('a darn at the left elbow');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'mordant');
    await isaby.send(`/api/lots/${lotId}/entries`, {
      id: crypto.randomUUID(),
      stepIndex: (await day.lot(lotId)).plan.steps.find((s) => s.kind === 'mordant')?.index ?? 0,
      kind: 'finish',
      replacesId: null,
      temperatureC: null,
      text: 'out',
      weighing: null,
    });
    await isaby.settled(`/bench/${lotId}`);
    await isaby.sees('Cool dyeing, leaves in a bag', 'h1');
    await isaby.press('Begin');
    await isaby.press(/^As asked/);
    await isaby.handedOver();
    await isaby.press('pH');
    for (const [ph, dose] of [
      ['9', '0'],
      ['8', '2'],
      ['7', '4'],
    ] as const) {
      await isaby.write('pH', ph, 'vs-ph-panel');
      await isaby.choose('How it was read', 'by strip', 'vs-ph-panel');
      await isaby.write('Of the reagent in it by now', dose, 'vs-ph-panel');
      await isaby.press('Keep the pH', 'vs-ph-panel button');
      await isaby.sees(`${dose} ml gave pH ${ph}`, 'vs-ph-panel');
      await isaby.handedOver();
    }
    expect((await day.lot(lotId)).entries.filter((e) => e.kind === 'ph')).toHaveLength(3);
    await dyedToTheEnd(isaby, lotId);
    expect(await day.said(lotId)).toMatch(/Alum|instead of|early/i);
    await day.seesByEye(lotId, { Evenness: 'even' });
    await isaby.press('Pass it');
    await isaby.sees('The verdict stands.');
    const { summary, madeFrom } = await day.lot(lotId);
    expect(summary.state).toBe('released');
    expect(madeFrom.map((m) => m.materialId)).not.toContain(cardigan);
    const told = await day.again(lotId);
    expect(told).toMatch(/Alum, cold/);
    expect(told).toContain('What went otherwise in');
  });

  it('10: dips and iron, a sewn book: each of six pieces is called by its dip and its iron', async () => {
    const iron = (await day.materialOf('Iron sulphate')).id;
    const share = 100 / 6;
    const parts = [
      ['first', 'first dip'],
      ['firstIron', 'first dip, iron'],
      ['second', 'second dip'],
      ['secondIron', 'second dip, iron'],
      ['ironOnly', 'never dyed, iron'],
      ['kept', 'kept undyed'],
    ].map(([key, name]) => ({ key, name, sharePercent: share }));
    const dose = [{ materialId: leaf, by: 'percentOwf', percentOwf: 50 }];
    const version = await day.recipe(
      'A book of dips',
      ['linen'],
      [
        step('dye', 'First dip', dose, { parts: ['first', 'firstIron'] }),
        step('exhaust', 'Second dip', [], { parts: ['second', 'secondIron'] }),
        step('modify', 'Iron', [{ materialId: iron, by: 'percentOwf', percentOwf: 2 }], {
          parts: ['firstIron', 'secondIron', 'ironOnly'],
          durationMin: 6,
        }),
      ],
      { parts },
    );
    const lotId = await day.agreed(await day.colourway('A sewn book', version, linen), '6 pieces of 40 g');
    await dyedToTheEnd(isaby, lotId);
    const { plan, summary } = await day.lot(lotId);
    expect(plan.groups.map((g) => g.partName)).toEqual(parts.map((p) => p.name));
    await isaby.settled('/bench/tags');
    await isaby.press('A lot: itself, its pieces and baths');
    await isaby.choose('Lot', `${summary.tag} ·`);
    await isaby.press('Give them their codes');
    await isaby.sees(/first dip, iron/, 'table');
    await isaby.sees(/never dyed, iron/, 'table');
    await isaby.settled(`/judge/${lotId}`);
    for (const [name, depth] of [
      ['first dip', 'the same'],
      ['second dip', 'paler'],
      ['never dyed, iron', 'much paler'],
    ] as const) {
      const key = plan.groups.find((g) => g.partName === name)?.key;
      const batch = plan.batches.find((b) => b.groups.some((g) => g.key === key))!;
      await isaby.choose('Batch', `${batch.number}, `, 'vs-eye-form');
      if (batch.groups.length > 1) await isaby.choose('Which pieces', name, 'vs-eye-form');
      await isaby.choose('Depth', depth, 'vs-eye-form');
      await isaby.press('Keep what I see');
      await isaby.sees(`Batch ${batch.number},`, 'vs-eye-form');
    }
    const { eyes } = await day.lot(lotId);
    const named = eyes.map((e) => plan.groups.find((g) => g.key === placeShade(plan, e).group)?.partName);
    expect(named).toEqual(['first dip', 'second dip', 'never dyed, iron']);
    await isaby.settled(`/lots/${lotId}`);
    await isaby.press('On one piece or part', 'vs-notes button');
    await isaby.write('One piece', '4', 'vs-notes');
    await isaby.write('A note', 'this is the page to open the book with', 'vs-notes');
    await isaby.choose('Seen again', 'for next time', 'vs-notes');
    await isaby.press('Keep the note', 'vs-notes button');
    await isaby.sees(/piece 4: this is the page/, 'vs-notes');
    expect(await day.heldAndAgain(lotId)).toMatch(/piece 4: this is the page to open the book with/);
  });

  it('13: a gradient by dipping: the dark end longest, the bath watched as it clears, tied points white', async () => {
    const yarn = await day.base('Sock yarn', 'wool', 'skein', 100, '500 g');
    const version = await day.recipe(
      'A gradient',
      ['wool'],
      [step('dye', 'Dip by sections', [{ materialId: leaf, by: 'percentOwf', percentOwf: 60 }])],
      {
        placed: {
          lengthCm: 150,
          piece: 'skein',
          bleedPercent: 4,
          zones: [
            zone('Tied points', 'bind', 0, 100, 1),
            zone('Dark end', 'dip', 0, 35, 2, 40),
            zone('Middle', 'dip', 0, 70, 3, 15),
            zone('Pale end', 'dip', 0, 100, 4, 5),
          ],
        },
      },
    );
    const lotId = await day.agreed(await day.colourway('Gradient', version, yarn), '1 skein of 100 g');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.press('Done');
    await isaby.sees('Dark end', 'h1');
    await isaby.press('It is in');
    await isaby.press('It is out already');
    await isaby.sees('Middle', 'h1');
    await isaby.press('Otherwise …');
    await isaby.write('What went otherwise there', 'the bath had cleared, left in longer');
    await isaby.press('Done, untimed');
    await isaby.sees('Pale end', 'h1');
    await isaby.press('Done, untimed');
    await isaby.handedOver();
    const said = await day.said(lotId);
    expect(said).toMatch(/“Dark end” was in for/);
    expect(said).toContain('“Middle”: the bath had cleared');
    await dyedToTheEnd(isaby, lotId);
    await isaby.settled(`/judge/${lotId}`);
    await isaby.choose('Zone', 'Dark end', 'vs-eye-form');
    await isaby.choose('Depth', 'deeper', 'vs-eye-form');
    await isaby.press('Keep what I see');
    await isaby.sees('Dark end, dry', 'vs-eye-form');
    expect((await day.lot(lotId)).eyes[0]?.zone).toBe('Dark end');
    expect(await day.heldAndAgain(lotId)).toContain('“Middle”: the bath had cleared');
  });

  it('16: bound points, heated and cooled, iron half-way, an old dyestuff thrown in at the end; the thread bled', async () => {
    const cotton = await day.base('A length of cotton', 'cotton', 'length', 200, '1 kg');
    const powder = await day.material('Extract powder', 'dyestuff');
    await day.jar(powder, '100 g');
    const old = await day.material('An old dyestuff', 'dyestuff');
    const oldJar = await day.jar(old, '60 g');
    const version = await day.recipe(
      'Bound in a grid',
      ['cotton'],
      [
        step('dye', 'Heated and cooled', [{ materialId: powder, by: 'percentOwf', percentOwf: 5 }], {
          instruction: 'Mix the powder smooth with a little warm water first.',
          course: [
            { do: 'raise', toC: 60, minutes: 40 },
            { do: 'cool', toC: 30, minutes: 60 },
          ],
          repeats: 3,
        }),
      ],
      {
        placed: {
          lengthCm: 200,
          piece: 'length',
          bleedPercent: 2,
          zones: [zone('Bound grid', 'bind', 5, 95, 1), zone('All over', 'dip', 0, 100, 2, 60)],
        },
      },
    );
    const lotId = await day.agreed(await day.colourway('Grid', version, cotton), '1 length of 200 g');
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.sees('Mix the powder smooth');
    const jar = (await day.stock(oldJar)).row;
    await day.wentOtherwise('Something else went in');
    await isaby.write('What went in', jar.tag);
    await isaby.write('How much', '40 g');
    await isaby.tick('guessed, not weighed');
    await isaby.write('Why, or how it went', 'the last of it, thrown in at the end');
    await isaby.press('Keep it in the record', 'vs-unplanned-panel button');
    await isaby.handedOver();
    await day.wentOtherwise('A step the chain doesn’t have');
    await isaby.write('What was done', 'iron half-way');
    await isaby.choose('What kind of step', 'modify');
    await isaby.write('How long', '10');
    await isaby.press('Keep it in the record', 'vs-unplanned-panel button');
    await isaby.handedOver();
    await dyedToTheEnd(isaby, lotId);
    expect((await day.stock(oldJar)).row.onHand).toBe(20_000);
    const said = await day.said(lotId);
    expect(said).toMatch(/An old dyestuff was put in as well/);
    expect(said).toMatch(/iron half-way/);
    await isaby.settled(`/judge/${lotId}`);
    await isaby.write('Reason', 'the binding thread bled');
    await isaby.press('Hold it');
    await isaby.sees('the binding thread bled');
    expect((await isaby.ask<LotDetail>(`/api/lots/${lotId}`)).summary.state).toBe('held');
    // A failure worth keeping: what was wrong with it is the first thing heard when it is dyed again.
    const again = await day.again(lotId);
    for (const told of ['the binding thread bled', 'An old dyestuff was put in as well', 'iron half-way'])
      expect(again).toContain(told);
  });

  it('17: mordanted and put by for months; the next lot begins from that cloth', async () => {
    const alum = (await day.materialOf('Potassium alum')).id;
    const mordant = await day.recipe(
      'Mordant and put by',
      ['linen'],
      [
        step('mordant', 'Mordant', [{ materialId: alum, by: 'percentOwf', percentOwf: 12 }]),
        step('dry', 'Dry', [], { usesBath: false, durationMin: 60 }),
      ],
    );
    const first = await day.agreed(await day.colourway('Put by', mordant, linen), '4 pieces of 40 g');
    await dyedToTheEnd(isaby, first);
    await isaby.settled(`/lots/${first}`);
    await isaby.press('Keep pieces: as fibre for a later lot, or finished', 'summary');
    await isaby.choose('What was done to them', 'mordanted');
    await isaby.write('Dry weight', '160 g');
    await isaby.press('Keep them in Stores');
    await isaby.sees('mordanted', 'h1');
    const [kept] = await isaby.ask<KeptOfLot[]>(`/api/lots/${first}/kept`);
    const cloth = (await day.stock(kept?.stockLotId ?? '')).row.materialId;
    const dye = await day.recipe(
      'From mordanted cloth',
      ['linen'],
      [step('dye', 'Dye', [{ materialId: leaf, by: 'percentOwf', percentOwf: 60 }])],
    );
    const second = await day.agreed(await day.colourway('From what was put by', dye, cloth), '4 pieces of 40 g');
    await dyedToTheEnd(isaby, second);
    expect((await day.lot(second)).madeFrom.map((m) => m.stockLotId)).toContain(kept?.stockLotId);
    await isaby.settled(`/lots/${first}`);
    await isaby.sees((await day.lot(second)).summary.tag);
    // Of the put-by cloth nothing is left: dyed again it says which cloth that was.
    expect(await day.heldAndAgain(second)).toContain((await day.stock(kept?.stockLotId ?? '')).row.tag);
  });

  it('21: an even sheet: sampled in a white dish, strained twice, unwashed two weeks, a touch paler after', async () => {
    const sheet = await day.base('Bed sheet', 'cotton', 'sheet', 900);
    const version = await day.recipe(
      'An even sheet',
      ['cotton'],
      [
        step('dye', 'Up gently, stirred', [{ materialId: leaf, by: 'percentOwf', percentOwf: 100 }], {
          finishedBy: 'eye',
          lookFor: 'a few shades deeper than wanted',
          lookEveryMin: 5,
        }),
        step('dry', 'Dry in the shade', [], { usesBath: false, durationMin: 600 }),
      ],
      { liquorRatio: 40 },
    );
    const master = { L: 70, a: 2, b: 30, ...D65 };
    const colourway = await day.colourway('The sheet', version, sheet, { master });
    const lotId = await day.agreed(colourway, '1 sheet of 900 g', { ownGoods: [sheet] });
    await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.press('Sample');
    await isaby.choose('Sample of', 'the liquor', 'vs-sample-panel');
    await isaby.press(/^50 %/, 'vs-sample-panel button');
    await isaby.press('wanted', 'vs-sample-panel button');
    await isaby.press('Back', 'vs-sample-panel button');
    await day.wentOtherwise('Strained another way');
    await isaby.write('Why, or how it went', 'twice, through the fine cloth');
    await isaby.press('Keep it in the record', 'vs-unplanned-panel button');
    await isaby.handedOver();
    expect((await day.lot(lotId)).entries.filter((e) => e.kind === 'sample')).toHaveLength(2);
    await dyedToTheEnd(isaby, lotId);
    await day.seesByEye(lotId, { Depth: 'deeper' });
    await isaby.write('Reason', 'deeper, as wanted: it will be washed');
    await isaby.press('Pass it');
    await isaby.sees('The verdict stands.');
    await day.seesByEye(lotId, { 'The piece is': 'washed', Depth: 'the same' });
    const { eyes, summary } = await day.lot(lotId);
    expect(eyes.map((e) => [e.state, e.seen.depth])).toEqual([
      ['dry', 1],
      ['washed', 0],
    ]);
    // What was judged stays as it was judged.
    expect(summary.seen?.depth).toBe(1);
    const again = await day.again(lotId);
    for (const told of ['through muslin', 'deeper, as wanted']) expect(again).toContain(told);
    expect(isaby.troubles).toEqual([]);
  });
});

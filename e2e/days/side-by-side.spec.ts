import type { KeptOfLot, LotsBeside, Studio } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dyedToTheEnd, dyedUpTo, entry } from '../dyed-so-far';
import type { Someone } from '../person';
import { DayStudio, step } from './day-studio';

/** Days on which one dyeing is held against another: two waters, old colours, pot after pot, a bath kept. */
describe('days of one beside another', () => {
  let day: DayStudio;
  let isaby: Someone;
  let yarn: string;
  let bark: string;
  let alum: string;
  beforeAll(async () => {
    day = await DayStudio.open();
    isaby = day.isaby;
    yarn = await day.base('Day yarn', 'wool', 'skein', 50, '3 kg');
    bark = await day.material('Day bark', 'dyestuff');
    await day.jar(bark, '6 kg');
    alum = (await day.materialOf('Potassium alum')).id;
  });
  afterAll(() => day.close());

  const finish = (lotId: string, stepIndex: number): Promise<unknown> =>
    isaby.send(`/api/lots/${lotId}/entries`, entry(stepIndex, 'finish', { text: 'as planned' }));

  it('5: two waters, one skein of each through weak iron; side by side: what did the water do?', async () => {
    const { waters } = await isaby.ask<Studio>('/api/studio');
    const [first, second] = waters;
    const version = await day.recipe(
      'Bark, two waters',
      ['wool'],
      [step('dye', 'Dye in bark', [{ materialId: bark, by: 'percentOwf', percentOwf: 100 }])],
    );
    const colourway = await day.colourway('Bark brown', version, yarn);
    const lots: string[] = [];
    for (const water of [first, second]) {
      const id = await day.agreed(colourway, '3 skeins of 50 g', { waterId: water?.id ?? null });
      await dyedUpTo(isaby, id, (s) => s.kind === 'dye');
      await isaby.settled(`/bench/${id}`);
      await day.wentOtherwise('A step the chain doesn’t have');
      await isaby.write('What was done', 'one skein through weak iron, strength unknown');
      await isaby.choose('What kind of step', 'modify');
      await isaby.write('How long', '5');
      await isaby.press('Keep it in the record', 'vs-unplanned-panel button');
      await isaby.handedOver();
      await dyedToTheEnd(isaby, id);
      await day.seesByEye(id, { Depth: id === lots[0] ? 'the same' : 'deeper' });
      await day.seesByEye(id, { Clarity: 'duller' }, '3');
      lots.push(id);
    }
    await isaby.settled(`/lots/${lots[1]}`);
    await isaby.press('Side by side');
    await isaby.sees('Side by side', 'h1');
    const tag = (await day.lot(lots[0] ?? '')).summary.tag;
    await isaby.choose('Beside', tag);
    await isaby.sees('What was otherwise in the dyeing', 'h2');
    const beside = await isaby.ask<LotsBeside>(`/api/lots/${lots[1]}/beside?other=${lots[0]}`);
    expect(beside.factors.filter((f) => !f.same).map((f) => f.name)).toEqual(['Water']);
    expect(beside.otherwise.flat().filter((o) => o.message.includes('through weak iron'))).toHaveLength(2);
    await isaby.sees('through weak iron', 'ul');
    await isaby.sees(second?.name ?? '', 'tr.mark');
    expect(await day.heldAndAgain(lots[0] ?? '')).toContain('through weak iron');
  });

  it('6: too hot and brown, cooled, sampled, back on the heat; three fibres; the bath kept till it gives no more', async () => {
    const [silk, linen] = [
      await day.base('Day silk', 'silk', 'skein', 50, '500 g'),
      await day.base('Day linen', 'linen', 'skein', 50, '500 g'),
    ];
    const version = await day.recipe(
      'By the hue',
      ['wool', 'silk', 'linen'],
      [
        step('dye', 'Dye by the hue', [{ materialId: bark, by: 'percentOwf', percentOwf: 50 }], {
          temperatureC: 70,
          ceilingC: 75,
          finishedBy: 'eye',
        }),
      ],
    );
    const colourway = await day.colourway('By the hue', version, yarn);
    const also = [
      { baseId: silk, quantityText: '1 skein of 50 g' },
      { baseId: linen, quantityText: '1 skein of 50 g' },
    ];
    const lotId = await day.agreed(colourway, '2 skeins of 50 g', { also });
    const dye = await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await isaby.press('Temperature');
    await isaby.write('Temperature, °C', '92');
    await isaby.press('Keep the note', 'vs-step-facts-panel button');
    await isaby.handedOver();
    await isaby.press('Note');
    await isaby.write('What you saw', 'browned; cooled until the red was back');
    await isaby.press('Keep the note', 'vs-step-facts-panel button');
    await isaby.handedOver();
    await isaby.press('Temperature');
    await isaby.write('Temperature, °C', '45');
    await isaby.press('Keep the note', 'vs-step-facts-panel button');
    await isaby.handedOver();
    expect(await day.said(lotId)).toMatch(/92 °C/);
    await finish(lotId, dye.index);
    await isaby.settled(`/judge/${lotId}`);
    for (const [base, depth] of [
      ['Day yarn', 'deeper'],
      ['Day silk', 'the same'],
      ['Day linen', 'much paler'],
    ] as const) {
      await isaby.choose('Which pieces', base, 'vs-eye-form');
      await isaby.choose('Depth', depth, 'vs-eye-form');
      await isaby.press('Keep what I see');
      await isaby.sees(new RegExp(`${base}, dry`), 'vs-eye-form');
    }
    expect((await day.lot(lotId)).eyes.map((e) => e.seen.depth)).toEqual([1, 0, -2]);
    expect(await day.heldAndAgain(lotId)).toMatch(/92 °C/);
  });

  it('7: a dull yellow over old colours: three results, and one piece judged by itself', async () => {
    const version = await day.recipe(
      'Yellow over',
      ['wool'],
      [
        step('dye', 'Below the boil, lid on', [{ materialId: bark, by: 'percentOwf', percentOwf: 30 }], {
          temperatureC: 80,
          ceilingC: 85,
        }),
      ],
    );
    const colourway = await day.colourway('Yellow over old', version, yarn);
    const first = await day.agreed(colourway, '3 skeins of 50 g');
    await dyedToTheEnd(isaby, first);
    await isaby.settled(`/lots/${first}`);
    await isaby.press('Keep pieces: as fibre for a later lot, or finished', 'summary');
    await isaby.choose('What was done to them', 'dyed');
    await isaby.write('Dry weight', '150 g');
    await isaby.press('Keep them in Stores');
    await isaby.sees('Yellow over old', 'h1');
    const [kept] = await isaby.ask<KeptOfLot[]>(`/api/lots/${first}/kept`);
    expect(kept?.onHand).toBe(150_000);
    const old = (await day.stock(kept?.stockLotId ?? '')).row.materialId;
    const over = await day.agreed(await day.colourway('Once more over', version, old), '3 skeins of 50 g');
    await dyedUpTo(isaby, over, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${over}`);
    await day.wentOtherwise('A step the chain doesn’t have');
    await isaby.write('What was done', 'stood a day in the sun, in place of the stove');
    await isaby.press('Keep it in the record', 'vs-unplanned-panel button');
    await isaby.handedOver();
    await dyedToTheEnd(isaby, over);
    for (const [piece, clarity] of [
      ['1', 'clearer'],
      ['2', 'duller'],
      ['3', 'as clear'],
    ] as const)
      await day.seesByEye(over, { Clarity: clarity }, piece);
    await isaby.settled(`/judge/${over}`);
    await isaby.tick(/One part alone/);
    await isaby.write('One piece', '2', '.alone');
    await isaby.write('Reason', 'too dull beside the others');
    await isaby.press('Refuse it');
    await isaby.sees(/Refused, piece 2 alone/);
    const { verdicts, deviations } = await day.lot(over);
    expect(verdicts.map((v) => [v.verdict, v.of?.piece])).toEqual([['refuse', '2']]);
    expect(deviations.map((d) => d.message).join()).toContain('in the sun');
    expect((await isaby.ask<KeptOfLot[]>(`/api/lots/${first}/kept`))[0]?.wentInto.map((l) => l.id)).toEqual([over]);
    const again = await day.heldAndAgain(over);
    for (const told of ['in the sun', 'piece 2: too dull beside the others']) expect(again).toContain(told);
  });

  it('9: pot after pot: what is left in one takes pieces that were coloured before, and lies beside last month’s', async () => {
    const version = await day.recipe(
      'One mixed bath',
      ['wool', 'linen'],
      [
        step('mordant', 'One mixed mordant bath', [{ materialId: alum, by: 'percentOwf', percentOwf: 12 }]),
        step('dye', 'All together', [{ materialId: bark, by: 'percentOwf', percentOwf: 40 }]),
      ],
    );
    const linen = await day.base('Pot linen', 'linen', 'skein', 50, '500 g');
    const colourway = await day.colourway('Pot after pot', version, yarn);
    const also = [{ baseId: linen, quantityText: '1 skein of 50 g' }];
    const lotId = await day.agreed(colourway, '1 skein of 50 g', { also });
    const dye = await dyedUpTo(isaby, lotId, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${lotId}`);
    await day.wentOtherwise('Another pot or water');
    const iron = (await isaby.ask<Studio>('/api/studio')).vessels.find((v) => /dent|iron/i.test(v.name + v.note));
    await isaby.choose('Into which pot', iron?.name ?? '');
    await isaby.write('Why, or how it went', 'the other pot was in use');
    await isaby.press('Keep it in the record', 'vs-unplanned-panel button');
    await isaby.handedOver();
    await day.wentOtherwise('Pieces put in or taken out');
    await isaby.write('How many', '2');
    await isaby.write('Why, or how it went', 'two old pieces, yellow before, into what is left');
    await isaby.press('Keep it in the record', 'vs-unplanned-panel button');
    await isaby.handedOver();
    await finish(lotId, dye.index);
    expect(await day.said(lotId)).toMatch(/another pot|instead of/);
    expect(await day.said(lotId)).toMatch(/2 pieces/);
    const old = (await isaby.ask<{ id: string; tag: string; state: string }[]>('/api/lots')).find(
      (l) => l.state === 'released',
    );
    await isaby.settled(`/lots/${lotId}/beside?with=${old?.id}`);
    await isaby.sees('What was otherwise in the dyeing', 'h2');
    await isaby.sees(iron?.name ?? '', 'vs-then-and-now');
    await dyedToTheEnd(isaby, lotId);
    expect(await day.heldAndAgain(lotId)).toMatch(/2 pieces/);
  });

  it('11: the kept bath: the first lot dyed, the bath kept, the second dyed in what is left', async () => {
    const version = await day.recipe(
      'Dusty, second use',
      ['wool'],
      [step('dye', 'Dye in the fresh bath', [{ materialId: bark, by: 'percentOwf', percentOwf: 60 }])],
    );
    const colourway = await day.colourway('Before the dusty one', version, yarn);
    const first = await day.agreed(colourway, '2 skeins of 50 g');
    await dyedUpTo(isaby, first, (s) => s.kind === 'dye');
    await isaby.settled(`/bench/${first}`);
    await isaby.press('Bath');
    await isaby.press('Keep what is left');
    await isaby.sees('Store a bath or liquor', 'h1');
    await isaby.press('Keep the liquor');
    await isaby.sees(/bath/, 'h1');
    const jar = new URL(isaby.page.url()).pathname.split('/').at(-1) ?? '';
    await dyedToTheEnd(isaby, first);
    await isaby.press('Dye in it');
    await isaby.sees(/Dye in/, 'h1');
    const before = (await day.stock(jar)).row.onHand;
    expect(before).toBeGreaterThan(1_000_000);
    await isaby.choose('What goes in', 'Day yarn');
    await isaby.write('How much of it', '2 skeins of 50 g');
    await isaby.write('How long in it', '90');
    await isaby.press('Plan the lot');
    await isaby.sees('2 skeins of 50 g, 100 g dry');
    await isaby.lookOver();
    await isaby.press('Plan the lot and promise its stock');
    await isaby.sees('Begin at the bench');
    const { id: second } = await day.newest();
    await dyedToTheEnd(isaby, second);
    const used = (await day.lot(second)).madeFrom.find((m) => m.stockLotId === jar);
    expect(used?.amount).toBeGreaterThan(0);
    expect((await day.stock(jar)).row.onHand).toBe(before - (used?.amount ?? 0));
    await isaby.settled(`/stores/${jar}`);
    await isaby.sees((await day.lot(second)).summary.tag);
    expect(await day.heldAndAgain(second)).toContain((await day.stock(jar)).row.tag);
    expect(isaby.troubles).toEqual([]);
  });
});

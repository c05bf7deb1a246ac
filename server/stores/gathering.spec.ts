import type { GatheredRow, Problem, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, callsOf, delivery, furnish, newId, openTestStudio, wholeDocument } from '../test/test-studio';

const OWN = { origin: 'harvest', form: 'fresh', gathering: { ownGround: true } };

describe.each(KINDS)('what is gathered, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const { post, created, get } = callsOf(() => studio);
  const jarOf = (id: string): Promise<StockLot> => get(`/api/stock-lots/${id}`);
  const gathered = (): Promise<GatheredRow[]> => get('/api/stores/gathered');
  const picking = (rest: object) => ({
    id: newId(),
    movementId: newId(),
    pickedOn: '2026-05-30',
    pickers: [],
    minutesEach: null,
    portions: [{ grossText: '100 g' }],
    ...rest,
  });

  it('our own ground asks nobody; another’s does', async () => {
    await created('/api/stock-lots', delivery(f.weld, '300 g', { facts: OWN }));
    const refusal = await post(
      '/api/stock-lots',
      delivery(f.weld, '300 g', {
        facts: { ...OWN, gathering: { ownGround: false, permission: '', sharePercent: 10 } },
      }),
    );
    expect(refusal.status).toBe(400);
    expect(JSON.stringify(refusal.body)).toContain('your own ground');
  });

  it('several pickings by several people go into one jar, by portions, less their bags', async () => {
    const jar = await created(
      '/api/stock-lots',
      delivery(f.weld, '200 g', {
        receivedOn: '2026-05-20',
        facts: OWN,
        picking: { id: newId(), pickers: ['Ada Reed'], minutesEach: 60 },
      }),
    );
    await created(
      `/api/stock-lots/${jar}/pickings`,
      picking({
        pickers: ['Ada Reed', 'Tam'],
        minutesEach: 30,
        portions: [
          { grossText: '260 g', tareText: '10 g' },
          { grossText: '160 g', tareText: '10 g' },
        ],
        pickedWith: 'stems',
      }),
    );
    const guess = newId();
    await created(
      `/api/stock-lots/${jar}/pickings`,
      picking({ movementId: guess, portions: [{ grossText: '100 g' }], guessed: true }),
    );
    const { row, pickings, lines } = await jarOf(jar);
    expect(row.onHand).toBe(700_000);
    expect(pickings).toHaveLength(3);
    expect(lines.map((l) => l.note)).toContain('picked by Ada Reed, Tam, 30 min each, 2 portions, with stems');
    expect(lines.some((l) => l.note.includes('its weight guessed'))).toBe(true);
    // 600 g in two hours of hands; the guess told no time.
    expect((await gathered()).find((g) => g.stockLotId === jar)?.perHour?.value).toBe(300);
    await created(`/api/movements/${guess}/reversal`, { id: newId(), note: 'it went into the other bag' });
    const after = await jarOf(jar);
    expect(after.row.onHand).toBe(600_000);
    expect(after.pickings.filter((p) => p.reversed)).toHaveLength(1);
    expect((await gathered()).find((g) => g.stockLotId === jar)).toMatchObject({ amount: 600_000, pickings: 2 });
  });

  it.each([
    ['a day to come', { pickedOn: '2030-01-01' }, /before it was done/],
    ['a bag heavier than all', { portions: [{ grossText: '10 g', tareText: '20 g' }] }, /less than the container/],
    ['the bag alone', { portions: [{ grossText: '20 g', tareText: '20 g' }] }, /nothing is in it/],
    ['no weight', { portions: [{ grossText: 'a lot' }] }, /./],
  ])('%s is told, and nothing is booked', async (_what, rest, message) => {
    const before = await jarOf(f.weldStockLot);
    const reply = await post(`/api/stock-lots/${f.weldStockLot}/pickings`, picking(rest));
    expect(reply.status).toBe(422);
    expect((reply.body as Problem).detail).toMatch(message);
    expect(await jarOf(f.weldStockLot)).toEqual(before);
  });

  it('the studio’s file keeps who picked', async () => {
    const file = await wholeDocument(studio.context.database.db);
    expect(file.pickings.flatMap((p) => p.pickers)).toContain('Tam');
  });
});

import type { Problem, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, callsOf, delivery, furnish, newId, openTestStudio } from '../test/test-studio';

describe.each(KINDS)('slips in the log of a kept liquor, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const { post, created, get } = callsOf(() => studio);
  const jar = (id: string): Promise<StockLot> => get(`/api/stock-lots/${id}`);
  const refused = async (path: string, body: object): Promise<string> =>
    ((await post(path, body).expect(422)).body as Problem).detail;
  const keepLiquor = (grams: number) =>
    created('/api/liquors', {
      id: newId(),
      movementId: newId(),
      what: 'mordantBath',
      materialId: null,
      newMaterial: `Alum bath ${newId()}`,
      tag: '',
      quantityText: '10 l',
      contents: [{ materialId: f.alum, name: 'alum', grams }],
      working: null,
      fromLotId: null,
      vessel: 'Bucket',
      place: '',
      bestBefore: null,
      note: '',
    });
  const gramsNow = async (id: string): Promise<number> => (await jar(id)).liquorNow[0]?.grams ?? NaN;

  it('takes back what was fed to it: the jar has its crystals, the liquor is as before', async () => {
    const [liquor, crystals] = [await keepLiquor(100), await created('/api/stock-lots', delivery(f.alum, '500 g'))];
    const entry = newId();
    await created(`/api/stock-lots/${liquor}/liquor`, {
      id: entry,
      kind: 'replenish',
      movementId: newId(),
      stockLotId: crystals,
      quantityText: '50 g',
      note: '',
    });
    expect(await gramsNow(liquor)).toBe(150);
    expect((await jar(crystals)).row.onHand).toBe(450_000);
    const path = `/api/liquor-entries/${entry}/take-back`;
    expect((await post(path, { id: newId(), note: '' })).status).toBe(400);
    await created(path, { id: newId(), note: 'into the other bucket' });
    expect(await gramsNow(liquor)).toBe(100);
    expect((await jar(crystals)).row.onHand).toBe(500_000);
    const { liquorLog } = await jar(liquor);
    expect(liquorLog.find((e) => e.id === entry)?.takenBack).toBe(true);
    expect(liquorLog.at(-1)?.note).toContain('into the other bucket');
    const again = await post(path, { id: newId(), note: 'again' });
    expect(again.status).toBe(409);
  });

  it('reversed in the ledger, it leaves the bath too', async () => {
    const [liquor, crystals] = [await keepLiquor(80), await created('/api/stock-lots', delivery(f.alum, '500 g'))];
    const movementId = newId();
    await created(`/api/stock-lots/${liquor}/liquor`, {
      id: newId(),
      kind: 'feed',
      parts: [{ movementId, stockLotId: crystals, quantityText: '20 g' }],
      note: '',
    });
    expect((await jar(crystals)).lines.find((l) => l.id === movementId)?.ofLiquor).toBe(true);
    const reversal = newId();
    await created(`/api/movements/${movementId}/reversal`, { id: reversal, note: 'a slip' });
    expect(await gramsNow(liquor)).toBe(80);
    const { lines, row } = await jar(crystals);
    expect(row.onHand).toBe(500_000);
    expect(lines.at(-1)).toMatchObject({ id: reversal, reversesId: movementId });
  });

  it('newest first: what rests on a slip is taken back before it; a look at it rests on nothing', async () => {
    const liquor = await keepLiquor(100);
    const use = newId();
    const level = newId();
    const log = (body: object) => created(`/api/stock-lots/${liquor}/liquor`, { note: '', ...body });
    await log({
      id: use,
      kind: 'use',
      movementId: newId(),
      fibreText: '1 kg',
      carriedOffText: '2 l',
      uptakePercent: 50,
      measuredLeftG: null,
    });
    await log({ id: level, kind: 'level', movementId: newId(), quantityText: '6 l' });
    await log({ id: newId(), kind: 'check', signs: ['cloudy'] });
    expect(await refused(`/api/liquor-entries/${use}/take-back`, { id: newId(), note: 'twice told' })).toContain(
      'Take that back first',
    );
    await created(`/api/liquor-entries/${level}/take-back`, { id: newId(), note: 'misread' });
    await created(`/api/liquor-entries/${use}/take-back`, { id: newId(), note: 'twice told' });
    const { liquor: now, row } = await jar(liquor);
    expect(row.onHand).toBe(10_000_000);
    expect(await gramsNow(liquor)).toBe(100);
    expect(now?.signs).toEqual(['cloudy']);
  });

  it('what was poured off in between is gone as strong as it then was', async () => {
    const liquor = await keepLiquor(100);
    const level = newId();
    await created(`/api/stock-lots/${liquor}/liquor`, {
      id: level,
      kind: 'level',
      movementId: newId(),
      quantityText: '5 l',
      note: '',
    });
    await created(`/api/stock-lots/${liquor}/takings`, {
      id: newId(),
      kind: 'spoil',
      quantityText: '1 l',
      note: 'spilt',
      auxiliaries: [],
    });
    await created(`/api/liquor-entries/${level}/take-back`, { id: newId(), note: 'it was 10 l still' });
    const { row } = await jar(liquor);
    expect(row.onHand).toBe(9_000_000);
    expect(await gramsNow(liquor)).toBe(90);
  });
});

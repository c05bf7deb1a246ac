import type { LotDetail, Problem } from '@vestigia/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  dyeLot,
  freePots,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  verdict,
} from '../test/test-studio';

const SMALL = '1 hank of 100 g';

describe.each(KINDS)('a verdict taken back (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  const post = (path: string, body: object) => studio.agent.post(path).send(body);
  const judge = (lot: string, given: string, reason = '') => post(`/api/lots/${lot}/verdicts`, verdict(given, reason));
  const read = async (id: string): Promise<LotDetail> =>
    (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  const dyedAndRead = async (): Promise<string> => {
    const id = await makeLot(studio, f, { quantityText: SMALL });
    await dyeLot(studio, f, id, { grams: 100 });
    await post(`/api/lots/${id}/readings`, reading('dry')).expect(200);
    return id;
  };

  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  beforeEach(() => freePots(studio));
  afterAll(() => studio.close());

  it('a verdict that was a slip is taken back within the hour, stays in the record, and another is given', async () => {
    const lot = await dyedAndRead();
    await judge(lot, 'refuse', 'the wrong lot').expect(200);
    const [slip] = (await read(lot)).verdicts;
    const back = (verdictId = slip?.id) => post(`/api/lots/${lot}/verdicts/take-back`, { id: newId(), verdictId });
    studio.pass(59);
    await back().expect(200);
    const after = await read(lot);
    expect(after.summary.state).toBe('toJudge');
    expect(after.verdicts).toMatchObject([{ verdict: 'refuse', takenBack: { by: { name: 'Ada Reed' } } }]);
    expect(((await back().expect(409)).body as Problem).detail).toMatch(/Ada Reed took that verdict back already/);
    await judge(lot, 'pass').expect(200);
    expect((await read(lot)).summary.state).toBe('released');
    await back(newId()).expect(404);
    studio.pass(61);
    const late = (await back((await read(lot)).verdicts[1]?.id).expect(422)).body as Problem;
    expect([late.reason, late.detail]).toEqual(['tooLate', expect.stringMatching(/within the hour/)]);
    expect((await read(lot)).summary.state).toBe('released');
  });

  it('a verdict that others went by stands', async () => {
    const lot = await dyedAndRead();
    await judge(lot, 'pass').expect(200);
    studio.pass(1);
    await makeLot(studio, f, { quantityText: SMALL, reorderOfId: lot });
    const [given] = (await read(lot)).verdicts;
    const { body } = await post(`/api/lots/${lot}/verdicts/take-back`, { id: newId(), verdictId: given?.id }).expect(
      422,
    );
    expect((body as Problem).reason).toBe('goneBy');
  });
});

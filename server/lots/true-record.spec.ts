import type { ColourwayDetail, LotDetail, Problem, Proposal, RecipeVersionDetail, StockLot } from '@vestigia/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  agreed,
  KINDS,
  delivery,
  freePots,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  runEntry,
  verdict,
  weighing,
} from '../test/test-studio';

const SIZE = '2 hanks of 100 g';

describe.each(KINDS)('what really happened, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let onion: string;
  let onionJar: string;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    onion = newId();
    const material = { id: onion, name: 'Onion skins', kind: 'dyestuff', measure: 'weight', hazards: [], note: '' };
    await studio.agent
      .post('/api/materials')
      .send({ ...material, base: null })
      .expect(200);
    onionJar = (
      (await studio.agent.post('/api/stock-lots').send(delivery(onion, '200 g')).expect(200)).body as { id: string }
    ).id;
  });
  afterEach(() => freePots(studio));
  afterAll(() => studio.close());

  const lotOf = async (id: string): Promise<LotDetail> =>
    (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  const jarOf = async (id: string): Promise<StockLot> =>
    (await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot;
  const write = (lot: string, entry: object) => studio.agent.post(`/api/lots/${lot}/entries`).send(entry);
  const refused = async (lot: string, entry: object, reason: string): Promise<string> => {
    const { status, body } = await write(lot, entry);
    expect([status, (body as Problem).reason]).toEqual([422, reason]);
    return (body as Problem).detail;
  };
  /** Dyes a lot, with whatever else is written at the dye step. */
  const dyed = async (lot: string, otherwise: readonly object[] = [], minutes = 60): Promise<void> => {
    const weighed = [
      weighing(f.wool, f.woolStockLot, '200 g'),
      weighing(f.alum, f.alumStockLot, '30 g'),
      weighing(f.weld, f.weldStockLot, '200 g'),
      undefined,
    ];
    for (const [step, what] of weighed.entries()) {
      await write(lot, runEntry(step, 'start')).expect(200);
      if (what) await write(lot, runEntry(step, 'weigh', { weighing: what })).expect(200);
      if (step === 2) for (const entry of otherwise) await write(lot, entry).expect(200);
      studio.pass(step === 3 ? 600 : step === 2 ? minutes : 60);
      await write(lot, runEntry(step, 'finish')).expect(200);
    }
  };
  const released = async (lot: string, reason = ''): Promise<void> => {
    await studio.agent.post(`/api/lots/${lot}/readings`).send(reading('dry', 74)).expect(200);
    await studio.agent.post(`/api/lots/${lot}/verdicts`).send(verdict('pass', reason)).expect(200);
  };
  const askFor = (reorderOfId: string | null) => ({
    colourwayId: f.colourway,
    quantityText: SIZE,
    waterId: f.water,
    reorderOfId,
  });
  const again = async (lot: string): Promise<Proposal> =>
    (await studio.agent.post('/api/lots/proposal').send(askFor(lot)).expect(200)).body as Proposal;
  const told = async (at: string, beforeBooks: boolean) => {
    const id = newId();
    const ask = askFor(null);
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    const reply = await studio.agent
      .post('/api/lots')
      .send({ id, ask, ...agreed(proposal), told: { at, beforeBooks } });
    return { id, reply };
  };
  const added = (quantityText: string, rest: object = {}): object =>
    runEntry(2, 'add', {
      weighing: weighing(onion, onionJar, quantityText),
      detail: { batch: 1, name: 'Onion skins', measure: 'weight', quantityText, guessed: true },
      ...rest,
    });

  it('a handful thrown in leaves its jar, is a deviation, and dyeing again says so, what was said first', async () => {
    const lot = await makeLot(studio, f, { quantityText: SIZE });
    await dyed(
      lot,
      [
        added('20 g'),
        runEntry(2, 'moved', { detail: { vessels: [{ batch: 1, vesselId: f.kettle, vesselName: 'Kettle' }] } }),
        runEntry(2, 'extra', { detail: { title: 'Rinse in the sea', stepKind: 'rinse', minutes: 10 } }),
        runEntry(2, 'note', { text: 'More onion next time', detail: { next: true } }),
      ],
      200,
    );
    await released(lot, 'warmer than the master, and better');
    expect((await jarOf(onionJar)).row.onHand).toBe(180_000);
    const detail = await lotOf(lot);
    expect(detail.deviations.map((d) => d.message)).toEqual([
      expect.stringMatching(/^batch 1 in Kettle instead of Pan/),
      expect.stringMatching(/^Onion skins was put in as well, about 20 g/),
      expect.stringMatching(/“Rinse in the sea” was done after it/),
      expect.stringMatching(/^3 h 20 min instead of /),
    ]);
    expect(detail.madeFrom.map((m) => [m.material, m.amount])).toContainEqual(['Onion skins', 20_000]);

    const { then, factors } = await again(lot);
    expect(then?.said.map((s) => s.text)).toEqual(['warmer than the master, and better', 'More onion next time']);
    expect(then?.deviations).toHaveLength(4);
    expect(factors.find((x) => x.name === 'Onion skins')).toMatchObject({
      planned: 'not used',
      then: expect.stringMatching(/^10 % WOF from /) as string,
      now: 'not used',
      same: false,
    });
    expect(factors.find((x) => x.name === 'Vessel')).toMatchObject({
      then: 'Kettle (stainless)',
      now: 'Pan (stainless)',
    });
    expect(factors.find((x) => x.name === 'Weld')?.planned).toBeUndefined();

    const { body } = await studio.agent.post(`/api/lots/${lot}/as-done`).send({ id: newId() }).expect(200);
    const version = (await studio.agent.get(`/api/recipe-versions/${(body as { id: string }).id}`).expect(200))
      .body as RecipeVersionDetail;
    expect(version).toMatchObject({ number: 2, status: 'trial' });
    expect(version.body.steps.map((s) => s.title)).toEqual(['Mordant', 'Dye', 'Rinse in the sea', 'Dry']);
    expect(version.body.steps[1]).toMatchObject({ durationMin: 200 });
    expect(version.body.steps[1]?.doses).toContainEqual({ by: 'percentOwf', materialId: onion, percentOwf: 10 });
    expect(version.body.note).toContain('As Lot ');
  });

  it('a lot that went as planned has nothing to write otherwise', async () => {
    const lot = await makeLot(studio, f, { quantityText: SIZE });
    await dyed(lot);
    const { status, body } = await studio.agent.post(`/api/lots/${lot}/as-done`).send({ id: newId() });
    expect([status, (body as Problem).reason]).toEqual([422, 'asPlanned']);
  });

  it('what was put in is corrected like a weighing, and never more than there is', async () => {
    const lot = await makeLot(studio, f, { quantityText: SIZE });
    for (const entry of [
      runEntry(0, 'start'),
      runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') }),
      runEntry(0, 'finish'),
      runEntry(1, 'start'),
    ])
      await write(lot, entry).expect(200);
    const before = (await jarOf(onionJar)).row.onHand;
    const first = { ...added('15 g'), stepIndex: 1, id: newId() };
    await write(lot, first).expect(200);
    await write(lot, { ...added('5 g', { replacesId: first.id }), stepIndex: 1 }).expect(200);
    expect((await jarOf(onionJar)).row.onHand).toBe(before - 5000);
    expect(await refused(lot, { ...added('900 g'), stepIndex: 1 }, 'notOnHand')).toContain('can’t have come from it');
    await refused(lot, runEntry(1, 'add', { detail: { name: ' ', quantityText: 'some' } }), 'missing');
    await refused(lot, runEntry(1, 'pieces', { detail: { batch: 1, change: -9 } }), 'tooManyOut');
    // What came from no jar needs no number, and moves nothing.
    await write(lot, runEntry(1, 'add', { detail: { batch: 1, name: 'sea water', quantityText: 'a ladle' } })).expect(
      200,
    );
    expect((await jarOf(onionJar)).row.onHand).toBe(before - 5000);
  });

  it('a lot told afterwards takes its stock on the day it was dyed, and from no jar that came later', async () => {
    const { id, reply } = await told('2026-05-20T08:00:00.000Z', false);
    expect(reply.status).toBe(200);
    const at = (minute: number): string =>
      new Date(Date.parse('2026-05-20T08:00:00.000Z') + minute * 60_000).toISOString();
    await write(id, runEntry(0, 'start', { at: at(0), detail: { readBy: 'card', about: 'morning' } })).expect(200);
    await write(id, runEntry(0, 'weigh', { at: at(5), weighing: weighing(f.wool, f.woolStockLot, '200 g') })).expect(
      200,
    );
    const { summary, entries } = await lotOf(id);
    expect(summary.at).toBe('2026-05-20T08:00:00.000Z');
    expect(summary.recordedAt).not.toBeNull();
    expect(entries[0]?.detail).toMatchObject({ about: 'morning' });
    const line = (await jarOf(f.woolStockLot)).lines.filter((l) => l.kind === 'use').find((l) => l.at === at(5));
    expect(line).toMatchObject({ amount: -200_000 });

    await write(id, runEntry(0, 'finish', { at: at(10) })).expect(200);
    await write(id, runEntry(1, 'start', { at: at(20) })).expect(200);
    const later = (
      (
        await studio.agent
          .post('/api/stock-lots')
          .send({ ...delivery(f.alum, '100 g'), receivedOn: '2026-05-25' })
          .expect(200)
      ).body as { id: string }
    ).id;
    const fromLater = runEntry(1, 'weigh', { at: at(25), weighing: weighing(f.alum, later, '30 g') });
    expect(await refused(id, fromLater, 'jarCameLater')).toContain('2026-05-25');
    await refused(id, runEntry(1, 'finish', { at: at(15), text: 'early' }), 'finishedBeforeStart');
    await refused(id, runEntry(1, 'finish', { at: '2027-01-01T00:00:00.000Z' }), 'inFuture');
    const future = await told('2027-01-01T00:00:00.000Z', false);
    expect([future.reply.status, (future.reply.body as Problem).reason]).toEqual([422, 'inFuture']);
  });

  it('a lot from before the books takes nothing, promises nothing, and still tells what was in it', async () => {
    const jars = async () => Promise.all([f.woolStockLot, f.alumStockLot, f.weldStockLot].map(jarOf));
    const before = (await jars()).map((j) => [j.row.onHand, j.row.reserved]);
    const { id } = await told('2025-05-20T08:00:00.000Z', true);
    const at = (minute: number): string =>
      new Date(Date.parse('2025-05-20T08:00:00.000Z') + minute * 60_000).toISOString();
    const weighed = [
      { ...weighing(f.wool, '', '200 g'), stockLotId: null },
      { ...weighing(f.alum, '', '30 g'), stockLotId: null },
      { ...weighing(f.weld, '', '260 g'), stockLotId: null },
      undefined,
    ];
    for (const [step, what] of weighed.entries()) {
      await write(id, runEntry(step, 'start', { at: at(step * 100) })).expect(200);
      if (what) await write(id, runEntry(step, 'weigh', { at: at(step * 100), weighing: what })).expect(200);
      await write(id, runEntry(step, 'finish', { at: at(step * 100 + 60), text: 'as told' })).expect(200);
    }
    expect((await jars()).map((j) => [j.row.onHand, j.row.reserved])).toEqual(before);
    await released(id);
    const { factors } = await again(id);
    expect(factors.find((x) => x.name === 'Weld')).toMatchObject({
      planned: expect.stringMatching(/^100 % WOF/) as string,
      then: '130 % WOF from none',
    });
    // Closed: a new fact is a new lot or a reading, never a silent change.
    expect(await refused(id, runEntry(2, 'note', { text: 'later' }), 'closed')).toContain('its record is closed');
    const stands = (await lotOf(id)).entries;
    const forgotten = runEntry(2, 'note', {
      text: 'it stood overnight',
      detail: { deviation: true, late: 'Tam said so today' },
    });
    await studio.agent.post(`/api/lots/${id}/entries`).send(forgotten).expect(200);
    const after = await lotOf(id);
    expect(after.entries.slice(0, stands.length)).toEqual(stands);
    expect(after.deviations.map((d) => d.message)).toContain('it stood overnight');
    for (const change of [
      runEntry(2, 'finish', { detail: { late: 'x' } }),
      runEntry(2, 'note', { text: 'x', replacesId: (forgotten as { id: string }).id, detail: { late: 'x' } }),
      runEntry(2, 'note', { text: 'x', detail: { late: ' ' } }),
    ])
      expect(await refused(id, change, 'closed')).toContain('with the reason why only now');
  });

  it('a weighing told twice is asked about, and a slip goes back into its jar and is promised again', async () => {
    const lot = await makeLot(studio, f, { quantityText: SIZE });
    const jar = async () => {
      const { row } = await jarOf(f.woolStockLot);
      return [row.onHand, row.reserved];
    };
    const before = await jar();
    await write(lot, runEntry(0, 'start')).expect(200);
    const first = runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') }) as { id: string };
    await write(lot, first).expect(200);
    const second = runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') });
    expect(await refused(lot, second, 'weighedAlready')).toContain('went in on top of that');
    expect((await jar())[0]).toBe((before[0] ?? 0) - 200_000);
    await write(lot, runEntry(0, 'takeBack', { replacesId: first.id })).expect(200);
    expect(await jar()).toEqual(before);
    await refused(lot, runEntry(0, 'takeBack', { replacesId: newId() }), 'badCorrection');
    // What wasn't planned was promised to nobody, and is free again.
    const onions = async () => {
      const { row } = await jarOf(onionJar);
      return [row.onHand, row.reserved];
    };
    const free = await onions();
    const slip = { ...added('5 g'), stepIndex: 0, id: newId() };
    await write(lot, slip).expect(200);
    await write(lot, runEntry(0, 'takeBack', { replacesId: slip.id })).expect(200);
    expect(await onions()).toEqual(free);
    // Weighed on top and taken back, the lot wants no more than it did.
    await write(lot, runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') })).expect(200);
    const weighedOnce = await jar();
    const onTop = runEntry(0, 'weigh', {
      weighing: weighing(f.wool, f.woolStockLot, '50 g'),
      detail: { again: true },
    }) as { id: string };
    await write(lot, onTop).expect(200);
    await write(lot, runEntry(0, 'takeBack', { replacesId: onTop.id })).expect(200);
    expect(await jar()).toEqual(weighedOnce);
  });

  it('a lot in these books weighs from a jar', async () => {
    const lot = await makeLot(studio, f, { quantityText: SIZE });
    await write(lot, runEntry(0, 'start')).expect(200);
    const none = { ...weighing(f.wool, '', '200 g'), stockLotId: null };
    const { status, body } = await write(lot, runEntry(0, 'weigh', { weighing: none }));
    expect([status, (body as Problem).detail]).toEqual([404, expect.stringContaining('no such jar')]);
  });

  it('“this is it” takes the lot’s colour, and the recipe as it was really done', async () => {
    const lot = await makeLot(studio, f, { quantityText: SIZE });
    await dyed(lot, [added('10 g')]);
    await released(lot);
    const versionId = newId();
    const master = { id: newId(), lab: null, lotId: lot, reason: 'better so', asDoneVersionId: versionId };
    await studio.agent.post(`/api/colourways/${f.colourway}/masters`).send(master).expect(200);
    const { body } = await studio.agent.get(`/api/colourways/${f.colourway}`).expect(200);
    const { recipe } = (body as ColourwayDetail).colourway;
    expect(recipe.versionId).toBe(versionId);
    const version = (await studio.agent.get(`/api/recipe-versions/${versionId}`).expect(200))
      .body as RecipeVersionDetail;
    expect(version.body.steps[1]?.doses).toContainEqual({ by: 'percentOwf', materialId: onion, percentOwf: 5 });
  });
});

import type { Bench, Instrument, Rehearsal, Tag, RunEntryResult } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, freePots, furnish, makeLot, newId, openTestStudio, runEntry, weighing } from '../test/test-studio';

const draft = (lotId: string, entry: object, ageMs = 0) => ({ lotId, ageMs, entry });

describe.each(KINDS)('the bench (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());
  afterEach(() => freePots(studio));
  const send = async (...drafts: object[]): Promise<RunEntryResult[]> =>
    (
      (await studio.agent.post('/api/bench/run-entries').send({ drafts }).expect(200)).body as {
        results: RunEntryResult[];
      }
    ).results;
  const bench = async (): Promise<Bench> => (await studio.agent.get('/api/bench').expect(200)).body as Bench;
  const entriesOf = async (lotId: string) =>
    ((await studio.agent.get(`/api/lots/${lotId}`).expect(200)).body as Bench['lots'][number]).entries;
  const count = async (table: string): Promise<number> =>
    Number(
      (
        (await studio.context.database.db.execute(sql.raw(`SELECT count(*)::int AS n FROM ${table}`))) as unknown as {
          rows: { n: number }[];
        }
      ).rows[0]?.n,
    );

  it('takes touches in order, each once, by how long ago they were made', async () => {
    const lotId = await makeLot(studio, f);
    studio.pass(60);
    const now = studio.context.clock().getTime();
    const drafts = [
      draft(lotId, runEntry(0, 'start'), 50 * 60_000),
      draft(lotId, runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '600 g') }), 40 * 60_000),
      draft(lotId, runEntry(0, 'note', { text: 'soft' }), 0),
    ];
    for (let i = 0; i < 5; i += 1) expect((await send(...drafts)).every((r) => r.ok)).toBe(true);
    const entries = await entriesOf(lotId);
    expect(entries.map((e) => [e.kind, now - Date.parse(e.at)])).toEqual([
      ['start', 50 * 60_000],
      ['weigh', 40 * 60_000],
      ['note', 0],
    ]);
    expect((await bench()).lots.map((l) => l.summary.id)).toContain(lotId);
  });

  it('never turns the order of two presses round, however slow the first one’s way was', async () => {
    const lotId = await makeLot(studio, f);
    studio.pass(60);
    // The first was under way for two seconds and is dated on arrival; the second one’s age says it was made before.
    const start = { ...runEntry(0, 'start'), id: newId() };
    await send(draft(lotId, start));
    const finish = { ...draft(lotId, runEntry(0, 'finish', { text: 'no fibre weighed' }), 1500), afterId: start.id };
    expect(await send(finish)).toMatchObject([{ ok: true }]);
    const [began, ended] = await entriesOf(lotId);
    expect(ended?.at).toBe(began?.at);
    // What names no entry before it, or one that was never taken, keeps its own age.
    expect(
      await send({ ...draft(lotId, runEntry(1, 'note', { text: 'seen' }), 1500), afterId: newId() }),
    ).toMatchObject([{ ok: true }]);
    const note = (await entriesOf(lotId)).find((e) => e.kind === 'note');
    expect(Date.parse(began?.at ?? '') - Date.parse(note?.at ?? '')).toBe(1500);
  });

  it('answers a touch that can’t be taken with its sentence, and goes on with those after it', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    const results = await send(
      draft(lotId, runEntry(0, 'start')),
      draft(lotId, runEntry(0, 'weigh', { weighing: weighing(f.wool, f.alumStockLot, '200 g') })),
      draft(lotId, runEntry(0, 'temperature', { temperatureC: 120 })),
      draft(lotId, runEntry(2, 'start')),
      draft(lotId, runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') })),
      draft(lotId, runEntry(0, 'finish')),
    );
    expect(results.map((r) => r.reason)).toEqual(['', 'wrongStockLot', 'outOfRange', 'outOfOrder', '', '']);
    expect(results[1]?.message).toMatch(/Wrong jar: .* does not hold Rug wool.* take /);
    expect((await entriesOf(lotId)).map((e) => e.kind)).toEqual(['start', 'weigh', 'finish']);
  });

  it('pauses, does over, begins out of order with its reason, hands over, and tells it all as deviations', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    const person = (await bench()).people[0];
    const results = await send(
      draft(lotId, runEntry(1, 'start', { text: 'the pot was free', detail: { outOfOrder: true } })),
      draft(
        lotId,
        runEntry(1, 'weigh', { weighing: weighing(f.alum, f.alumStockLot, '10 g'), detail: { more: true } }),
      ),
      draft(lotId, runEntry(1, 'weigh', { weighing: weighing(f.alum, f.alumStockLot, '20 g') })),
      draft(lotId, runEntry(1, 'pause')),
      draft(lotId, runEntry(1, 'resume')),
      draft(lotId, runEntry(1, 'hand', { detail: { toPerson: person } })),
      draft(lotId, runEntry(1, 'note', { text: 'it boiled: the shade may be duller', detail: { deviation: true } })),
      draft(lotId, runEntry(1, 'redo', { text: 'spilt half' })),
    );
    expect(results.map((r) => r.message)).toEqual(Array(8).fill(''));
    const lot = (await bench()).lots.find((l) => l.summary.id === lotId);
    expect(lot?.deviations.map((d) => d.message)).toEqual([
      'done over: spilt half',
      'it boiled: the shade may be duller',
    ]);
    expect(lot?.summary.stations[1]).toMatchObject({ state: 'waiting', hasDeviation: true });
  });

  it('keeps a record true when the lot is cancelled while something is being weighed', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    await send(draft(lotId, runEntry(0, 'start')));
    await send(draft(lotId, runEntry(0, 'cancel', { text: 'order withdrawn' })));
    const [late] = await send(
      draft(lotId, runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') }), 60_000),
    );
    expect(late).toMatchObject({ ok: false, reason: 'closed' });
  });

  it('dates touches of two tablets by their age, whatever their clocks say, and keeps a time a person wrote', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    studio.pass(120);
    const now = studio.context.clock().getTime();
    // The second tablet sends first what it did later; neither says what time it thinks it is.
    await send(draft(lotId, runEntry(0, 'start'), 90 * 60_000));
    await send(draft(lotId, runEntry(0, 'note', { text: 'from the second tablet' }), 10 * 60_000));
    await send(draft(lotId, runEntry(0, 'note', { text: 'from the first, back from the loft' }), 45 * 60_000));
    await send(
      draft(lotId, runEntry(0, 'note', { text: 'as written', at: new Date(now - 60 * 60_000).toISOString() }), 0),
    );
    const ages = (await entriesOf(lotId)).map((e) => (now - Date.parse(e.at)) / 60_000);
    expect(ages).toEqual([90, 10, 45, 60]);
    await studio.agent
      .post('/api/bench/run-entries')
      .send({ drafts: [draft(lotId, runEntry(0, 'note', { text: 'x' }), -5)] })
      .expect(400);
    await studio.agent.post('/api/bench/run-entries').send({ drafts: [] }).expect(400);
  });

  it('takes hundreds of touches at once, and a second sending of them changes nothing', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    await send(draft(lotId, runEntry(0, 'start')));
    const many = Array.from({ length: 250 }, (_, i) =>
      draft(
        lotId,
        runEntry(
          0,
          i % 2 === 0 ? 'note' : 'temperature',
          i % 2 === 0 ? { text: `touch ${i}` } : { temperatureC: 20 + (i % 50) },
        ),
        (250 - i) * 10,
      ),
    );
    for (let round = 0; round < 2; round += 1) expect((await send(...many)).every((r) => r.ok)).toBe(true);
    const entries = await entriesOf(lotId);
    expect(entries).toHaveLength(251);
    expect(entries.filter((e) => e.kind === 'note').map((e) => e.text)).toEqual(
      Array.from({ length: 125 }, (_, i) => `touch ${i * 2}`),
    );
    await studio.agent
      .post('/api/bench/run-entries')
      .send({ drafts: [...many, many[0]] })
      .expect(400);
    const [clash] = await send({ lotId, ageMs: 0, entry: { ...(many[0] as { entry: object }).entry, kind: 'pause' } });
    expect(clash).toMatchObject({ ok: false, reason: 'idReused' });
  });

  it('shows a paused step as paused to everyone, and its minutes stand still', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    await send(draft(lotId, runEntry(0, 'skip', { text: 'weighed before' })), draft(lotId, runEntry(1, 'start')));
    studio.pass(10);
    await send(draft(lotId, runEntry(1, 'pause')));
    const running = async () =>
      (
        (await studio.agent.get('/api/today').expect(200)).body as {
          running: { lotId: string; startedAt: string; pausedAt: string | null; hot: boolean }[];
        }
      ).running.find((r) => r.lotId === lotId);
    const paused = await running();
    expect([paused?.pausedAt !== null, paused?.hot]).toEqual([true, true]);
    studio.pass(30);
    await send(draft(lotId, runEntry(1, 'resume')));
    const again = await running();
    expect([
      again?.pausedAt,
      (Date.parse(again?.startedAt ?? '') - Date.parse(paused?.startedAt ?? '')) / 60_000,
    ]).toEqual([null, 30]);
  });

  it('puts a caution away for the day and for one person', async () => {
    await studio.agent.post('/api/bench/cautions').send({ id: newId(), caution: 'hotLiquor' }).expect(200);
    expect((await bench()).putAway).toEqual(['hotLiquor']);
    studio.pass(24 * 60);
    expect((await bench()).putAway).toEqual([]);
  });

  it('remembers what a container weighs, and weighs it anew by its name', async () => {
    for (const tareMg of [41_200, 41_350])
      await studio.agent.post('/api/containers').send({ id: newId(), name: 'Blue jug', tareMg }).expect(200);
    expect((await bench()).containers).toMatchObject([{ name: 'Blue jug', tareMg: 41_350 }]);
    await studio.agent.post('/api/containers').send({ id: newId(), name: 'Air', tareMg: 0 }).expect(400);
  });

  it('keeps probe readings, thins them without losing the peak, and writes the hottest down with the finish', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    await send(draft(lotId, runEntry(0, 'skip', { text: 'weighed before' })), draft(lotId, runEntry(1, 'start')));
    studio.pass(60);
    const points = Array.from({ length: 900 }, (_, i) => [(900 - i) * 1000, i === 450 ? 91 : 80] as [number, number]);
    await studio.agent.post(`/api/lots/${lotId}/probe`).send({ id: newId(), stepIndex: 1, points }).expect(200);
    const log = (await studio.agent.get(`/api/lots/${lotId}/probe?max=100`).expect(200)).body as {
      count: number;
      points: [number, number][];
    };
    expect([log.count, log.points.length <= 100, Math.max(...log.points.map((p) => p[1]))]).toEqual([900, true, 91]);
    await send(draft(lotId, runEntry(1, 'finish', { text: 'no alum left' })));
    const lot = (await bench()).lots.find((l) => l.summary.id === lotId);
    expect(lot?.entries.find((e) => e.kind === 'temperature')).toMatchObject({
      temperatureC: 91,
      text: 'hottest by the probe',
      detail: { readBy: 'instrument' },
    });
    expect(lot?.deviations.map((d) => d.message).join()).toMatch(/above the ceiling of 88/);
    await studio.agent
      .post(`/api/lots/${lotId}/probe`)
      .send({ id: newId(), stepIndex: 1, points: [[0, 4000]] })
      .expect(400);
  });

  it('gives codes once, finds by them, and tells a mistyped one from a strange one', async () => {
    const give = async (...tags: object[]): Promise<Tag[]> =>
      (await studio.agent.post('/api/tags').send({ id: newId(), tags }).expect(200)).body as Tag[];
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const first = await give(
      { kind: 'stockLot', stockLotId: f.alumStockLot },
      { kind: 'piece', lotId, number: 3 },
      { kind: 'vessel', vesselId: f.kettle },
      { kind: 'bath', lotId, stepIndex: 1 },
    );
    expect((await give({ kind: 'stockLot', stockLotId: f.alumStockLot }))[0]?.code).toBe(first[0]?.code);
    // What is new and what has one already, in the order asked for; one asked for twice is one.
    const piece4 = { kind: 'piece', lotId, number: 4 };
    const mixed = await give(piece4, { kind: 'vessel', vesselId: f.kettle }, piece4);
    expect(mixed.map((t) => [t.kind, t.number])).toEqual([
      ['piece', 4],
      ['vessel', null],
      ['piece', 4],
    ]);
    expect(mixed[1]?.code).toBe(first[2]?.code);
    expect(mixed[2]?.code).toBe(mixed[0]?.code);
    expect(first.map((t) => t.code)).not.toContain(mixed[0]?.code);
    const read = (code: string) => studio.agent.get(`/api/tags?code=${encodeURIComponent(code)}`);
    expect((await read((first[1]?.code ?? '').toLowerCase()).expect(200)).body).toMatchObject({
      kind: 'piece',
      number: 3,
      path: `/lots/${lotId}`,
    });
    const code = first[0]?.code ?? '';
    const mistyped = code.slice(0, 5) + (code[5] === '7' ? '8' : '7') + code.slice(6);
    expect(((await read(mistyped).expect(422)).body as { detail: string }).detail).toMatch(/wrong or two are swapped/);
    expect((await studio.agent.get(`/api/search?q=${code}`).expect(200)).body).toMatchObject([
      { kind: 'stockLot', id: f.alumStockLot },
    ]);
    await studio.agent
      .post('/api/tags')
      .send({ id: newId(), tags: [{ kind: 'stockLot' }] })
      .expect(422);
    const pdf = await studio.agent
      .get(`/api/tags.pdf?codes=${first.map((t) => t.code).join(',')}&size=sheet`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (c: Buffer) => parts.push(c));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  });

  it.each(['A4', 'Letter'])('prints the bench card on %s', async (paper) => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const pdf = await studio.agent
      .get(`/api/lots/${lotId}/card.pdf?paper=${paper}`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (c: Buffer) => parts.push(c));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    expect((pdf.body as Buffer).toString('latin1')).toMatch(
      paper === 'A4' ? /MediaBox \[0 0 595\.28 841\.89\]/ : /MediaBox \[0 0 612 792\]/,
    );
    expect((pdf.body as Buffer).toString('latin1')).not.toMatch(/\/Subtype \/Image/);
  });

  it('rehearses a lot at speed, by the same rules, and touches neither stock nor records', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const before = [
      await count('run_entries'),
      await count('movements'),
      await count('reservations'),
      await count('probe_logs'),
      await count('idempotency_keys'),
    ];
    const id = newId();
    const began = (await studio.agent.post('/api/rehearsals').send({ id, lotId, speed: 120 }).expect(200))
      .body as Rehearsal;
    expect(began).toMatchObject({ speed: 120, bench: { lots: [{ summary: { state: 'planned' } }] } });
    const rehearse = async (...entries: object[]): Promise<RunEntryResult[]> =>
      (
        (
          await studio.agent
            .post(`/api/rehearsals/${id}/run-entries`)
            .send({ drafts: entries.map((e) => draft(lotId, e)) })
            .expect(200)
        ).body as { results: RunEntryResult[] }
      ).results;
    expect(
      (
        await rehearse(
          runEntry(0, 'start'),
          runEntry(0, 'weigh', { weighing: weighing(f.wool, f.alumStockLot, '100 g') }),
          runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '100 g') }),
          runEntry(0, 'finish'),
          runEntry(1, 'start'),
          runEntry(1, 'weigh', { weighing: weighing(f.alum, f.alumStockLot, '15 g') }),
        )
      ).map((r) => r.reason),
    ).toEqual(['', 'wrongStockLot', '', '', '', '']);
    const order = (rest: object) =>
      studio.agent
        .post('/api/instruments')
        .send({ rehearsalId: id, ...rest })
        .expect(200);
    await order({ kind: 'probe', do: 'heat', share: 1 });
    await order({ kind: 'probe', do: 'lid', on: true });
    studio.pass(1);
    const later = (await studio.agent.get(`/api/rehearsals/${id}`).expect(200)).body as Rehearsal;
    expect(Date.parse(later.now) - Date.parse(began.now)).toBe(120 * 60_000);
    expect(later.bench.lots[0]?.summary.stations.map((s) => s.state)).toEqual([
      'done',
      'running',
      'waiting',
      'waiting',
    ]);
    expect([
      await count('run_entries'),
      await count('movements'),
      await count('reservations'),
      await count('probe_logs'),
      await count('idempotency_keys'),
    ]).toEqual(before);
    await studio.agent.delete(`/api/rehearsals/${id}`).expect(200);
    await studio.agent.get(`/api/rehearsals/${id}`).expect(404);
    await studio.agent.post('/api/rehearsals').send({ id: newId(), lotId, speed: 500 }).expect(400);
  });

  it('lists its instruments and takes hands on them; an unknown order is refused', async () => {
    await studio.agent.post('/api/instruments').send({ kind: 'balance', do: 'put', weightG: 62.4 }).expect(200);
    const list = (await studio.agent.get('/api/instruments').expect(200)).body as Instrument[];
    expect(list.map((i) => [i.kind, i.simulated, i.panG])).toEqual([
      ['balance', true, 62.4],
      ['probe', true, null],
      ['colour', true, null],
    ]);
    await studio.agent.post('/api/instruments').send({ kind: 'balance', do: 'dance' }).expect(400);
    await studio.stranger.get('/api/instruments/live').expect(401);
  });
});

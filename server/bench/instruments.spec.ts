import type { Bench, Instrument, LotDetail } from '@vestigia/contract';
import type { InstrumentMessage } from '@vestigia/core';
import { createServer, request as ask } from 'node:http';
import type { AddressInfo } from 'node:net';
import { sql } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../app';
import { contextOn } from '../shared/context';
import type { Context } from '../shared/context';
import { openFolder } from '../db/open-database';
import { packReadings, unpackInto } from '../lots/probe-log';
import { MIGRATIONS } from '../test/databases';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  copiesIn,
  freePots,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  runEntry,
  wholeDocument,
} from '../test/test-studio';
import { ReadingLog } from '@vestigia/core';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

type Heard = [string, number, InstrumentMessage];

describe('instruments over a live line', () => {
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-live-'));
  const server = createServer();
  let context: Context;
  let base: string;
  let cookie = '';
  beforeAll(async () => {
    context = contextOn(await openFolder(join(folder, 'data'), MIGRATIONS, new Date()));
    server.on('request', await createApp(context, { answersTo: [], copies: copiesIn(context.database.files.folder) }));
    await new Promise<void>((open) => server.listen(0, '127.0.0.1', open));
    base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const created = await fetch(`${base}/api/auth/studio`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        name: 'Live House',
        zone: 'UTC',
        person: { id: newId(), name: 'Ada Reed', passphrase: 'ten green hanks' },
      }),
    });
    cookie = created.headers.get('set-cookie')?.split(';')[0] ?? '';
  });
  afterAll(async () => {
    for (const close of context.atClose) await close();
    server.closeAllConnections();
    await new Promise((closed) => server.close(closed));
    await context.database.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const order = (body: object): Promise<Response> =>
    fetch(`${base}/api/instruments`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
    });
  /** Listens until `enough` says so; gives what the line said first, and everything it said after. */
  const listen = (
    path: string,
    enough: (heard: readonly Heard[]) => boolean,
  ): Promise<{ status: number; hello: Instrument[]; heard: Heard[] }> =>
    new Promise((done, failed) => {
      const heard: Heard[] = [];
      let hello: Instrument[] = [];
      let text = '';
      const asking = ask(base + path, { headers: { cookie } }, (reply) => {
        if (reply.statusCode !== 200) {
          done({ status: reply.statusCode ?? 0, hello, heard });
          reply.resume();
          return;
        }
        reply
          .setEncoding('utf8')
          .on('data', (chunk: string) => {
            const parts = (text + chunk).split('\n\n');
            text = parts.pop() ?? '';
            for (const part of parts) {
              const data = /^data: (.*)$/m.exec(part)?.[1];
              if (data === undefined) continue;
              if (part.includes('event: hello')) hello = JSON.parse(data) as Instrument[];
              else heard.push(JSON.parse(data) as Heard);
            }
            if (enough(heard)) {
              asking.destroy();
              done({ status: 200, hello, heard });
            }
          })
          .on('error', () => undefined);
      });
      asking.on('error', (error: NodeJS.ErrnoException) => {
        if (error.code !== 'ECONNRESET') failed(error);
      });
      asking.end();
    });

  it('says who is there, then a reading at a time, and follows what is put on the pan', async () => {
    await order({ kind: 'balance', do: 'put', weightG: 120 });
    const { hello, heard } = await listen('/api/instruments/live', (all) =>
      all.some(([kind, , m]) => kind === 'balance' && m.kind === 'weight' && Math.abs(m.weightG - 120) < 0.3),
    );
    expect(hello.map((i) => [i.kind, i.simulated])).toEqual([
      ['balance', true],
      ['probe', true],
      ['colour', true],
    ]);
    const times = heard.map(([, atMs]) => atMs);
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });

  it('tells several browsers the same', async () => {
    const all = await Promise.all(
      Array.from({ length: 6 }, () => listen('/api/instruments/live', (heard) => heard.length >= 10)),
    );
    expect(all.every((a) => a.heard.every(([kind, , m]) => kind === 'balance' && m.kind === 'weight'))).toBe(true);
  });

  it('goes quiet with the lead out, and says who it is when it is back', async () => {
    await order({ kind: 'balance', do: 'unplug', out: true });
    setTimeout(() => void order({ kind: 'balance', do: 'unplug', out: false }), 500);
    const { heard } = await listen('/api/instruments/live', (all) => all.length >= 3);
    expect(heard[0]?.[2]).toMatchObject({ kind: 'hello', instrument: 'balance' });
  });

  it('is for people who came in, and knows no rehearsal that is over', async () => {
    expect((await fetch(`${base}/api/instruments/live`)).status).toBe(401);
    expect((await listen(`/api/instruments/live?rehearsal=${newId()}`, () => true)).status).toBe(404);
    expect((await listen('/api/instruments/live?rehearsal=nonsense', () => true)).status).toBe(404);
  });
});

describe('the probe of the house', () => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio('folder');
    f = await furnish(studio);
  });
  afterAll(() => studio.close());
  afterEach(() => freePots(studio));
  const lotOf = async (id: string): Promise<LotDetail> =>
    (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  const logs = async (): Promise<number> =>
    Number(
      (
        (await studio.context.database.db.execute(sql`SELECT count(*)::int AS n FROM probe_logs`)) as unknown as {
          rows: { n: number }[];
        }
      ).rows[0]?.n,
    );

  it('packs readings and gives them back as they were', () => {
    const points = Array.from({ length: 500 }, (_, i) => [1_780_000_000_000 + i * 100, 20 + i / 8] as const);
    const log = new ReadingLog();
    unpackInto(log, packReadings(points));
    expect(log.since(0).map((p) => [p.atMs, p.value])).toEqual(points.map(([ms, c]) => [ms, c]));
    unpackInto(log, new Uint8Array([1, 2, 3]));
    expect(log.length).toBe(500);
  });

  it('hangs in a lot’s bath, and what it read is there when the step is finished', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const send = (...entries: object[]) =>
      studio.agent
        .post('/api/bench/run-entries')
        .send({ drafts: entries.map((entry) => ({ lotId, ageMs: 0, entry })) })
        .expect(200);
    await send(runEntry(0, 'skip', { text: 'weighed before' }), runEntry(1, 'start'));
    await studio.agent.post('/api/instruments').send({ kind: 'probe', do: 'hang', lotId, stepIndex: 9 }).expect(404);
    await studio.agent.post('/api/instruments').send({ kind: 'probe', do: 'hang', lotId, stepIndex: 1 }).expect(200);
    await studio.agent.post('/api/instruments').send({ kind: 'probe', do: 'heat', share: 1 }).expect(200);
    // The bench beats by itself; a few beats with the clock put on are a while at the stove.
    for (let i = 0; i < 8; i += 1) {
      studio.pass(6);
      await new Promise((beat) => setTimeout(beat, 130));
    }
    const hung = ((await studio.agent.get('/api/instruments').expect(200)).body as Instrument[]).find(
      (i) => i.kind === 'probe',
    );
    expect(hung).toMatchObject({ lotId, pot: { heat: 1, lid: false, fibreIn: true } });
    await send(runEntry(1, 'finish', { text: 'no alum here' }));
    const lot = await lotOf(lotId);
    const hottest = lot.entries.find((e) => e.kind === 'temperature');
    expect(hottest).toMatchObject({ text: 'hottest by the probe', detail: { readBy: 'simulated' } });
    const { course } = hottest!.detail as { course: { minute: number; temperatureC: number }[] };
    expect(course.length).toBeGreaterThan(1);
    expect(Math.max(...course.map((c) => c.temperatureC))).toBeCloseTo(hottest!.temperatureC!, 0);
    expect(hottest?.temperatureC).toBeGreaterThan(12);
    expect(await logs()).toBeGreaterThan(0);
    await studio.agent.post('/api/instruments').send({ kind: 'probe', do: 'hang', lotId: null }).expect(200);
    expect(
      ((await studio.agent.get('/api/instruments').expect(200)).body as Instrument[]).find((i) => i.kind === 'probe')
        ?.lotId,
    ).toBeNull();
  });

  it('goes on into the next bath of its lot by itself, and each reading stays with the bath it was taken in', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const send = (...entries: object[]) =>
      studio.agent
        .post('/api/bench/run-entries')
        .send({ drafts: entries.map((entry) => ({ lotId, ageMs: 0, entry })) })
        .expect(200);
    await send(runEntry(0, 'skip', { text: 'weighed before' }), runEntry(1, 'start'));
    await studio.agent.post('/api/instruments').send({ kind: 'probe', do: 'hang', lotId, stepIndex: 1 }).expect(200);
    const beat = async (): Promise<void> => {
      studio.pass(1);
      await new Promise((done) => setTimeout(done, 250));
    };
    await beat();
    await send(runEntry(1, 'finish', { text: 'no alum here' }), runEntry(2, 'start'));
    await beat();
    const probe = ((await studio.agent.get('/api/instruments').expect(200)).body as Instrument[]).find(
      (i) => i.kind === 'probe',
    );
    expect([probe?.lotId, probe?.stepIndex, probe?.pot?.fibreIn]).toEqual([lotId, 2, true]);
    await studio.agent.post('/api/instruments').send({ kind: 'probe', do: 'hang', lotId: null }).expect(200);
    for (const step of [1, 2])
      expect(
        ((await studio.agent.get(`/api/lots/${lotId}/probe?step=${step}`).expect(200)).body as { count: number }).count,
      ).toBeGreaterThan(0);
  });

  it('calls to a pot at its ceiling from any page, with how much of the hold was held, until it is finished', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const send = (...entries: object[]) =>
      studio.agent
        .post('/api/bench/run-entries')
        .send({ drafts: entries.map((entry) => ({ lotId, ageMs: 0, entry })) })
        .expect(200);
    const calls = async () =>
      (
        (await studio.agent.get('/api/today').expect(200)).body as {
          calls: { lotId: string; stepIndex: number; code: string; message: string }[];
        }
      ).calls;
    await send(runEntry(0, 'skip', { text: 'weighed before' }), runEntry(1, 'start'));
    studio.pass(60);
    // Twenty minutes held of sixty, then a sag, then over the ceiling of 88 °C.
    const points = Array.from(
      { length: 60 },
      (_, i) => [(60 - i) * 60_000 - 1000, i < 20 ? 82 : i < 55 ? 60 : 91] as [number, number],
    );
    await studio.agent.post(`/api/lots/${lotId}/probe`).send({ id: newId(), stepIndex: 1, points }).expect(200);
    expect(await calls()).toMatchObject([
      {
        lotId,
        stepIndex: 1,
        code: 'aboveCeiling',
        message: expect.stringMatching(/^Mordant: 91 °C is above the ceiling of 88 °C/) as string,
      },
    ]);
    await send(runEntry(1, 'finish', { text: 'no alum here' }));
    expect(await calls()).toEqual([]);
    const lot = await lotOf(lotId);
    expect(lot.entries.find((e) => e.kind === 'temperature')?.detail?.heldMin).toBe(19);
    expect(lot.deviations.map((d) => d.message).join(' | ')).toMatch(
      /held 19 min of 1 h within 4\u00a0°C of 82 °C: expect paler/,
    );
  });

  it('hands containers, codes, curves and what a bench entry says over with the studio file', async () => {
    await studio.agent.post('/api/containers').send({ id: newId(), name: 'Tin scoop', tareMg: 61_450 }).expect(200);
    const [tag] = (
      await studio.agent
        .post('/api/tags')
        .send({ id: newId(), tags: [{ kind: 'stockLot', stockLotId: f.alumStockLot }] })
        .expect(200)
    ).body as { code: string }[];
    const file = await wholeDocument(studio.context.database.db);
    expect([
      file.containers.length,
      file.tags.length,
      file.probeLogs.length > 0,
      file.runEntries.some((e) => e.detail !== null),
    ]).toEqual([1, 1, true, true]);
    const other = await openTestStudio('folder');
    try {
      // A studio that is open takes no file: an empty one is what it is opened in.
      await other.agent.post('/api/auth/document').send(file).expect(409);
    } finally {
      await other.close();
    }
    expect((await studio.agent.get(`/api/tags?code=${tag?.code}`).expect(200)).body).toMatchObject({
      stockLotId: f.alumStockLot,
    });
    expect(((await studio.agent.get('/api/bench').expect(200)).body as Bench).containers).toHaveLength(1);
  });

  it('has room for a few rehearsals, and says so when there are too many', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const ids = Array.from({ length: 9 }, () => newId());
    const answers = [];
    for (const id of ids)
      answers.push((await studio.agent.post('/api/rehearsals').send({ id, lotId, speed: 60 })).status);
    expect(answers).toEqual([...Array<number>(8).fill(200), 422]);
    for (const id of ids.slice(0, 8)) await studio.agent.delete(`/api/rehearsals/${id}`).expect(200);
  });
});

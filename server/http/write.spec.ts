import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../app';
import type { Db } from '../db/database';
import { waters } from '../db/schema';
import { Refusal, refusalFromDatabase } from '../shared/problem';
import type { TestStudio } from '../test/test-studio';
import { copiesIn, delivery, furnish, newId, openTestStudio } from '../test/test-studio';
import { Writer } from './write';

describe('writing', () => {
  let studio: TestStudio;
  let writer: Writer;
  beforeAll(async () => {
    studio = await openTestStudio('folder');
    writer = new Writer(studio.context);
    await writer.start();
  });
  afterAll(() => studio.close());
  const addWater =
    (name: string) =>
    (tx: Db): Promise<{ name: string }> =>
      tx
        .insert(waters)
        .values({ id: newId(), name })
        .then(() => ({ name }));
  const names = async (): Promise<string[]> =>
    (await studio.context.database.db.select({ name: waters.name }).from(waters)).map((w) => w.name);

  it('does once what is sent twice at the same time, and answers both alike', async () => {
    const key = newId();
    const [a, b] = await Promise.all(
      [0, 1].map(() => writer.write({ call: 'x', key, body: { n: 1 }, run: addWater('twice') })),
    );
    expect(a).toEqual(b);
    expect((await names()).filter((name) => name === 'twice')).toHaveLength(1);
  });

  it('refuses the same id with another body, and takes it for another call', async () => {
    const key = newId();
    await writer.write({ call: 'x', key, body: { n: 1 }, run: addWater('one') });
    await expect(writer.write({ call: 'x', key, body: { n: 2 }, run: addWater('two') })).rejects.toMatchObject({
      code: 'idReused',
    });
    await writer.write({ call: 'y', key, body: { n: 2 }, run: addWater('three') });
    expect(await names()).toEqual(expect.arrayContaining(['one', 'three']));
    expect(await names()).not.toContain('two');
  });

  it('keeps nothing of a write that is refused halfway, and lets it be tried again', async () => {
    const key = newId();
    const failing = async (tx: Db): Promise<never> => {
      await addWater('half')(tx);
      throw new Refusal('refused', 'No.');
    };
    await expect(writer.write({ call: 'x', key, body: {}, run: failing })).rejects.toMatchObject({ code: 'refused' });
    expect(await names()).not.toContain('half');
    await writer.write({ call: 'x', key, body: {}, run: addWater('half') });
    expect(await names()).toContain('half');
  });

  it('answers only after the flush, and not at all when the flush fails', async () => {
    const order: string[] = [];
    const slow = new Writer({
      ...studio.context,
      database: {
        ...studio.context.database,
        flush: async () => {
          await new Promise((r) => setTimeout(r, 20));
          order.push('flushed');
        },
      },
    });
    await slow.write({ call: 'x', key: undefined, body: {}, run: addWater('slow') });
    order.push('answered');
    expect(order).toEqual(['flushed', 'answered']);
    const full = new Writer({
      ...studio.context,
      database: { ...studio.context.database, flush: () => Promise.reject(new Error('no space left')) },
    });
    await expect(full.write({ call: 'x', key: undefined, body: {}, run: addWater('full') })).rejects.toThrow(
      'no space left',
    );
  });

  it('knows after a restart when the newest record was made', async () => {
    await writer.write({ call: 'x', key: newId(), body: {}, run: addWater('newest') });
    studio.pass(-60);
    const restarted = new Writer(studio.context);
    await restarted.start();
    await expect(
      restarted.write({ call: 'x', key: undefined, body: {}, run: addWater('earlier') }),
    ).rejects.toMatchObject({ code: 'clockBehind' });
    studio.pass(60);
  });

  it('says in its own words what the database refuses, and passes on what it does not know', () => {
    const from = (cause: object): unknown => refusalFromDatabase(Object.assign(new Error('query'), { cause }));
    expect(from({ code: '23505', constraint: 'vessels_name_unique' })).toMatchObject({
      code: 'refused',
      detail: 'A vessel has that name already. Choose another.',
    });
    expect(from({ code: '23503' })).toMatchObject({ code: 'notFound' });
    expect(from({ code: 'VS001' })).toMatchObject({ code: 'refused' });
    const unknown = Object.assign(new Error('query'), { cause: { code: '57014' } });
    expect(refusalFromDatabase(unknown)).toBe(unknown);
  });
});

describe('server-sent events', () => {
  it('tell a listening browser what changed, after the answer is safe', async () => {
    const studio = await openTestStudio('folder');
    const f = await furnish(studio);
    const server = createServer(
      await createApp(
        { ...studio.context, log: pino({ level: 'silent' }) },
        {
          answersTo: [],
          copies: copiesIn(studio.context.database.files.folder),
        },
      ),
    );
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const { people } = (await (await fetch(`${base}/api/auth`)).json()) as { people: { id: string }[] };
    const entered = await fetch(`${base}/api/auth/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ personId: people[0]?.id, passphrase: 'ten green hanks' }),
    });
    const cookie = entered.headers.get('set-cookie')?.split(';')[0] ?? '';
    const stop = new AbortController();
    const events = await fetch(`${base}/api/events`, { headers: { cookie }, signal: stop.signal });
    const reader = events.body?.pipeThrough(new TextDecoderStream()).getReader();
    let heard = (await reader?.read())?.value ?? '';
    expect(heard).toContain('event: hello');
    const since = Date.now();
    await studio.agent.post('/api/stock-lots').send(delivery(f.weld, '1 kg')).expect(200);
    while (!heard.includes('event: changed')) heard += (await reader?.read())?.value ?? '';
    expect(heard).toContain('data: {"topics":["stores"]}');
    expect(Date.now() - since).toBeLessThan(10_000);
    stop.abort();
    await new Promise((resolve) => server.close(resolve));
    await studio.close();
  });
});

import type { AuthState, Call, Deed, DeedPage, Problem, Session } from '@vestigia/contract';
import { api, leastRole } from '@vestigia/contract';
import type { Role } from '@vestigia/core';
import { ROLES } from '@vestigia/core';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import request from 'supertest';
import type TestAgent from 'supertest/lib/agent';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { delivery, furnish, newId, openTestStudio, recipeBody } from '../test/test-studio';

describe('who may do what', () => {
  let studio: TestStudio;
  let f: Furniture;
  const people = new Map<Role, { id: string; agent: TestAgent }>();
  const as = (role: Role): TestAgent => people.get(role)?.agent ?? studio.stranger;

  beforeAll(async () => {
    studio = await openTestStudio('folder');
    f = await furnish(studio);
    for (const role of ROLES) {
      const [id, passphrase] = [newId(), `the ${role} comes in`];
      await studio.agent
        .post('/api/people')
        .send({ id, name: `A ${role}`, passphrase, role })
        .expect(200);
      const agent = request.agent(studio.app);
      await agent.post('/api/auth/session').send({ personId: id, passphrase }).expect(200);
      people.set(role, { id, agent });
    }
  });
  afterAll(() => studio.close());

  const told = (reply: { body: unknown; status: number }): string =>
    reply.status === 403 ? (reply.body as Problem).code : 'let';

  it('tells each what they are', async () => {
    for (const role of ROLES)
      expect(((await as(role).get('/api/auth')).body as AuthState).person?.role, role).toBe(role);
  });

  // What each asks for is nonsense: it is refused for another reason, once it is known that they may.
  it.each(Object.entries(api).filter(([, call]: [string, Call]) => !call.open && call.path !== '/api/auth/passphrase'))(
    'holds for %s',
    async (_name, call: Call) => {
      const path = call.path.replace('{id}', newId());
      if (call === api.endSession || call === api.studioFile || call === api.makeCopy) return;
      const needs = leastRole(call);
      for (const role of ROLES) {
        const reply = await as(role)
          [call.method](path)
          .send(call.method === 'get' ? undefined : {});
        expect(told(reply), `${role} at ${needs}`).toBe(
          ROLES.indexOf(role) >= ROLES.indexOf(needs) ? 'let' : 'notAllowed',
        );
      }
    },
  );

  it('a helper books in and counts, and writes no recipe', async () => {
    const helper = as('helper');
    await helper.post('/api/stock-lots').send(delivery(f.weld, '200 g')).expect(200);
    const refused = await helper
      .post('/api/recipes')
      .send({ id: newId(), name: 'Mine', versionId: newId(), body: recipeBody(f.alum, f.weld) });
    expect([refused.status, (refused.body as Problem).detail]).toEqual([
      403,
      'That is for a dyer to do, and you are in as a helper. Ask somebody here who is.',
    ]);
  });

  it('a guest looks, and changes nothing', async () => {
    const guest = as('guest');
    for (const path of ['/api/stores', '/api/recipes', '/api/lots', '/api/bench', '/api/today'])
      await guest.get(path).expect(200);
    expect((await guest.post('/api/stock-lots').send(delivery(f.weld, '200 g'))).status).toBe(403);
    expect((await guest.get('/api/deeds')).status).toBe(403);
  });

  it('what somebody may is changed at once, and somebody who decides is always left', async () => {
    const dyer = people.get('dyer')!;
    const owner = people.get('owner')!;
    await owner.agent.put(`/api/people/${dyer.id}/role`).send({ role: 'guest' }).expect(200);
    expect((await dyer.agent.post('/api/waters').send({})).status).toBe(403);
    await owner.agent.put(`/api/people/${dyer.id}/role`).send({ role: 'dyer' }).expect(200);
    expect((await dyer.agent.post('/api/waters').send({})).status).toBe(400);
    const first = ((await studio.agent.get('/api/auth')).body as AuthState).person!;
    await owner.agent.put(`/api/people/${first.id}/role`).send({ role: 'dyer' }).expect(200);
    const last = await owner.agent.put(`/api/people/${owner.id}/role`).send({ role: 'dyer' });
    expect((last.body as Problem).detail).toContain('is the only owner here');
    await owner.agent.put(`/api/people/${first.id}/role`).send({ role: 'owner' }).expect(200);
  });

  const deeds = async (query = '', agent = studio.agent): Promise<Deed[]> =>
    ((await agent.get(`/api/deeds${query}`).expect(200)).body as DeedPage).deeds;

  describe('who did what', () => {
    it('tells a change with what was and what is, on the thing and in the list', async () => {
      const vessel = (await studio.agent.get('/api/studio')).body.vessels.find(
        (v: { id: string }) => v.id === f.kettle,
      );
      await as('dyer')
        .put(`/api/vessels/${f.kettle}`)
        .send({ ...vessel, heldIron: true, id: undefined })
        .expect(200);
      const [newest, first] = await deeds(`?thingId=${f.kettle}`);
      expect([newest?.by?.name, newest?.kind, newest?.thing, newest?.name, newest?.changes]).toEqual([
        'A dyer',
        'changed',
        'vessel',
        'Kettle',
        { heldIron: [false, true] },
      ]);
      expect([first?.by?.name, first?.kind]).toEqual(['Ada Reed', 'added']);
      expect((await deeds())[0]?.id).toBe(newest?.id);
    });

    it('tells one field of a group, and of a secret only that it changed', async () => {
      const { id: _id, ...fields } = (await studio.agent.get(`/api/materials/${f.weld}`)).body.material;
      await as('dyer')
        .put(`/api/materials/${f.weld}`)
        .send({ ...fields, note: 'from the dunes' })
        .expect(200);
      const changed = (await deeds(`?thingId=${f.weld}`))[0]?.changes ?? {};
      expect(changed['note']).toEqual(['', 'from the dunes']);
      expect(changed).not.toHaveProperty('facts');
      const helper = people.get('helper')!;
      await studio.agent.post(`/api/people/${helper.id}/code`).expect(200);
      expect((await deeds(`?thingId=${helper.id}`))[0]?.changes).toEqual({ codeHash: [null, null] });
    });

    it('tells an owner who came in and who was turned away, and nobody else', async () => {
      const helper = people.get('helper')!;
      await request(studio.app).post('/api/auth/session').send({ personId: helper.id, passphrase: 'a wrong one' });
      const kinds = (list: Deed[]): string[] => list.filter((d) => d.thingId === helper.id).map((d) => d.kind);
      expect(kinds(await deeds())).toEqual(expect.arrayContaining(['turnedAway', 'cameIn']));
      expect(kinds(await deeds('', as('dyer')))).not.toContain('cameIn');
    });

    it('keeps what is private from those it is kept from', async () => {
      const own = [((await studio.agent.get('/api/auth')).body as AuthState).person!.id];
      const keep = (keptTo: string[] | null, before: string[] | null) =>
        studio.agent.put(`/api/recipes/${f.recipeId}/kept-to`).send({ keptTo, before }).expect(200);
      await keep(own, null);
      expect(await deeds(`?thingId=${f.recipeId}`)).toHaveLength(2);
      expect(await deeds(`?thingId=${f.recipeId}`, as('owner'))).toHaveLength(0);
      await keep(null, own);
      expect(await deeds(`?thingId=${f.recipeId}`, as('owner'))).toHaveLength(3);
    });

    it('is only added to, and pages go back to the beginning', async () => {
      for (let i = 0; i < 60; i += 1)
        await studio.agent
          .post('/api/waters')
          .send({ id: newId(), name: `Water ${i}`, ph: null, hardnessDh: null, note: '' })
          .expect(200);
      for (let i = 0; i < 60; i += 1)
        await studio.agent
          .post('/api/waters')
          .send({ id: newId(), name: `Other ${i}`, ph: null, hardnessDh: null, note: '' })
          .expect(200);
      const all: Deed[] = [];
      for (let before = ''; ;) {
        const page = (await studio.agent.get(`/api/deeds${before}`)).body as DeedPage;
        all.push(...page.deeds);
        if (!page.hasMore) break;
        before = `?before=${page.deeds.at(-1)?.seq}`;
      }
      expect(new Set(all.map((d) => d.id)).size).toBe(all.length);
      expect(all.at(-1)?.thing).toBe('studio');
      const { db } = studio.context.database;
      const { sql } = await import('drizzle-orm');
      await expect(db.execute(sql`UPDATE deeds SET note = 'nothing happened'`)).rejects.toThrow();
      await expect(db.execute(sql`DELETE FROM deeds`)).rejects.toThrow();
    });
  });

  describe('where people are in', () => {
    const list = async (agent: TestAgent): Promise<Session[]> =>
      (await agent.get('/api/sessions').expect(200)).body as Session[];

    it('each sees their own, an owner all; none tells by what one comes in', async () => {
      const own = await list(as('dyer'));
      expect([...new Set(own.map((s) => s.person.name))]).toEqual(['A dyer']);
      expect(own.filter((s) => s.isThis)).toHaveLength(1);
      const all = await list(studio.agent);
      expect(new Set(all.map((s) => s.person.name)).size).toBeGreaterThan(3);
      const cookie = String((await as('dyer').get('/api/auth')).request.getHeader('cookie'));
      for (const { id } of all) expect(cookie).not.toContain(id);
    });

    it('is ended from elsewhere, with the line it held open; a stranger’s isn’t', async () => {
      const passphrase = 'the dyer comes in';
      const { id: personId } = people.get('dyer')!;
      const server = createServer(studio.app).listen(0, '127.0.0.1');
      await new Promise((resolve) => server.once('listening', resolve));
      const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
      const came = await fetch(`${base}/api/auth/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ personId, passphrase }),
      });
      const cookie = came.headers.get('set-cookie')?.split(';')[0] ?? '';
      const line = await fetch(`${base}/api/events`, { headers: { cookie } });
      const there = (await list(as('dyer'))).find((s) => !s.isThis && s.browser === 'node')!;
      expect((await as('helper').delete(`/api/sessions/${there.id}`)).status).toBe(404);
      await as('dyer').delete(`/api/sessions/${there.id}`).expect(200);
      // The line ends: reading it to its end comes to one.
      await line.text();
      expect((await fetch(`${base}/api/stores`, { headers: { cookie } })).status).toBe(401);
      server.close();
      server.closeAllConnections();
    });
  });
});

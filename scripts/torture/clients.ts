// Four people who write as fast as they are answered, and remember what was acknowledged.
import { v7 } from 'uuid';
import { seeded } from '../../core/photo/seeded';
import type { Random } from './odd-values';
import { pick } from './odd-values';

const PASSPHRASE = 'ten green hanks';
const CLIENTS = 4;
const JARS = 6;
const IN_A_JAR_G = 400_000;

interface Sent {
  readonly path: string;
  readonly body: { readonly id: string };
  /** What it takes from which jar, grams. */
  readonly jar?: string;
  readonly grams?: number;
}

/** What went wrong; all are none where nothing is lost. */
export interface Faults {
  lost: number;
  doubled: number;
  wrongBalances: number;
  refused: number;
}

/** A studio of a few jars, with what is known to be acknowledged of it. */
export class House {
  readonly jars = new Map<string, number>();
  /** Acknowledged, by id. */
  readonly acknowledged = new Map<string, Sent>();
  /** Sent and not answered: whether it was done, only asking again tells. */
  private readonly open = new Map<string, Sent>();
  readonly faults: Faults = { lost: 0, doubled: 0, wrongBalances: 0, refused: 0 };
  readonly said: string[] = [];
  private cookie = '';

  /** Opens the studio and fills its jars. */
  async furnish(base: string): Promise<void> {
    const person = { id: v7(), name: 'Ada Reed', passphrase: PASSPHRASE };
    const opened = await this.post(base, '/api/auth/studio', { name: 'Tortured House', zone: 'UTC', person });
    this.cookie = opened.headers.get('set-cookie')?.split(';')[0] ?? '';
    for (let i = 0; i < JARS; i += 1) {
      const [materialId, id] = [v7(), v7()];
      const material = { name: `Weld ${i}`, kind: 'dyestuff', measure: 'weight', hazards: [], note: '', base: null };
      await this.expect(base, '/api/materials', { id: materialId, ...material });
      const delivery = { receivedOn: '2026-01-01', bestBefore: null, place: 'Shelf', source: 'order', note: '' };
      await this.expect(base, '/api/stock-lots', {
        ...{ id, movementId: v7(), materialId, tag: '', quantityText: `${IN_A_JAR_G / 1000} kg` },
        ...delivery,
      });
      this.jars.set(id, IN_A_JAR_G);
    }
  }

  /** Writes until it is told to stop, or the line is cut. */
  private async write(base: string, random: Random, isOver: () => boolean): Promise<void> {
    while (!isOver()) {
      const sent = this.something(random);
      this.open.set(sent.body.id, sent);
      const reply = await this.post(base, sent.path, sent.body).catch(() => undefined);
      // Not answered, or the database was away: asked again once it is back.
      if (!reply || reply.status === 503) {
        if (!reply) return;
        await new Promise((resolve) => setTimeout(resolve, 50));
      } else this.settle(sent, reply.status, await reply.text().catch(() => ''));
    }
  }

  /** Four clients write until the siege is lifted. */
  besiege(base: string, seed: number): { lift(): Promise<void> } {
    let isOver = false;
    const writing = Promise.all(
      Array.from({ length: CLIENTS }, (_, i) => this.write(base, seeded(seed * 10 + i), () => isOver)),
    );
    return {
      lift: async () => {
        isOver = true;
        await writing;
      },
    };
  }

  /** Asks again whatever wasn't answered, and looks whether all is as it was acknowledged. */
  async check(base: string): Promise<void> {
    for (const sent of [...this.open.values()]) {
      // A line that was idle may be closed in the moment it is used: then it is asked once more, as people do.
      const reply = await this.post(base, sent.path, sent.body).catch(() => this.post(base, sent.path, sent.body));
      this.settle(sent, reply.status, await reply.text());
    }
    const shelf = (await this.get(base, '/api/stores')) as { id: string; onHand: number }[];
    for (const [jar, grams] of this.jars) {
      const holds = shelf.find((row) => row.id === jar)?.onHand;
      if (holds === grams * 1000) continue;
      this.faults.wrongBalances += 1;
      this.say(`a jar holds ${holds} mg and should ${grams * 1000} mg`);
    }
  }

  /** Looks for each acknowledged write by its id. */
  async checkEach(base: string): Promise<void> {
    const found = new Map<string, number>();
    for (const jar of this.jars.keys())
      for (const { id } of (await this.get(base, `/api/stock-lots/${jar}/ledger`)) as { id: string }[])
        found.set(id, (found.get(id) ?? 0) + 1);
    for (const jar of this.jars.keys())
      for (const { id } of (await this.get(base, `/api/notes?subject=stockLot&id=${jar}`)) as { id: string }[])
        found.set(id, (found.get(id) ?? 0) + 1);
    for (const id of this.acknowledged.keys()) {
      const times = found.get(id) ?? 0;
      if (times === 0) this.faults.lost += 1;
      if (times > 1) this.faults.doubled += 1;
    }
  }

  private something(random: Random): Sent {
    const [id, jar] = [v7(), pick(random, [...this.jars.keys()])];
    if (random.uniform() < 0.3)
      return {
        path: '/api/notes',
        body: { ...{ id, subject: 'stockLot', subjectId: jar }, ...note(id) } as { id: string },
      };
    const grams = 1 + Math.floor(random.uniform() * 20);
    const body = { id, kind: 'use', quantityText: `${grams} g`, note: '', auxiliaries: [] };
    return { path: `/api/stock-lots/${jar}/takings`, body, jar, grams };
  }

  private settle(sent: Sent, status: number, text: string): void {
    this.open.delete(sent.body.id);
    if (status !== 200) {
      // A full disk refuses by name, and nothing was changed by it.
      if (status === 507) return;
      this.faults.refused += 1;
      this.say(`${sent.path} was refused: ${status} ${text.slice(0, 160)}`);
      return;
    }
    this.acknowledged.set(sent.body.id, sent);
    if (sent.jar !== undefined) this.jars.set(sent.jar, (this.jars.get(sent.jar) ?? 0) - (sent.grams ?? 0));
  }

  private say(line: string): void {
    if (this.said.length < 20) this.said.push(line);
  }

  private async expect(base: string, path: string, body: object): Promise<void> {
    const reply = await this.post(base, path, body);
    if (reply.status !== 200) throw new Error(`${path}: ${reply.status} ${await reply.text()}`);
  }

  private post(base: string, path: string, body: object): Promise<Response> {
    return fetch(base + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie: this.cookie },
      body: JSON.stringify(body),
    });
  }

  private async get(base: string, path: string): Promise<unknown> {
    const ask = (): Promise<Response> => fetch(base + path, { headers: { cookie: this.cookie } });
    const reply = await ask().catch(ask);
    if (reply.status !== 200) throw new Error(`${path}: ${reply.status} ${await reply.text()}`);
    return reply.json();
  }
}

const note = (id: string): object => ({ text: `note ${id}`, mark: null, of: null, replacesId: null });

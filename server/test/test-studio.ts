import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { LotSummary, Proposal, StudioDocument } from '@vestigia/contract';
import pg from 'pg';
import type TestAgent from 'supertest/lib/agent';
import type { Express } from 'express';
import request from 'supertest';
import { v7 } from 'uuid';
import { inject } from 'vitest';
import type { AppOptions } from '../app';
import { createApp } from '../app';
import { checkCopy } from '../copies/check-copy';
import { contextOn } from '../shared/context';
import type { Context } from '../shared/context';
import type { Db } from '../db/database';
import { openFolder } from '../db/open-database';
import { openServer } from '../db/open-server';
import { beginExport, documentText } from '../document/export-document';
import { MIGRATIONS, copyTemplate } from './databases';

export type DatabaseKind = 'folder' | 'server';
/** Both kinds where there is a PostgreSQL server to be had. */
export const KINDS: readonly DatabaseKind[] = inject('postgresUrl') === '' ? ['folder'] : ['folder', 'server'];

export const newId = (): string => v7();

export interface TestStudio {
  readonly context: Context;
  /** Signed in as the first person. */
  readonly agent: TestAgent;
  readonly app: Express;
  /** Someone who has not come in. */
  readonly stranger: TestAgent;
  /** Sets the server's clock on (or back) by minutes. */
  pass(minutes: number): void;
  close(): Promise<void>;
}

async function openAs(kind: DatabaseKind, now: Date) {
  if (kind === 'folder') {
    const folder = copyTemplate(inject('templateFolder'));
    const database = await openFolder(folder, MIGRATIONS, now);
    return { database, remove: () => Promise.resolve(rmSync(folder, { recursive: true, force: true })) };
  }
  const name = `t${newId().replaceAll('-', '')}`;
  const admin = new pg.Client({ connectionString: inject('postgresUrl') });
  await admin.connect();
  await admin.query(`CREATE DATABASE ${name}`);
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-files-'));
  const url = inject('postgresUrl').replace('///postgres', `///${name}`);
  const database = await openServer(url, folder, MIGRATIONS);
  const remove = async (): Promise<void> => {
    await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
    await admin.end();
    rmSync(folder, { recursive: true, force: true });
  };
  return { database, remove };
}

/** A studio of its own on a real database, replies checked against the contract, with a clock the test sets. */
export async function openTestStudio(kind: DatabaseKind): Promise<TestStudio> {
  let nowMs = Date.parse('2026-06-01T09:00:00.000Z');
  const clock = (): Date => new Date(nowMs);
  const { database, remove } = await openAs(kind, clock());
  const context = contextOn(database, clock);
  const app = await createApp(context, {
    answersTo: [],
    copies: copiesIn(database.files.folder),
    checkReplies: true,
  });
  const agent = request.agent(app);
  await agent
    .post('/api/auth/studio')
    .send({
      name: 'Test House',
      zone: 'Europe/London',
      person: { id: newId(), name: 'Ada Reed', passphrase: 'ten green hanks' },
    })
    .expect(200);
  return {
    context,
    agent,
    app,
    stranger: request.agent(app),
    pass: (minutes) => (nowMs += minutes * 60_000),
    close: async () => {
      for (const close of context.atClose) await close();
      await database.close();
      await remove();
    },
  };
}

/** Copies beside the files, looked over in this process. */
export const copiesIn = (filesFolder: string): AppOptions['copies'] => ({
  folder: `${filesFolder}-copies`,
  check: (path) => checkCopy(path, MIGRATIONS),
});

/** The whole studio as one document. */
export async function wholeDocument(db: Db, now = new Date()): Promise<StudioDocument> {
  let text = '';
  for await (const piece of documentText(await beginExport(db, now))) text += piece;
  return JSON.parse(text) as StudioDocument;
}

/** A studio that was opened from a file, without what was done in it since: that it was opened, and who came in. */
export const asItWasBrought = (now: StudioDocument, was: StudioDocument): StudioDocument => ({
  ...now,
  deeds: now.deeds.slice(0, was.deeds.length),
});

/** The server's calls as tests make them, on the studio that stands when they are made. */
export const callsOf = (studio: () => TestStudio) => {
  const post = (path: string, body: object) => studio().agent.post(path).send(body);
  return {
    post,
    /** What was made answers its id. */
    created: async (path: string, body: object): Promise<string> =>
      ((await post(path, body).expect(200)).body as { id: string }).id,
    get: async <T>(path: string): Promise<T> => (await studio().agent.get(path).expect(200)).body as T,
  };
};

export interface Furniture {
  readonly wool: string;
  readonly alum: string;
  readonly weld: string;
  readonly woolStockLot: string;
  readonly alumStockLot: string;
  readonly weldStockLot: string;
  readonly kettle: string;
  readonly pan: string;
  readonly water: string;
  readonly recipeId: string;
  readonly version: string;
  readonly colourway: string;
}

const D65 = { illuminant: 'D65', observer: '10' } as const;

/** Pots, water, jars, a recipe and a colourway, all through the server's own calls. */
export async function furnish({ agent }: TestStudio): Promise<Furniture> {
  const post = async (path: string, body: object): Promise<string> =>
    ((await agent.post(path).send(body).expect(200)).body as { id: string }).id;
  const material = (name: string, kind: string, rest: object = {}): Promise<string> =>
    post('/api/materials', { id: newId(), name, kind, measure: 'weight', hazards: [], note: '', base: null, ...rest });
  const wool = await material('Rug wool', 'fibre', {
    base: { fibre: 'wool', pieceWord: 'hank', usualPieceWeightG: 100, undyed: { L: 84, a: 1, b: 12, ...D65 } },
  });
  const alum = await material('Potassium alum', 'mordant', { hazards: ['dust'] });
  const weld = await material('Weld', 'dyestuff');
  const deliver = (materialId: string, quantityText: string): Promise<string> =>
    post('/api/stock-lots', delivery(materialId, quantityText));
  const [woolStockLot, alumStockLot, weldStockLot] = [
    await deliver(wool, '5 kg'),
    await deliver(alum, '500 g'),
    await deliver(weld, '3 kg'),
  ];
  const kettle = await post('/api/vessels', {
    id: newId(),
    name: 'Kettle',
    metal: 'stainless',
    workingMl: 40_000,
    note: '',
  });
  const pan = await post('/api/vessels', { id: newId(), name: 'Pan', metal: 'stainless', workingMl: 20_000, note: '' });
  const water = await post('/api/waters', { id: newId(), name: 'Tap', ph: 7.5, hardnessDh: 14, note: '' });
  const recipeId = newId();
  const version = await post('/api/recipes', {
    id: recipeId,
    name: 'Weld on alum',
    versionId: newId(),
    body: recipeBody(alum, weld),
  });
  const colourway = await post('/api/colourways', {
    id: newId(),
    name: 'Marram',
    recipeVersionId: version,
    baseMaterialId: wool,
    master: { L: 74, a: -4, b: 50, ...D65 },
    toleranceDeltaE: 2,
    note: '',
  });
  return {
    wool,
    alum,
    weld,
    woolStockLot,
    alumStockLot,
    weldStockLot,
    kettle,
    pan,
    water,
    recipeId,
    version,
    colourway,
  };
}

export const delivery = (materialId: string, quantityText: string, rest: object = {}): object => ({
  id: newId(),
  movementId: newId(),
  materialId,
  tag: '',
  quantityText,
  receivedOn: '2026-05-01',
  bestBefore: null,
  place: 'Shelf',
  source: 'order',
  note: '',
  ...rest,
});

/** A liquor kept by hand, with nothing said of what is in it. */
export const keptLiquor = (newMaterial: string, tag: string, rest: object = {}) => ({
  id: newId(),
  movementId: newId(),
  what: 'dyeBath',
  materialId: null,
  newMaterial,
  tag,
  quantityText: '9 l',
  contents: [] as object[],
  working: null,
  fromLotId: null,
  vessel: 'bucket',
  place: 'cold',
  bestBefore: null,
  note: '',
  ...rest,
});

/** A recipe of these steps and a colourway on it; its id. */
export async function colourwayOf(
  { agent }: TestStudio,
  f: Pick<Furniture, 'alum' | 'weld' | 'wool'>,
  name: string,
  steps: readonly object[],
): Promise<string> {
  const [versionId, id] = [newId(), newId()];
  const body = { ...recipeBody(f.alum, f.weld), steps };
  await agent.post('/api/recipes').send({ id: newId(), name, versionId, body }).expect(200);
  const master = { L: 70, a: 0, b: 30, ...D65 };
  await agent
    .post('/api/colourways')
    .send({ id, name, recipeVersionId: versionId, baseMaterialId: f.wool, master, toleranceDeltaE: 2, note: '' })
    .expect(200);
  return id;
}

export const recipeBody = (alum: string, weld: string): object => ({
  fibres: ['wool'],
  liquorRatio: 30,
  allowedMetals: ['stainless'],
  note: '',
  steps: [
    {
      kind: 'mordant',
      title: 'Mordant',
      instruction: 'Slowly.',
      temperatureC: 82,
      ceilingC: 88,
      durationMin: 60,
      attended: false,
      lookFor: '',
      usesBath: true,
      doses: [{ materialId: alum, percentOwf: 15 }],
    },
    {
      kind: 'dye',
      title: 'Dye',
      instruction: 'Turn gently.',
      temperatureC: 75,
      ceilingC: 80,
      durationMin: 60,
      attended: false,
      lookFor: 'Even',
      usesBath: true,
      doses: [{ materialId: weld, percentOwf: 100 }],
    },
    {
      kind: 'dry',
      title: 'Dry',
      instruction: '',
      durationMin: 600,
      attended: false,
      lookFor: '',
      usesBath: false,
      doses: [],
    },
  ],
});

/** What agreeing to a proposal sends beside the ask: every caution gone past with a reason. */
export const agreed = ({ digest, checks }: Pick<Proposal, 'digest' | 'checks'>): object => ({
  digest,
  acceptShortages: false,
  note: '',
  acknowledged: checks.map((c) => ({ key: c.key, reason: 'looked at' })),
});

/** Asks for a proposal and agrees to it. */
export async function makeLot(
  { agent }: TestStudio,
  f: Furniture,
  {
    quantityText = '6 hanks of 100 g',
    reorderOfId = null as string | null,
    acceptShortages = false,
    strikeOff = false,
    more = {} as object,
  } = {},
): Promise<string> {
  const ask = { colourwayId: f.colourway, quantityText, waterId: f.water, reorderOfId, strikeOff, ...more };
  const proposal = (await agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
  const id = newId();
  await agent
    .post('/api/lots')
    .send({ id, ask, ...agreed(proposal), acceptShortages })
    .expect(200);
  return id;
}

export const runEntry = (stepIndex: number, kind: string, rest: object = {}): object => ({
  id: newId(),
  stepIndex,
  kind,
  replacesId: null,
  temperatureC: null,
  text: null,
  weighing: null,
  ...rest,
});
export const weighing = (materialId: string, stockLotId: string, quantityText: string, batch = 1): object => ({
  batch,
  materialId,
  stockLotId,
  quantityText,
  movementId: newId(),
});

/** Dyes a lot from fibre to dry, weighing what was planned. */
export async function dyeLot(
  studio: TestStudio,
  f: Furniture,
  lotId: string,
  { grams = 600, also = [] as object[] } = {},
): Promise<void> {
  const at = (entry: object) => studio.agent.post(`/api/lots/${lotId}/entries`).send(entry).expect(200);
  const weighed: (object | undefined)[] = [
    weighing(f.wool, f.woolStockLot, `${grams} g`),
    weighing(f.alum, f.alumStockLot, `${grams * 0.15} g`),
    weighing(f.weld, f.weldStockLot, `${grams} g`),
    undefined,
  ];
  for (const [step, what] of weighed.entries()) {
    await at(runEntry(step, 'start'));
    for (const w of [what, ...(step === 0 ? also : [])]) if (w) await at(runEntry(step, 'weigh', { weighing: w }));
    studio.pass(step === 3 ? 600 : 60);
    await at(runEntry(step, 'finish'));
  }
}

/** Cancels every lot in work, so that the pots are free for the next test. */
export async function freePots({ agent }: TestStudio): Promise<void> {
  const { body } = await agent.get('/api/lots').expect(200);
  const inWork = (body as LotSummary[]).filter((l) => l.state === 'inWork');
  const drafts = inWork.map((l) => ({ lotId: l.id, ageMs: 0, entry: runEntry(0, 'cancel', { text: 'only a test' }) }));
  if (drafts.length > 0) await agent.post('/api/bench/run-entries').send({ drafts }).expect(200);
}

export const reading = (state: string, L = 74, rest: object = {}): object => ({
  id: newId(),
  batch: 1,
  state,
  lab: { L, a: -4, b: 50 },
  ...D65,
  note: '',
  replacesId: null,
  ...rest,
});
export const verdict = (given: string, reason = ''): object => ({ id: newId(), verdict: given, reason });

export const proof = (L = 74): object => ({
  id: newId(),
  wofG: 20,
  ...D65,
  lab: { L, a: -4, b: 50 },
  wanted: { L: 74, a: -4, b: 50 },
  toleranceDeltaE: 2,
  note: '',
});
export const stripTrial = (f: Furniture, rest: object = {}): object => ({
  id: newId(),
  name: `Weld by dose ${newId()}`,
  recipeVersionId: f.version,
  baseMaterialId: f.wool,
  waterId: f.water,
  factor: 'dose',
  materialId: f.weld,
  totalText: '60 g',
  note: '',
  levels: [25, 50, 100].map((value) => ({ value, refId: null, label: `${value} % WOF` })),
  ...rest,
});
export const stripReading = (number: number, L: number, rest: object = {}): object => ({
  id: newId(),
  number,
  lab: { L, a: -4, b: 50 },
  ...D65,
  note: '',
  replacesId: null,
  ...rest,
});

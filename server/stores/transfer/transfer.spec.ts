import type { DeedPage, ImportJob, Problem, ShelfRow, StockLedgerLine, StoresDocument } from '@vestigia/contract';
import { storesDocument } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../../test/test-studio';
import { KINDS, delivery, dyeLot, furnish, makeLot, newId, openTestStudio } from '../../test/test-studio';
import { Writer } from '../../http/write';
import { readCell, readTable, safeCell, writeTable } from '../../shared/csv-table';

const FAR = 40;

async function begin(studio: TestStudio, kind: string, text: string | Buffer): Promise<ImportJob> {
  const type = kind === 'document' ? 'application/json' : 'text/csv';
  const { body } = await studio.agent
    .post(`/api/stores/imports?kind=${kind}`)
    .set('content-type', type)
    .send(kind === 'document' || typeof text !== 'string' ? text : Buffer.from(text))
    .expect(200);
  return settled(studio, (body as ImportJob).id);
}

async function settled(studio: TestStudio, id: string): Promise<ImportJob> {
  for (let i = 0; i < 400; i += 1) {
    const job = (await studio.agent.get(`/api/stores/imports/${id}`).expect(200)).body as ImportJob;
    if (job.state !== 'reading' && job.state !== 'writing') return job;
    await new Promise((resolve) => setTimeout(resolve, FAR));
  }
  throw new Error('the import did not end');
}

async function bring(studio: TestStudio, kind: string, text: string): Promise<ImportJob> {
  const job = await begin(studio, kind, text);
  if (job.state !== 'ready') return job;
  const run = await studio.agent.post(`/api/stores/imports/${job.id}/run`);
  return run.status === 200 ? settled(studio, job.id) : { ...job, problem: (run.body as Problem).detail };
}

const exported = async (studio: TestStudio, kind: string, separator = ','): Promise<string> =>
  (
    await studio.agent
      .get(`/api/stores/export?kind=${kind}&separator=${encodeURIComponent(separator)}`)
      .buffer(true)
      .expect(200)
  ).text;

describe.each(KINDS)('open formats, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    await studio.agent
      .post('/api/stock-lots')
      .send(
        delivery(f.weld, '2 kg', {
          note: '=cmd|calc, "quoted"\nand a second line; with marks',
          source: "+44, 'the hill'",
          cost: '12.50',
          facts: {
            origin: 'harvest',
            gathering: { permission: '@home', sharePercent: 12.5, note: '-' },
            tareMg: 380_000,
            strengthPercent: 84.5,
            strengthLearnt: true,
          },
        }),
      )
      .expect(200);
    await studio.agent
      .post('/api/conversions')
      .send({
        id: newId(),
        kind: 'dissolve',
        inputs: [{ movementId: newId(), stockLotId: f.alumStockLot, quantityText: '50 g' }],
        output: {
          movementId: newId(),
          stockLotId: newId(),
          materialId: null,
          newMaterial: 'Alum, solution',
          tag: 'SOL',
          quantityText: '1 l',
          place: '',
          bestBefore: null,
          container: '',
          tareText: '',
        },
        note: '',
      })
      .expect(200);
    // A change of form taken back later: its record keeps the time it was made.
    const ground = {
      movementId: newId(),
      stockLotId: newId(),
      materialId: null,
      newMaterial: '',
      tag: 'GRD',
      quantityText: '90 g',
      place: '',
      bestBefore: null,
      container: '',
      tareText: '',
    };
    await studio.agent
      .post('/api/conversions')
      .send({
        id: newId(),
        kind: 'grind',
        inputs: [{ movementId: newId(), stockLotId: f.weldStockLot, quantityText: '100 g' }],
        output: ground,
        note: '',
      })
      .expect(200);
    studio.pass(45);
    await studio.agent
      .post(`/api/movements/${ground.movementId}/reversal`)
      .send({ id: newId(), note: 'wrong mill' })
      .expect(200);
    const lot = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    await dyeLot(studio, f, lot, { grams: 200 });
  });
  afterAll(() => studio.close());

  it.each([',', ';'])(
    'goes out and comes in again exactly, separated by “%s”, into a studio that has nothing',
    async (separator) => {
      const tables = await Promise.all(
        ['materials', 'stockLots', 'movements'].map((k) => exported(studio, k, separator)),
      );
      const other = await openTestStudio(kind);
      try {
        other.pass(48 * 60);
        for (const [i, k] of ['materials', 'stockLots', 'movements'].entries())
          expect(await bring(other, k, tables[i] ?? '')).toMatchObject({ state: 'done', problem: '' });
        for (const [i, k] of ['materials', 'stockLots', 'movements'].entries())
          expect(await exported(other, k, separator)).toBe(tables[i]);
        const onHand = async (s: TestStudio): Promise<[string, number][]> =>
          ((await s.agent.get('/api/stores')).body as ShelfRow[]).map((r) => [r.tag, r.onHand]);
        expect(await onHand(other)).toEqual(await onHand(studio));
        for (const [i, k] of ['materials', 'stockLots', 'movements'].entries())
          expect((await begin(other, k, tables[i] ?? '')).fates).toMatchObject({ new: 0, refused: 0 });
      } finally {
        await other.close();
      }
    },
  );

  it('goes out and in as one document, described by its published schema', async () => {
    const text = await exported(studio, 'document');
    expect(storesDocument.safeParse(JSON.parse(text)).success).toBe(true);
    const schema = (await studio.agent.get('/api/stores/schema.json').expect(200)).body as {
      properties: Record<string, unknown>;
      $id: string;
    };
    expect(Object.keys(schema.properties).sort()).toEqual(Object.keys(JSON.parse(text) as object).sort());
    const other = await openTestStudio(kind);
    try {
      other.pass(48 * 60);
      expect(await bring(other, 'document', text)).toMatchObject({ state: 'done' });
      const drop = (t: string): unknown => ({ ...(JSON.parse(t) as StoresDocument) });
      expect(drop(await exported(other, 'document'))).toEqual(drop(text));
    } finally {
      await other.close();
    }
  });

  it('tells every row’s fate, and with one bad row writes none', async () => {
    const head = 'tag,kind,amount,unit,at';
    const job = await begin(
      studio,
      'movements',
      `${head}\nWEL-1,count,-0.5,kg,2026-06-01\nNOPE,use,-1,g,2026-06-01\nWEL-1,use,5,g,2026-06-01\nWEL-1,use,-5,stone,2026-06-01\nWEL-1,use,=1+1,g,2026-06-01\nWEL-1,give,-2,g,2031-01-01`,
    );
    expect(job).toMatchObject({ state: 'ready', fates: { new: 1, here: 0, refused: 5 } });
    const why = job.rows
      .filter((r) => r.fate === 'refused')
      .map((r) => `${r.line} ${r.why}`)
      .join('\n');
    for (const label of [
      /3 There is no jar tagged “NOPE”/,
      /4 “use” takes stock out/,
      /5 .*stone/,
      /6 .*like a formula/,
      /7 .*still to come/,
    ])
      expect(why).toMatch(label);
    const before = (await studio.agent.get('/api/stores')).body as ShelfRow[];
    expect((await studio.agent.post(`/api/stores/imports/${job.id}/run`).expect(422)).body).toMatchObject({
      detail: expect.stringMatching(/5 rows can’t be taken/) as string,
    });
    expect((await studio.agent.get('/api/stores')).body).toEqual(before);
  });

  it('takes a file without ids, with decimal commas, once however often it is brought', async () => {
    const text =
      '\ufefftag;kind;amount;unit;at;note\r\nALU-9;receive;1,25;kg;2026-05-02;old book\r\nALU-9;use;-250;g;2026-05-03;\r\nALU-9;use;-250;g;2026-05-03;\r\n';
    await bring(studio, 'stockLots', 'tag,material,receivedOn\nALU-9,potassium ALUM,2026-05-02\n');
    expect(await bring(studio, 'movements', text)).toMatchObject({ state: 'done', fates: { new: 3 } });
    expect(await bring(studio, 'movements', text)).toMatchObject({ fates: { new: 0, here: 3, refused: 0 } });
    expect(((await studio.agent.get('/api/stores')).body as ShelfRow[]).find((r) => r.tag === 'ALU-9')?.onHand).toBe(
      750_000,
    );
    const backwards = await begin(studio, 'movements', 'tag,kind,amount,unit,at\nALU-9,use,-1,kg,2026-05-01\n');
    expect(backwards.rows[0]).toMatchObject({
      fate: 'refused',
      why: expect.stringMatching(/would have held −?-?1 kg on 2026-05-01/) as string,
    });
  });

  it.each<[string, string | Buffer, RegExp]>([
    ['cut off inside quotes', 'tag,note\nA,"half', /cut off/],
    ['cut off in a row', 'tag,kind,amount\nA,use', /may be cut off/],
    ['mixed separators', 'tag,kind,amount\nA,use,-1\nB;use;-1\nC,use,-1', /semicolons/],
    ['a ragged row', 'tag,kind,amount\nA,use,-1,2\nC,use,-1', /has 4 fields/],
    ['Latin-1', Buffer.from([0x74, 0x61, 0x67, 0x0a, 0xe9, 0x74, 0xe9]), /not UTF-8/],
    ['UTF-16', Buffer.from([0xff, 0xfe, 0x74, 0x00]), /UTF-16/],
    ['a picture', Buffer.concat([Buffer.from('tag\n'), Buffer.alloc(8)]), /not a text file/],
    ['an unknown column', 'tag,colour\nA,red', /column “colour” is not known/],
    ['a column twice', 'tag,tag\nA,A', /stands twice/],
    ['only blanks', '  \n ', /nothing in that file/],
  ])('refuses a table that is %s, in a sentence', async (_name, text, message) => {
    expect(await begin(studio, 'movements', text)).toMatchObject({
      state: 'refused',
      problem: expect.stringMatching(message) as string,
    });
  });

  it('refuses a document that is cut off or another one, and a file of a hundred megabytes', async () => {
    expect(await begin(studio, 'document', '{"format": "vestigia-st')).toMatchObject({
      state: 'refused',
      problem: expect.stringMatching(/cut off/) as string,
    });
    expect(await begin(studio, 'document', '{"format":"other"}')).toMatchObject({
      state: 'refused',
      problem: expect.stringMatching(/not a stores file/) as string,
    });
    const large = await studio.agent
      .post('/api/stores/imports?kind=movements')
      .set('content-type', 'text/csv')
      .send(Buffer.alloc(100_000_000, 65));
    expect(large.status).toBe(413);
    expect((large.body as Problem).detail).toMatch(/more than this call takes/);
  });

  it('is stopped by a cancel with nothing kept, and by a shelf that moved since the preview', async () => {
    const rows = Array.from(
      { length: 6000 },
      (_, i) => `WEL-1,receive,${i + 1},g,2026-05-${String((i % 28) + 1).padStart(2, '0')}`,
    );
    const job = await begin(studio, 'movements', `tag,kind,amount,unit,at\n${rows.join('\n')}\n`);
    expect(job.fates.new).toBe(6000);
    const before = (await studio.agent.get('/api/stores')).body as ShelfRow[];
    await studio.agent.post(`/api/stores/imports/${job.id}/run`).expect(200);
    await studio.agent.delete(`/api/stores/imports/${job.id}`).expect(200);
    await expect.poll(async () => (await studio.context.database.db.execute(sql`SELECT 1`)) !== undefined).toBe(true);
    expect((await studio.agent.get('/api/stores')).body).toEqual(before);
    const again = await begin(studio, 'movements', 'tag,kind,amount,unit,at\nWEL-1,receive,7,g,2026-05-09\n');
    await studio.agent.post('/api/stock-lots').send(delivery(f.weld, '1 kg')).expect(200);
    await studio.agent.post(`/api/stores/imports/${again.id}/run`).expect(200);
    expect(await settled(studio, again.id)).toMatchObject({
      state: 'refused',
      problem: expect.stringMatching(/moved since this file was read/) as string,
    });
  });
});

describe('a table of today', () => {
  it('brought in before noon lets the studio go on, after a restart too; it says who brought it, in whose name', async () => {
    const studio = await openTestStudio('folder');
    const f = await furnish(studio);
    const tag = ((await studio.agent.get(`/api/stock-lots/${f.weldStockLot}`)).body as { row: { tag: string } }).row
      .tag;
    const job = await begin(
      studio,
      'movements',
      `tag,kind,amount,unit,at,by\n${tag},receive,7,g,2026-06-01,Old Hand\n`,
    );
    await studio.agent.post(`/api/stores/imports/${job.id}/run`).expect(200);
    expect(await settled(studio, job.id)).toMatchObject({ state: 'done' });
    const restarted = new Writer(studio.context);
    await restarted.start();
    expect(restarted.newestRecordMs).toBeLessThanOrEqual(studio.context.clock().getTime());
    const ledger = (await studio.agent.get(`/api/stock-lots/${f.weldStockLot}/ledger`)).body as StockLedgerLine[];
    const line = ledger.find((l) => l.amount === 7000);
    expect([line?.by.name, line?.broughtBy?.name]).toEqual(['Old Hand', 'Ada Reed']);
    const { deeds } = (await studio.agent.get('/api/deeds?thing=file')).body as DeedPage;
    expect(deeds[0]).toMatchObject({
      kind: 'brought',
      by: { name: 'Ada Reed' },
      changes: { movements: [null, 1], people: [null, 1] },
    });
    await studio.close();
  });
});

describe('cells', () => {
  it('come back as they were, whatever they hold, and never begin a formula', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.string().map((s) => `＝${s}`),
        ),
        (text) => {
          expect(readCell(safeCell(text))).toBe(text);
          expect(safeCell(text)).not.toMatch(/^[=+\-@\t\r＝＋－＠]/);
        },
      ),
      { seed: 81 },
    );
  });
  it('survive a whole table of either kind', () => {
    const cell = fc.string().map((s) => s.replaceAll('\0', ''));
    const row = fc.tuple(cell, cell, cell).filter((r) => r.join('').trim() !== '');
    fc.assert(
      fc.property(
        fc.array(row, { minLength: 1, maxLength: 12 }),
        fc.constantFrom<',' | ';'>(',', ';'),
        (rows, separator) => {
          const text = writeTable(['tag', 'kind', 'note'], rows, separator).replace(/^\ufeff/, '');
          const read = readTable(text, ['tag', 'kind', 'note']);
          expect(read.ok && read.table.rows.map((r) => r.cells.map(readCell))).toEqual(rows);
        },
      ),
      { seed: 82 },
    );
  });
});

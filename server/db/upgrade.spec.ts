import { cpSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { KeptPlan } from '@vestigia/core';
import { completePlan, recogniseMaterial } from '@vestigia/core';
import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MIGRATIONS } from '../test/databases';
import { KINDS, newId, openTestStudio } from '../test/test-studio';
import type { Database } from './database';
import { insertRows } from './insert-rows';
import { openFolder } from './open-database';
import {
  attachments,
  lots,
  materials,
  movements,
  people,
  recipeStatuses,
  recipeVersions,
  reservations,
  runEntries,
  stockBalances,
  stockLots,
  tags,
  vessels,
} from './schema';

const NOW = new Date('2026-06-01T09:00:00.000Z');
/** That it is copied first is looked at once. */
const ALONE = { isCopiedFirst: false };

/** The migrations a studio of before this version had. */
function earlierMigrations(folder: string, howMany: number): string {
  const journal = JSON.parse(readFileSync(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as {
    entries: { tag: string }[];
  };
  mkdirSync(join(folder, 'meta'), { recursive: true });
  journal.entries = journal.entries.slice(0, howMany);
  for (const { tag } of journal.entries) cpSync(join(MIGRATIONS, `${tag}.sql`), join(folder, `${tag}.sql`));
  writeFileSync(join(folder, 'meta', '_journal.json'), JSON.stringify(journal));
  return folder;
}

const blank = mkdtempSync(join(tmpdir(), 'vestigia-blank-'));
beforeAll(async () => (await PGlite.create(join(blank, 'db'))).close());
afterAll(() => rmSync(blank, { recursive: true, force: true }));

/** A studio of then: on a copy of a database without anything in it, which is there much sooner than a new one. */
function begun(folder: string, migrations: string): Promise<Database> {
  cpSync(join(blank, 'db'), join(folder, 'db'), { recursive: true });
  return openFolder(folder, migrations, NOW, ALONE);
}

describe('a studio from before', () => {
  const root = mkdtempSync(join(tmpdir(), 'vestigia-upgrade-'));
  afterAll(() => rmSync(root, { recursive: true, force: true }));

  it('has its materials recognised by their names, as core does', async () => {
    const names = ['Weld, dried tops', 'Alum', 'Alum bath, saved', 'Aluminum acetate', 'Rug wool', 'Ferrous sulfate'];
    const folder = join(root, 'names');
    const before = await begun(folder, earlierMigrations(join(root, 'before-keys'), 10));
    for (const name of [...names, 'Tartar, cream of', 'Washing soda', 'Onion skins (red)'])
      await before.db.execute(
        sql`INSERT INTO materials (id, name, kind, measure, hazards) VALUES (${newId()}, ${name}, 'assistant', 'weight', '[]')`,
      );
    await before.close();
    const after = await openFolder(folder, MIGRATIONS, NOW, ALONE);
    const found = (await after.db.select().from(materials)).map((m) => [m.name, m.facts.catalogueKey]);
    await after.close();
    expect(found).toEqual(found.map(([name]) => [name, recogniseMaterial(name ?? '')]));
    expect(Object.fromEntries(found)).toMatchObject({
      'Weld, dried tops': 'weld',
      Alum: 'potassium-alum',
      'Alum bath, saved': null,
      'Aluminum acetate': 'aluminium-acetate',
      'Washing soda': 'soda-ash',
    });
  });

  it('has its photographs written out as files, and the database as it was kept beside it', async () => {
    const folder = join(root, 'photographs');
    const [person, material, sheet] = [newId(), newId(), newId()];
    const before = await begun(folder, earlierMigrations(join(root, 'before-files'), 33));
    for (const statement of [
      `INSERT INTO people (id, name) VALUES ('${person}', 'Ada')`,
      `INSERT INTO materials (id, name, kind, measure, hazards) VALUES ('${material}', 'Weld', 'dyestuff', 'weight', '[]')`,
      `INSERT INTO attachments (id, material_id, kind, name, type, content, at, by_id)
       VALUES ('${sheet}', '${material}', 'sheet', 'weld.pdf', 'application/pdf', 'what it says', '2026-01-01', '${person}')`,
    ])
      await before.db.execute(sql.raw(statement));
    await before.close();
    expect(readdirSync(folder).filter((n) => n.startsWith('before-upgrade'))).toEqual([]);

    const after = await openFolder(folder, MIGRATIONS, NOW);
    const [row] = await after.db.select().from(attachments);
    expect(row).toMatchObject({ id: sheet, bytes: 12 });
    expect(Buffer.from(await after.files.read(row!.sha256)).toString()).toBe('what it says');
    await expect(after.db.update(attachments).set({ name: 'x' })).rejects.toThrow();
    await after.close();

    const [kept] = readdirSync(folder).filter((n) => n.startsWith('before-upgrade'));
    const again = await openFolder(join(folder, kept!), join(root, 'before-files'), NOW);
    const { rows } = await again.db.execute<{ content: string }>(
      sql`SELECT convert_from(content, 'UTF8') AS content FROM attachments`,
    );
    expect(rows).toEqual([{ content: 'what it says' }]);
    await again.close();
  });

  it('is brought to this version with its shelf as it was, and goes on from there', async () => {
    const [person, material, stockLot] = [newId(), newId(), newId()];
    const before = await begun(join(root, 'studio'), earlierMigrations(join(root, 'migrations'), 2));
    for (const statement of [
      `INSERT INTO studio (name, zone) VALUES ('Old house', 'Europe/London')`,
      `INSERT INTO people (id, name) VALUES ('${person}', 'Ada')`,
      `INSERT INTO materials (id, name, kind, measure, hazards) VALUES ('${material}', 'Weld', 'dyestuff', 'weight', '[]')`,
      `INSERT INTO stock_lots (id, material_id, tag, received_on) VALUES ('${stockLot}', '${material}', 'WEL-1', '2026-01-01')`,
      `INSERT INTO movements (id, stock_lot_id, kind, amount, at, by_id) VALUES ('${newId()}', '${stockLot}', 'receive', 5000, '2026-01-01', '${person}')`,
    ])
      await before.db.execute(sql.raw(statement));
    await before.close();

    const after = await openFolder(join(root, 'studio'), MIGRATIONS, NOW, ALONE);
    const [balance] = await after.db.select().from(stockBalances);
    expect(balance).toMatchObject({ stockLotId: stockLot, onHand: 5000, reserved: 0 });
    expect(balance?.touched).toBeGreaterThan(0);
    expect((await after.db.select().from(materials))[0]).toMatchObject({
      version: 1,
      facts: { forms: [], packet: null, water: 'any', catalogueKey: 'weld' },
    });
    expect((await after.db.select().from(stockLots))[0]).toMatchObject({
      costMinor: null,
      facts: { origin: 'receipt', strengthPercent: null },
    });
    await after.db.insert(movements).values([
      { id: newId(), stockLotId: stockLot, kind: 'spoil', amount: -1000, at: NOW.toISOString(), byId: person },
      { id: newId(), stockLotId: stockLot, kind: 'use', amount: -500, at: NOW.toISOString(), byId: person },
    ]);
    const [moved] = await after.db.select().from(stockBalances);
    expect(moved?.onHand).toBe(3500);
    expect(moved?.touched).toBeGreaterThan(balance?.touched ?? 0);
    await expect(
      after.db
        .insert(movements)
        .values({ id: newId(), stockLotId: stockLot, kind: 'use', amount: -3501, at: NOW.toISOString(), byId: person }),
    ).rejects.toThrow();
    await after.close();
  });

  it('numbers every change of the shelf, of a label and of a material alike', async () => {
    const database = await openFolder(join(root, 'studio'), MIGRATIONS, NOW, ALONE);
    const touched = async (): Promise<number> =>
      (await database.db.select({ n: stockBalances.touched }).from(stockBalances))[0]?.n ?? 0;
    let last = await touched();
    for (const change of [`UPDATE stock_lots SET place = 'Loft'`, `UPDATE materials SET name = 'Weld tops'`]) {
      await database.db.execute(sql.raw(change));
      const next = await touched();
      expect(next, change).toBeGreaterThan(last);
      last = next;
    }
    await database.close();
  });

  it('takes many rows as JSON just as one by one: nothing, dates, marks and defaults', async () => {
    const database = await openFolder(join(root, 'studio'), MIGRATIONS, NOW, ALONE);
    const { db } = database;
    const byId = (await db.select().from(people))[0]?.id ?? '';
    const materialId = (await db.select().from(materials))[0]?.id ?? '';
    const lots = Array.from({ length: 2500 }, (_, i) => ({
      id: newId(),
      materialId,
      tag: `T-${i}`,
      receivedOn: '2026-02-03',
      bestBefore: i % 2 === 0 ? null : '2027-01-01',
      place: 'O’Hara’s “shelf”, \\ 3',
      note: 'one\ntwo',
    }));
    const reply: number[] = [];
    await insertRows(db, stockLots, lots, (done) => Promise.resolve(void reply.push(done)));
    expect(reply).toEqual([0, 2000]);
    const back = await db
      .select()
      .from(stockLots)
      .where(sql`tag LIKE 'T-%'`);
    expect(back).toHaveLength(2500);
    expect(back.find((l) => l.tag === 'T-7')).toMatchObject({ ...lots[7], source: '', version: 1, costMinor: null });
    await insertRows(db, materials, [
      { id: newId(), name: 'Base', kind: 'fibre', measure: 'weight', hazards: ['dust'], base: null },
    ]);
    expect(
      (
        await db
          .select()
          .from(materials)
          .where(sql`name = 'Base'`)
      )[0],
    ).toMatchObject({ hazards: ['dust'], base: null });
    await insertRows(
      db,
      movements,
      lots.map((l, i) => ({
        id: newId(),
        stockLotId: l.id,
        kind: 'receive' as const,
        amount: i + 1,
        at: NOW.toISOString(),
        byId,
      })),
    );
    const [sum] = await db.select({ n: sql<number>`sum(on_hand)::int` }).from(stockBalances);
    expect(sum?.n).toBe(3500 + (2500 * 2501) / 2);
    await insertRows(db, stockLots, []);
    await database.close();
  });
});

describe.runIf(KINDS.includes('server'))('a database server that ends its connections', () => {
  it('costs whoever asks just then their answer, and nothing else', async () => {
    const studio = await openTestStudio('server');
    const { db } = studio.context.database;
    const own = sql`SELECT count(pg_terminate_backend(pid))::int AS n FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid() AND query NOT LIKE '%pg_try_advisory_lock%'`;
    await Promise.all([1, 2, 3, 4].map(() => studio.agent.get('/api/stores').expect(200)));
    await db.execute(own);
    await expect.poll(async () => (await studio.agent.get('/api/stores')).status).toBe(200);
    await studio.close();
  });
});

describe('lots from before', () => {
  const root = mkdtempSync(join(tmpdir(), 'vestigia-lots-'));
  afterAll(() => rmSync(root, { recursive: true, force: true }));

  it('knows plans and weighings of before by their new names, and fills in what they don’t say', async () => {
    const folder = join(root, 'older');
    const [person, base, recipe, version, colourway, lot, stockLot] = Array.from({ length: 7 }, newId);
    const before = await begun(folder, earlierMigrations(join(root, 'older-migrations'), 5));
    const plan = {
      pieces: 1,
      pieceWeightG: 100,
      wof: { value: 100, unit: 'g', working: { formula: '', inputs: [], notes: [] } },
      liquorRatio: 30,
      cautions: [],
      batches: [],
      materials: [
        {
          materialId: base,
          name: 'Wool',
          shortMg: 7,
          notes: ['said "amountMg": once'],
          picks: [{ stockLotId: stockLot, amountMg: 100_000 }],
          total: { value: 100, unit: 'g', working: { formula: '', inputs: [], notes: [] } },
        },
      ],
      steps: [
        {
          index: 0,
          kind: 'fibre',
          title: 'Weigh',
          instruction: '',
          durationMin: 5,
          attended: true,
          lookFor: '',
          usesBath: false,
          cautions: [],
          weighings: [
            {
              batch: 1,
              materialId: base,
              materialName: 'Wool',
              toleranceG: 2,
              picks: [],
              target: { value: 100, unit: 'g', working: { formula: '', inputs: [], notes: [] } },
            },
          ],
        },
      ],
    };
    for (const statement of [
      `INSERT INTO studio (name, zone) VALUES ('Old house', 'Europe/London')`,
      `INSERT INTO people (id, name) VALUES ('${person}', 'Ada')`,
      `INSERT INTO materials (id, name, kind, measure, hazards) VALUES ('${base}', 'Wool', 'fibre', 'weight', '[]')`,
      `INSERT INTO recipes (id, name) VALUES ('${recipe}', 'Weld')`,
      `INSERT INTO recipe_versions (id, recipe_id, number, body, at, by_id) VALUES ('${version}', '${recipe}', 1, '{}', '2026-01-01', '${person}')`,
      `INSERT INTO colourways (id, name, recipe_version_id, base_material_id, master, tolerance_delta_e) VALUES ('${colourway}', 'Marram', '${version}', '${base}', '{}', 2)`,
      `INSERT INTO lots (id, number, colourway_id, recipe_version_id, base_material_id, written, pieces, piece_weight_mg, batches, plan, factors, at, by_id) VALUES ('${lot}', 1, '${colourway}', '${version}', '${base}', '1', 1, 100000, 1, '${JSON.stringify(plan)}', '[]', '2026-01-01', '${person}')`,
      `INSERT INTO run_entries (id, lot_id, step_index, kind, at, recorded_at, by_id, weighing) VALUES ('${newId()}', '${lot}', 0, 'weigh', '2026-01-01', '2026-01-01', '${person}', '{"batch": 1, "materialId": "m", "stockLotId": "j", "amountMg": 5}'), ('${newId()}', '${lot}', 0, 'note', '2026-01-01', '2026-01-01', '${person}', NULL)`,
    ])
      await before.db.execute(sql.raw(statement));
    await before.close();

    const after = await openFolder(folder, MIGRATIONS, NOW, ALONE);
    const [kept] = await after.db.select().from(lots);
    expect(completePlan(kept?.plan as KeptPlan)).toMatchObject({
      groups: [],
      materials: [{ short: 7, measure: 'weight', notes: ['said "amountMg": once'], picks: [{ amount: 100_000 }] }],
      steps: [
        {
          after: [],
          baths: [],
          finishedBy: 'clock',
          weighings: [{ tolerance: 2, forBatches: [1], measure: 'weight' }],
        },
      ],
    });
    expect((await after.db.select().from(runEntries).orderBy(runEntries.seq)).map((e) => e.weighing)).toEqual([
      { batch: 1, materialId: 'm', stockLotId: 'j', amount: 5 },
      null,
    ]);
    expect([kept?.checks, kept?.extras]).toEqual([[], {}]);
    await expect(after.db.update(lots).set({ note: 'changed' })).rejects.toThrow();
    await after.close();
  });

  it('finds what stood under the old names under those of the glossary, down to the keys of kept documents', async () => {
    const folder = join(root, 'names');
    const [person, base, recipe, version, colourway, lot, stockLot] = Array.from({ length: 7 }, newId);
    const before = await begun(folder, earlierMigrations(join(root, 'names-migrations'), 9));
    const body = { liquorRatioLeast: 20, note: 'a "leastMin": 3', steps: [{ wait: { leastMin: 5, mostMin: null } }] };
    const plan = { batches: [{ run: 2, fill: { value: 80 } }], steps: [{ baths: [{ heating: { sentence: 'No.' } }] }] };
    for (const statement of [
      `INSERT INTO studio (name, zone) VALUES ('Old house', 'Europe/London')`,
      `INSERT INTO people (id, name) VALUES ('${person}', 'Ada')`,
      `INSERT INTO vessels (id, name, metal, working_ml, most_c) VALUES ('${newId()}', 'Tub', 'plastic', 5000, 60)`,
      `INSERT INTO materials (id, name, kind, measure, hazards) VALUES ('${base}', 'Wool', 'fibre', 'weight', '[]')`,
      `INSERT INTO stock_lots (id, material_id, tag, received_on) VALUES ('${stockLot}', '${base}', 'WOO-1', '2026-01-01')`,
      `INSERT INTO movements (id, stock_lot_id, kind, amount, at, by_id) VALUES ('${newId()}', '${stockLot}', 'receive', 5000, '2026-01-01', '${person}')`,
      `INSERT INTO recipes (id, name) VALUES ('${recipe}', 'Weld')`,
      `INSERT INTO recipe_versions (id, recipe_id, number, body, at, by_id) VALUES ('${version}', '${recipe}', 1, '${JSON.stringify(body)}', '2026-01-01', '${person}')`,
      `INSERT INTO standings (id, recipe_version_id, standing, at, by_id) VALUES ('${newId()}', '${version}', 'proven', '2026-01-01', '${person}')`,
      `INSERT INTO colourways (id, name, recipe_version_id, base_material_id, master, tolerance_delta_e) VALUES ('${colourway}', 'Marram', '${version}', '${base}', '{}', 2)`,
      `INSERT INTO lots (id, number, colourway_id, recipe_version_id, base_material_id, written, asked, checks, pieces, piece_weight_mg, batches, plan, factors, at, by_id) VALUES ('${lot}', 1, '${colourway}', '${version}', '${base}', '2 hanks', '{"also": [{"written": "1 reel"}], "runs": 2}', '[{"sentence": "Old."}]', 1, 100000, 1, '${JSON.stringify(plan)}', '[]', '2026-01-01', '${person}')`,
      `INSERT INTO promises (id, lot_id, stock_lot_id, amount, at, by_id) VALUES ('${newId()}', '${lot}', '${stockLot}', 3000, '2026-01-01', '${person}')`,
      `INSERT INTO tags (kind, jar_id, at) VALUES ('jar', '${stockLot}', '2026-01-01')`,
    ])
      await before.db.execute(sql.raw(statement));
    await before.close();

    const { db, close } = await openFolder(folder, MIGRATIONS, NOW, ALONE);
    expect((await db.select().from(vessels))[0]?.maxC).toBe(60);
    expect((await db.select().from(stockBalances))[0]).toMatchObject({ onHand: 5000, reserved: 3000 });
    expect((await db.select().from(reservations))[0]).toMatchObject({ lotId: lot, amount: 3000 });
    expect((await db.select().from(recipeStatuses))[0]?.status).toBe('proven');
    expect((await db.select().from(recipeVersions))[0]?.body).toEqual({
      minLiquorRatio: 20,
      note: 'a "leastMin": 3',
      steps: [{ wait: { minMinutes: 5, maxMinutes: null } }],
    });
    expect((await db.select().from(lots))[0]).toMatchObject({
      quantityText: '2 hanks',
      extras: { also: [{ quantityText: '1 reel' }], fills: 2 },
      checks: [{ message: 'Old.' }],
      plan: { batches: [{ fill: 2, fillLevel: { value: 80 } }], steps: [{ baths: [{ heating: { message: 'No.' } }] }] },
    });
    expect((await db.select().from(tags))[0]).toMatchObject({ kind: 'stockLot', stockLotId: stockLot });
    const more = {
      id: newId(),
      lotId: lot ?? '',
      stockLotId: stockLot ?? '',
      at: NOW.toISOString(),
      byId: person ?? '',
    };
    await expect(db.insert(reservations).values({ ...more, amount: 2001 })).rejects.toThrow();
    await expect(db.update(tags).set({ kind: 'lot' })).rejects.toThrow();
    await expect(db.update(lots).set({ note: 'changed' })).rejects.toThrow();
    await close();
  });
});

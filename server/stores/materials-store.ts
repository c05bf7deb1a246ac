import type {
  Attachment,
  ListedMaterial,
  Material,
  MaterialEdit,
  NewMaterial,
  Spoon,
  SpoonWeighing,
} from '@vestigia/contract';
import type { AmountOptions } from '@vestigia/core';
import { hazardsOf, kitchenUnitMl, learnSpoon, readAmount, sayKitchenUnit } from '@vestigia/core';
import type { SQL } from 'drizzle-orm';
import { and, asc, eq, gt, like, sql } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import type { KeptFiles } from '../db/kept-files';
import { attachments, materials, spoonWeighings, stockBalances, stockLots, studio } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { Refusal, notFound } from '../shared/problem';
import { oneValue } from './shelf';

export async function findMaterial(db: Db, id: string): Promise<Material> {
  const [row] = await db.select().from(materials).where(eq(materials.id, id));
  if (!row) throw notFound('material');
  return row;
}

export const listMaterials = (db: Db): Promise<Material[]> => db.select().from(materials).orderBy(asc(materials.name));

/** Every material with its bulk density, where it was taught a spoon. */
export async function listWithDensity(db: Db): Promise<ListedMaterial[]> {
  const spoonfuls = await db
    .select({
      materialId: spoonWeighings.materialId,
      unit: spoonWeighings.unit,
      system: spoonWeighings.system,
      weightMg: spoonWeighings.weightMg,
    })
    .from(spoonWeighings)
    .orderBy(asc(spoonWeighings.seq));
  return (await listMaterials(db)).map((m) => ({
    ...m,
    bulkDensityGPerMl: spoonsFrom(spoonfuls.filter((s) => s.materialId === m.id))[0]?.bulkDensity.value ?? null,
  }));
}

/** Hazards follow the stuff: what the catalogue says of it stands beside what the studio wrote. */
const withHazards = <M extends Pick<NewMaterial, 'hazards' | 'facts'>>(material: M): M => ({
  ...material,
  hazards: hazardsOf({ hazards: material.hazards, catalogueKey: material.facts.catalogueKey }),
});

/** Gives materials that were written down without them the hazards of what they are. */
export async function completeHazards(db: Db): Promise<void> {
  for (const row of await db.select().from(materials)) {
    const { hazards } = withHazards(row);
    if (hazards.length > row.hazards.length)
      await db.update(materials).set({ hazards }).where(eq(materials.id, row.id));
  }
}

export async function addMaterial(db: Db, material: NewMaterial): Promise<{ id: string }> {
  await db.insert(materials).values(withHazards(material));
  return { id: material.id };
}

/** Puts a material away, or brings it back. What still stands on the shelf isn’t put away. */
export async function putMaterialAway(db: Db, id: string, putAway: boolean): Promise<{ id: string }> {
  const { name } = await findMaterial(db, id);
  if (putAway) {
    const [left] = await db
      .select({ tag: stockLots.tag })
      .from(stockLots)
      .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id))
      .where(and(eq(stockLots.materialId, id), gt(stockBalances.onHand, 0)))
      .orderBy(asc(stockLots.tag))
      .limit(1);
    if (left)
      throw new Refusal(
        'refused',
        $localize`There is ${name} on the shelf still, in ${left.tag}. Use it up, or take it out of the jar first.`,
        { reason: 'stillThere' },
      );
  }
  await db.update(materials).set({ putAway }).where(eq(materials.id, id));
  return { id };
}

/** Changes what is known of a material. How it is measured stays as its ledger is written. */
export async function editMaterial(db: Db, id: string, { version, ...edited }: MaterialEdit): Promise<{ id: string }> {
  const fields = withHazards(edited);
  const before = await findMaterial(db, id);
  if (before.measure !== fields.measure || (before.kind === 'fibre') !== (fields.kind === 'fibre')) {
    const [stockLot] = await db
      .select({ tag: stockLots.tag })
      .from(stockLots)
      .where(eq(stockLots.materialId, id))
      .limit(1);
    if (stockLot)
      throw new Refusal(
        'refused',
        $localize`There are jars of this already (${stockLot.tag}), so how it is measured can’t change. Add another material instead.`,
      );
  }
  const updated = await db
    .update(materials)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(materials.id, id), eq(materials.version, version)))
    .returning({ id: materials.id });
  assertFresh(updated, fields, before);
  return { id };
}

export type SpoonRow = Pick<typeof spoonWeighings.$inferSelect, 'unit' | 'system' | 'weightMg'>;

export async function readSpoons(db: Db, materialId: string): Promise<Spoon[]> {
  return spoonsFrom(
    await db
      .select({ unit: spoonWeighings.unit, system: spoonWeighings.system, weightMg: spoonWeighings.weightMg })
      .from(spoonWeighings)
      .where(eq(spoonWeighings.materialId, materialId))
      .orderBy(asc(spoonWeighings.seq)),
  );
}

/** The spoons a material was taught, best known first. */
export function spoonsFrom(rows: readonly SpoonRow[]): Spoon[] {
  const bySpoon = new Map<string, { unit: Spoon['unit']; system: Spoon['system']; weightsG: number[] }>();
  for (const { unit, system, weightMg } of rows) {
    const key = `${system} ${unit}`;
    const known = bySpoon.get(key) ?? { unit, system, weightsG: [] };
    known.weightsG.push(weightMg / 1000);
    bySpoon.set(key, known);
  }
  return [...bySpoon.values()]
    .flatMap(({ unit, system, weightsG }) => {
      const ml = kitchenUnitMl(unit, system);
      return ml === undefined
        ? []
        : [{ unit, system, ml, name: sayKitchenUnit(unit, system), ...learnSpoon(weightsG, ml) }];
    })
    .sort((a, b) => b.weighings - a.weighings || a.ml - b.ml);
}

/** How this studio and this material turn spoons, cups and gallons into amounts. */
export async function measuring(db: Db, materialId: string): Promise<AmountOptions> {
  const [row] = await db.select({ system: studio.volumeSystem }).from(studio);
  const density = (await readSpoons(db, materialId))[0]?.bulkDensity.value;
  return {
    ...(row?.system ? { system: row.system } : {}),
    ...(density === undefined ? {} : { bulkDensityGPerMl: density }),
  };
}

/** Reads a quantity as written, in the material's own measure, or refuses it in core's words. */
export async function amountOf(
  db: Db,
  quantityText: string,
  material: Pick<Material, 'id' | 'measure'>,
  options: { allowNothing?: boolean } = {},
): Promise<number> {
  const reading = readAmount(quantityText, material.measure, { ...(await measuring(db, material.id)), ...options });
  if (!reading.ok) throw new Refusal('refused', reading.message, { reason: 'quantity' });
  return reading.amount;
}

export async function weighSpoon(
  db: Db,
  materialId: string,
  weighing: SpoonWeighing,
  { now, byId }: By,
): Promise<{ id: string }> {
  const material = await findMaterial(db, materialId);
  if (material.measure !== 'weight')
    throw new Refusal('refused', $localize`Only what is kept by weight is taught a spoon.`);
  const ml = kitchenUnitMl(weighing.unit, weighing.system);
  if (ml === undefined)
    throw new Refusal(
      'refused',
      $localize`There is no ${sayKitchenUnit(weighing.unit, weighing.system)}. Choose another spoon.`,
    );
  const reading = readAmount(weighing.quantityText, 'weight');
  if (!reading.ok) throw new Refusal('refused', reading.message, { reason: 'quantity' });
  const density = reading.amount / 1000 / ml;
  if (density < 0.02 || density > 8)
    throw new Refusal(
      'refused',
      $localize`${(reading.amount / 1000).toFixed(1)} g in ${ml.toFixed(0)} ml can’t be a level spoonful of anything a studio keeps. Check the weight and the spoon.`,
    );
  await db.insert(spoonWeighings).values({
    id: weighing.id,
    materialId,
    unit: weighing.unit,
    system: weighing.system,
    weightMg: reading.amount,
    fromBalance: weighing.fromBalance,
    at: now.toISOString(),
    byId,
  });
  return { id: weighing.id };
}

const SIGNATURES: readonly (readonly [type: string, kind: 'sheet' | 'photo', begins: readonly number[], at: number])[] =
  [
    ['application/pdf', 'sheet', [0x25, 0x50, 0x44, 0x46, 0x2d], 0],
    ['image/png', 'photo', [0x89, 0x50, 0x4e, 0x47], 0],
    ['image/jpeg', 'photo', [0xff, 0xd8, 0xff], 0],
    ['image/webp', 'photo', [0x57, 0x45, 0x42, 0x50], 8],
  ];

/**
 * Keeps a file with a material, a stock lot, a bench entry or what an eye saw, after looking at what it begins with: a name can say
 * anything.
 */
export async function attach(
  db: Db,
  to: { materialId: string } | { stockLotId: string } | { runEntryId: string } | { eyeReadingId: string },
  { id, name, file }: { id: string; name: string; file: Uint8Array },
  { now, byId, files }: By & { readonly files: KeptFiles },
): Promise<{ id: string }> {
  const found = SIGNATURES.find(([, , begins, at]) => begins.every((byte, i) => file[at + i] === byte));
  const wanted = 'materialId' in to ? 'sheet' : 'photo';
  if (!found || found[1] !== wanted)
    throw new Refusal(
      'refused',
      wanted === 'sheet'
        ? $localize`A safety data sheet is kept as a PDF. This file is none, whatever its name says.`
        : $localize`A photograph is kept as PNG, JPEG or WebP. This file is none of them.`,
    );
  if ('materialId' in to) await findMaterial(db, to.materialId);
  const kept = await files.keep(file);
  await db.insert(attachments).values({
    id,
    materialId: null,
    stockLotId: null,
    ...to,
    kind: wanted,
    type: found[0],
    name: name.replace(/[^\p{L}\p{N} ._-]/gu, '').trim() || wanted,
    ...kept,
    at: now.toISOString(),
    byId,
  });
  return { id };
}

export const attachmentsWhere = (
  where: SQL,
): SQL => sql`(SELECT coalesce(json_agg(json_build_object('id', a.id, 'kind', a.kind, 'name', a.name, 'type', a.type, 'bytes', a.bytes, 'at', to_json(a.at), 'by', json_build_object('id', p.id, 'name', p.name)) ORDER BY a.seq DESC), '[]')
  FROM attachments a JOIN people p ON p.id = a.by_id WHERE ${where})`;

export async function readAttachments(db: Db, materialId: string): Promise<Attachment[]> {
  const rows = await oneValue<Attachment[]>(db, attachmentsWhere(sql`a.material_id = ${materialId}`));
  return rows.map((a) => ({ ...a, at: new Date(a.at).toISOString() }));
}

export async function readAttachmentFile(
  db: Db,
  files: KeptFiles,
  id: string,
): Promise<{ name: string; type: string; content: Uint8Array }> {
  const [row] = await db
    .select({ name: attachments.name, type: attachments.type, sha256: attachments.sha256 })
    .from(attachments)
    .where(eq(attachments.id, id));
  if (!row) throw notFound('attachment');
  return { name: row.name, type: row.type, content: await files.read(row.sha256) };
}

/** A tag nobody wrote: the material's first letters and the next number, like `WEL-3`. */
export async function nextTag(db: Db, material: string): Promise<string> {
  const stem = (
    material
      .normalize('NFD')
      .replace(/[^A-Za-z]/g, '')
      .slice(0, 3) || 'JAR'
  ).toUpperCase();
  const rows = await db
    .select({ tag: stockLots.tag })
    .from(stockLots)
    .where(like(stockLots.tag, `${stem}-%`));
  const numbers = rows.map((r) => Number(r.tag.slice(stem.length + 1))).filter((n) => Number.isInteger(n));
  return `${stem}-${Math.max(0, ...numbers) + 1}`;
}

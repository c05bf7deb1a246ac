import { said } from '@vestigia/core';
import type { KeptSpent } from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import type { Db } from '../db/database';
import { materials, movements, stockLots } from '../db/schema';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { amountOf, findMaterial, nextTag } from '../stores/materials-store';
import { studioToday } from '../studio/studio-store';
import { readLot } from './lots-store';

/** Keeps dyestuff that a lot drew once: stock of its own that names the lot, for a paler bath. */
export async function keepSpent(db: Db, lotId: string, kept: KeptSpent, by: By): Promise<{ id: string }> {
  const lot = await readLot(db, lotId);
  const used = lot.plan.materials.find((m) => m.materialId === kept.ofMaterialId && m.kind === 'dyestuff');
  if (!used)
    throw new Refusal('refused', $localize`${lot.summary.tag} drew no such dyestuff. Choose one that went into it.`, {
      reason: 'notInTheLot',
    });
  const material =
    kept.materialId === null ? await newSpentMaterial(db, kept) : await findMaterial(db, kept.materialId);
  const amount = await amountOf(db, kept.quantityText, material);
  await db.insert(stockLots).values({
    id: kept.id,
    materialId: material.id,
    tag: kept.tag === '' ? await nextTag(db, material.name) : kept.tag,
    receivedOn: await studioToday(db, by.now),
    bestBefore: null,
    place: kept.place,
    source: lot.summary.tag,
    note: kept.note,
    facts: { ...NO_STOCK_FACTS, origin: 'made', form: kept.form, fromLotId: lotId },
  });
  await db.insert(movements).values({
    id: kept.movementId,
    stockLotId: kept.id,
    kind: 'receive',
    amount,
    note: $localize`drawn once, ${said(kept.form)}, from ${lot.summary.tag}`,
    at: by.now.toISOString(),
    byId: by.byId,
  });
  return { id: kept.id };
}

/** What was drawn once is another material: its doses are not those of the fresh one. */
async function newSpentMaterial(db: Db, { newMaterialId, newMaterial, ofMaterialId, form }: KeptSpent) {
  if (newMaterial.trim() === '')
    throw new Refusal('refused', $localize`Give it a name of its own, for example “Alder bark, drawn once”.`);
  const own = await findMaterial(db, ofMaterialId);
  await db.insert(materials).values({
    id: newMaterialId,
    name: newMaterial.trim(),
    kind: 'dyestuff',
    measure: 'weight',
    hazards: own.hazards,
    note: $localize`of ${own.name}, drawn once`,
    base: null,
    facts: { ...NO_FACTS, needs: own.facts.needs, ceilingC: own.facts.ceilingC, forms: [form] },
  });
  return findMaterial(db, newMaterialId);
}

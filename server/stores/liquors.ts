import { studioToday } from '../studio/studio-store';
import type { NewLiquor } from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import { LIQUOR_LABELS, hazardsOf, said } from '@vestigia/core';
import { eq } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { liquorEntries, lots, materials, movements, stockLots } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import { amountOf, findMaterial, nextTag } from './materials-store';

const KIND_OF = {
  dyeBath: 'dyestuff',
  secondExtraction: 'dyestuff',
  mordantBath: 'mordant',
  ironLiquor: 'modifier',
  ashLye: 'assistant',
  stockSolution: 'modifier',
  vat: 'dyestuff',
} as const;

/** Liquors that the catalogue knows. */
const CATALOGUE_KEY_OF: Readonly<Partial<Record<NewLiquor['what'], string>>> = {
  ironLiquor: 'iron-liquor',
  ashLye: 'wood-ash-lye',
};

/** Keeps a liquor as stock: its volume is booked in, and what is in it is written down with how that is known. */
export async function saveLiquor(db: Db, liquor: NewLiquor, { now, byId }: By): Promise<{ id: string }> {
  const at = now.toISOString();
  const today = await studioToday(db, now);
  const material =
    liquor.materialId === null ? await newLiquorMaterial(db, liquor, now) : await findMaterial(db, liquor.materialId);
  if (material.measure !== 'volume')
    throw new Refusal(
      'refused',
      $localize`${material.name} is kept by ${said(material.measure)}. A liquor wants a material kept by volume: give it a name of its own.`,
      { reason: 'measure' },
    );
  if (liquor.bestBefore !== null && liquor.bestBefore < today)
    throw new Refusal('refused', $localize`That would be past its best before it is kept. Check the date.`, {
      reason: 'expiryBeforeReceipt',
    });
  const volumeUl = await amountOf(db, liquor.quantityText, material);
  const source = liquor.fromLotId === null ? '' : await sayLot(db, liquor.fromLotId);
  const tag = liquor.tag === '' ? await nextTag(db, material.name) : liquor.tag;
  await db.insert(stockLots).values({
    id: liquor.id,
    materialId: material.id,
    tag,
    receivedOn: today,
    bestBefore: liquor.bestBefore,
    place: liquor.place,
    source,
    note: liquor.note,
    facts: { ...NO_STOCK_FACTS, origin: 'made', form: 'liquor', container: liquor.vessel, fromLotId: liquor.fromLotId },
  });
  await db.insert(movements).values({
    id: liquor.movementId,
    stockLotId: liquor.id,
    kind: 'receive',
    amount: volumeUl,
    note: `${LIQUOR_LABELS[liquor.what]}${source === '' ? '' : $localize` from ${source}`}`,
    at,
    byId,
  });
  await db.insert(liquorEntries).values({
    id: uuidv7(now),
    stockLotId: liquor.id,
    kind: 'save',
    after: {
      what: liquor.what,
      vessel: liquor.vessel,
      contents: liquor.contents,
      volumeUl,
      working: liquor.working,
      signs: [],
      vat:
        liquor.what === 'vat'
          ? { kind: liquor.vatKind ?? 'reducer', look: null, ph: null, temperatureC: null, at }
          : null,
      at,
    },
    note: liquor.note,
    at,
    byId,
  });
  return { id: liquor.id };
}

async function newLiquorMaterial(
  db: Db,
  liquor: NewLiquor,
  now: Date,
): Promise<Awaited<ReturnType<typeof findMaterial>>> {
  if (liquor.newMaterial.trim() === '')
    throw new Refusal('refused', $localize`Give the liquor a name, for example “Alum bath, saved”.`);
  const catalogueKey = CATALOGUE_KEY_OF[liquor.what] ?? null;
  const parts = await Promise.all(
    liquor.contents.flatMap((c) => (c.materialId === null ? [] : [findMaterial(db, c.materialId)])),
  );
  // Dissolved, a powder no longer dusts; the rest of what it does it still does.
  const ofParts = parts
    .flatMap((m) => hazardsOf({ hazards: m.hazards, catalogueKey: m.facts.catalogueKey }))
    .filter((h) => h !== 'dust');
  const created = {
    id: uuidv7(now),
    name: liquor.newMaterial.trim(),
    kind: KIND_OF[liquor.what],
    measure: 'volume' as const,
    hazards: hazardsOf({ hazards: ofParts, catalogueKey }),
    note: '',
    base: null,
    facts: {
      ...NO_FACTS,
      catalogueKey,
      forms: ['liquor' as const],
      needs: liquor.what === 'vat' ? ('vat' as const) : null,
    },
  };
  await db.insert(materials).values(created);
  return { ...created, version: 1, putAway: false };
}

async function sayLot(db: Db, id: string): Promise<string> {
  const [lot] = await db.select({ number: lots.number }).from(lots).where(eq(lots.id, id));
  if (!lot) throw notFound('lot');
  return lotTag(lot.number);
}

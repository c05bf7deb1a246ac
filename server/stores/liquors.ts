import { studioToday } from '../studio/studio-store';
import type { Liquor, LiquorEntry, NewLiquor } from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import type { BathContent, Figure } from '@vestigia/core';
import {
  LIQUOR_LABELS,
  changeLiquor,
  contentsAtVolume,
  formatAmount,
  judgeSigns,
  ladderStrength,
  leftAfterUse,
  readAmount,
  hazardsOf,
} from '@vestigia/core';
import { desc, eq } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { liquorEntries, lots, materials, movements, stockLots } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import { amountOf, findMaterial, nextTag } from './materials-store';
import { assertFree } from './movements';
import type { Jar } from './stock-lot-store';
import { findStockLot } from './stock-lot-store';

const KIND_OF = {
  dyeBath: 'dyestuff',
  secondExtraction: 'dyestuff',
  mordantBath: 'mordant',
  ironLiquor: 'modifier',
  ashLye: 'assistant',
  stockSolution: 'modifier',
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
      `${material.name} is kept by ${material.measure}. A liquor wants a material kept by volume: give it a name of its own.`,
      { reason: 'measure' },
    );
  if (liquor.bestBefore !== null && liquor.bestBefore < today)
    throw new Refusal('refused', 'That would be past its best before it is kept. Check the date.', {
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
    note: `${LIQUOR_LABELS[liquor.what]}${source === '' ? '' : ` from ${source}`}`,
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
    throw new Refusal('refused', 'Give the liquor a name, for example “Alum bath, saved”.');
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
    facts: { ...NO_FACTS, catalogueKey, forms: ['liquor' as const] },
  };
  await db.insert(materials).values(created);
  return { ...created, version: 1 };
}

async function sayLot(db: Db, id: string): Promise<string> {
  const [lot] = await db.select({ number: lots.number }).from(lots).where(eq(lots.id, id));
  if (!lot) throw notFound('lot');
  return lotTag(lot.number);
}

interface Now {
  readonly stockLot: Jar;
  readonly liquor: Liquor;
  /** What is in what is left of it. */
  readonly contents: BathContent[];
}

/** Records what happened to a kept liquor, with what is in it afterwards. */
export async function recordLiquor(db: Db, id: string, entry: LiquorEntry, by: By): Promise<{ id: string }> {
  const stockLot = await findStockLot(db, id);
  const [last] = await db
    .select({ after: liquorEntries.after })
    .from(liquorEntries)
    .where(eq(liquorEntries.stockLotId, id))
    .orderBy(desc(liquorEntries.seq))
    .limit(1);
  if (!last) throw new Refusal('refused', `${stockLot.tag} is not a kept liquor.`);
  const now: Now = {
    stockLot,
    liquor: last.after,
    contents: contentsAtVolume(last.after.contents, last.after.volumeUl, stockLot.onHand),
  };
  const { note, ...after } = await afterwards(db, now, entry, by);
  await db.insert(liquorEntries).values({
    id: entry.id,
    stockLotId: id,
    kind: entry.kind,
    after: {
      ...last.after,
      contents: now.contents,
      volumeUl: stockLot.onHand,
      working: null,
      ...after,
      at: by.now.toISOString(),
    },
    note: [note, entry.note].filter(Boolean).join(' · '),
    at: by.now.toISOString(),
    byId: by.byId,
  });
  return { id: entry.id };
}

type After = Partial<Liquor> & { readonly note: string };

function afterwards(db: Db, now: Now, entry: LiquorEntry, by: By): Promise<After> | After {
  switch (entry.kind) {
    case 'use':
      return useLiquor(db, now, entry, by);
    case 'replenish':
      return replenishLiquor(db, now, entry, by);
    case 'level':
      return levelLiquor(db, now, entry, by);
    case 'check':
      return {
        signs: entry.signs,
        note: `${entry.signs.join(', ')}: ${{ use: 'fit to use', 'test first': 'dye a strip first', discard: 'don’t use it; pour it away as your local rules say' }[judgeSigns(entry.signs)]}`,
      };
    case 'ladder':
      return readLadder(now, entry);
  }
}

async function useLiquor(
  db: Db,
  { stockLot, contents }: Now,
  entry: Extract<LiquorEntry, { kind: 'use' }>,
  { now, byId }: By,
): Promise<After> {
  const fibre = readAmount(entry.fibreText, 'weight');
  if (!fibre.ok) throw new Refusal('refused', `The dry fibre: ${fibre.message}`, { reason: 'quantity' });
  const carried = readAmount(entry.carriedOffText, 'volume', { allowNothing: true });
  if (!carried.ok)
    throw new Refusal('refused', `What the fibre carried off: ${carried.message}`, { reason: 'quantity' });
  assertFree(stockLot, carried.amount);
  if (carried.amount > 0)
    await db.insert(movements).values({
      id: entry.movementId,
      stockLotId: stockLot.id,
      kind: 'use',
      amount: -carried.amount,
      note: `carried off by ${formatAmount(fibre.amount, 'weight')} of fibre`,
      at: now.toISOString(),
      byId,
    });
  const [main, ...others] = contents;
  const carriedMl = carried.amount / 1000;
  const left: Figure | null = main
    ? leftAfterUse(main.grams, {
        uptakeShare: entry.uptakePercent / 100,
        carriedShare: stockLot.onHand > 0 ? carried.amount / stockLot.onHand : 0,
        measuredLeftG: entry.measuredLeftG ?? undefined,
      })
    : null;
  const rest = changeLiquor(
    { volumeMl: stockLot.onHand / 1000, contents: others },
    { kind: 'pouredOff', ml: carriedMl },
  ).contents;
  return {
    contents: main && left ? [{ ...main, grams: left.value }, ...rest] : contents,
    volumeUl: stockLot.onHand - carried.amount,
    working: left,
    note: `used for ${formatAmount(fibre.amount, 'weight')} of dry fibre`,
  };
}

/** Water that went as steam, or came: the volume is set, and what is dissolved stays. */
async function levelLiquor(
  db: Db,
  { stockLot, contents }: Now,
  entry: Extract<LiquorEntry, { kind: 'level' }>,
  { now, byId }: By,
): Promise<After> {
  const volumeUl = await amountOf(db, entry.quantityText, stockLot.material);
  const difference = volumeUl - stockLot.onHand;
  if (difference < 0) assertFree(stockLot, -difference);
  const what = difference < 0 ? 'steamed off' : 'topped up with water';
  if (difference !== 0)
    await db.insert(movements).values({
      id: entry.movementId,
      stockLotId: stockLot.id,
      kind: 'count',
      amount: difference,
      note: what,
      at: now.toISOString(),
      byId,
    });
  return {
    contents,
    volumeUl,
    note: `${what}: ${formatAmount(volumeUl, 'volume')} now, and all that was dissolved`,
  };
}

async function replenishLiquor(
  db: Db,
  { stockLot, contents }: Now,
  entry: Extract<LiquorEntry, { kind: 'replenish' }>,
  { now, byId }: By,
): Promise<After> {
  const from = await findStockLot(db, entry.stockLotId);
  if (from.material.measure !== 'weight')
    throw new Refusal('refused', 'A bath is replenished with what is weighed. Choose a jar of crystals.');
  const amount = await amountOf(db, entry.quantityText, from.material);
  assertFree(from, amount);
  await db.insert(movements).values({
    id: entry.movementId,
    stockLotId: from.id,
    kind: 'use',
    amount: -amount,
    note: `into ${stockLot.tag}`,
    at: now.toISOString(),
    byId,
  });
  const grams = amount / 1000;
  const there = contents.some((c) => c.materialId === from.material.id);
  const added = there
    ? contents.map((c) => (c.materialId === from.material.id ? { ...c, grams: c.grams + grams } : c))
    : [...contents, { materialId: from.material.id, name: from.material.name, grams }];
  return {
    contents: added,
    note: `${formatAmount(amount, 'weight')} of ${from.material.name} added, from ${from.tag}`,
  };
}

/** A liquor measured against a ladder holds so many grams, as crystals. */
function readLadder({ stockLot, contents }: Now, entry: Extract<LiquorEntry, { kind: 'ladder' }>): After {
  const read = ladderStrength(entry.rungs, entry);
  if (!read.ok) throw new Refusal('refused', read.message, { reason: 'ladder' });
  const main = contents[0] ?? { materialId: null, name: 'as crystals', grams: 0 };
  const grams = Math.round(read.strength.value * (stockLot.onHand / 1_000_000) * 1000) / 1000;
  return {
    contents: [{ ...main, grams }, ...contents.slice(1)],
    working: read.strength,
    note: `${read.strength.value} g/l as crystals, between ${read.lowGPerL} and ${read.highGPerL}`,
  };
}

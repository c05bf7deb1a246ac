import { said } from '@vestigia/core';
import type { Liquor, LiquorEntry } from '@vestigia/contract';
import type { BathContent, Figure } from '@vestigia/core';
import {
  formatTemperature,
  VAT_LOOK_LABELS,
  changeLiquor,
  contentsAtVolume,
  formatAmount,
  hazardsOf,
  isDrawn,
  judgeSigns,
  judgeVat,
  ladderStrength,
  leftAfterUse,
  readAmount,
  sayVat,
  sayPh,
} from '@vestigia/core';
import { eq } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { liquorEntries, materials, movements } from '../db/schema';
import { Refusal } from '../shared/problem';
import { findLiquor } from './liquor-level';
import { amountOf } from './materials-store';
import { assertFree } from './movements';
import type { Jar } from './stock-lot-store';
import { findStockLot } from './stock-lot-store';

interface Now {
  readonly stockLot: Jar;
  readonly liquor: Liquor;
  /** What is in what is left of it. */
  readonly contents: BathContent[];
}

/** Records what happened to a kept liquor, with what is in it afterwards. */
export async function recordLiquor(db: Db, id: string, entry: LiquorEntry, by: By): Promise<{ id: string }> {
  const stockLot = await findStockLot(db, id);
  const liquor = await findLiquor(db, id);
  if (!liquor) throw new Refusal('refused', $localize`${stockLot.tag} is not a kept liquor.`);
  const now: Now = {
    stockLot,
    liquor,
    contents: contentsAtVolume(liquor.contents, liquor.volumeUl, stockLot.onHand),
  };
  const { note, ...after } = await afterwards(db, now, entry, by);
  await db.insert(liquorEntries).values({
    id: entry.id,
    stockLotId: id,
    kind: entry.kind,
    after: {
      ...liquor,
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
    case 'feed':
      return feedLiquor(db, now, entry, by);
    case 'vat':
      return lookAtVat(now, entry, by);
    case 'level':
      return levelLiquor(db, now, entry, by);
    case 'check':
      return {
        signs: entry.signs,
        note: `${entry.signs.map(said).join(', ')}: ${{ use: $localize`fit to use`, 'test first': $localize`dye a strip first`, discard: $localize`don’t use it; pour it away as your local rules say` }[judgeSigns(entry.signs)]}`,
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
  if (!fibre.ok) throw new Refusal('refused', $localize`The dry fibre: ${fibre.message}`, { reason: 'quantity' });
  const carried = readAmount(entry.carriedOffText, 'volume', { allowNothing: true });
  if (!carried.ok)
    throw new Refusal('refused', $localize`What the fibre carried off: ${carried.message}`, { reason: 'quantity' });
  assertFree(stockLot, carried.amount);
  if (carried.amount > 0)
    await db.insert(movements).values({
      id: entry.movementId,
      stockLotId: stockLot.id,
      liquorEntryId: entry.id,
      kind: 'use',
      amount: -carried.amount,
      note: $localize`carried off by ${formatAmount(fibre.amount, 'weight')} of fibre`,
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
    note: $localize`used for ${formatAmount(fibre.amount, 'weight')} of dry fibre`,
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
  const what = difference < 0 ? $localize`steamed off` : $localize`topped up with water`;
  if (difference !== 0)
    await db.insert(movements).values({
      id: entry.movementId,
      stockLotId: stockLot.id,
      liquorEntryId: entry.id,
      kind: 'count',
      amount: difference,
      note: what,
      at: now.toISOString(),
      byId,
    });
  return {
    contents,
    volumeUl,
    note: $localize`${what}:what:: ${formatAmount(volumeUl, 'volume')} now, and all that was dissolved`,
  };
}

async function replenishLiquor(
  db: Db,
  now: Now,
  { id, movementId, stockLotId, quantityText }: Extract<LiquorEntry, { kind: 'replenish' }>,
  by: By,
): Promise<After> {
  return feedLiquor(db, now, { id, parts: [{ movementId, stockLotId, quantityText }] }, by);
}

/** What is weighed into a kept liquor leaves its jars, and is in it from then on. */
async function feedLiquor(
  db: Db,
  { stockLot, contents }: Now,
  { id: liquorEntryId, parts }: Pick<Extract<LiquorEntry, { kind: 'feed' }>, 'id' | 'parts'>,
  { now, byId }: By,
): Promise<After> {
  let fed: readonly BathContent[] = contents;
  const notes: string[] = [];
  for (const { movementId, stockLotId, quantityText } of parts) {
    const from = await findStockLot(db, stockLotId);
    const { material } = from;
    if (material.measure !== 'weight')
      throw new Refusal('refused', $localize`A bath is replenished with what is weighed. Choose a jar of crystals.`);
    const amount = await amountOf(db, quantityText, material);
    assertFree(from, amount);
    await db.insert(movements).values({
      id: movementId,
      stockLotId: from.id,
      liquorEntryId,
      kind: 'use',
      amount: -amount,
      note: $localize`into ${stockLot.tag}`,
      at: now.toISOString(),
      byId,
    });
    const content = {
      materialId: material.id,
      name: material.name,
      grams: amount / 1000,
      drawn: isDrawn(material.kind),
    };
    fed = changeLiquor({ volumeMl: stockLot.onHand / 1000, contents: fed }, { kind: 'dosed', content }).contents;
    notes.push($localize`${formatAmount(amount, 'weight')} of ${material.name} added, from ${from.tag}`);
    await bringHazards(db, stockLot.material, material);
  }
  return { contents: [...fed], note: notes.join('; ') };
}

/** What is dissolved in a liquor brings its hazards along, but for its dust. */
async function bringHazards(db: Db, into: Jar['material'], from: Jar['material']): Promise<void> {
  const brought = hazardsOf({ hazards: from.hazards, catalogueKey: from.facts.catalogueKey }).filter(
    (h) => h !== 'dust',
  );
  const [row] = await db.select({ hazards: materials.hazards }).from(materials).where(eq(materials.id, into.id));
  const hazards = [...new Set([...(row?.hazards ?? []), ...brought])];
  if (row && hazards.length > row.hazards.length)
    await db.update(materials).set({ hazards }).where(eq(materials.id, into.id));
}

/** A vat looked at: whether it may be dipped in now, and what it wants. */
function lookAtVat(
  { liquor }: Now,
  { look, ph, temperatureC }: Extract<LiquorEntry, { kind: 'vat' }>,
  { now }: By,
): After {
  if (!liquor.vat)
    throw new Refusal('refused', $localize`That is no vat. Look at it for cloud, growth and smell instead.`);
  const { kind } = liquor.vat;
  const found = judgeVat({ kind, look, ph, temperatureC }, { hoursAgo: 0, protein: false }).map(sayVat);
  const figures = [ph === null ? '' : sayPh(ph), temperatureC === null ? '' : `${formatTemperature(temperatureC)}`];
  return {
    vat: { kind, look, ph, temperatureC, at: now.toISOString() },
    note: [
      VAT_LOOK_LABELS[look],
      ...figures.filter(Boolean),
      ...(found.length > 0 ? found : [$localize`ready for a dip`]),
    ].join(' · '),
  };
}

/** A liquor measured against a ladder holds so many grams, as crystals. */
function readLadder({ stockLot, contents }: Now, entry: Extract<LiquorEntry, { kind: 'ladder' }>): After {
  const read = ladderStrength(entry.rungs, entry);
  if (!read.ok) throw new Refusal('refused', read.message, { reason: 'ladder' });
  const main = contents[0] ?? { materialId: null, name: $localize`as crystals`, grams: 0 };
  const grams = Math.round(read.strength.value * (stockLot.onHand / 1_000_000) * 1000) / 1000;
  return {
    contents: [{ ...main, grams }, ...contents.slice(1)],
    working: read.strength,
    note: $localize`${read.strength.value} g/l as crystals, between ${read.lowGPerL} and ${read.highGPerL}`,
  };
}

import type {
  BathContent,
  CheckedEntryOf,
  RunEntry,
  RunRefusal,
  SolutionTaken,
  StockMeasure,
  Weighed,
} from '@vestigia/core';
import { plannedWeighing, refuseEntry } from '@vestigia/core';
import { and, eq, inArray, isNotNull } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { materials, movements, stockBalances, stockLots, studio } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { notFound } from '../shared/problem';
import { convert } from '../stores/conversions';
import { contentsIn, solutionMaterial, solutionStrength } from '../stores/liquor-level';
import { settleAtWeighing, takeForLot } from '../stores/movements';
import type { LotRow } from './lots-store';
import { readReserved } from './lots-store';
import { consumeReservation } from './release-reservations';

type WeighEntry = CheckedEntryOf<'weigh'>;
/** What a weighing takes, in smallest units: of the material, and of what leaves the jar. */
interface Checked {
  readonly amount: number;
  readonly fromJar: number;
  /** What the jar held beyond its books: booked with it. */
  readonly found?: number;
  /** What was dissolved in it, where it was a kept liquor. */
  readonly contents?: readonly BathContent[] | undefined;
}

/** Whether the jar holds what the step wants, and enough of it; a wrong one is refused with the right ones named. */
export async function checkWeighing(
  db: Db,
  lot: LotRow,
  entry: WeighEntry,
  replaced: RunEntry | undefined,
  day: string,
): Promise<RunRefusal | Checked> {
  const { stepIndex, weighing, detail } = entry;
  const step = lot.plan.steps[stepIndex];
  const planned = step && plannedWeighing(step, weighing);
  if (!planned) throw notFound('weighing');
  const solution = detail?.solution;
  const fromId = solution?.made?.fromStockLotId ?? weighing.stockLotId;
  if (lot.offBooks) return { amount: weighing.amount, fromJar: 0 };
  if (fromId === null)
    return ownGoods(lot, weighing.materialId)
      ? { amount: weighing.amount, fromJar: 0 }
      : refuseEntry({ reason: 'noSuchStockLot' });
  const jar = await readJar(db, fromId);
  if (jar?.facts.fromLotId === lot.id && jar.facts.treatment !== null) return refuseEntry({ reason: 'ofItself' });
  if (!jar) return refuseEntry({ reason: 'noSuchStockLot' });
  if (jar.receivedOn > day) return refuseEntry({ reason: 'jarCameLater', tag: jar.tag, receivedOn: jar.receivedOn });
  const gPerL =
    jar.materialId === weighing.materialId ? undefined : await solutionStrength(db, fromId, weighing.materialId);
  if (jar.materialId !== weighing.materialId && gPerL === undefined) {
    const ids = planned.picks.flatMap((p) => p.stockLotId ?? []);
    const right = ids.length === 0 ? [] : await db.select(named).from(stockLots).where(inArray(stockLots.id, ids));
    return refuseEntry({ reason: 'wrongStockLot', tag: jar.tag, wanted: planned.materialName, right });
  }
  if (solution?.made) return checkCrystals(db, lot, jar, weighing, solution);
  const back = replaced?.weighing?.stockLotId === weighing.stockLotId ? await takenBy(db, replaced.id) : 0;
  const onHand = jar.onHand + back;
  const { measure } = jar;
  // Grams to the litre are milligrams to the millilitre.
  const wanted = gPerL === undefined ? weighing.amount : (solution?.takenMl ?? weighing.amount / gPerL) * 1000;
  const lacking = Math.round(wanted - onHand);
  if (lacking > 0 && detail?.settles === 'more') {
    const fromJar = Math.round(wanted);
    const amount = gPerL === undefined ? fromJar : Math.round((fromJar * gPerL) / 1000);
    // What was found beside in a kept liquor is of its strength: all that is dissolved goes along.
    const contents = measure === 'volume' && gPerL === undefined ? await contentsIn(db, fromId, onHand) : undefined;
    return { amount, fromJar, found: lacking, contents };
  }
  if (wanted - onHand >= (await finestStep(db, measure)))
    return refuseEntry({ reason: 'notOnHand', tag: jar.tag, onHand, amount: Math.round(wanted), measure });
  // A jar shown as 80 g that holds 79.997 g gave 80 g by the balance, and all it had by the ledger.
  const fromJar = Math.round(Math.min(wanted, onHand));
  if (gPerL !== undefined) return { amount: Math.round((fromJar * gPerL) / 1000), fromJar };
  const contents = measure === 'volume' ? await contentsIn(db, fromId, fromJar) : undefined;
  return { amount: fromJar, fromJar, contents };
}

/** Whether a jar has what was put in beside the plan: promised or not, what is in the bath has left the shelf. */
export async function checkAddedJar(
  db: Db,
  { weighing, detail }: { readonly weighing: Weighed; readonly detail: { readonly measure: StockMeasure } },
  replaced: RunEntry | undefined,
  day: string,
): Promise<RunRefusal | Checked> {
  const { stockLotId, materialId, amount } = weighing;
  const jar = stockLotId === null ? undefined : await readJar(db, stockLotId);
  if (!jar || jar.materialId !== materialId || jar.measure !== detail.measure)
    return refuseEntry({ reason: 'noSuchStockLot' });
  if (jar.receivedOn > day) return refuseEntry({ reason: 'jarCameLater', tag: jar.tag, receivedOn: jar.receivedOn });
  const back = replaced?.weighing?.stockLotId === stockLotId ? await takenBy(db, replaced.id) : 0;
  const onHand = jar.onHand + back;
  if (amount - onHand >= (await finestStep(db, jar.measure)))
    return refuseEntry({ reason: 'notOnHand', tag: jar.tag, onHand, amount, measure: jar.measure });
  const fromJar = Math.min(amount, onHand);
  const contents = jar.measure === 'volume' ? await contentsIn(db, jar.id, fromJar) : undefined;
  return { amount: fromJar, fromJar, contents };
}

/** A customer's own comes from no jar. */
const ownGoods = ({ plan }: LotRow, materialId: string): boolean =>
  plan.materials.some((m) => m.materialId === materialId && m.ownGoods === true);

const named = { tag: stockLots.tag, place: stockLots.place };

async function readJar(db: Db, id: string) {
  const [jar] = await db
    .select({
      id: stockLots.id,
      ...named,
      materialId: stockLots.materialId,
      receivedOn: stockLots.receivedOn,
      facts: stockLots.facts,
      materialName: materials.name,
      measure: materials.measure,
      onHand: stockBalances.onHand,
      reserved: stockBalances.reserved,
    })
    .from(stockLots)
    .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id))
    .innerJoin(materials, eq(materials.id, stockLots.materialId))
    .where(eq(stockLots.id, id));
  return jar;
}
type Jar = NonNullable<Awaited<ReturnType<typeof readJar>>>;

/** Whether so much may be dissolved: what other lots were promised stays. */
async function checkCrystals(
  db: Db,
  lot: LotRow,
  jar: Jar,
  { amount }: WeighEntry['weighing'],
  { takenMl, made }: SolutionTaken,
): Promise<RunRefusal | Checked> {
  const here = (await readReserved(db, lot.id)).get(jar.id) ?? 0;
  const free = Math.max(0, jar.onHand - jar.reserved + Math.min(here, amount));
  const wantedMg = Math.round((made?.dissolvedG ?? 0) * 1000);
  return wantedMg > free
    ? refuseEntry({ reason: 'solutionShort', tag: jar.tag, free, wantedMg })
    : { amount, fromJar: Math.round(takenMl * 1000) };
}

/** Takes what was weighed off the shelf, a solution being made of its crystals first where it was made for this. */
export async function bookWeighing(
  db: Db,
  lot: LotRow,
  { id: runEntryId, weighing, detail }: WeighEntry,
  { amount, fromJar, found, movementId, atMs }: Checked & { readonly movementId: string; readonly atMs: number },
  by: By,
): Promise<void> {
  const { stockLotId, materialId } = weighing;
  const { solution } = detail ?? {};
  if (lot.offBooks || stockLotId === null) return;
  const counted = { stockLotId, runEntryId, atMs };
  if (found !== undefined) await settleAtWeighing(db, { ...counted, difference: found }, by);
  await consumeReservation(db, lot.id, solution?.made?.fromStockLotId ?? stockLotId, materialId, amount, by);
  if (solution?.made) await makeSolution(db, solution, by);
  await takeForLot(db, { id: movementId, stockLotId, amount: fromJar, lotId: lot.id, runEntryId, atMs }, by);
  if (detail?.settles === 'empty') {
    const jar = await readJar(db, stockLotId);
    if (jar && jar.onHand > 0) await settleAtWeighing(db, { ...counted, difference: -jar.onHand }, by);
  }
}

/** A jar of the solution, kept where its crystals stand; made again, it goes by the same name. */
async function makeSolution(db: Db, { stockLotId, gPerL, made }: SolutionTaken, by: By): Promise<void> {
  const from = made && (await readJar(db, made.fromStockLotId));
  if (!from) throw notFound('jar');
  const name = `${from.materialName}, ${Math.round(gPerL * 100) / 100} g/l`.slice(0, 120);
  const known = await solutionMaterial(db, from.materialId, gPerL);
  await convert(
    db,
    {
      id: uuidv7(by.now),
      kind: 'dissolve',
      note: '',
      inputs: [{ stockLotId: from.id, movementId: uuidv7(by.now), quantityText: `${made.dissolvedG} g` }],
      output: {
        stockLotId,
        movementId: uuidv7(by.now),
        materialId: known ?? null,
        newMaterial: known ? '' : name,
        tag: '',
        quantityText: `${made.madeUpMl} ml`,
        place: from.place,
        container: '',
        tareText: '',
        bestBefore: null,
        piece: null,
      },
    },
    by,
  );
}

/** What an entry took from its jar, in the jar’s own smallest units. */
async function takenBy(db: Db, runEntryId: string): Promise<number> {
  const rows = await db
    .select({ amount: movements.amount })
    .from(movements)
    .where(and(eq(movements.runEntryId, runEntryId), isNotNull(movements.lotId)));
  return -rows.reduce((sum, m) => sum + m.amount, 0);
}

/** The finest the studio's balance shows, smallest units: what differs by less is equal. */
async function finestStep(db: Db, measure: StockMeasure): Promise<number> {
  if (measure !== 'weight') return 1;
  const [row] = await db.select({ resolutionG: studio.balanceResolutionG, fine: studio.fineBalance }).from(studio);
  return Math.max(1, Math.round(Math.min(row?.resolutionG ?? 0.001, row?.fine?.resolutionG ?? Infinity) * 1000));
}

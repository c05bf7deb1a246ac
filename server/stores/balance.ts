import type { BalanceAsk, BalanceReading } from '@vestigia/contract';
import { asc, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { spoonWeighings, studio } from '../db/schema';
import { readSimulatedBalance } from '../devices/simulated-balance';
import { Refusal, notFound } from '../shared/problem';
import { findMaterial, readSpoons } from './materials-store';
import { findStockLot } from './stock-lot-store';

/** Bulk density taken for a material nobody taught a spoon yet: about that of most crystals and powders. */
const USUAL_DENSITY = 0.85;
const SPOON_SPREAD = 0.06;
const SHELF_SPREAD = 0.004;

/**
 * Reads what is on the pan: a jar with its container, or a level spoonful. The balance is simulated, so its load is
 * too.
 */
export async function readBalance(db: Db, ask: BalanceAsk): Promise<BalanceReading> {
  const [card] = await db
    .select({ name: studio.balanceName, resolutionG: studio.balanceResolutionG, capacityG: studio.balanceCapacityG })
    .from(studio)
    .orderBy(asc(studio.name));
  if (!card) throw notFound('studio');
  const steady = { ...card, resolutionG: Number(card.resolutionG.toPrecision(6)) };
  if (ask.what === 'stockLot' && ask.stockLotId !== undefined) {
    const stockLot = await findStockLot(db, ask.stockLotId);
    if (stockLot.material.measure !== 'weight')
      throw new Refusal(
        'refused',
        $localize`${stockLot.tag} is not kept by weight, so the balance says nothing of it.`,
      );
    return readSimulatedBalance(
      {
        key: `${stockLot.id} ${stockLot.onHand}`,
        trueG: (stockLot.onHand + (stockLot.facts.tareMg ?? 0)) / 1000,
        spreadShare: SHELF_SPREAD,
      },
      steady,
    );
  }
  if (ask.what === 'spoon' && ask.materialId !== undefined && ask.spoonMl !== undefined) {
    const material = await findMaterial(db, ask.materialId);
    const density = (await readSpoons(db, material.id))[0]?.bulkDensity.value ?? USUAL_DENSITY;
    const [{ n } = { n: 0 }] = await db
      .select({ n: sql<number>`count(*)::int` })
      .from(spoonWeighings)
      .where(eq(spoonWeighings.materialId, material.id));
    return readSimulatedBalance(
      { key: `${material.id} spoon ${ask.spoonMl} ${n}`, trueG: density * ask.spoonMl, spreadShare: SPOON_SPREAD },
      { ...steady, resolutionG: Math.min(steady.resolutionG, 0.01) },
    );
  }
  throw new Refusal('invalid', $localize`Say which jar or which spoon is on the balance.`);
}

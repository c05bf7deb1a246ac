import type { GatheredRow, NewPicking, PickingFacts } from '@vestigia/contract';
import type { FormChange, JarUse, Picking } from '@vestigia/core';
import {
  countLabel,
  dayOf,
  fibrePerHour,
  followPicked,
  formatWeight,
  gramsPerHour,
  netOfTare,
  readAmount,
  sayMinutes,
} from '@vestigia/core';
import { sql } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { movements, pickings } from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { Refusal } from '../shared/problem';
import { studioZone } from '../studio/studio-store';
import { momentOf } from './moment-of';
import { oneValue } from './shelf';
import { findStockLot } from './stock-lot-store';

/** One more picking into a jar, on its day. */
export async function addPicking(
  db: Db,
  stockLotId: string,
  picking: NewPicking,
  { now, byId }: By,
): Promise<{ id: string }> {
  const stockLot = await findStockLot(db, stockLotId);
  if (stockLot.material.measure !== 'weight')
    throw new Refusal(
      'refused',
      $localize`${stockLot.tag} isn’t kept by weight. Only what is weighed is picked into a jar.`,
      {
        reason: 'measure',
      },
    );
  const zone = await studioZone(db);
  if (picking.pickedOn > dayOf(now.getTime(), zone))
    throw new Refusal(
      'refused',
      $localize`A picking can’t be booked before it was done. Write the day it was picked.`,
      {
        reason: 'inFuture',
      },
    );
  const { amount, tareMg } = weighPortions(picking.portions);
  const { id, movementId, portions, note, pickedOn, ...facts } = picking;
  await db.insert(movements).values({
    id: movementId,
    stockLotId,
    kind: 'gather',
    amount,
    note: sayPicking(facts, portions.length),
    ...momentOf(pickedOn, now, zone),
    byId,
  });
  await keepPicking(
    db,
    { id, stockLotId, movementId, portions: portions.length, tareMg, note, ...facts },
    { now, byId },
  );
  return { id };
}

type KeptPicking = Omit<typeof pickings.$inferInsert, 'seq' | 'at' | 'byId'>;

export async function keepPicking(db: Db, picking: KeptPicking, { now, byId }: By): Promise<void> {
  await db.insert(pickings).values({ ...picking, at: now.toISOString(), byId });
}

/** All portions together, mg, less the bags they were weighed in. */
function weighPortions(portions: NewPicking['portions']): { amount: number; tareMg: number } {
  let [amount, tareMg] = [0, 0];
  portions.forEach(({ grossText, tareText }, i) => {
    const which = portions.length === 1 ? '' : $localize`Portion ${i + 1}:i:: `;
    const gross = readAmount(grossText, 'weight');
    if (!gross.ok) throw new Refusal('refused', `${which}${gross.message}`, { reason: 'quantity' });
    const tare =
      tareText.trim() === ''
        ? { ok: true as const, amount: 0 }
        : readAmount(tareText, 'weight', { allowNothing: true });
    if (!tare.ok)
      throw new Refusal('refused', $localize`${which}the bag alone: ${tare.message}`, { reason: 'quantity' });
    const net = netOfTare(gross.amount, tare.amount);
    if (!net.ok) throw new Refusal('refused', `${which}${net.message}`, { reason: 'tare' });
    if (net.netMg === 0)
      throw new Refusal(
        'refused',
        $localize`${which}${formatWeight(gross.amount / 1000)} is the bag alone: nothing is in it.`,
        {
          reason: 'quantity',
        },
      );
    amount += net.netMg;
    tareMg += tare.amount;
  });
  return { amount, tareMg };
}

/** A picking in words, as it stands in the jar's ledger. */
export function sayPicking({ pickers, minutesEach, guessed, pickedWith }: PickingFacts, portions: number): string {
  return [
    pickers.length === 0 ? $localize`picked` : $localize`picked by ${pickers.join(', ')}`,
    minutesEach === null ? '' : `${sayMinutes(minutesEach)}${pickers.length > 1 ? $localize` each` : ''}`,
    portions > 1 ? countLabel(portions, 'portion') : '',
    guessed ? $localize`its weight guessed` : '',
    pickedWith === '' ? '' : $localize`with ${pickedWith}`,
  ]
    .filter((part) => part !== '')
    .join(', ');
}

interface GatheredJar {
  id: string;
  tag: string;
  materialId: string;
  material: string;
  firstAt: string;
  pickings: { amount: number; pickers: number; minutesEach: number | null }[];
}
interface UsedBy {
  stockLotId: string;
  amount: number;
  fibreG: number;
  id: string;
  number: number;
  colourway: string;
  colour: GatheredRow['lots'][number]['colour'];
}

const NOT_REVERSED = sql`NOT EXISTS (SELECT 1 FROM movements x WHERE x.reverses_id = m.id)`;
const MG_IN_G = 1000;

/** Every jar that was picked into: what an hour gave, what that dyes, and how it came out. */
export async function readGathered(db: Db): Promise<GatheredRow[]> {
  const { jars, changes, uses } = await oneValue<{
    jars: GatheredJar[];
    changes: { stockLotId: string; conversionId: string; amount: number }[];
    uses: UsedBy[];
  }>(
    db,
    sql`json_build_object(
    'jars', (SELECT coalesce(json_agg(json_build_object('id', s.id, 'tag', s.tag, 'materialId', t.id, 'material', t.name,
        'firstAt', to_json(x.first_at), 'pickings', x.pickings) ORDER BY x.first_at DESC), '[]')
      FROM (SELECT p.stock_lot_id, min(m.at) AS first_at, json_agg(json_build_object('amount', m.amount,
          'pickers', jsonb_array_length(p.pickers), 'minutesEach', p.minutes_each)) AS pickings
        FROM pickings p JOIN movements m ON m.id = p.movement_id WHERE ${NOT_REVERSED} GROUP BY p.stock_lot_id) x
      JOIN stock_lots s ON s.id = x.stock_lot_id JOIN materials t ON t.id = s.material_id),
    'changes', (SELECT coalesce(json_agg(json_build_object('stockLotId', m.stock_lot_id, 'conversionId', m.conversion_id,
        'amount', m.amount)), '[]')
      FROM movements m JOIN stock_lots s ON s.id = m.stock_lot_id JOIN materials t ON t.id = s.material_id
      WHERE m.kind = 'convert' AND t.measure = 'weight' AND ${NOT_REVERSED}),
    'uses', (SELECT coalesce(json_agg(json_build_object('stockLotId', x.stock_lot_id, 'amount', x.amount,
        'fibreG', (l.plan->'wof'->>'value')::float8, 'id', l.id, 'number', l.number, 'colourway', c.name,
        'colour', g.result) ORDER BY l.number DESC), '[]')
      FROM (SELECT m.lot_id, m.stock_lot_id, -sum(m.amount)::bigint AS amount FROM movements m
          JOIN stock_lots s ON s.id = m.stock_lot_id JOIN materials t ON t.id = s.material_id
        WHERE m.lot_id IS NOT NULL AND t.measure = 'weight' AND t.kind <> 'fibre'
        GROUP BY m.lot_id, m.stock_lot_id HAVING sum(m.amount) < 0) x
      JOIN lots l ON l.id = x.lot_id JOIN colourways c ON c.id = l.colourway_id
      LEFT JOIN lot_progress g ON g.lot_id = l.id))`,
  );
  const zone = await studioZone(db);
  const forms = formChanges(changes);
  const jarUses: JarUse[] = uses.map((u) => ({
    lotId: u.id,
    stockLotId: u.stockLotId,
    weightG: u.amount / MG_IN_G,
    fibreG: u.fibreG,
  }));
  return jars.map(({ id, tag, materialId, material, firstAt, pickings: picked }) => {
    const went = followPicked(id, forms, jarUses);
    const perHour = gramsPerHour(
      picked.map((p): Picking => ({ weightG: p.amount / MG_IN_G, hands: p.pickers, minutesEach: p.minutesEach })),
    );
    return {
      stockLotId: id,
      tag,
      materialId,
      material,
      pickedOn: dayOf(Date.parse(firstAt), zone),
      amount: picked.reduce((sum, p) => sum + p.amount, 0),
      pickings: picked.length,
      perHour,
      fibrePerHour: fibrePerHour(perHour, went),
      lots: went.flatMap(({ lotId, pickedG, fibreG }) => {
        const lot = uses.find((u) => u.id === lotId);
        return lot === undefined
          ? []
          : [
              {
                id: lotId,
                tag: lotTag(lot.number),
                colourway: lot.colourway,
                pickedMg: Math.round(pickedG * MG_IN_G),
                fibreMg: Math.round(fibreG * MG_IN_G),
                colour: lot.colour,
              },
            ];
      }),
    };
  });
}

function formChanges(moved: readonly { stockLotId: string; conversionId: string; amount: number }[]): FormChange[] {
  const byConversion = new Map<string, (typeof moved)[number][]>();
  for (const m of moved) byConversion.set(m.conversionId, [...(byConversion.get(m.conversionId) ?? []), m]);
  const side = (of: readonly { stockLotId: string; amount: number }[]) =>
    of.map((m) => ({ stockLotId: m.stockLotId, weightG: Math.abs(m.amount) / MG_IN_G }));
  return [...byConversion.values()].map((all) => ({
    inputs: side(all.filter((m) => m.amount < 0)),
    outputs: side(all.filter((m) => m.amount > 0)),
  }));
}

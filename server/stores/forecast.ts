import { performance } from 'node:perf_hooks';
import { setImmediate } from 'node:timers/promises';
import { monthName } from '@vestigia/core';
import type { Forecast, ForecastRow, Material, MaterialFacts, MaterialPage } from '@vestigia/contract';
import type { Figure, UseRate } from '@vestigia/core';
import {
  addDays,
  dayOf,
  daysToNextSeason,
  figure,
  formatAmount,
  freshToDried,
  instantOf,
  isInSeason,
  rateOfUse,
  reorder,
  runOut,
  toGather,
} from '@vestigia/core';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { studioToday, studioZone } from '../studio/studio-store';
import { findMaterial, listMaterials, readAttachments, readSpoons } from './materials-store';
import { oneValue, readGoingOff, readStockLotsOf } from './shelf';
import type { LedgerMirror, MirroredMovement } from './ledger-mirror';
import type { WorthKeeper } from './worth';
import { readWorth } from './worth';

const WEEKS_BACK = 52;
const COVER_WEEKS = 26;
const USUAL_LEAD_DAYS = 14;
const GOING_OFF_DAYS = 60;
const PICTURE_DAYS = 365;
const WEEK_S = 604_800;
export const SMALLEST_UNIT = { weight: 'mg', volume: 'µl', pieces: 'pieces' } as const;

/** So long one usually waits for a material. */
export const usualLeadDays = (facts: Pick<MaterialFacts, 'leadTimeDays'>): number =>
  facts.leadTimeDays ?? USUAL_LEAD_DAYS;

interface Use {
  readonly materialId: string;
  readonly onHand: number;
  readonly reserved: number;
  readonly firstWeek: number | null;
  readonly weeks: { readonly week: number; readonly amount: number }[];
}

const WEEK_MS = WEEK_S * 1000;
/** So long one looks ahead before others have their turn. */
const LONGEST_MS = 8;

/** Whether a movement is use: dissolving and opening are, drying isn't; what was taken back is taken off. */
const isUse = ({ kind, amount, reversedKind, conversionKind }: MirroredMovement): boolean =>
  kind === 'use' ||
  (kind === 'reverse' && reversedKind === 'use') ||
  (kind === 'convert' && amount < 0 && (conversionKind === 'dissolve' || conversionKind === 'open'));

/** What of a material was used in each of the last weeks, counted back from now. */
function usedByWeek(movements: readonly MirroredMovement[], nowMs: number): Use['weeks'] {
  const weeks = new Map<number, number>();
  for (let i = movements.length - 1; i >= 0; i -= 1) {
    const m = movements[i];
    if (!m || m.atMs <= nowMs - WEEKS_BACK * WEEK_MS) break;
    if (m.atMs > nowMs || !isUse(m)) continue;
    const week = Math.floor((nowMs - m.atMs) / WEEK_MS);
    weeks.set(week, (weeks.get(week) ?? 0) - m.amount);
  }
  return [...weeks].map(([week, amount]) => ({ week, amount }));
}

/** What is held of each material and how it was used, or of one. */
async function readUse(db: Db, ledger: LedgerMirror, now: Date, materialId?: string): Promise<Map<string, Use>> {
  await ledger.follow(db);
  const held = await oneValue<Omit<Use, 'weeks'>[]>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('materialId', h.material_id, 'onHand', h.on_hand, 'reserved', h.reserved,
      'firstWeek', floor(extract(epoch FROM (${now.toISOString()}::timestamptz - h.since::timestamptz)) / ${sql.raw(String(WEEK_S))})::int)), '[]')
      FROM (SELECT s.material_id, sum(b.on_hand)::bigint AS on_hand, sum(b.reserved)::bigint AS reserved, min(s.received_on) AS since
        FROM stock_lots s JOIN stock_balances b ON b.stock_lot_id = s.id
        ${materialId === undefined ? sql`` : sql`WHERE s.material_id = ${materialId}`} GROUP BY 1) h)`,
  );
  const nowMs = now.getTime();
  return new Map(held.map((h) => [h.materialId, { ...h, weeks: usedByWeek(ledger.of(h.materialId), nowMs) }]));
}

/** What of a material was there at the end of each day on which it moved; all before the picture begins as one. */
function heldByDay(movements: readonly MirroredMovement[], today: string, zone: string): MaterialPage['days'] {
  const first = addDays(today, -PICTURE_DAYS);
  let [on, endsMs, onHand] = [first, instantOf(addDays(first, 1), '00:00', zone), 0];
  const days = new Map<string, number>();
  for (const { atMs, amount } of movements) {
    if (atMs >= endsMs) {
      on = dayOf(atMs, zone);
      endsMs = instantOf(addDays(on, 1), '00:00', zone);
    }
    onHand += amount;
    days.set(on, onHand);
  }
  return [...days].map(([day, held]) => ({ on: day, onHand: held }));
}

/** Weeks with nothing used are zeros; weeks before the material was here are none at all. */
function rateFrom(use: Use | undefined): UseRate | undefined {
  if (!use || use.firstWeek === null) return undefined;
  const weekly = Array.from({ length: Math.min(WEEKS_BACK, Math.max(0, use.firstWeek)) }, () => 0);
  for (const { week, amount } of use.weeks) if (week < weekly.length) weekly[week] = Math.max(0, amount);
  return rateOfUse({ weekly: weekly.reverse() });
}

function look(material: Material, use: Use | undefined, today: string): ForecastRow {
  const rate = rateFrom(use);
  const { facts, measure } = material;
  const unit = SMALLEST_UNIT[measure];
  const leadTimeDays = usualLeadDays(facts);
  const onHand = use?.onHand ?? 0;
  const reserved = use?.reserved ?? 0;
  const free = onHand - reserved;
  const inSeason = facts.season !== null && isInSeason(facts.season, today);
  const order = rate
    ? reorder(rate, {
        leadTimeDays,
        coverWeeks: COVER_WEEKS,
        unit,
        setPoint: facts.reorderPoint,
        setQuantity: facts.reorderQuantity,
      })
    : facts.reorderPoint !== null
      ? {
          point: figure(facts.reorderPoint, unit, $localize`set by the studio`, []),
          quantity: figure(
            facts.reorderQuantity ?? facts.reorderPoint,
            unit,
            facts.reorderQuantity === null
              ? $localize`as much as the reorder point: no use is known yet`
              : $localize`set by the studio`,
            [],
          ),
        }
      : undefined;
  const untilSeason = rate && facts.season ? toGather(free, rate, facts.season, today, unit) : undefined;
  const out = rate ? runOut(free, rate) : undefined;
  const mustOrder = order !== undefined && free <= order.point.value && facts.season === null;
  const mustGather = inSeason && (untilSeason?.value ?? 0) > 0;
  // Out of season it can't be gathered: what will not last has to be bought, or planned around.
  const gap =
    !inSeason && facts.season !== null && (out?.likelyDays ?? Infinity) < daysToNextSeason(facts.season, today);
  return {
    materialId: material.id,
    name: material.name,
    kind: material.kind,
    measure,
    onHand,
    reserved,
    free,
    leadTimeDays,
    inSeason,
    perWeek: rate
      ? figure(Math.round(rate.perWeek), unit, $localize`what was used ÷ weeks, corrections taken off`, [
          { name: $localize`weeks looked back`, value: rate.weeks, unit: '' },
          { name: $localize`weeks with use`, value: rate.weeksWithUse, unit: '' },
          { name: $localize`spread of a week`, value: Math.round(rate.weekSpread), unit },
        ])
      : null,
    runOut: out ?? null,
    reorderPoint: order?.point ?? null,
    quantity: mustGather || gap ? (untilSeason ?? null) : (order?.quantity ?? null),
    act: mustGather ? 'gather' : mustOrder || gap ? 'order' : 'none',
    why: sayWhy({ material, rate, order, untilSeason, mustGather, mustOrder, gap, free, leadTimeDays }),
  };
}

interface Reasons {
  readonly material: Material;
  readonly rate: UseRate | undefined;
  readonly order: { readonly point: Figure } | undefined;
  readonly untilSeason: Figure | undefined;
  readonly mustGather: boolean;
  readonly mustOrder: boolean;
  readonly gap: boolean;
  readonly free: number;
  readonly leadTimeDays: number;
}

function sayWhy({
  material: { measure, facts },
  rate,
  order,
  untilSeason,
  mustGather,
  mustOrder,
  gap,
  free,
  leadTimeDays,
}: Reasons): string {
  if (mustGather && untilSeason)
    return $localize`In season now; ${formatAmount(untilSeason.value, measure)} more would last until the next.`;
  if (gap && facts.season)
    return $localize`Out of season until ${monthName(facts.season.fromMonth)}, and likely gone before. Buy some, or plan without it.`;
  if (mustOrder && order && facts.reorderPoint !== null)
    return $localize`${formatAmount(Math.max(0, free), measure)} free, at or below the ${formatAmount(order.point.value, measure)} at which the studio orders.`;
  if (mustOrder && order)
    return $localize`${formatAmount(Math.max(0, free), measure)} free, at or below the ${formatAmount(order.point.value, measure)} that ${leadTimeDays} days of waiting need.`;
  return rate ? '' : $localize`Too little use in the last year to say how fast it goes.`;
}

/** Everything looked ahead: what goes how fast, what runs out when, what to get now, what goes off first. */
export async function readForecast(db: Db, ledger: LedgerMirror, now: Date): Promise<Forecast> {
  const today = await studioToday(db, now);
  const all = await listMaterials(db);
  const use = await readUse(db, ledger, now);
  const rows: ForecastRow[] = [];
  let since = performance.now();
  for (const material of all.filter((m) => use.has(m.id))) {
    rows.push(look(material, use.get(material.id), today));
    if (performance.now() - since < LONGEST_MS) continue;
    // Others are served between.
    await setImmediate();
    since = performance.now();
  }
  return {
    today,
    coverWeeks: COVER_WEEKS,
    rows,
    expiring: await readGoingOff(db, await studioToday(db, new Date(now.getTime() + GOING_OFF_DAYS * 86_400_000))),
    seasons: all.flatMap((m) =>
      m.facts.season === null ? [] : [{ materialId: m.id, name: m.name, ...m.facts.season }],
    ),
  };
}

/** One material: everything the studio knows of it and how it stands. */
export async function readMaterialPage(
  db: Db,
  { ledger, worths }: { readonly ledger: LedgerMirror; readonly worths: WorthKeeper },
  id: string,
  now: Date,
): Promise<MaterialPage> {
  const material = await findMaterial(db, id);
  const today = await studioToday(db, now);
  const use = await readUse(db, ledger, now, id);
  const { dryings } = await oneValue<{ dryings: { at: string; fresh: number; dried: number }[] }>(
    db,
    sql`json_build_object(
    'dryings',
      (SELECT coalesce(json_agg(json_build_object('at', to_json(c.at), 'fresh', f.fresh, 'dried', f.dried)
      ORDER BY c.seq DESC), '[]') FROM conversions c JOIN LATERAL (
      SELECT sum(CASE WHEN m.amount < 0 THEN -m.amount ELSE 0 END)::bigint AS fresh,
        sum(CASE WHEN m.amount > 0 THEN m.amount ELSE 0 END)::bigint AS dried FROM movements m
        WHERE m.conversion_id = c.id AND m.kind = 'convert') f ON true
      WHERE c.kind = 'dry' AND EXISTS (SELECT 1 FROM movements m JOIN stock_lots s ON s.id = m.stock_lot_id
        WHERE m.conversion_id = c.id AND s.material_id = ${id})))`,
  );
  return {
    material,
    stockLots: await readStockLotsOf(db, id),
    spoons: await readSpoons(db, id),
    attachments: await readAttachments(db, id),
    forecast: look(material, use.get(id), today),
    days: heldByDay(ledger.of(id), today, await studioZone(db)),
    ...(await readWorth(db, worths, id)),
    dryings: dryings
      .filter((d) => d.dried > 0 && d.dried <= d.fresh)
      .map((d) => ({ at: new Date(d.at).toISOString(), factor: freshToDried(d.fresh / 1000, d.dried / 1000) })),
  };
}

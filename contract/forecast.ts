import { z } from 'zod';
import { figure, id, isoDate, isoTime, numberIn, stockMeasure, quantityText, lineOf, version, noteOf } from './common';
import { attachment, material, spoon } from './materials';
import { shelfRow } from './stores';

const days = z.number().nullable();
const runOut = z.object({ likelyDays: days, earlyDays: days, lateDays: days });

/** One material looked ahead: what there is, how fast it goes, when it runs out, what to get. */
export const forecastRow = z
  .object({
    materialId: id,
    name: z.string(),
    kind: z.string(),
    measure: stockMeasure,
    onHand: z.int(),
    reserved: z.int(),
    free: z.int(),
    leadTimeDays: z.int(),
    perWeek: figure.nullable(),
    runOut: runOut.nullable(),
    reorderPoint: figure.nullable(),
    quantity: figure.nullable(),
    /** `order`: at or below its point; `gather`: in season now and not enough until the next. */
    act: z.enum(['order', 'gather', 'none']),
    inSeason: z.boolean(),
    why: z.string(),
  })
  .meta({ id: 'AheadRow' });
export type ForecastRow = z.infer<typeof forecastRow>;
export const forecast = z
  .object({
    today: isoDate,
    coverWeeks: z.int(),
    rows: z.array(forecastRow),
    expiring: z.array(shelfRow),
    seasons: z.array(z.object({ materialId: id, name: z.string(), fromMonth: z.int(), toMonth: z.int() })),
  })
  .meta({ id: 'Ahead' });
export type Forecast = z.infer<typeof forecast>;

export const worth = z.object({ onHandMinor: z.int(), usedMinor: z.int(), receivedMinor: z.int() });
/** On hand by day, for the picture; promises and what use will take stand ahead of today. */
export const materialPage = z
  .object({
    material,
    stockLots: z.array(shelfRow),
    spoons: z.array(spoon),
    attachments: z.array(attachment),
    forecast: forecastRow,
    days: z.array(z.object({ on: isoDate, onHand: z.int() })),
    fifo: worth,
    average: worth,
    currency: z.string(),
    /** Fresh weight to dried weight as found here, newest first. */
    dryings: z.array(z.object({ at: isoTime, factor: figure })),
  })
  .meta({ id: 'MaterialPage' });
export type MaterialPage = z.infer<typeof materialPage>;

/** The studio's stock in money, by material. */
export const valuation = z
  .object({
    at: isoDate,
    currency: z.string(),
    fifoMinor: z.int(),
    averageMinor: z.int(),
    rows: z.array(
      z.object({
        materialId: id,
        name: z.string(),
        measure: stockMeasure,
        onHand: z.int(),
        fifo: worth,
        average: worth,
      }),
    ),
  })
  .meta({ id: 'Valuation' });
export type ValuationReport = z.infer<typeof valuation>;

const effortCost = z.object({
  heatKwh: z.number(),
  heatMinor: z.int().nullable(),
  waterL: z.number(),
  waterMinor: z.int().nullable(),
  handsMin: z.number(),
  handsMinor: z.int().nullable(),
});
/**
 * What a lot was to cost, and what it really did: materials at the worth of what was taken, first in first out and at
 * average; heat, water and hands in money where the studio says what they cost.
 */
export const lotCost = z
  .object({
    currency: z.string(),
    pieces: z.int(),
    fifoMinor: z.int(),
    averageMinor: z.int(),
    /** All its materials as planned, each at the worth its stock was really taken at, or has now. */
    plannedMinor: z.int(),
    planned: effortCost,
    /** So far. */
    real: effortCost,
    rows: z.array(
      z.object({
        materialId: id,
        name: z.string(),
        measure: stockMeasure,
        plannedAmount: z.int(),
        plannedMinor: z.int(),
        amount: z.int(),
        fifoMinor: z.int(),
        averageMinor: z.int(),
      }),
    ),
  })
  .meta({ id: 'LotCost' });
export type LotCost = z.infer<typeof lotCost>;

/** The shelf as it stood, or as it will: on a day to come, what is promised is gone and use has gone on. */
export const shelfOn = z
  .object({
    on: isoDate,
    when: z.enum(['past', 'today', 'forecast']),
    rows: z.array(
      z.object({
        id,
        tag: z.string(),
        material: z.string(),
        measure: stockMeasure,
        place: z.string(),
        onHand: z.int(),
        reserved: z.int(),
        free: z.int(),
        expired: z.boolean(),
      }),
    ),
  })
  .meta({ id: 'ShelfOn' });
export type ShelfOn = z.infer<typeof shelfOn>;

export const newStocktake = z.object({
  id,
  place: lineOf(() => $localize`The place`),
  /** These jars, wherever they stand; `null`: all that stand at the place. */
  chosen: z.array(id).min(1).max(500).nullable().default(null),
  blind: z.boolean(),
});
export type NewStocktake = z.infer<typeof newStocktake>;
export const stocktakeEntry = z.object({
  id,
  stockLotId: id,
  quantityText,
  /** The figure is with its container. */ gross: z.boolean(),
  seenOnHand: z.int(),
  fromBalance: z.boolean(),
});
export type StocktakeEntry = z.infer<typeof stocktakeEntry>;
export const stocktakeLine = z.object({
  row: shelfRow,
  tareMg: z.int().nullable(),
  bulkDensityGPerMl: z.number().nullable(),
  counted: z.int().nullable(),
  seenOnHand: z.int().nullable(),
  fromBalance: z.boolean(),
  difference: z.int().nullable(),
  reasons: z.array(z.string()),
  /** It moved since it was counted: it has to be counted again. */
  movedSince: z.boolean(),
});
export const stocktake = z
  .object({
    id,
    version,
    place: z.string(),
    chosen: z.array(id).nullable(),
    blind: z.boolean(),
    startedAt: isoTime,
    bookedAt: isoTime.nullable(),
    lines: z.array(stocktakeLine),
  })
  .meta({ id: 'CountWalk' });
export type Stocktake = z.infer<typeof stocktake>;
export const stocktakeBooking = z.object({
  id,
  reasons: z.array(z.object({ stockLotId: id, note: noteOf(() => $localize`The reason`) })).max(5000),
});
export type StocktakeBooking = z.infer<typeof stocktakeBooking>;

/** A reading of the balance. The one that ships is simulated, and says so. */
export const balanceReading = z
  .object({
    instrument: z.string(),
    simulated: z.boolean(),
    weightG: z.number(),
    settledMs: z.int(),
    overload: z.boolean(),
  })
  .meta({ id: 'BalanceReading' });
export type BalanceReading = z.infer<typeof balanceReading>;
export const balanceAsk = z.object({
  what: z.enum(['stockLot', 'spoon']),
  materialId: id.optional(),
  stockLotId: id.optional(),
  spoonMl: numberIn(() => $localize`The spoon`, 0.1, 5000, 'ml').optional(),
});
export type BalanceAsk = z.infer<typeof balanceAsk>;

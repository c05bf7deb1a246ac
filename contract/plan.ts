import { z } from 'zod';
import { hazard, id, isoDate, isoTime, labUnder, lineOf, stockMeasure, version } from './common';
import { stepKind } from './lot-plan';

const clock = z
  .string()
  .regex(/^(?:[01]\d|2[0-3]):[0-5]\d$|^24:00$/, { error: () => $localize`Write a time of day like 08:30.` });
const clockSpan = z
  .tuple([clock, clock])
  .refine(([from, to]) => from < to, { error: () => $localize`Hours end later than they begin.` });
const weekHours = z.array(z.array(clockSpan).max(10)).length(7, {
  error: () => $localize`A week has seven days, Monday first.`,
});
const daysAway = z
  .object({ from: isoDate, to: isoDate, why: lineOf(() => $localize`The reason`).default('') })
  .refine((d) => d.from <= d.to, { error: () => $localize`The last day away lies before the first. Turn them round.` });

const atOnce = (most: number): z.ZodNullable<z.ZodInt> =>
  z
    .int({ error: () => $localize`Write a whole number, or leave it empty.` })
    .min(1, { error: () => $localize`Write 1 or more, or leave it empty.` })
    .max(most, { error: () => $localize`Write ${most} at most, or leave it empty.` })
    .nullable();

/** When the house is open, who works when, what works and what there is room for. */
export const houseTimes = z
  .object({
    week: weekHours,
    closed: z.array(daysAway).max(2000),
    people: z.array(
      z.object({
        personId: id,
        week: weekHours.nullable(),
        eveningsUntil: clock.nullable(),
        away: z.array(daysAway).max(2000),
        leaves: z.array(hazard),
      }),
    ),
    heat: z.array(z.object({ heatSourceId: id, potsAtOnce: z.int().min(1).max(20), outUntil: isoDate.nullable() })),
    pots: z.array(z.object({ vesselId: id, outUntil: isoDate })).default([]),
    room: z
      .object({ dryingPieces: atOnce(2000), coldPots: atOnce(200), balances: atOnce(50) })
      .default({ dryingPieces: null, coldPots: null, balances: null }),
  })
  .meta({ id: 'HouseTimes' });
export const houseTimesEdit = houseTimes.extend({ version });
export type HouseTimesView = z.infer<typeof houseTimes>;
export type HouseTimesEdit = z.infer<typeof houseTimesEdit>;

/** A pot or a burner by its id, or one of the places of the house. */
const thing = z.string().min(1).max(64);
const place = z.object({
  lotId: id,
  stepIndex: z.int().min(0),
  startAt: isoTime,
  aloneFromAt: isoTime,
  aloneToAt: isoTime,
  endAt: isoTime,
  beginBy: id.nullable(),
  endBy: id.nullable(),
  resourceIds: z.array(thing).readonly(),
  locked: z.boolean(),
});
/** The plan a studio goes by. */
export const housePlan = z
  .object({
    places: z.array(place).max(20_000).readonly(),
    holds: z
      .array(z.object({ holdId: z.string().max(200), resourceId: id }))
      .max(20_000)
      .readonly(),
  })
  .meta({ id: 'HousePlan' });
export type HousePlanView = z.infer<typeof housePlan>;

export const newHousePlan = z.object({
  id,
  /** The moment its minutes are counted from. */
  origin: isoTime,
  /** The plan that stood when this one was made: another may have been accepted since. */
  after: id.nullable(),
  plan: housePlan,
});

const plannableStep = z.object({
  index: z.int(),
  kind: stepKind,
  title: z.string(),
  times: z.object({
    beginHandsMin: z.number(),
    aloneMin: z.number(),
    aloneMaxMin: z.number().nullable(),
    endHandsMin: z.number(),
    watched: z.boolean(),
    isHot: z.boolean(),
  }),
  vesselIds: z.array(id),
  weighs: z.boolean(),
  liquor: z.string(),
  after: z.array(z.int()),
  wait: z.object({ minMinutes: z.number(), maxMinutes: z.number().nullable() }).nullable(),
  hazards: z.array(hazard),
  /** The day what it weighs is to be there, and the last day that is still good. */
  beginFromOn: isoDate.nullable(),
  beginByOn: isoDate.nullable(),
  /** Of so many earlier lots its time was learnt; `null` where it is its recipe’s. */
  learntOf: z.int().nullable(),
});

/** All a plan is made of, as the record has it. */
export const planFacts = z
  .object({
    now: isoTime,
    zone: z.string(),
    times: houseTimesEdit,
    people: z.array(z.object({ id, name: z.string() })),
    vessels: z.array(z.object({ id, name: z.string(), heatSourceId: id.nullable() })),
    heatSources: z.array(z.object({ id, name: z.string(), powerW: z.number() })),
    lots: z.array(
      z.object({
        id,
        tag: z.string(),
        pieces: z.int(),
        colourway: z.string(),
        /** What it is to be, or came out as. */
        lab: labUnder.nullable(),
        wantedOn: isoDate.nullable(),
        /** The order that says so; `null` where somebody said it of the lot itself. */
        order: z.object({ id, number: z.int() }).nullable(),
        steps: z.array(plannableStep),
        records: z.array(
          z.object({
            startedAt: isoTime.optional(),
            finishedAt: isoTime.optional(),
            skippedReason: z.string().optional(),
          }),
        ),
      }),
    ),
    /** How much longer than planned earlier lots took, as shares of their plans; `null` of too few. */
    took: z
      .object({ middle: z.number(), fourInFive: z.number(), lots: z.int(), within: z.int().nullable() })
      .nullable(),
    /** What open lots are short of, and when it is to be there: as somebody said, or as it usually takes. */
    awaited: z.array(
      z.object({
        materialId: id,
        name: z.string(),
        measure: stockMeasure,
        /** In its smallest units. */
        missing: z.int(),
        lotTags: z.array(z.string()),
        arrivesOn: isoDate,
        isSaid: z.boolean(),
        /** A bath or liquor of the house, which nobody delivers. */
        isMadeHere: z.boolean(),
      }),
    ),
    /** What was learnt of the times of recipes’ steps. */
    learnt: z.array(z.object({ key: z.string(), factor: z.number(), lots: z.int() })),
    /** By how many minutes lots were done later than the plan they were begun by; `null` of too few. */
    kept: z.object({ middleMin: z.int(), fourInFiveMin: z.int(), lots: z.int() }).nullable(),
    accepted: housePlan.extend({ id, at: isoTime, by: z.string() }).nullable(),
  })
  .meta({ id: 'PlanFacts' });
export type PlanFactsView = z.infer<typeof planFacts>;

export type NewHousePlan = z.infer<typeof newHousePlan>;

/** The day a lot is promised for, or no day any more. */
export const lotWanted = z.object({ wantedOn: isoDate.nullable() });

/** The day what is short of a material is to be there, or no day any more. */
export const arrival = z.object({ arrivesOn: isoDate.nullable() });

/** As a studio’s file keeps them. */
export const planRecord = z.object({ id, plan: housePlan, at: isoTime, byId: id });
export const arrivalRecord = z.object({ materialId: id, arrivesOn: isoDate, at: isoTime, byId: id });
export const lotWantedRecord = z.object({ lotId: id, wantedOn: isoDate, at: isoTime, byId: id });

/** A private address for one’s calendar: its key is told once. */
export const calendarAddress = z.object({ has: z.boolean(), key: z.string().nullable() });
export const calendarQuery = z.object({ key: z.string().max(100) });

import { FASTNESS_KINDS, LINE_STATES } from '@vestigia/core';
import { z } from 'zod';
import { id, isoDate, isoTime, labUnder, nameOf } from './common';
import { lotSummary } from './lots';
import { shelfRow } from './stores';

/** A step in work, for the pot line. */
export const running = z.object({
  lotId: id,
  lotTag: z.string(),
  title: z.string(),
  vesselNames: z.array(z.string()),
  startedAt: isoTime,
  durationMin: z.number(),
  attended: z.boolean(),
  /** Above a hand's heat: it must not be forgotten. */ hot: z.boolean(),
  pausedAt: isoTime.nullable(),
});

export const today = z
  .object({
    now: isoTime,
    /** Room on the disk of the studio’s data. */
    disk: z.object({
      folder: z.string(),
      freeBytes: z.number().nullable(),
      state: z.enum(['enough', 'little', 'full']),
    }),
    running: z.array(running),
    inWork: z.array(lotSummary),
    planned: z.array(lotSummary),
    toJudge: z.array(lotSummary),
    /** Promised more than is on the shelf. */
    short: z.array(shelfRow),
    goingOff: z.array(shelfRow),
    /** Fastness tests that are to be read by now. */
    fastnessDue: z.array(z.object({ id, name: z.string(), kind: z.enum(FASTNESS_KINDS), dueOn: isoDate })),
    /** What hands are asked for soon by the plan that was accepted. */
    byPlan: z.array(
      z.object({
        lotId: id,
        lotTag: z.string(),
        stepIndex: z.int(),
        title: z.string(),
        kind: z.enum(['begin', 'end', 'stay']),
        personId: id,
        who: z.string(),
        startAt: isoTime,
        endAt: isoTime,
      }),
    ),
    /** Orders that are wanted soon, or ready to go out; told to nobody who only looks on. */
    orders: z.array(
      z.object({
        id,
        number: z.int(),
        customer: z.string(),
        wantedOn: isoDate.nullable(),
        stands: z.enum(LINE_STATES),
        /** What is still to be handed over. */
        pieces: z.int(),
      }),
    ),
    /** Pots that want somebody now, by what a probe says of them. */
    calls: z.array(z.object({ lotId: id, stepIndex: z.int(), code: z.string(), message: z.string() })),
  })
  .meta({ id: 'Today' });
export type Today = z.infer<typeof today>;

export const searchHit = z
  .object({
    kind: z.enum(['lot', 'stockLot', 'recipe', 'colourway', 'material', 'vessel', 'swatch', 'order', 'customer']),
    id,
    title: z.string(),
    detail: z.string(),
    /** The colour it has, or gave last. */
    lab: labUnder.nullable().default(null),
    /** A note of a lot's run: kept from those from whom the lot's recipe is kept. */
    atBench: z.boolean().optional(),
  })
  .meta({ id: 'SearchHit' });
export type SearchHit = z.infer<typeof searchHit>;

/** A page somebody wants at hand on Today. */
export const pageAtHand = z.object({
  path: z
    .string()
    .max(400)
    // What is narrowed and sorted on a page stands behind its address.
    .regex(/^\/[a-z]+(?:\/[\w-]+)*(?:\?[\w.*%+=&-]+)?$/, { error: () => $localize`That is no page of the studio.` }),
  title: nameOf(() => $localize`The title`),
});
export type PageAtHand = z.infer<typeof pageAtHand>;
export const keepAtHand = pageAtHand.extend({ keep: z.boolean() });
export type KeepAtHand = z.infer<typeof keepAtHand>;

import { INSTRUMENT_KINDS, TAG_KINDS } from '@vestigia/core';
import { z } from 'zod';
import { id, isoTime, lineOf, nameOf, numberIn, personRef } from './common';
import { lotDetail } from './lots';
import { newRunEntry } from './run-entry';

/** Days an entry may lie in a tablet before it is sent. */
const MAX_DRAFT_AGE_MS = 90 * 86_400_000;
export const MAX_DRAFTS = 250;

/**
 * One entry at the bench: an entry, and how long ago it was made by the tablet's own clock. The server takes its own
 * clock and goes back by that, so that no tablet's wrong clock gets into a record. An entry that says its own time
 * keeps it.
 */
export const draft = z.object({
  lotId: id,
  ageMs: z
    .number()
    .min(0)
    .max(MAX_DRAFT_AGE_MS, {
      error: () => $localize`That was made more than three months ago. Key it in from the bench card instead.`,
    }),
  /**
   * What the same tablet did before it in this lot. This entry is dated no earlier, however long either was on its
   * way: a slow line must not turn the order of two presses round.
   */
  afterId: id.nullish(),
  entry: newRunEntry,
});
export type RunEntryDraft = z.input<typeof draft>;
export const drafts = z.object({
  drafts: z
    .array(draft)
    .min(1)
    .max(MAX_DRAFTS, { error: () => $localize`Send at most ${MAX_DRAFTS} touches at once.` }),
});
export const runEntryResult = z
  .object({ id, ok: z.boolean(), reason: z.string(), message: z.string() })
  .meta({ id: 'TouchResult' });
export const runEntryResults = z.object({ results: z.array(runEntryResult) });
export type RunEntryResult = z.infer<typeof runEntryResult>;

export const newContainer = z.object({
  id,
  name: nameOf(() => $localize`The container’s name`),
  tareMg: z
    .int()
    .min(1, { error: () => $localize`Put the empty container on the balance first.` })
    .max(500_000_000),
});
export const containerCreated = z.object({ id });
export const container = newContainer;
export type Container = z.infer<typeof container>;

/** A caution put away for the day, by its key. */
export const putAway = z.object({ id, caution: lineOf(() => $localize`The caution`) });

const pot = z.object({ id, name: z.string(), metal: z.string() });
export const bench = z
  .object({
    now: isoTime,
    lots: z.array(lotDetail),
    /** Planned, not begun: what could be started. */
    waiting: z.array(z.object({ id, tag: z.string(), colourway: z.string(), pieces: z.int() })),
    room: z.object({
      roomC: z.number(),
      balanceName: z.string(),
      balanceStepG: z.number(),
      balanceCapacityG: z.number(),
    }),
    vessels: z.array(pot),
    waters: z.array(z.object({ id, name: z.string() })),
    people: z.array(personRef),
    containers: z.array(container),
    /** Cautions this person has put away today. */
    putAway: z.array(z.string()),
  })
  .meta({ id: 'Bench' });
export type Bench = z.infer<typeof bench>;

/** Time as epoch ms, and °C. */
export const probePoint = z.tuple([z.number(), z.number()]);
export const probeLog = z
  .object({ simulated: z.boolean(), count: z.int(), points: z.array(probePoint) })
  .meta({ id: 'ProbeLog' });
export const probePoints = z.object({
  id,
  stepIndex: z.int().min(0).max(60),
  /** Ages in ms and °C, newest last. */ points: z
    .array(
      z.tuple([z.number().min(0).max(MAX_DRAFT_AGE_MS), numberIn(() => $localize`The temperature`, -10, 130, '°C')]),
    )
    .min(1)
    .max(2000),
});

export const simulatedPot = z.object({
  temperatureC: z.number(),
  liquorMl: z.number(),
  heat: z.number(),
  lid: z.boolean(),
  ph: z.number(),
  fibreIn: z.boolean(),
});
export const instrument = z
  .object({
    id: z.string(),
    kind: z.enum(INSTRUMENT_KINDS),
    name: z.string(),
    simulated: z.boolean(),
    connected: z.boolean(),
    capacityG: z.number().nullable(),
    stepG: z.number().nullable(),
    /** Where the probe hangs. */
    lotId: id.nullable(),
    stepIndex: z.int().nullable(),
    pot: simulatedPot.nullable(),
    panG: z.number().nullable(),
  })
  .meta({ id: 'Instrument' });
export type Instrument = z.infer<typeof instrument>;

/** What is said to an instrument; where it is simulated, also what hands do at it. */
export const instrumentOrder = z
  .object({ kind: z.enum(INSTRUMENT_KINDS), rehearsalId: id.nullable().default(null) })
  .and(
    z.discriminatedUnion('do', [
      z.object({ do: z.literal('tare') }),
      z.object({ do: z.literal('wake') }),
      z.object({ do: z.literal('read'), batch: z.int().min(1).default(1) }),
      z.object({ do: z.literal('put'), weightG: numberIn(() => $localize`What lies on the pan`, 0, 50_000, 'g') }),
      z.object({ do: z.literal('hang'), lotId: id.nullable(), stepIndex: z.int().min(0).default(0) }),
      z.object({ do: z.literal('heat'), share: numberIn(() => $localize`The heat`, 0, 1) }),
      z.object({ do: z.literal('lid'), on: z.boolean() }),
      z.object({
        do: z.literal('pour'),
        ml: numberIn(() => $localize`The water`, 1, 100_000, 'ml'),
        temperatureC: numberIn(() => $localize`Its temperature`, 0, 100, '°C'),
      }),
      z.object({ do: z.literal('acid'), ml: numberIn(() => $localize`The acid`, -1000, 1000, 'ml') }),
      z.object({ do: z.literal('unplug'), out: z.boolean() }),
    ]),
  );
export type InstrumentOrder = z.input<typeof instrumentOrder>;

export const MAX_SPEED = 120;
export const newRehearsal = z.object({
  id,
  lotId: id,
  speed: numberIn(() => $localize`The speed`, 1, MAX_SPEED, 'times'),
});
export const rehearsal = z
  .object({ id, speed: z.number(), startedAt: isoTime, now: isoTime, bench })
  .meta({ id: 'Rehearsal' });
export type Rehearsal = z.infer<typeof rehearsal>;

export const tagOf = z.object({
  kind: z.enum(TAG_KINDS),
  stockLotId: id.nullable().default(null),
  vesselId: id.nullable().default(null),
  lotId: id.nullable().default(null),
  /** Which piece, or which step's bath and batch. */ number: z.int().min(1).max(2000).nullable().default(null),
  stepIndex: z.int().min(0).nullable().default(null),
});
export const newTags = z.object({ id, tags: z.array(tagOf).min(1).max(400) });
export const tagRecord = tagOf.extend({ seq: z.int(), at: isoTime });
export const tag = tagOf
  .extend({
    code: z.string(),
    title: z.string(),
    detail: z.string(),
    /** Where in the interface it leads. */ path: z.string(),
  })
  .meta({ id: 'Tag' });
export type Tag = z.infer<typeof tag>;
export type TagOf = z.input<typeof tagOf>;
export const tagAsk = z.object({ code: z.string().max(300) });

export const cardAsk = z.object({
  paper: z.enum(['A4', 'Letter']).default('A4'),
  /** A copy for the shop: code names in the place of materials. */
  shop: z.literal('1').optional(),
});

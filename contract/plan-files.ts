import { PLAN_WEIGHTS, RESOURCE_KINDS } from '@vestigia/core';
import { z } from 'zod';

/** What `npm run solve-plan` takes and answers: a plan problem and its plan, as core has them. */

const name = z.string().min(1).max(200);
const minutes = z.int().min(0).max(5_000_000);
const span = z.tuple([z.int(), z.int()]).meta({ description: 'from, and up to: minutes from the origin' });

const placedStep = z.object({
  stepId: name,
  startMin: z.int(),
  aloneFromMin: z.int().meta({ description: 'when the first hands leave it' }),
  aloneToMin: z.int().meta({ description: 'when the last hands take it up again' }),
  endMin: z.int(),
  beginBy: name.nullable(),
  endBy: name.nullable(),
  resourceIds: z.array(name).meta({ description: 'what each need is met with, in their order' }),
});

const planStep = z.object({
  id: name,
  title: z.string().max(400).default(''),
  beginHandsMin: minutes.default(0),
  aloneMin: minutes.default(0),
  aloneMaxMin: minutes
    .nullable()
    .default(null)
    .meta({ description: 'the longest it may be left; null: as long as one likes' }),
  endHandsMin: minutes.default(0),
  watched: z.boolean().default(false).meta({ description: 'the same hands stay with it from beginning to end' }),
  overnight: z
    .boolean()
    .default(true)
    .meta({ description: 'may go on alone outside `open`; else all of it lies in one of its spans' }),
  hazards: z.array(name).default([]),
  needs: z
    .array(
      z.object({
        options: z.array(
          z.object({
            resourceId: name,
            extraMin: minutes.default(0).meta({ description: 'longer alone with it, and longer at the most' }),
            heatWh: z.number().min(0).default(0),
          }),
        ),
        amount: z.int().min(1).default(1),
        onlyToBegin: z
          .boolean()
          .optional()
          .meta({ description: 'taken up while the hands that begin it are at it, and no longer' }),
      }),
    )
    .default([])
    .meta({ description: 'taken up from its start to its end' }),
  after: z
    .array(z.object({ stepId: name, minMin: minutes.default(0), maxMin: minutes.nullable().default(null) }))
    .default([])
    .meta({ description: 'steps of the same lot it follows, and how long after their end' }),
  notBeforeMin: z.int().default(0),
  notAfterMin: z.int().nullable().default(null).meta({ description: 'the latest it may start' }),
  fixed: placedStep.nullable().default(null),
});

export const planProblem = z.object({
  format: z.literal('vestigia-plan-problem'),
  version: z.literal(1),
  origin: z.string().default('').meta({ description: 'the moment minute 0 is, ISO in UTC; nothing is reckoned by it' }),
  horizonMin: minutes,
  open: z.array(span).max(100_000).default([]),
  people: z.array(
    z.object({
      id: name,
      name: z.string().default(''),
      hours: z.array(span),
      evenings: z.array(span).default([]),
      may: z.array(name).default([]).meta({ description: 'hazards they may handle' }),
    }),
  ),
  resources: z.array(
    z.object({
      id: name,
      name: z.string().default(''),
      kind: z.enum(RESOURCE_KINDS).default('vessel'),
      capacity: z.int().min(1).default(1),
      out: z.array(span).default([]).meta({ description: 'when it is out of order' }),
    }),
  ),
  lots: z
    .array(
      z.object({
        id: name,
        name: z.string().default(''),
        dueMin: z.int().nullable().default(null),
        steps: z.array(planStep).max(500),
        holds: z
          .array(
            z.object({
              id: name,
              resourceIds: z.array(name).meta({ description: 'one of them is held' }),
              amount: z.int().min(1).default(1),
              fromStepId: name,
              toStepId: name,
              fixedTo: name.nullable().default(null),
            }),
          )
          .default([])
          .meta({ description: 'held from the start of one step to the end of another' }),
      }),
    )
    .max(2000),
  weights: z
    .object({
      late: z.number().min(0).default(PLAN_WEIGHTS.late),
      finish: z.number().min(0).default(PLAN_WEIGHTS.finish),
      outOfHours: z.number().min(0).default(PLAN_WEIGHTS.outOfHours),
      heatKwh: z.number().min(0).default(PLAN_WEIGHTS.heatKwh),
      moved: z.number().min(0).default(PLAN_WEIGHTS.moved),
    })
    .default(PLAN_WEIGHTS)
    .meta({
      description:
        'what counts how much: a minute late, a minute until a lot is done, a touch in an evening, a kWh, a step of `previous` moved',
    }),
  previous: z.array(placedStep).default([]).meta({ description: 'the plan that stands; moved as little as it can be' }),
  previousHolds: z.array(z.object({ holdId: name, resourceId: name })).default([]),
});

export const planAnswer = z.object({
  format: z.literal('vestigia-plan'),
  version: z.literal(1),
  placed: z.array(placedStep),
  holds: z.array(z.object({ holdId: name, resourceId: name, fromMin: z.int(), toMin: z.int() })),
  lots: z.array(z.object({ lotId: name, finishMin: z.int(), lateMin: z.int() })),
  unplaced: z
    .array(z.object({ lotId: name, stepId: name }))
    .meta({ description: 'lots without a place before the horizon, and which step found none' }),
  cost: z.object({
    lateMin: z.number(),
    finishMin: z.number(),
    outOfHours: z.number(),
    heatWh: z.number(),
    moved: z.number(),
    total: z.number(),
  }),
  bound: z.number().meta({ description: 'no plan costs less' }),
  rounds: z.int(),
  proven: z.boolean().meta({ description: 'it costs no more than the bound: no plan is better' }),
});

/** What the command says: a plan, or a sentence why there is none. */
export const planCommandAnswer = z.union([
  planAnswer,
  z.object({ format: z.literal('vestigia-plan-refused'), version: z.literal(1), reason: z.string() }),
]);

/** As JSON Schema: what goes in may leave out what has a default. */
export const planSchemas = (): Record<string, object> => ({
  'solve-plan': { in: z.toJSONSchema(planProblem, { io: 'input' }), out: z.toJSONSchema(planCommandAnswer) },
});

import { DYEING_STAGES, MATERIAL_KINDS } from '@vestigia/core';
import { z } from 'zod';
import { id, lab } from './common';

const measuredColour = z.object({ lab, spectrum: z.array(z.number()).readonly().nullable() });

/** Everything that a shade comes from, as the match sees it. */
export const dyeing = z.object({
  colourwayId: z.string().nullable(),
  purpose: z.enum(['lot', 'strikeOff', 'strip']),
  fibre: z.string(),
  baseId: z.string(),
  baseLotId: z.string(),
  undyed: measuredColour,
  doses: z
    .array(
      z.object({
        stage: z.enum(DYEING_STAGES),
        materialId: z.string(),
        role: z.enum(['dyestuff', 'mordant', 'modifier', 'assistant']),
        stockLotId: z.string(),
        percentOwf: z.number(),
        ageYears: z.number(),
      }),
    )
    .readonly(),
  courses: z
    .array(
      z.object({
        stage: z.enum(DYEING_STAGES),
        points: z.array(z.object({ minute: z.number(), celsius: z.number() })).readonly(),
      }),
    )
    .readonly(),
  water: z.object({ id: z.string(), ph: z.number(), hardnessDh: z.number(), ironMgPerL: z.number() }),
  metal: z.string(),
  liquorRatio: z.number(),
  dip: z.int(),
});

/** What was dyed and read: what the match learns from. What is kept from whoever asks is not among it. */
export const matchRecord = z
  .object({
    readings: z.array(
      z.object({
        /** Of the lot or the trial it is told of, with which part of it. */
        id: z.string(),
        lotId: id.nullable(),
        title: z.string(),
        on: z.string(),
        dyeing,
        colour: measuredColour,
        /** How far off the reading itself may be, four times in five, ΔE00; `null`: of a reader, next to nothing. */
        readWithin80: z.number().nullable(),
        isMaster: z.boolean(),
      }),
    ),
    strengths: z.array(z.object({ stockLotId: z.string(), percent: z.number(), isReference: z.boolean() })),
    materials: z.array(z.object({ id, name: z.string(), kind: z.enum(MATERIAL_KINDS) })),
    jars: z.array(
      z.object({
        id,
        tag: z.string(),
        materialId: id,
        receivedOn: z.string(),
        free: z.number(),
        isReference: z.boolean(),
        /** How strong doses take it against the reference, per cent; `null`: as strong. */
        dosedAsPercent: z.number().nullable(),
        /** What a gram or a millilitre of it cost when it came, minor units; `null`: nobody wrote it down. */
        costMinorPerG: z.number().nullable(),
      }),
    ),
    /** What bases look like undyed, and lots of one that were read by themselves; `of` is the one’s id or the other’s. */
    undyed: z.array(z.object({ of: id, colour: measuredColour })),
    /** Lots of a base that were kept mordanted, with what is in them. */
    mordanted: z.array(z.object({ stockLotId: id, ...dyeing.pick({ doses: true, courses: true }).shape })),
    /** What of each base stands on the shelf. */
    baseLots: z.array(z.object({ id, tag: z.string(), baseId: id, free: z.number() })),
    waters: z.array(
      z.object({
        id,
        name: z.string(),
        ph: z.number().nullable(),
        hardnessDh: z.number().nullable(),
        ironMgPerL: z.number().nullable(),
      }),
    ),
  })
  .meta({ id: 'MatchRecord' });
export type MatchRecord = z.infer<typeof matchRecord>;

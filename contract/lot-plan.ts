import {
  FIBRE_KINDS,
  FINISHED_BY,
  MATERIAL_KINDS,
  STEP_KINDS,
  STRAIN_WAYS,
  VESSEL_METALS,
  ZONE_WAYS,
} from '@vestigia/core';
import { z } from 'zod';
import { planCaution, stepCaution } from './cautions';
import { blendShare, figure, id, stockMeasure } from './common';
import { heatLeg, placedPlan } from './recipe-body';

export const pick = z.object({ stockLotId: id.nullable(), amount: z.int() });

export const stepKind = z.enum(['fibre', ...STEP_KINDS]);

export const batchNumbers = z.array(z.int());

export const heating = z.union([
  z.object({
    ok: z.literal(true),
    minutes: figure,
    energy: figure,
    cost: figure.nullable(),
    /** What keeping it there draws, W for each °C above the room; plans kept before don’t tell. */
    holding: z.object({ wPerK: z.number(), roomC: z.number() }).optional(),
  }),
  z.object({ ok: z.literal(false), reachesC: z.number() }),
]);

export const plannedBath = z.object({
  batches: batchNumbers,
  vesselId: id,
  vesselName: z.string(),
  metal: z.enum(VESSEL_METALS),
  pieces: z.int(),
  wof: figure,
  liquor: figure,
  water: figure.nullable().default(null),
  fillLevel: figure,
  turns: z.int(),
  heating: heating.nullable(),
  fullWeight: figure,
  notes: z.array(z.string()),
});

/** Placed colour as it is put on at a step: cm, minutes, ml and g. */
const plannedZone = z.object({
  zone: z.int(),
  title: z.string(),
  way: z.enum(ZONE_WAYS),
  order: z.number(),
  fromCm: z.number(),
  toCm: z.number(),
  pointsCm: z.array(z.number()),
  minutes: z.number(),
  waitMin: z.number(),
  mlPerPiece: z.number().nullable(),
  gPerPiece: z.number().nullable(),
  materialName: z.string().nullable(),
  pieces: z.int(),
  pieceByPiece: z.boolean(),
});

export const range = z.object({ low: z.number(), high: z.number() });

/** As agreed or proposed. What a plan of an earlier version doesn't say is filled in when it is read. */
export const lotPlan = z
  .object({
    pieces: z.int(),
    pieceWeightG: z.number(),
    wof: figure,
    liquorRatio: z.number(),
    groups: z
      .array(
        z.object({
          key: z.string(),
          baseId: id,
          baseName: z.string(),
          fibre: z.enum(FIBRE_KINDS),
          blend: z.array(blendShare).default([]),
          pieceWord: z.string(),
          part: z.string(),
          partName: z.string(),
          pieces: z.int(),
          pieceWeightG: z.number(),
        }),
      )
      .default([]),
    batches: z.array(
      z.object({
        number: z.int(),
        vesselId: id,
        vesselName: z.string(),
        metal: z.enum(VESSEL_METALS),
        pieces: z.int(),
        wof: figure,
        liquor: figure,
        fillLevel: figure,
        groups: z.array(z.object({ key: z.string(), pieces: z.int() })).default([]),
        fill: z.int().default(1),
      }),
    ),
    materials: z.array(
      z.object({
        materialId: id,
        name: z.string(),
        kind: z.enum(MATERIAL_KINDS).nullable().default(null),
        measure: stockMeasure.default('weight'),
        total: figure,
        picks: z.array(pick),
        short: z.int(),
        ownGoods: z.boolean().optional(),
        notes: z.array(z.string()),
      }),
    ),
    steps: z.array(
      z.object({
        index: z.int(),
        key: z.string().default(''),
        kind: stepKind,
        title: z.string(),
        instruction: z.string(),
        temperatureC: z.number().optional(),
        ceilingC: z.number().optional(),
        durationMin: z.number(),
        attended: z.boolean(),
        lookFor: z.string(),
        lookEveryMin: z.number().optional(),
        usesBath: z.boolean(),
        liquor: z.string().default(''),
        cautions: z.array(stepCaution),
        after: z.array(z.int()).default([]),
        finishedBy: z.enum(FINISHED_BY).default('clock'),
        wait: z.object({ minMinutes: z.number(), maxMinutes: z.number().nullable() }).nullable().default(null),
        course: z.array(heatLeg).default([]),
        repeats: z.int().default(1),
        strain: z.enum(STRAIN_WAYS).nullable().default(null),
        targetPh: range.nullable().default(null),
        forWhom: z.string().default(''),
        groups: z.array(z.string()).optional(),
        baths: z.array(plannedBath).default([]),
        zones: z.array(plannedZone).optional(),
        weighings: z.array(
          z.object({
            batch: z.int(),
            forBatches: batchNumbers.default([]),
            materialId: id,
            materialName: z.string(),
            measure: stockMeasure.default('weight'),
            target: figure,
            tolerance: z.number(),
            picks: z.array(pick),
            advice: z.array(z.string()).default([]),
            solution: z.object({ dissolveG: z.number(), inMl: z.number(), takeMl: z.number() }).nullish(),
          }),
        ),
      }),
    ),
    placed: placedPlan.optional(),
    cautions: z.array(planCaution),
  })
  .meta({ id: 'LotPlan' });

import { HAZARDS, HOUSE_HINTS, VESSEL_METALS } from '@vestigia/core';
import { z } from 'zod';
import { stockMeasure } from './common';

const plain = <C extends string>(code: C) => z.object({ code: z.literal(code) });
const written = z.object({ code: z.literal('written'), text: z.string() });

/** Something to take care of at a step. */
export const stepCaution = z.discriminatedUnion('code', [
  written,
  z.object({ code: z.literal('house'), hint: z.enum(HOUSE_HINTS) }),
  z.object({ code: z.literal('hazard'), hazard: z.enum(HAZARDS) }),
  plain('safetyDataSheet'),
  plain('hotLiquor'),
  plain('neverForFood'),
  plain('localDisposal'),
]);

/** Something to be known of one bath. */
const bathNote = z.discriminatedUnion('code', [
  z.object({ code: z.literal('sharedBath'), batches: z.int() }),
  z.object({ code: z.literal('turns'), turns: z.int(), pieces: z.int() }),
  z.object({
    code: z.literal('tooLittleHeat'),
    heatSourceName: z.string(),
    liquorMl: z.number(),
    reachesC: z.number(),
  }),
  z.object({ code: z.literal('mixWater'), hotMl: z.number(), coldMl: z.number(), toC: z.number() }),
  z.object({
    code: z.literal('tooHotForVessel'),
    vesselName: z.string(),
    metal: z.enum(VESSEL_METALS),
    maxC: z.number(),
    toC: z.number(),
  }),
  z.object({ code: z.literal('heavyPot'), weightKg: z.number(), liftLimitKg: z.number() }),
  z.object({ code: z.literal('heavyPieces'), weightKg: z.number() }),
]);

/** Something to be known of a plan before it is agreed to. */
export const planCaution = z.discriminatedUnion('code', [
  z.object({ code: z.literal('short'), materialName: z.string(), amount: z.int(), measure: stockMeasure }),
  z.object({ code: z.literal('unequalBatches'), pieces: z.int(), pieceWord: z.string(), weightG: z.number() }),
  z.object({ code: z.literal('severalBaths'), baths: z.int() }),
  plain('secondFill'),
  z.object({ code: z.literal('bath'), note: bathNote }),
  z.object({
    code: z.literal('unlikeBatches'),
    baseName: z.string(),
    minPercent: z.number(),
    maxPercent: z.number(),
  }),
  z.object({ code: z.literal('potWait'), vesselName: z.string(), first: z.string(), then: z.string() }),
  z.object({ code: z.literal('ironMarksPot'), vesselName: z.string() }),
  plain('synthetic'),
  plain('proteinAndCellulose'),
  plain('severalFibres'),
  written,
]);

import { noteRecord } from './notes';
import { pickingRecord } from './gathering';
import { MOVEMENT_KINDS, READING_STATES, VERDICTS } from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, id, isoTime, lab, lineOf, noteOf, labUnder } from './common';
import { newColourway, zoneMaster } from './colourways';
import { newContainer, tagRecord } from './bench';
import { newPerson, language, role } from './auth';
import { deedRecord } from './deeds';
import { pageAtHand } from './today';
import { recordedEntry } from './run-entry';
import { factor, lotCheck, lotExtras, waterThen } from './proposal';
import { lotPlan } from './lot-plan';
import { keptVersion, newRecipe, newRecipeVersion, newRecipeStatus, proofRecord } from './recipes';
import { stripLookRecord, stripPromotionRecord, stripReadingRecord, stripTrialRecord } from './strips';
import { kitchenUnit, materialRecord, volumeSystem } from './materials';
import { LIQUOR_ENTRY_KINDS, liquor } from './liquor';
import { conversionRecord, stockLotRecord } from './transfer';
import { judgedShade, newEyeReading, shadeOf, taken, verdictTakeBack } from './readings';
import { madeWith, newFastnessReading, newFastnessTest, newPatchCard } from './swatches';
import { customerRecord, goodsRecord, orderLineLotRecord, orderLineRecord, orderRecord } from './orders';
import { arrivalRecord, houseTimes, lotWantedRecord, planRecord } from './plan';
import { newHeatSource, newVessel, newWater, settingsEdit } from './studio';

const who = { byId: id, at: isoTime };
/** A run entry as a studio's file keeps it. */
export const fileRunEntry = recordedEntry({ lotId: id, byId: id });
const NO_EXTRAS = lotExtras.parse({});

/**
 * A whole studio as one JSON document, the heart of a studio file (docs/studio-file.md). Everything that ever happened, in
 * the order it was recorded. Passphrases are never exported: whoever opens the file is told a code for each person.
 */
export const studioDocument = z
  .object({
    format: z.literal('vestigia-studio', { error: () => $localize`This is not a studio file made by Vestigia.` }),
    formatVersion: z.literal(4, {
      error: () => $localize`This studio file is from a newer version. Update the program first.`,
    }),
    asOf: isoTime,
    settings: settingsEdit.omit({ version: true }),
    people: z
      .array(
        newPerson.extend({
          passphrase: newPerson.shape.passphrase.optional(),
          /** Before there were roles, everybody could do everything. */
          role: role.default('owner'),
          language: language.default('en'),
        }),
      )
      .min(1),
    atHand: z.array(pageAtHand.extend({ personId: id, at: isoTime })).default([]),
    heatSources: z.array(newHeatSource).default([]),
    vessels: z.array(newVessel),
    waters: z.array(newWater),
    materials: z.array(materialRecord.extend({ putAway: z.boolean().default(false) })),
    stockLots: z.array(stockLotRecord),
    conversions: z.array(conversionRecord).default([]),
    recipes: z.array(
      newRecipe.omit({ versionId: true, body: true }).extend({
        keptTo: z.array(id).nullable().default(null),
        keptVersions: z.array(keptVersion).default([]),
        amountsKeptTo: z.array(id).nullable().default(null),
        putAway: z.boolean().default(false),
      }),
    ),
    recipeVersions: z.array(newRecipeVersion.extend({ recipeId: id, number: z.int().min(1), ...who })),
    recipeStatuses: z.array(newRecipeStatus.extend({ recipeVersionId: id, ...who })),
    colourways: z.array(
      newColourway.extend({ keptTo: z.array(id).nullable().default(null), putAway: z.boolean().default(false) }),
    ),
    swatches: z
      .array(
        z.object({
          id,
          page: z.int(),
          slot: z.int(),
          name: z.string(),
          lotId: id.nullable(),
          of: shadeOf.nullable(),
          lab: labUnder.nullable(),
          madeWith,
          note: z.string(),
          takenOutAt: isoTime.nullable(),
          ...who,
        }),
      )
      .default([]),
    fastnessTests: z.array(newFastnessTest.safeExtend({ madeWith, ...who })).default([]),
    patchCards: z.array(newPatchCard.safeExtend(who)).default([]),
    fastnessReadings: z.array(newFastnessReading.safeExtend({ testId: id, ...who })).default([]),
    masters: z
      .array(
        z.object({
          id,
          colourwayId: id,
          lab: labUnder,
          zones: z.array(zoneMaster).default([]),
          reason: z.string(),
          taken,
          fromLotId: id.nullable(),
          ...who,
        }),
      )
      .default([]),
    lots: z.array(
      z.object({
        id,
        number: z.int().min(1),
        colourwayId: id,
        recipeVersionId: id,
        baseMaterialId: id,
        waterId: id.nullable(),
        water: waterThen.nullable(),
        reorderOfId: id.nullable(),
        quantityText: z.string(),
        master: labUnder.nullable().default(null),
        plan: lotPlan,
        extras: lotExtras.default(NO_EXTRAS),
        checks: z.array(lotCheck.extend({ reason: z.string() })).default([]),
        factors: z.array(factor),
        note: noteOf(() => $localize`The note`),
        recordedAt: isoTime.nullable().default(null),
        offBooks: z.boolean().default(false),
        ...who,
      }),
    ),
    movements: z.array(
      z.object({
        id,
        stockLotId: id,
        kind: z.enum(MOVEMENT_KINDS),
        amount: z.int(),
        lotId: id.nullable(),
        lotRef: z.string().nullable().default(null),
        runEntryId: id.nullable(),
        conversionId: id.nullable().default(null),
        reversesId: id.nullable(),
        liquorEntryId: id.nullable().default(null),
        recordedAt: isoTime.nullable().default(null),
        broughtById: id.nullable().default(null),
        note: noteOf(() => $localize`The note`),
        ...who,
      }),
    ),
    reservations: z.array(z.object({ id, lotId: id, stockLotId: id, amount: z.int(), ...who })),
    runEntries: z.array(fileRunEntry),
    readings: z.array(
      z.object({
        id,
        lotId: id,
        batch: z.int(),
        group: z.string().nullable().default(null),
        zone: z.string().nullable().default(null),
        piece: z.string().nullable().default(null),
        dip: z.int().nullable().default(null),
        state: z.enum(READING_STATES),
        lab,
        ...colourConditions.shape,
        taken,
        note: lineOf(() => $localize`The note`),
        replacesId: id.nullable(),
        ...who,
      }),
    ),
    eyeReadings: z.array(newEyeReading.extend({ lotId: id, ...who })).default([]),
    verdicts: z.array(
      z.object({
        id,
        lotId: id,
        verdict: z.enum(VERDICTS),
        of: judgedShade,
        reason: noteOf(() => $localize`The reason`),
        toMaster: z.number().nullable(),
        toFirst: z.number().nullable(),
        betweenBatches: z.number().nullable(),
        restsOn: z.enum(['reading', 'twoEyes', 'eye']).nullable().default('reading'),
        ...who,
      }),
    ),
    verdictTakeBacks: z.array(verdictTakeBack.extend(who)).default([]),
    proofs: z.array(proofRecord).default([]),
    stripTrials: z.array(stripTrialRecord).default([]),
    stripReadings: z.array(stripReadingRecord).default([]),
    stripLooks: z.array(stripLookRecord).default([]),
    stripPromotions: z.array(stripPromotionRecord).default([]),
    spoonWeighings: z
      .array(
        z.object({
          id,
          materialId: id,
          unit: kitchenUnit,
          system: volumeSystem,
          weightMg: z.int(),
          fromBalance: z.boolean(),
          ...who,
        }),
      )
      .default([]),
    liquorEntries: z
      .array(
        z.object({
          id,
          stockLotId: id,
          kind: z.enum(LIQUOR_ENTRY_KINDS),
          after: liquor,
          takesBackId: id.nullable().default(null),
          note: z.string(),
          ...who,
        }),
      )
      .default([]),
    pickings: z.array(pickingRecord).default([]),
    notes: z.array(noteRecord).default([]),
    deeds: z.array(deedRecord).default([]),
    houseTimes: houseTimes.nullable().default(null),
    lotsWanted: z.array(lotWantedRecord).default([]),
    arrivals: z.array(arrivalRecord).default([]),
    plans: z.array(planRecord).default([]),
    customers: z.array(customerRecord).default([]),
    orders: z.array(orderRecord).default([]),
    orderLines: z.array(orderLineRecord).default([]),
    orderLineLots: z.array(orderLineLotRecord).default([]),
    goods: z.array(goodsRecord).default([]),
    containers: z.array(newContainer).default([]),
    tags: z.array(tagRecord).default([]),
    probeLogs: z
      .array(z.object({ id, lotId: id, stepIndex: z.int(), simulated: z.boolean(), base64: z.string(), at: isoTime }))
      .default([]),
    attachments: z
      .array(
        z.object({
          id,
          materialId: id.nullable(),
          stockLotId: id.nullable(),
          runEntryId: id.nullable().default(null),
          eyeReadingId: id.nullable().default(null),
          kind: z.enum(['sheet', 'photo']),
          name: z.string(),
          type: z.string(),
          /** Its contents lie beside the document, under this name; a document by itself may hold them. */
          sha256: z
            .string()
            .regex(/^[0-9a-f]{64}$/)
            .optional(),
          base64: z.string().optional(),
          ...who,
        }),
      )
      .default([]),
  })
  .meta({ id: 'StudioDocument' });
export type StudioDocument = z.infer<typeof studioDocument>;
/** The same as it may be written: what is left out is filled in when it is read. */
export type StudioFile = z.input<typeof studioDocument>;

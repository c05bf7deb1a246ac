import type { Said } from './common';
import {
  DYESTUFF_NEEDS,
  FASTNESS_LABELS,
  FIBRE_KINDS,
  KITCHEN_UNITS,
  MATERIAL_FORMS,
  MATERIAL_KINDS,
  VOLUME_SYSTEMS,
  refusedSalt,
} from '@vestigia/core';
import { z } from 'zod';
import {
  blendShare,
  colourConditions,
  figure,
  hazard,
  id,
  isoTime,
  lab,
  lineOf,
  nameOf,
  noteOf,
  numberIn,
  personRef,
  spectrum,
  stockMeasure,
  version,
  quantityText,
} from './common';

/** What a base is beyond any material: its fibre, its usual piece, and its colour before dye. */
export const baseFacts = z
  .object({
    fibre: z.enum(FIBRE_KINDS),
    /** Every fibre of a blend with its share; nothing where it is of one fibre. */
    blend: z
      .array(blendShare)
      .max(6)
      .refine((b) => b.length === 0 || Math.abs(b.reduce((sum, s) => sum + s.sharePercent, 0) - 100) < 0.5, {
        error: () => $localize`The shares of a blend come to 100 %. Change them.`,
      })
      .optional(),
    pieceWord: nameOf(() => $localize`The word for a piece`),
    usualPieceWeightG: numberIn(() => $localize`The usual weight of a piece`, 1, 25_000, 'g'),
    /** What a metre of it weighs dry; `null` where nobody weighed one. */
    gPerM: numberIn(() => $localize`The weight of a metre`, 0.01, 20_000, 'g')
      .nullable()
      .optional(),
    undyed: lab.extend(colourConditions.shape),
    /** The same band by band, where it was read so. */
    undyedSpectrum: spectrum.nullable().optional(),
  })
  .meta({ id: 'BaseFacts' });
export type BaseFacts = z.infer<typeof baseFacts>;

const month = z
  .int({ error: () => $localize`A month is a number from 1 to 12.` })
  .min(1, { error: () => $localize`A month is a number from 1 to 12.` })
  .max(12, { error: () => $localize`A month is a number from 1 to 12.` });
const wholeAmount = z
  .int({ error: () => $localize`An amount is in whole smallest units.` })
  .min(0, { error: () => $localize`An amount can’t be below nothing.` });

/** What a studio knows of a material. Everything may be left unsaid. */
export const materialFacts = z
  .object({
    /** Which of the catalogue's materials it is; null where it is none of them. */
    catalogueKey: z.string().max(80).nullable().default(null),
    botanicalName: lineOf(() => $localize`The botanical name`).default(''),
    plantPart: lineOf(() => $localize`The plant part`).default(''),
    forms: z.array(z.enum(MATERIAL_FORMS)).default([]),
    fibreGroups: z.array(z.enum(['protein', 'cellulose'])).default([]),
    ceilingC: numberIn(() => $localize`The temperature ceiling`, 0, 110, '°C')
      .nullable()
      .default(null),
    water: z.enum(['any', 'soft', 'hard']).default('any'),
    phLow: numberIn(() => 'pH', 0, 14)
      .nullable()
      .default(null),
    phHigh: numberIn(() => 'pH', 0, 14)
      .nullable()
      .default(null),
    light: z.enum(FASTNESS_LABELS).nullable().default(null),
    wash: z.enum(FASTNESS_LABELS).nullable().default(null),
    bringsTannin: z.boolean().default(false),
    /** How a dyestuff holds; as the catalogue has it where null. */
    needs: z.enum(DYESTUFF_NEEDS).nullable().default(null),
    season: z.object({ fromMonth: month, toMonth: month }).nullable().default(null),
    leadTimeDays: z
      .int()
      .min(0)
      .max(730, { error: () => $localize`A lead time is at most two years.` })
      .nullable()
      .default(null),
    /** Set by the studio; worked out from use where empty. Smallest units. */
    reorderPoint: wholeAmount.nullable().default(null),
    reorderQuantity: wholeAmount.nullable().default(null),
    packet: z
      .object({
        contentsG: numberIn(() => $localize`What a packet holds`, 0.1, 100_000, 'g'),
        fibreG: numberIn(() => $localize`The fibre one packet dyes`, 1, 500_000, 'g'),
        auxiliaries: z.array(z.object({ materialId: id, amount: wholeAmount })).max(12),
      })
      .nullable()
      .default(null),
  })
  .meta({ id: 'MaterialFacts' });
export type MaterialFacts = z.infer<typeof materialFacts>;
export const NO_FACTS: MaterialFacts = materialFacts.parse({});

const fields = {
  name: nameOf(() => $localize`The material’s name`).refine((name) => refusedSalt(name) === undefined, {
    error: (issue) => refusedSalt(String(issue.input)) ?? '',
  }),
  kind: z.enum(MATERIAL_KINDS, {
    error: () => $localize`Choose what kind of material it is: ${MATERIAL_KINDS.join(', ')}.`,
  }),
  measure: stockMeasure,
  hazards: z.array(hazard),
  note: noteOf(() => $localize`The note`),
  base: baseFacts.nullable(),
  facts: materialFacts.default(NO_FACTS),
};
type Checked = { kind: string; measure: string; base: unknown; facts: MaterialFacts };
const WRONG: readonly (readonly [(m: Checked) => boolean, Said])[] = [
  [
    (m) => (m.kind === 'fibre') !== (m.base !== null),
    () => $localize`A fibre needs its base facts (fibre, piece, undyed colour); nothing else has them.`,
  ],
  [
    (m) => m.facts.packet !== null && m.measure !== 'pieces',
    () => $localize`Packets are counted in pieces. Choose pieces, or take the packet’s contents away.`,
  ],
  [
    (m) => m.facts.phLow !== null && m.facts.phHigh !== null && m.facts.phLow > m.facts.phHigh,
    () => $localize`The lower pH is above the upper one. Swap them.`,
  ],
];
function check(m: Checked, ctx: { addIssue(message: string): void }): void {
  for (const [wrong, message] of WRONG) if (wrong(m)) ctx.addIssue(message());
}
export const newMaterial = z.object({ id, ...fields }).superRefine(check);
export type NewMaterial = z.infer<typeof newMaterial>;
export const materialEdit = z.object({ version, ...fields }).superRefine(check);
export type MaterialEdit = z.infer<typeof materialEdit>;
export const materialRecord = z.object({ id, ...fields });
export const material = materialRecord.extend({ version, putAway: z.boolean() }).meta({ id: 'Material' });
export type Material = z.infer<typeof material>;
/** In the list, with its bulk density as weighed here: what turns its spoons and cups into weights. */
export const listedMaterial = material
  .extend({ bulkDensityGPerMl: z.number().nullable() })
  .meta({ id: 'ListedMaterial' });
export type ListedMaterial = z.infer<typeof listedMaterial>;

export const kitchenUnit = z.enum(KITCHEN_UNITS);
export const volumeSystem = z.enum(VOLUME_SYSTEMS);
/** One weighing of a level spoonful: typed, or as the balance said. */
export const spoonWeighing = z.object({
  id,
  unit: kitchenUnit,
  system: volumeSystem,
  quantityText,
  fromBalance: z.boolean(),
});
export type SpoonWeighing = z.infer<typeof spoonWeighing>;

export const attachment = z
  .object({
    id,
    kind: z.enum(['sheet', 'photo']),
    name: z.string(),
    type: z.string(),
    bytes: z.int(),
    at: isoTime,
    by: personRef,
  })
  .meta({ id: 'Attachment' });
export type Attachment = z.infer<typeof attachment>;

/** A taught spoon as it stands: mean and spread of its weighings. */
export const spoon = z
  .object({
    unit: kitchenUnit,
    system: volumeSystem,
    name: z.string(),
    ml: z.number(),
    meanG: z.number(),
    spreadG: z.number(),
    weighings: z.int(),
    bulkDensity: figure,
  })
  .meta({ id: 'Spoon' });
export type Spoon = z.infer<typeof spoon>;

import type { Figure } from '@vestigia/core';
import {
  DAY_FORMS,
  WEEK_BEGINS,
  DECIMAL_MARKS,
  LIQUID_SYSTEMS,
  TEMPERATURE_SCALES,
  WEIGHT_SYSTEMS,
  BANDS_NM,
  FIBRE_KINDS,
  HAZARDS,
  ILLUMINANTS,
  OBSERVERS,
  STOCK_MEASURES,
} from '@vestigia/core';
import { z } from 'zod';

/** Ids are made by whoever creates the thing (UUIDv7), so that a retry after a lost connection does no harm. */
export const id = z.uuid({
  error: () => $localize`An id is not in the form this server understands. Reload the page and try again.`,
});

const NO_MARKUP = /^[^<>\p{Cc}]*$/u;
const NO_MARKUP_LINES = /^(?:[^<>\p{Cc}]|[\n\t])*$/u;

/** Words said when they are wanted, in the language of whoever asks. */
export type Said = () => string;

const text = (what: Said, max: number, pattern: RegExp): z.ZodString =>
  z
    .string({ error: () => $localize`${what()} is missing.` })
    .trim()
    .max(max, { error: () => $localize`${what()} is too long: ${max} characters at most.` })
    .regex(pattern, { error: () => $localize`${what()} can’t hold the signs < or >. Write it in words.` });

/** A name a person gives something: 1-120 characters on one line, no markup. */
export const nameOf = (what: Said): z.ZodString =>
  text(what, 120, NO_MARKUP).min(1, { error: () => $localize`${what()} is empty. Write something.` });
/** A line that may be empty. */
export const lineOf = (what: Said): z.ZodString => text(what, 200, NO_MARKUP);
/** A longer note that may be empty and may hold line breaks. */
export const noteOf = (what: Said): z.ZodString => text(what, 2000, NO_MARKUP_LINES);
/** A quantity as written by a person; read by core, which says what is wrong with it. */
export const quantityText = z
  .string({ error: () => $localize`A quantity is missing.` })
  .max(200, { error: () => $localize`That is too long to be a quantity. Write a number and a unit.` });

export const isoDate = z.iso.date({
  error: () => $localize`Write the date as year-month-day, for example 2026-05-31.`,
});
export const isoTime = z.iso.datetime({ error: () => $localize`A time is not in the form this server understands.` });
/** Optimistic version of an editable thing: send back the one you read. */
export const version = z.int().min(1);

export const numberIn = (what: Said, min: number, max: number, unit = ''): z.ZodNumber => {
  const range = (): string =>
    $localize`${what()} must be a number from ${min} to ${max}${unit === '' ? '' : ` ${unit}`}.`;
  return z.number({ error: range }).min(min, { error: range }).max(max, { error: range });
};

export const lab = z
  .object({
    L: numberIn(() => 'L*', 0, 100),
    a: numberIn(() => 'a*', -128, 128),
    b: numberIn(() => 'b*', -128, 128),
  })
  .meta({ id: 'Lab' });

export const colourConditions = z.object({ illuminant: z.enum(ILLUMINANTS), observer: z.enum(OBSERVERS) });
/** A colour, and under what light and from how wide a field it was read. */
export const labUnder = lab.extend(colourConditions.shape);
export type LabUnder = z.infer<typeof labUnder>;
/** Reflectance band by band, where a colour was read so. */
export const spectrum = z
  .array(numberIn(() => $localize`The reflectance`, 0, 1.2))
  .length(BANDS_NM.length)
  .readonly();
export const stockMeasure = z.enum(STOCK_MEASURES);
export const hazard = z.enum(HAZARDS);

export const figureShape = z
  .object({
    value: z.number(),
    unit: z.string(),
    working: z.object({
      formula: z.string(),
      inputs: z.array(
        z.object({
          name: z.string(),
          value: z.union([z.number(), z.string()]),
          unit: z.string(),
          source: z.string().optional(),
        }),
      ),
      notes: z.array(z.string()),
    }),
  })
  .meta({ id: 'Figure', description: 'A computed number that carries its own working.' });
export const figure: z.ZodType<Figure, Figure> = figureShape;

/** Which person did it, as shown. */
export const personRef = z.object({ id, name: z.string() });
export type PersonRef = z.infer<typeof personRef>;

export const percent = (what: Said, max = 100): z.ZodNumber => numberIn(what, 0, max, '%');

export const stockLotTag = lineOf(() => $localize`The tag`).max(20, {
  error: () => $localize`A tag has 20 characters at most.`,
});

/** One fibre of a blend, and its share of the weight. */
export const blendShare = z.object({ fibre: z.enum(FIBRE_KINDS), sharePercent: percent(() => $localize`The share`) });

/** How the studio reads its figures; what is kept and exchanged is SI all the same. */
export const shownIn = z.object({
  weight: z.enum(WEIGHT_SYSTEMS),
  volume: z.enum(LIQUID_SYSTEMS),
  temperature: z.enum(TEMPERATURE_SCALES),
  decimalMark: z.enum(DECIMAL_MARKS),
  days: z.enum(DAY_FORMS),
  weekBegins: z.enum(WEEK_BEGINS).default('monday'),
});

/** Out of the lists and out of what is chosen from, or back among them. What was made with it stays as it is. */
export const putAway = z.object({ putAway: z.boolean() });

import { ILLUMINANTS, OBSERVERS } from '@vestigia/core';
import { z } from 'zod';

/** What goes into and comes out of the two commands that measure without the interface. */

const rect = z
  .tuple([z.number(), z.number(), z.number(), z.number()])
  .meta({ description: 'x, y, width and height in pixels, from the top left' });
const labTriple = z
  .tuple([z.number().min(0).max(100), z.number().min(-200).max(200), z.number().min(-200).max(200)])
  .meta({ description: 'L*, a*, b* under D65, 2°' });

export const photoPatches = z.object({
  known: z.array(z.object({ rect, lab: labTriple })),
  wanted: z.array(z.object({ name: z.string(), rect })),
});

export const photoAnswer = z.object({
  outcome: z.enum(['measured', 'refused']),
  /** Why it is refused, in a sentence; empty where it was measured. */
  reason: z.string(),
  swatches: z.array(
    z.object({
      name: z.string(),
      lab: z.tuple([z.number(), z.number(), z.number()]),
      deltaE00Within80: z.number(),
      evenness: z.object({ meanDeltaE00: z.number(), maxDeltaE00: z.number() }),
    }),
  ),
});
export type PhotoAnswer = z.infer<typeof photoAnswer>;

export const spectraFile = z.object({
  wavelengths: z.array(z.number()).meta({ description: 'nm, rising, every 10 or 20, from 400 to 700' }),
  spectra: z.array(z.array(z.number())).meta({ description: 'reflectance factors, 0 to 1' }),
});
export const spectraConditions = z.object({
  illuminant: z.enum(ILLUMINANTS, { error: () => $localize`The illuminant is one of ${ILLUMINANTS.join(', ')}.` }),
  observer: z.enum(OBSERVERS, { error: () => $localize`The observer is one of ${OBSERVERS.join(', ')}.` }),
});
export const spectraAnswer = z.object({
  lab: z.array(z.tuple([z.number(), z.number(), z.number()])),
  /** Why it is refused; absent where it was read. */
  reason: z.string().optional(),
});
export type SpectraAnswer = z.infer<typeof spectraAnswer>;

/** What a command takes and answers, as JSON Schema. */
export const measureSchemas = (): Record<string, object> => ({
  'measure-photo': { in: z.toJSONSchema(photoPatches), out: z.toJSONSchema(photoAnswer) },
  'read-spectra': { in: z.toJSONSchema(spectraFile), out: z.toJSONSchema(spectraAnswer) },
});

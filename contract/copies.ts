import { z } from 'zod';
import { isoTime } from './common';

/** A copy of the whole studio that was opened and looked over. */
export const copyOfStudio = z.object({ name: z.string(), at: isoTime, bytes: z.int() }).meta({ id: 'CopyOfStudio' });
export type CopyOfStudio = z.infer<typeof copyOfStudio>;

export const studioCopies = z
  .object({
    folder: z.string(),
    /** Newest first. */
    copies: z.array(copyOfStudio),
    isMaking: z.boolean(),
    /** Why the last one could not be made; `null`: it was. */
    problem: z.string().nullable(),
    isOld: z.boolean(),
    /** On the disk of the folder; `null`: nobody knows. */
    freeBytes: z.number().nullable(),
    isNearlyFull: z.boolean(),
  })
  .meta({ id: 'StudioCopies' });
export type StudioCopies = z.infer<typeof studioCopies>;

export const copyToOpen = z.object({ name: z.string().max(100) });

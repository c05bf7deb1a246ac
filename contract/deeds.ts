import { z } from 'zod';
import { id, isoTime, personRef } from './common';

/** What may have been done to a thing, or at the door. */
export const DEED_KINDS = [
  'added',
  'changed',
  'removed',
  'cameIn',
  'left',
  'turnedAway',
  'endedSession',
  'openedFile',
  'brought',
  'tookFile',
] as const;
export type DeedKind = (typeof DEED_KINDS)[number];

/** What it was done to. */
export const DEED_THINGS = [
  'studio',
  'person',
  'heatSource',
  'vessel',
  'water',
  'material',
  'jar',
  'recipe',
  'colourway',
  'swatch',
  'container',
  'file',
  'customer',
  'order',
] as const;
export type DeedThing = (typeof DEED_THINGS)[number];

/** From and to, by field; a field within a group of them as `group.field`. What is secret stands as `true`. */
export const deedChanges = z.record(z.string(), z.tuple([z.unknown(), z.unknown()]));
export type DeedChanges = z.infer<typeof deedChanges>;

/** One deed as a studio file keeps it. */
export const deedRecord = z.object({
  id,
  at: isoTime,
  byId: id.nullable(),
  kind: z.enum(DEED_KINDS),
  thing: z.enum(DEED_THINGS),
  thingId: id.nullable(),
  name: z.string(),
  changes: deedChanges,
  note: z.string(),
});

export const deed = deedRecord
  .omit({ byId: true })
  .extend({ seq: z.int(), by: personRef.nullable() })
  .meta({ id: 'Deed' });
export type Deed = z.infer<typeof deed>;

/** The newest first, so many at a time. */
export const deedPage = z.object({ deeds: z.array(deed), hasMore: z.boolean() }).meta({ id: 'DeedPage' });
export type DeedPage = z.infer<typeof deedPage>;

export const deedQuery = z.object({
  /** Only those before this one in the order of recording. */
  before: z.coerce.number().int().min(1).max(Number.MAX_SAFE_INTEGER).optional(),
  thing: z.enum(DEED_THINGS).optional(),
  thingId: id.optional(),
  by: id.optional(),
});

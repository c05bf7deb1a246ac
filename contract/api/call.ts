import { z } from 'zod';
import type { Role } from '@vestigia/core';
import { id } from '../common';

/** One call: what crosses the wire, both ways. `{id}` stands in paths. */
export interface Call {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly summary: string;
  readonly body?: z.ZodType;
  readonly query?: z.ZodObject;
  readonly reply: z.ZodType;
  /** Takes a file as the whole body, of one of these media types. */
  readonly upload?: readonly string[];
  /** Answers with a file of this media type instead of JSON. */
  readonly download?: string;
  /** May be called before coming in. */
  readonly open?: true;
  /** The least a person must be here; what isn’t said is said by `leastRole`. */
  readonly role?: Role;
}

/** The least a person must be for a call: whoever may look may read, and a helper records. */
export const leastRole = ({ role, method }: Call): Role => role ?? (method === 'get' ? 'guest' : 'helper');

export const TYPES_OF_TABLES = ['text/csv', 'application/json', 'application/octet-stream'] as const;
export const TYPES_OF_STUDIO_FILES = ['application/zip', 'application/json', 'application/octet-stream'] as const;
export const TYPES_OF_ATTACHMENTS = ['application/pdf', 'image/png', 'image/jpeg', 'image/webp'] as const;
export const text = z.string();
export const created = z.object({ id });
export const done = z.object({ ok: z.literal(true) });

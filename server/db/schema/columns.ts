import { bigint, bigserial, customType, timestamp } from 'drizzle-orm/pg-core';

export const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });

export const amount = (name: string) => bigint(name, { mode: 'number' });

export const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

export const seq = () => bigserial('seq', { mode: 'number' }).notNull();

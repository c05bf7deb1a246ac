import type { Language, Role } from '@vestigia/core';
import type { SessionData } from 'express-session';
import { integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { instant } from './columns';

export const secrets = pgTable('secrets', { name: text('name').primaryKey(), value: text('value').notNull() });

export const people = pgTable('people', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  role: text('role').$type<Role>().notNull().default('dyer'),
  /** What the person reads this program in. */
  language: text('language').$type<Language>().notNull().default('en'),
  passphraseHash: text('passphrase_hash'),
  /** Of a code that is good for choosing a passphrase once. */
  codeHash: text('code_hash'),
});

/** Pages somebody wants at hand on Today. */
export const atHand = pgTable(
  'at_hand',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id),
    path: text('path').notNull(),
    title: text('title').notNull(),
    at: instant('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.path] })],
);

export const sessions = pgTable('sessions', {
  sid: text('sid').primaryKey(),
  data: jsonb('data').$type<SessionData>().notNull(),
  expiresAt: instant('expires_at').notNull(),
});

/** Replies already given, by the caller's key: the same write sent twice is answered twice and done once. */
export const idempotencyKeys = pgTable('idempotency_keys', {
  key: text('key').primaryKey(),
  bodyHash: text('body_hash').notNull(),
  status: integer('status').notNull(),
  reply: jsonb('reply').notNull(),
  at: instant('at').notNull(),
});

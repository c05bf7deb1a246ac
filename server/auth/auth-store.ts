import type { AuthState, SignedIn } from '@vestigia/contract';
import type { Language, Role } from '@vestigia/core';
import { randomBytes } from 'node:crypto';
import { and, asc, eq } from 'drizzle-orm';
import type { Database, Db } from '../db/database';
import { people, secrets, studio } from '../db/schema';

export async function readAuthState(db: Db, person: SignedIn | undefined): Promise<Omit<AuthState, 'language'>> {
  const [row] = await db
    .select({ name: studio.name, signInNote: studio.signInNote, zone: studio.zone, shownIn: studio.shownIn })
    .from(studio);
  const names = await db.select({ id: people.id, name: people.name }).from(people).orderBy(asc(people.name));
  return { studio: row ?? null, people: names, person: person ?? null };
}

export async function hasStudio(db: Db): Promise<boolean> {
  return (await db.select({ only: studio.only }).from(studio)).length > 0;
}

export async function addPerson(
  db: Db,
  {
    id,
    name,
    role,
    language = 'en',
  }: { readonly id: string; readonly name: string; readonly role: Role; readonly language?: Language },
  passphraseHash: string | null,
): Promise<void> {
  await db.insert(people).values({ id, name, role, language, passphraseHash });
}

export async function findPerson(db: Db, id: string): Promise<typeof people.$inferSelect | undefined> {
  const [row] = await db.select().from(people).where(eq(people.id, id));
  return row;
}

/** What a person comes in by. @returns whether there is such a person */
export async function setHashes(
  db: Db,
  id: string,
  hashes: Partial<Pick<typeof people.$inferSelect, 'passphraseHash' | 'codeHash'>>,
): Promise<boolean> {
  return (await db.update(people).set(hashes).where(eq(people.id, id)).returning({ id: people.id })).length > 0;
}

/** Gives a person a passphrase for a code, which is used up by it; `false` where it was meanwhile. */
export async function useCode(db: Db, id: string, codeHash: string | null, passphraseHash: string): Promise<boolean> {
  if (codeHash === null) return false;
  const rows = await db
    .update(people)
    .set({ passphraseHash, codeHash: null })
    .where(and(eq(people.id, id), eq(people.codeHash, codeHash)))
    .returning({ id: people.id });
  return rows.length > 0;
}

/** The key that signs cookies: made once and kept with the data, so that a restart signs nobody out. */
export async function cookieKey(database: Database): Promise<string> {
  const created = randomBytes(32).toString('base64');
  await database.db.insert(secrets).values({ name: 'cookieKey', value: created }).onConflictDoNothing();
  await database.flush();
  const [row] = await database.db.select().from(secrets).where(eq(secrets.name, 'cookieKey'));
  return row?.value ?? created;
}

import { LANGUAGES, ROLES } from '@vestigia/core';
import { z } from 'zod';
import { id, lineOf, nameOf, personRef, shownIn } from './common';

/** What anybody tries first of this house. The server knows the common ones (`shared/passphrase.ts`). */
const OF_THE_TRADE = new Set(
  'vestigia vestigia1 dyestudio dyehouse naturaldye naturaldyes indigoblue dyeworks'.split(' '),
);
/** One sign again and again, or signs one after another as they stand in the alphabet or on the keys. */
const isARow = (text: string): boolean =>
  new Set(text).size < 3 ||
  ['abcdefghijklmnopqrstuvwxyz', '01234567890123456789', 'qwertyuiopasdfghjklzxcvbnm'].some(
    (row) => row.includes(text) || [...row].reverse().join('').includes(text),
  );
const isTriedFirst = (typed: string): boolean => {
  const plain = typed.toLowerCase().replace(/\s/g, '');
  return OF_THE_TRADE.has(plain) || isARow(plain);
};

export const passphrase = z
  .string({ error: () => $localize`Write a passphrase.` })
  .min(8, { error: () => $localize`A passphrase needs at least 8 characters. Three words are easy to remember.` })
  .max(200, { error: () => $localize`A passphrase may have 200 characters at most.` })
  .refine((typed) => !isTriedFirst(typed), {
    error: () =>
      $localize`That is one of the first anybody tries. Three words of your own are easy to remember and hard to guess.`,
  });

export const person = personRef.meta({ id: 'Person' });
export type Person = z.infer<typeof person>;

export const role = z.enum(ROLES, { error: () => $localize`Choose what the person may do: ${ROLES.join(', ')}.` });

/** What a person reads this program in. */
export const language = z.enum(LANGUAGES);
export const languageEdit = z.object({ language });

/** Whoever is in, and as what. */
export const signedIn = person.extend({ role }).meta({ id: 'SignedIn' });
export type SignedIn = z.infer<typeof signedIn>;

/** What anyone may see before coming in. */
export const authState = z
  .object({
    studio: z.object({ name: z.string(), signInNote: z.string(), zone: z.string(), shownIn }).nullable(),
    people: z.array(person),
    person: signedIn.nullable(),
    /** What whoever asks is answered in. */
    language,
  })
  .meta({ id: 'AuthState' });
export type AuthState = z.infer<typeof authState>;

export const signIn = z.object({
  personId: id,
  passphrase: z.string().max(200, { error: () => $localize`That passphrase is too long.` }),
  /** What the computer Vestigia runs on shows, once too many tries were wrong. */
  consoleCode: z
    .string()
    .max(60, { error: () => $localize`That code is too long.` })
    .optional(),
});
export type SignIn = z.infer<typeof signIn>;

/** Once a studio file is open: a code for each person, shown this one time to whoever opened it. */
export const openedDocument = z
  .object({ codes: z.array(z.object({ personId: id, name: z.string(), code: z.string() })) })
  .meta({ id: 'OpenedDocument' });
export type OpenedDocument = z.infer<typeof openedDocument>;

export const openingDocument = z
  .object({
    phase: z.enum(['none', 'receiving', 'reading', 'keeping']),
    /** Of so many bytes, or rows; `null` where nobody knows yet. */
    done: z.number(),
    total: z.number().nullable(),
  })
  .meta({ id: 'OpeningDocument' });
export type OpeningDocument = z.infer<typeof openingDocument>;

export const setPassphrase = z.object({
  personId: id,
  code: z.string().max(60, { error: () => $localize`That code is too long.` }),
  passphrase,
});

export const changePassphrase = z.object({
  current: z.string().max(200, { error: () => $localize`That passphrase is too long.` }),
  passphrase,
});

/** A code that somebody gives to a colleague, to be read out. */
export const codeForPerson = z.object({ code: z.string() }).meta({ id: 'CodeForPerson' });

/** IANA zone names this machine knows. */
export const timeZone = z.string().refine(
  (zone) => {
    try {
      new Intl.DateTimeFormat('en', { timeZone: zone });
      return true;
    } catch {
      return false;
    }
  },
  { error: () => $localize`That time zone is not known. Write it like Europe/London.` },
);

export const newPerson = z.object({ id, name: nameOf(() => $localize`The name`), passphrase });
export type NewPerson = z.infer<typeof newPerson>;

/** Somebody who is taken on by an owner. */
export const newColleague = newPerson.extend({ role: role.default('dyer') });
export const roleEdit = z.object({ role });

/** Where a person is in: which browser, since when. */
export const session = z
  .object({
    id,
    person,
    since: z.string(),
    until: z.string(),
    /** What the browser said it is, in short, and from where it came. */
    browser: z.string(),
    address: z.string(),
    isThis: z.boolean(),
  })
  .meta({ id: 'Session' });
export type Session = z.infer<typeof session>;

export const openStudio = z.object({
  name: nameOf(() => $localize`The studio’s name`),
  zone: timeZone,
  person: newPerson,
});
export type OpenStudio = z.infer<typeof openStudio>;

export const signInNote = lineOf(() => $localize`The note on the door`);

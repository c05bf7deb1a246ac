import { randomBytes, randomInt, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { Refusal } from './problem';

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt);

/** About a third of a second on a studio's machine, 32 MiB a call. */
const COST = { N: 2 ** 15, r: 8, p: 3 } as const;
const KEY_BYTES = 32;

/** Letters and digits that nobody takes for one another. */
const CODE_SIGNS = 'ABCDEFGHJKMNPQRSTVWXYZ23456789';
const CODE_LENGTH = 12;

/** A code that is good for choosing a passphrase once, to be read out or written on paper: like `K7QM-2XNP-9TGH`. */
export function newCode(): string {
  const signs = Array.from({ length: CODE_LENGTH }, () => CODE_SIGNS[randomInt(CODE_SIGNS.length)]).join('');
  return signs.replace(/(.{4})(?=.)/g, '$1-');
}

/** A code as it may be typed: small letters, and with or without its dashes. */
export const readCode = (typed: string): string =>
  typed
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '')
    .replace(/(.{4})(?=.)/g, '$1-');

interface Stored {
  readonly N: number;
  readonly r: number;
  readonly p: number;
  readonly salt: Buffer;
  readonly key: Buffer;
}

/** What people choose most often, tens of thousands of them: read when somebody first chooses. */
let common: Promise<ReadonlySet<string>> | undefined;

/**
 * Hashes a passphrase that somebody chose.
 * @throws {Refusal} where it is one of those people choose most often
 */
export async function hashChosen(passphrase: string): Promise<string> {
  common ??= import('@zxcvbn-ts/language-common').then(({ dictionary }) => new Set(dictionary['passwords-common']));
  if ((await common).has(passphrase.toLowerCase().replace(/\s/g, '')))
    throw new Refusal(
      'invalid',
      $localize`That is one of the first anybody tries. Three words of your own are easy to remember and hard to guess.`,
    );
  return hashPassphrase(passphrase);
}

/** Hashes a passphrase with scrypt (RFC 7914). The cost stands in the result: `scrypt$N$r$p$salt$key`. */
export async function hashPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await deriveKey(passphrase, { ...COST, salt, key: Buffer.alloc(KEY_BYTES) });
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join('$');
}

/** Checks in constant time. A person without a hash never gets in, and costs as much time as one with. */
export async function checkPassphrase(passphrase: string, hash: string | null): Promise<boolean> {
  const stored = hash === null ? undefined : readHash(hash);
  const against = stored ?? { ...COST, salt: Buffer.alloc(16), key: randomBytes(KEY_BYTES) };
  const same = timingSafeEqual(await deriveKey(passphrase, against), against.key);
  return stored !== undefined && same;
}

/** So many may wait to be checked; whoever comes after them is asked to come again. */
const MOST_WAITING = 30;
let waiting = 0;
let last: Promise<unknown> = Promise.resolve();

/** One after another: each takes one of the few threads that also write to the disk for everybody. */
async function deriveKey(passphrase: string, { N, r, p, salt, key }: Stored): Promise<Buffer> {
  if (waiting >= MOST_WAITING)
    throw new Refusal('slowDown', $localize`Many are coming in just now. Wait a little, then try again.`);
  waiting += 1;
  const mine = last.then(() =>
    derive(passphrase.normalize('NFKC'), salt, key.length, { N, r, p, maxmem: 256 * N * r }),
  );
  last = mine.catch(() => undefined).finally(() => (waiting -= 1));
  return mine;
}

function readHash(hash: string): Stored | undefined {
  const [scheme, N, r, p, salt, key] = hash.split('$');
  if (scheme !== 'scrypt' || salt === undefined || key === undefined) return undefined;
  return {
    N: Number(N),
    r: Number(r),
    p: Number(p),
    salt: Buffer.from(salt, 'base64'),
    key: Buffer.from(key, 'base64'),
  };
}

import type { Language } from './language';
import { languageNow } from './language';

/**
 * A table of words, each in the language of whoever reads it now. It is made once for each language, and reads, spreads
 * and lists like the table itself.
 */
export const worded = <T extends object>(make: () => T): T => standIn({} as T, make);

/** A list of words, likewise. */
export const wordedList = <T>(make: () => readonly T[]): readonly T[] => standIn<readonly T[]>([], make);

/** @param ground only says whether it is a list; nothing is read from it */
function standIn<T extends object>(ground: T, make: () => T): T {
  const made = new Map<Language, T>();
  const words = (): T => {
    const language = languageNow();
    let known = made.get(language);
    if (known === undefined) made.set(language, (known = make()));
    return known;
  };
  return new Proxy(ground, {
    get: (_, key) => Reflect.get(words(), key) as unknown,
    has: (_, key) => Reflect.has(words(), key),
    ownKeys: () => Reflect.ownKeys(words()),
    getOwnPropertyDescriptor: (_, key) => Reflect.getOwnPropertyDescriptor(words(), key),
  });
}

/** The language whoever is answered just now reads; English until a server says otherwise of each who asks. */
let languageNow = (): string => 'en';

/** @param language asked again at each reading of a word, since one program answers people of several languages */
export function speakAs(language: () => string): void {
  languageNow = language;
}

/**
 * A table of words (an object or a list), each in the language of whoever reads it now. It is made once for each
 * language, and reads, spreads and lists like the table itself.
 */
export function worded<T extends object>(make: () => T): T {
  const made = new Map<string, T>();
  const now = (): T => {
    const language = languageNow();
    let table = made.get(language);
    if (table === undefined) made.set(language, (table = make()));
    return table;
  };
  // What the proxy stands on decides whether it is a list; nothing is read from it.
  const ground = (Array.isArray(make()) ? [] : {}) as T;
  return new Proxy(ground, {
    get: (_, key) => Reflect.get(now(), key) as unknown,
    has: (_, key) => Reflect.has(now(), key),
    ownKeys: () => Reflect.ownKeys(now()),
    getOwnPropertyDescriptor: (_, key) => Reflect.getOwnPropertyDescriptor(now(), key),
  });
}

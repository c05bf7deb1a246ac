/** What this program can be read in, as BCP 47 names them. Its own words are English. */
export const LANGUAGES = ['en', 'de'] as const;
/** One of `LANGUAGES`. */
export type Language = (typeof LANGUAGES)[number];
/** Each by its own name, since whoever looks for it may read no other. */
export const LANGUAGE_NAMES: Readonly<Record<Language, string>> = { en: 'English', de: 'Deutsch' };

let now = (): Language => 'en';

/** The language of whoever is answered just now. */
export const languageNow = (): Language => now();

/** @param language asked again each time, since one program answers people of several languages */
export function speakAs(language: () => Language): void {
  now = language;
}

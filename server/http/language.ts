import '@angular/localize/init';
import { AsyncLocalStorage } from 'node:async_hooks';
import { ɵparseTranslation as parseTranslation, ɵtranslate as translate } from '@angular/localize';
import type { Language } from '@vestigia/core';
import { LANGUAGES, languageNow, speakAs } from '@vestigia/core';
import type { CookieOptions, RequestHandler } from 'express';
import german from '../../locale/de.json';

const COOKIE = 'vestigia-language';
const KEPT_MS = 400 * 86_400_000;

const asked = new AsyncLocalStorage<Language>();
speakAs(() => asked.getStore() ?? 'en');

type Translations = Record<string, ReturnType<typeof parseTranslation>>;
const TRANSLATIONS: Partial<Record<Language, Translations>> = {
  de: Object.fromEntries(
    Object.entries(german.translations as Record<string, string>).map(([id, text]) => [id, parseTranslation(text)]),
  ),
};

/** What a text of the program is to whoever is answered, looked up by Angular's own ids. */
$localize.translate = (parts, values) => {
  const translations = TRANSLATIONS[languageNow()];
  return translations === undefined ? [parts, values] : translate(translations, parts, values);
};

/** Answers each in the language of whoever came in last on that browser; before, in what the browser asks for. */
export const answerInTheirLanguage: RequestHandler = (req, _res, next) => {
  const kept = LANGUAGES.find((language) =>
    new RegExp(`(?:^|; )${COOKIE}=${language}(?:;|$)`).test(req.headers.cookie ?? ''),
  );
  const language = kept ?? (req.acceptsLanguages([...LANGUAGES]) || 'en');
  asked.run(LANGUAGES.find((l) => l === language) ?? 'en', next);
};

/** What tells the browser's next calls which language they are answered in. */
export const languageCookie = (language: Language): [string, string, CookieOptions] => [
  COOKIE,
  language,
  { httpOnly: true, sameSite: 'strict', path: '/', maxAge: KEPT_MS },
];

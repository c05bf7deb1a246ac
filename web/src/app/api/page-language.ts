import type { Language } from '@vestigia/core';
import { LANGUAGES } from '@vestigia/core';

/** What the words of this page are in: each build of the interface has one language. */
export const pageLanguage = (): Language =>
  LANGUAGES.find((language) => language === document.documentElement.lang) ?? 'en';

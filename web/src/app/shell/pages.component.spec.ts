import { describe, expect, it } from 'vitest';
import { routes } from '../routes';
import { findPages } from './pages';

describe('pages found by a word', () => {
  it.each([
    ['fahr', []],
    ['deliv', ['/stores/delivery']],
    ['units', ['/studio']],
    ['strip tri', ['/recipes/strips']],
    ['s', []],
    ['import', ['/stores/files', '/recipes/take-in']],
  ])('“%s” finds %s', (words, paths) => expect(findPages(words).map((p) => p.path)).toEqual(paths));

  it('are pages that there are', () => {
    const known = new Set(routes.flatMap((r) => [r, ...(r.children ?? [])]).map((r) => `/${r.path ?? ''}`));
    const found = 'abcdefghijklmnopqrstuvwxyz'
      .split('')
      .flatMap((a) => [...'aeiouhlrtwn'].flatMap((b) => findPages(a + b, 99)))
      .map((p) => p.path);
    expect(found.length).toBeGreaterThan(25);
    expect(found.filter((path) => !known.has(path))).toEqual([]);
  });
});

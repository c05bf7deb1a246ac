import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ofServer } from './words.mjs';

type Messages = Record<string, string>;
const read = (locale: string): Messages =>
  (JSON.parse(readFileSync(`locale/${locale}.json`, 'utf8')) as { translations: Messages }).translations;
const english = read('en');
/** What is put into a text, and the marks around its parts. */
const holes = (text = ''): string[] => [...new Set(text.match(/\{\$[^}]+\}/g))].sort();

describe('every text of the program', () => {
  const others = readdirSync('locale')
    .map((name) => name.replace('.json', ''))
    .filter((name) => name !== 'en');

  it.each(others)('is there in “%s”, with all that is put into it', (locale) => {
    const said = read(locale);
    expect(Object.keys(said)).toEqual(Object.keys(english));
    for (const [id, text] of Object.entries(english)) expect([id, holes(said[id])]).toEqual([id, holes(text)]);
    expect(Object.values(said).filter((text) => text === '')).toEqual([]);
  });

  it('speaks to people in German as one does in a studio: du, nowhere Sie', () => {
    const formal = Object.values(read('de')).filter((text) => /\p{L}n Sie\b|\b(?:mit|von|zu|für) Ihnen\b/u.test(text));
    expect(formal).toEqual([]);
  });

  it('is gathered: what the server says stands in locale/en.json (npm run words)', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'words-'));
    try {
      const missing = Object.entries(await ofServer(folder)).filter(([id]) => english[id] === undefined);
      expect(missing).toEqual([]);
    } finally {
      rmSync(folder, { recursive: true });
    }
  }, 120_000);

  it('is never put in by a style, where nobody would find it', () => {
    const styled = readdirSync('web/src', { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.(?:scss|ts)$/.test(file) && !file.endsWith('.spec.ts'))
      .filter((file) => /\bcontent: ?['"][^'"]*\p{L}/u.test(readFileSync(join('web/src', file), 'utf8')));
    expect(styled).toEqual([]);
  });

  it('is found by each worker while developing, too: what core says is looked up there', () => {
    const workers = readdirSync('web/src/app', { recursive: true, encoding: 'utf8' }).filter((file) =>
      file.endsWith('.worker.ts'),
    );
    const without = workers.filter((file) => {
      const text = readFileSync(join('web/src/app', file), 'utf8');
      return (
        /^import \{[^}]*\} from '@vestigia\/core';$/m.test(text) && !text.startsWith("import '@angular/localize/init';")
      );
    });
    expect([workers.length > 0, without]).toEqual([true, []]);
  });
});

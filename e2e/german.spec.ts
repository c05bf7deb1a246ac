import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { everyPage } from './every-page';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';
import { cutWords, tooWide } from './too-wide';

const read = (file: string): Record<string, string> =>
  (JSON.parse(readFileSync(file, 'utf8')) as { translations: Record<string, string> }).translations;
const [english, german] = [read('locale/en.json'), read('locale/de.json')];
const plain = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** Sentences and words of the program that read otherwise in German, as patterns where something is put into them. */
const wholes = new Set<string>();
const patterns: RegExp[] = [];
for (const [id, text] of Object.entries(english)) {
  if (german[id] === text) continue;
  // What stands between the marks of parts is a text by itself on the page.
  for (const [i, part] of text.split(/\{\$(?:START|CLOSE)_[^}]+\}/).entries()) {
    if ((german[id] ?? '').split(/\{\$(?:START|CLOSE)_[^}]+\}/)[i] === part) continue;
    const words = plain(part);
    if (!/[a-z]{2}/i.test(words)) continue;
    if (!words.includes('{$')) wholes.add(words);
    else if (/[a-z]{3,} [a-z]{2,}/i.test(words.replace(/\{\$[^}]+\}/g, '')))
      patterns.push(new RegExp(`^${words.replace(/[.*+?^$()|[\]\\]/g, '\\$&').replace(/\{\\\$[^}]+\}/g, '.*')}$`));
  }
}

/** What stands as it was written down, by somebody who read English then. */
const AS_WRITTEN = [/: Near the step of the balance\. Dissolve /];
const saidInGerman = new Set(Object.values(german).map(plain));

/** Everything the studio itself wrote down: names, titles, notes, in whatever language. */
function writtenInto(value: unknown, into: Set<string>): void {
  if (typeof value === 'string') into.add(plain(value));
  else if (typeof value === 'object' && value !== null)
    for (const part of Object.values(value)) writtenInto(part, into);
}

/** What is counted has its word beside it. */
const COUNTED = /^\d+ (?:pieces?|lots?|jars?|hanks?|steps?|proofs?|cautions?|tags?|turns?|readings?|days?|weeks?)\b/;
/** Words out of records, each read in German: one of them, or several with commas between. */
const words = new Set(
  [...readFileSync('core/words/said.ts', 'utf8').matchAll(/\$localize`([^`]+)`/g)]
    .map(([, word]) => word ?? '')
    .filter((word) => !saidInGerman.has(word)),
);
const areWords = (text: string): boolean =>
  text
    .replace(/^[·(,\s]+|[·),.:\s]+$/g, '')
    .split(/, | · /)
    .every((part) => words.has(part));
const isEnglish = (text: string): boolean =>
  (wholes.has(text) || COUNTED.test(text) || patterns.some((p) => p.test(text))) &&
  !saidInGerman.has(text) &&
  !AS_WRITTEN.some((as) => as.test(text));

describe('a studio whose person reads German', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  let tellSizes: (times: number) => Promise<void>;
  beforeAll(async () => {
    ({ isaby } = demo);
    const browser = await isaby.page.createCDPSession();
    // As somebody sets it in the browser: the widths at which a page is laid out otherwise go by it too.
    tellSizes = (times) =>
      browser.send('Page.setFontSizes', { fontSizes: { standard: 16 * times, fixed: 13 * times } });
  });
  const cramped: string[] = [];
  /** German words are longer: what has no room for them, looked for on the one walk over all pages. */
  const findRoom = async (path: string): Promise<void> => {
    const { page } = isaby;
    const look = async (where: string): Promise<void> => {
      await isaby.drawn();
      cramped.push(...[...(await tooWide(page)), ...(await cutWords(page))].map((w) => `${path}, ${where}: ${w}`));
    };
    await look('1280 wide');
    await tellSizes(2);
    expect(await page.evaluate(() => getComputedStyle(document.documentElement).fontSize)).toBe('32px');
    await look('text at 200 %');
    await tellSizes(1);
    await page.setViewport({ width: 390, height: 800 });
    await look('390 wide');
    await page.setViewport({ width: 1280, height: 800 });
  };

  it('chooses it under Studio, and is answered in it at once', async () => {
    await isaby.settled('/studio');
    await isaby.choose('What you read this in', 'Deutsch');
    await isaby.sees(/^Heute$/m, 'nav');
    expect(await isaby.page.evaluate(() => document.documentElement.lang)).toBe('de');
  });

  it('plans a lot in German words and with a comma', async () => {
    await isaby.settled('/lots/new');
    await isaby.choose('Farbstellung', 'Marram');
    await isaby.write('Wie viele, wie schwer (trocken)', '3 Stränge zu 100 g');
    await isaby.sees('3 Stränge zu 100 g, 300 g trocken');
    await isaby.sees('Die Partie planen und ihren Bestand versprechen');
    await isaby.write('Wie viele, wie schwer (trocken)', 'viele');
    await isaby.sees('„viele“ ist kein Gewicht.');
  });

  it('finds no English of the program’s on any page', async () => {
    const own = new Set<string>();
    writtenInto(JSON.parse(readFileSync('demo/saltgrass-dyehouse.json', 'utf8')), own);
    const found = new Map<string, string>();
    for (const path of await everyPage(isaby)) {
      await isaby.moves(`/${path}`);
      await isaby.unfold();
      const said = await isaby.page.evaluate(() => {
        const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
        const all: string[] = [document.title];
        while (texts.nextNode())
          if (!texts.currentNode.parentElement?.closest('script, style, [lang=en]'))
            all.push(texts.currentNode.textContent ?? '');
        for (const e of document.querySelectorAll('[aria-label], [placeholder], [title]'))
          for (const name of ['aria-label', 'placeholder', 'title']) all.push(e.getAttribute(name) ?? '');
        return [...new Set(all)];
      });
      await findRoom(path);
      for (const text of said.map(plain))
        if (!found.has(text) && (areWords(text) || (!own.has(text) && isEnglish(text)))) found.set(text, path);
    }
    expect([...found].map(([text, path]) => `${path}: ${text.slice(0, 160)}`)).toEqual([]);
  });

  it('has room for German words, at twice the text size and on a telephone too', () => expect(cramped).toEqual([]));

  it('leaves the next one on that tablet to read English, and is answered in German when back at once', async () => {
    const comesIn = async (name: string, passphraseLabel: string, passphrase: string, press: string): Promise<void> => {
      await isaby.page.evaluate(() => fetch('/api/auth/session', { method: 'DELETE' }));
      await isaby.go('/');
      await isaby.press(name, 'label');
      await isaby.write(passphraseLabel, passphrase);
      await isaby.press(press);
    };
    await comesIn('Corin Ashlock', 'Kennwort', 'mud on the slipway', 'Herein');
    await isaby.sees(/^Today$/m, 'nav');
    await comesIn('Isaby Fennimore', 'Passphrase', 'heron at low tide', 'Come in');
    await isaby.sees(/^Heute$/m, 'nav');
  });

  it('has the page in German while the server is away, too', async () => {
    await isaby.page.waitForFunction(() => navigator.serviceWorker.ready.then(() => true));
    await isaby.settled('/today');
    await demo.server.stop('SIGKILL');
    await isaby.page.reload({ waitUntil: 'domcontentloaded' });
    await isaby.sees(/^Heute$/m, 'nav');
    expect(await isaby.page.evaluate(() => document.documentElement.lang)).toBe('de');
    // What the browser says of a server that is away.
    isaby.troubles.length = 0;
  });
});

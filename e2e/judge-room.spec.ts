import type { Colourway, ColourwayDetail, FastnessTest, LotSummary, Swatch, Today } from '@vestigia/contract';
import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

/** What stands round the verdict: the book of snippets, a palette, cards in the window. */
describe('round the judging, on the demo studio', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  let lot: LotSummary;
  beforeAll(async () => {
    ({ isaby } = demo);
    lot = (await isaby.ask<LotSummary[]>('/api/lots')).find((l) => l.state === 'released' && l.result !== null)!;
  });

  it('a snippet of a lot gets page and place; it is found by words and by colour, and moved', async () => {
    const before = (await isaby.ask<Swatch[]>('/api/swatches')).length;
    await isaby.settled(`/lots/${lot.id}`);
    await isaby.press('Cut a snippet for the swatch book', 'summary');
    await isaby.write('Name on the page', 'Heron’s foot');
    await isaby.press('Cut a snippet', 'vs-cut-snippet button');
    await isaby.sees(/Fasten it on page \d+, place \d+/, 'vs-cut-snippet');
    const all = await isaby.ask<Swatch[]>('/api/swatches');
    const own = all.find((s) => s.name === 'Heron’s foot')!;
    expect([all.length, own.lot?.id, own.madeWith.dyestuffs.length > 0]).toEqual([before + 1, lot.id, true]);
    await isaby.settled('/judge/book');
    await isaby.write('Find by words', 'heron');
    await isaby.sees(`page ${own.page}, place ${own.slot}`, '.mounts');
    await isaby.press(`page ${own.page}, place ${own.slot}`, '.mounts button');
    await isaby.sees('Heron’s foot', 'ol.page');
    const nth = (await isaby.page.$$eval('ol.page li', (all) =>
      all.findIndex((li) => (li as HTMLElement).innerText.includes('Heron’s foot')),
    )) as number;
    await isaby.page.$$eval(
      'ol.page li',
      (all, i) => [...all[i]!.querySelectorAll('button')].find((b) => b.innerText === 'Nearest to it')?.click(),
      nth,
    );
    await isaby.sees(/ΔE00 0\.0 · /, '.mounts');
    await isaby.page.$$eval(
      'ol.page li',
      (all, i) => [...all[i]!.querySelectorAll('button')].find((b) => b.innerText === 'Change')?.click(),
      nth,
    );
    await isaby.write('Page', '9', 'ol.page');
    await isaby.write('Place', '4', 'ol.page');
    await isaby.press('Keep the swatch');
    await isaby.sees('Page 9 of 9', 'h2');
    const moved = (await isaby.ask<Swatch[]>('/api/swatches')).find((s) => s.id === own.id);
    expect([moved?.page, moved?.slot]).toEqual([9, 4]);
  });

  it('a palette is laid, put in order, and warns of two that would be taken for one', async () => {
    await isaby.settled('/judge/palette');
    await isaby.write('Find', 'colourway master');
    for (let i = 0; i < 4; i++) await isaby.press(/^Lay /, '.offer button');
    await isaby.write('Find', `${lot.tag} `);
    await isaby.press(`Lay ${lot.tag}`, '.offer button');
    await isaby.choose('Laid', 'from pale to deep');
    expect(await isaby.page.$$eval('.lay figure', (all) => all.length)).toBe(5);
    await isaby.sees(/Too near each other|No two sit closer/);
    await isaby.settled('/judge/palette');
    expect(await isaby.page.$$eval('.lay figure', (all) => all.length)).toBe(5);
  });

  it('a colour that somebody brought is found on a printed ladder, named, and says how it was read', async () => {
    await isaby.settled('/colourways/new');
    await isaby.write('Name', 'The rug she brought');
    const marram = (await isaby.ask<Colourway[]>('/api/colourways')).find((c) => c.name === 'Marram')!;
    await isaby.choose('Recipe version', `${marram.recipe.name}, version ${marram.recipe.number}`);
    await isaby.choose('Base', marram.base.name);
    await isaby.press('By eye, on a ladder', 'summary');
    await isaby.press('On a printed ladder instead', 'label');
    for (const strip of ['As light as', 'Leaning as', 'As clear as'])
      await isaby.press('7', `[aria-label="${strip}"] button`);
    await isaby.press('Take this as the reading');
    await isaby.press('Keep the colourway');
    await isaby.sees('The rug she brought', 'h1');
    const [own] = (await isaby.ask<Colourway[]>('/api/colourways')).filter((c) => c.name === 'The rug she brought');
    const { masters } = await isaby.ask<ColourwayDetail>(`/api/colourways/${own?.id}`);
    expect(masters).toMatchObject([{ reason: 'as it was named', taken: { way: 'ladder', within80: 8 } }]);
    expect(masters[0]?.lab.L).toBeCloseTo(Math.min(98, (own?.base.undyed.L ?? 0) + 8), 1);
  });

  it('a card is hung, read and graded; what it shows comes back to the goods', async () => {
    const due = (await isaby.ask<Today>('/api/today')).fastnessDue.map((d) => d.name);
    expect(due.length).toBeGreaterThan(0);
    await isaby.settled('/');
    await isaby.sees(due[0] ?? '', 'table');
    await isaby.settled('/judge/fastness');
    await isaby.press('Begin a test', 'summary');
    await isaby.choose('What is tried', 'washing');
    await isaby.write('Name on the card', 'Heron, first wash');
    await isaby.choose('Of lot', `${lot.tag} ·`);
    await isaby.press('Begin the wash test');
    await isaby.sees('Heron, first wash', 'article h2');
    const article = 'article:has(details)';
    const index = (await isaby.page.$$eval(article, (all) =>
      all.findIndex((a) => (a as HTMLElement).innerText.includes('Heron, first wash')),
    )) as number;
    const own = `${article}:nth-of-type(${index + 1})`;
    await isaby.press('Read or grade it', `${own} summary`);
    await isaby.choose('What is looked at', 'the white wool', own);
    await isaby.choose('Grade by the grey scale', '2', own);
    await isaby.press('Keep the reading', `${own} button`);
    await isaby.sees('white wool, stained', own);
    const test = (await isaby.ask<FastnessTest[]>('/api/fastness')).find((t) => t.name === 'Heron, first wash');
    expect([test?.staining, test?.readings.map((r) => [r.cloth, r.byEye])]).toEqual([2, [['wool', true]]]);
    await isaby.settled(`/lots/${lot.id}`);
    await isaby.sees('Wash it alone: it stains white cloth.', 'vs-fastness-known');
    expect(isaby.troubles).toEqual([]);
  });
});

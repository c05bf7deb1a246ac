import type { DeedPage } from '@vestigia/contract';
import type { Browser } from 'puppeteer-core';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serveDemo } from '../scripts/serve.mjs';
import { Someone } from './person';

describe('who may do what, in two browsers at once', () => {
  let server: Served & { remove(): void };
  let browser: Browser;
  let isaby: Someone;
  let bryn: Someone;
  beforeAll(async () => {
    [server, browser] = await Promise.all([serveDemo(), launch()]);
    isaby = await Someone.at(browser, server.base);
    bryn = await Someone.at(browser, server.base);
    await isaby.signIn('Isaby Fennimore', 'heron at low tide');
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
    server.remove();
    expect([isaby.troubles, bryn.troubles]).toEqual([[], []]);
  });

  it('a helper records, and is offered nothing that would be refused', async () => {
    await isaby.press('Studio');
    await isaby.write('Name', 'Bryn Holm', 'vs-people');
    await isaby.write('Passphrase', 'reeds in the wind', 'vs-people');
    await isaby.page.select('select[name=prole]', 'helper');
    await isaby.press('Add this person');
    await isaby.sees('Bryn Holm', 'vs-people table');
    await bryn.signIn('Bryn Holm', 'reeds in the wind');
    await bryn.press('Recipes');
    await bryn.sees('Weld on alum', 'main');
    expect(await bryn.text()).not.toContain('Write a recipe');
    await bryn.press('Stores');
    await bryn.sees('Book in', 'main');
  });

  it('what somebody may do is changed in the one and holds in the other', async () => {
    await isaby.page.select('select[aria-label="What Bryn Holm may do"]', 'dyer');
    await isaby.sees('Bryn Holm', 'vs-people table');
    // The other page is opened once it is kept: it may ask sooner than the choice is sent.
    await isaby.page.waitForFunction(async () => {
      const { people } = (await (await fetch('/api/studio')).json()) as { people: { name: string; role: string }[] };
      return people.some((p) => p.name === 'Bryn Holm' && p.role === 'dyer');
    });
    await bryn.go('/recipes');
    await bryn.sees('Write a recipe', 'main');
  });

  it('where somebody is in is ended in the one, and the other asks to come in again', async () => {
    await isaby.go('/studio');
    await isaby.press(/^End it there/);
    await isaby.page.waitForFunction(() => !document.querySelector('vs-sessions')?.textContent?.includes('Bryn Holm'));
    // The page that is open there learns it by itself: the line it held has ended.
    await bryn.sees('your session has ended', 'vs-come-in-again');
    await bryn.write('Your passphrase', 'reeds in the wind', 'vs-come-in-again');
    await bryn.press('Come in again', 'vs-come-in-again button');
    await bryn.page.waitForFunction(() => !document.querySelector('vs-come-in-again .lost'));
    await bryn.press('Stores');
    await bryn.sees('Book in', 'main');
  });

  it('and all of it is told, the newest first', async () => {
    await bryn.send('/api/waters', { id: v7(), name: 'Dune well', ph: 7, hardnessDh: 3, note: '' });
    await isaby.go('/studio');
    await isaby.press('Who did what');
    await isaby.sees('Bryn Holm added the water Dune well', 'main');
    await isaby.sees('Isaby Fennimore ended where Bryn Holm was in', 'main');
    await isaby.sees(/Isaby Fennimore changed the person Bryn Holm\s+role: helper → dyer/, 'main');
    const { deeds } = await isaby.ask<DeedPage>('/api/deeds?thing=water');
    expect(deeds[0]).toMatchObject({ by: { name: 'Bryn Holm' }, kind: 'added', name: 'Dune well' });
  });
});

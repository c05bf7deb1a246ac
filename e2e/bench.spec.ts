import type { LotDetail, LotSummary, Proposal, ShelfRow } from '@vestigia/contract';
import type { Browser } from 'puppeteer-core';
import { v7 } from 'uuid';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serve, serveDemo } from '../scripts/serve.mjs';
import { Someone } from './person';

describe('a dye day at the bench, on the demo studio', () => {
  let server: Served & { remove(): void; dataDir: string };
  let browser: Browser;
  let corin: Someone;
  beforeAll(async () => {
    [server, browser] = await Promise.all([serveDemo(), launch()]);
    corin = await Someone.at(browser, server.base);
    await corin.signIn('Corin Ashlock', 'mud on the slipway');
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
    server.remove();
  });

  const post = <T>(who: Someone, path: string, body: object): Promise<T> =>
    who.page.evaluate(
      async (p, b) =>
        (await (
          await fetch(p, { method: 'POST', headers: { 'content-type': 'application/json' }, body: b })
        ).json()) as unknown,
      path,
      JSON.stringify(body),
    ) as Promise<T>;
  const lotNow = (id: string): Promise<LotDetail> => corin.ask(`/api/lots/${id}`);
  /** A lot of two hanks of the colourway, agreed to by its proposal. */
  const made: string[] = [];
  async function newLot(quantityText = '2 hanks of 100 g'): Promise<string> {
    const colourwayId = (await corin.ask<LotSummary[]>('/api/lots')).find((l) => l.colourway.name === 'Marram')
      ?.colourway.id;
    const ask = { colourwayId, quantityText, waterId: null, reorderOfId: null };
    const proposal = await post<Proposal>(corin, '/api/lots/proposal', ask);
    const id = v7();
    await post(corin, '/api/lots', {
      id,
      ask,
      digest: proposal.digest,
      acceptShortages: true,
      note: '',
      acknowledged: proposal.checks.map((c) => ({ key: c.key, reason: 'looked at' })),
    });
    made.push(id);
    return id;
  }
  // What one test leaves in a pot, or a line it left cut, would stand in the next one’s way.
  afterEach(async () => {
    await corin.page.setOfflineMode(false);
    await post(corin, '/api/bench/run-entries', {
      drafts: made.splice(0).map((id) => draft(id, 0, 'cancel', { text: 'only a test' })),
    });
  });
  const draft = (lotId: string, stepIndex: number, kind: string, rest: object = {}, ageMs = 0): object => ({
    lotId,
    ageMs,
    entry: { id: v7(), stepIndex, kind, replacesId: null, temperatureC: null, text: null, weighing: null, ...rest },
  });
  const main = '.one button.bench';

  it('goes on without the server, through a reload, and hands everything over once when it is back', async () => {
    const lotId = await newLot();
    await corin.settled(`/bench/${lotId}`);
    await corin.sees('Begin', main);
    await corin.page.waitForFunction(
      () => navigator.serviceWorker.controller !== null || navigator.serviceWorker.ready.then(() => true),
    );
    await corin.settled(`/bench/${lotId}`);
    const port = new URL(server.base).port;
    await server.stop('SIGKILL');
    await corin.press('Begin', main);
    await corin.sees(/Rug wool/, '.one h1');
    await corin.press('Note');
    await corin.press('Patchy');
    await corin.sees('Patchy', 'vs-run-entry-log');
    await corin.sees(/2 touches wait in this tablet/);
    await corin.page.reload({ waitUntil: 'domcontentloaded' });
    await corin.sees(/Rug wool/, '.one h1');
    await corin.sees('Patchy', 'vs-run-entry-log');
    // A place nobody has been to on this tablet opens as well: its program was kept with the rest.
    await corin.go('/scan');
    await corin.sees('Scan a tag', 'h1');
    Object.assign(server, await serve(server.dataDir, { PORT: port }));
    await corin.handedOver();
    const { entries } = await lotNow(lotId);
    expect(entries.map((e) => [e.kind, e.text])).toEqual([
      ['start', null],
      ['note', 'Patchy'],
    ]);
    expect(Date.parse(entries[1]?.at ?? '') - Date.parse(entries[0]?.at ?? '')).toBeGreaterThan(0);
    expect(Date.parse(entries[0]?.recordedAt ?? '') - Date.parse(entries[0]?.at ?? '')).toBeGreaterThan(1000);
  });

  it('weighs with the simulated balance: the wrong jar refused, a reading taken when it stands still, too much told with a way to match', async () => {
    const lotId = await newLot();
    const lot = await lotNow(lotId);
    const mordant = lot.plan.steps.findIndex((s) => s.kind === 'mordant');
    const alum = lot.plan.steps[mordant]?.weighings[0];
    await post(corin, '/api/bench/run-entries', {
      drafts: [
        ...lot.plan.steps.slice(0, mordant).map((s) => draft(lotId, s.index, 'skip', { text: 'done before' })),
        draft(lotId, mordant, 'start'),
      ],
    });
    await corin.settled('/bench/instruments');
    await corin.page.evaluate(() =>
      document.querySelector<HTMLInputElement>('input[name=balance][value=simulated]')?.click(),
    );
    await corin.sees(/0\.0 g/, '.reading');
    await corin.settled(`/bench/${lotId}`);
    await corin.sees(alum?.materialName ?? '', '.one h1');
    const wrong = (await corin.ask<ShelfRow[]>('/api/stores')).find((r) => r.material.includes('Weld') && r.onHand > 0);
    await corin.write('Scan or type its tag', wrong?.tag ?? '');
    await corin.page.keyboard.press('Enter');
    const right = lot.stockLots.find((j) => j.id === alum?.picks[0]?.stockLotId);
    await corin.sees(
      new RegExp(`Wrong jar: ${wrong?.tag} does not hold ${alum?.materialName}.*take ${right?.tag}`),
      '.one',
    );
    await corin.press('Hands on the simulated instruments', 'summary');
    await corin.press('too much');
    // Of what lies on the pan: an empty one is steady too.
    await corin.sees(/[1-9][\d.]* g\s+Steady\./, '.live');
    await corin.press(/^Take/, main);
    await corin.sees(/more .* than|12 % more/, '.offered');
    await corin.handedOver();
    const [entry] = (await lotNow(lotId)).entries.filter((e) => e.kind === 'weigh');
    expect(entry?.detail).toMatchObject({ readBy: 'simulated' });
    expect((entry?.weighing?.amount ?? 0) / ((alum?.target.value ?? 1) * 1000)).toBeCloseTo(1.12, 1);
    const offers = await corin.page.$$eval('.offered .act', (all) => all.map((e) => (e as HTMLElement).innerText));
    if (offers.length > 0) {
      await corin.press(/^Rescale|^Weigh the other/, '.offered button');
      await corin.page.waitForFunction(() => !document.querySelector('.offered'));
      await corin.page.waitForFunction(
        async (path) =>
          ((await (await fetch(path)).json()) as { entries: { kind: string }[] }).entries.some(
            (e) => e.kind === 'rescale',
          ),
        {},
        `/api/lots/${lotId}`,
      );
    }
    await corin.page.evaluate(() => localStorage.removeItem('vestigia-balance'));
  });

  it('lets two people work one lot from two screens, and hands it over at once', async () => {
    const isaby = await Someone.at(browser, server.base);
    await isaby.signIn('Isaby Fennimore', 'heron at low tide');
    const lotId = await newLot();
    const lot = await lotNow(lotId);
    const scour = lot.plan.steps.findIndex((s) => s.weighings.length === 0 || s.kind === 'scour');
    await post(corin, '/api/bench/run-entries', {
      drafts: lot.plan.steps.slice(0, scour).map((s) => draft(lotId, s.index, 'skip', { text: 'done before' })),
    });
    await Promise.all([corin.settled(`/bench/${lotId}`), isaby.settled(`/bench/${lotId}`)]);
    await corin.press('Begin', main);
    await isaby.sees('begun', 'vs-run-entry-log');
    await isaby.press('More …');
    await isaby.press('Corin Ashlock', 'vs-more-actions-panel button');
    await corin.sees('handed over to Corin Ashlock', 'vs-run-entry-log');
    await corin.press('Went otherwise');
    await corin.press(/^It boiled/, 'vs-step-facts-panel button');
    await isaby.sees('otherwise than planned: It boiled', 'vs-run-entry-log');
    expect((await lotNow(lotId)).deviations.map((d) => d.message).join()).toMatch(/It boiled/);
    await isaby.page.close();
  });

  it('calls over the whole screen when a hot pot is forgotten, from any page, until somebody goes', async () => {
    await corin.settled('/stores');
    const inWork = (await corin.ask<{ inWork: LotSummary[] }>('/api/today')).inWork;
    const old = await Promise.all(inWork.map((l) => lotNow(l.id)));
    // Its time is to be up: it has to have begun that long ago, and after its lot was agreed to, whatever the hour is
    // now.
    const OVER_MIN = 20;
    const forgettable = (l: LotDetail) =>
      l.plan.steps.find(
        (s) =>
          (s.temperatureC ?? 0) >= 60 &&
          l.summary.stations[s.index]?.state === 'waiting' &&
          Date.parse(l.summary.at) < Date.now() - (s.durationMin + OVER_MIN) * 60_000,
      );
    const host = old.find(forgettable);
    const hot = host && forgettable(host);
    if (!host || !hot) throw new Error('the demo has no lot in work with heat to come');
    const { results } = await post<{ results: { ok: boolean; message: string }[] }>(corin, '/api/bench/run-entries', {
      drafts: [
        draft(
          host.summary.id,
          hot.index,
          'start',
          { text: 'all at once', detail: { outOfOrder: true } },
          (hot.durationMin + OVER_MIN) * 60_000,
        ),
      ],
    });
    expect(results).toEqual([expect.objectContaining({ ok: true })]);
    await corin.sees('Go to the pot', '.call');
    await corin.sees(new RegExp(`${hot.title}.*time was up`), '.call');
    expect(await corin.page.title()).toMatch(/Go to the pot/);
    await corin.page.keyboard.press('Space');
    await corin.page.waitForFunction(
      (path) => location.pathname === path && !document.querySelector('.call'),
      {},
      `/bench/${host.summary.id}`,
    );
    await post(corin, '/api/bench/run-entries', {
      drafts: [draft(host.summary.id, hot.index, 'finish', { text: 'off the heat' })],
    });
  });

  it('tells the wrong pot and a tag of another lot, and writes down where a step was really begun', async () => {
    const [lotId, other] = [await newLot(), await newLot()];
    const lot = await lotNow(lotId);
    const mordant = lot.plan.steps.findIndex((s) => s.kind === 'mordant');
    await post(corin, '/api/bench/run-entries', {
      drafts: lot.plan.steps.slice(0, mordant).map((s) => draft(lotId, s.index, 'skip', { text: 'done before' })),
    });
    const vessels = (await corin.ask<{ vessels: { id: string; name: string }[] }>('/api/studio')).vessels;
    const planned = lot.plan.steps[mordant]?.baths[0];
    const another = vessels.find((v) => v.id !== planned?.vesselId);
    const tags = await post<{ code: string }[]>(corin, '/api/tags', {
      id: v7(),
      tags: [
        { kind: 'bath', lotId: other, stepIndex: mordant },
        { kind: 'vessel', vesselId: planned?.vesselId },
        { kind: 'vessel', vesselId: another?.id },
      ],
    });
    await corin.settled(`/bench/${lotId}`);
    const scan = async (code = ''): Promise<void> => {
      await corin.write('Scan or type the pot’s tag', code);
      await corin.page.keyboard.press('Enter');
    };
    await scan(tags[0]?.code);
    await corin.sees(/another lot’s\. Leave it/, 'vs-start-conditions');
    await scan('V-0000-9');
    await corin.sees(/wrong or two are swapped|never given out/, 'vs-start-conditions');
    await scan(tags[1]?.code);
    await corin.sees(`${planned?.vesselName}: the right pot`, 'vs-start-conditions');
    await scan(tags[2]?.code);
    await corin.sees(`Wrong pot: ${planned?.vesselName} was planned`, 'vs-start-conditions');
    await corin.press('Begin', main);
    await corin.sees(`begun in ${another?.name}`, 'vs-run-entry-log');
    await corin.handedOver();
    expect((await lotNow(lotId)).deviations.map((d) => d.message).join()).toMatch(
      new RegExp(`in ${another?.name} instead of ${planned?.vesselName}`),
    );
  });

  it('holds nothing up for one touch the server can’t take, and keeps that one with its words until it is read', async () => {
    const lotId = await newLot();
    await corin.settled(`/bench/${lotId}`);
    await corin.page.setOfflineMode(true);
    await corin.press('Begin', main);
    await corin.press('Note');
    await corin.write('What you saw', 'pH < 7 by the strip');
    await corin.press('Keep the note', 'vs-step-facts-panel button');
    await corin.sees('pH < 7 by the strip', 'vs-run-entry-log');
    await corin.press('Note');
    await corin.press('Patchy', 'vs-step-facts-panel button');
    await corin.page.setOfflineMode(false);
    await corin.handedOver();
    await corin.sees(
      /Not recorded: “Lot \d+, Weigh the fibre dry: pH < 7 by the strip”\. The note can’t hold the signs/,
      '.lost',
    );
    expect((await lotNow(lotId)).entries.map((e) => [e.kind, e.text])).toEqual([
      ['start', null],
      ['note', 'Patchy'],
    ]);
    await corin.press('Throw it away', '.lost button');
    await corin.page.waitForFunction(() => !document.querySelector('.lost'));
  });

  it('samples, pulls pieces one by one, sums the bath and offers what is left to Stores', async () => {
    const lotId = await newLot('6 hanks of 100 g');
    const lot = await lotNow(lotId);
    const dye = lot.plan.steps.findIndex((s) => s.kind === 'dye');
    await post(corin, '/api/bench/run-entries', {
      drafts: [
        ...lot.plan.steps.slice(0, dye).map((s) => draft(lotId, s.index, 'skip', { text: 'done before' })),
        draft(lotId, dye, 'start'),
      ],
    });
    await corin.settled(`/bench/${lotId}`);
    await corin.press('Sample');
    await corin.sees(/three at different times/, 'vs-sample-panel');
    await corin.press(/^50 %/, 'vs-sample-panel button');
    await corin.sees('piece at 50 % of the depth wanted', 'vs-run-entry-log');
    await corin.press('Pull pieces one by one, for graded shades', 'summary');
    await corin.write('Pieces', '3');
    await corin.write('The last one at, minutes', '30');
    await corin.sees(/Evenly spaced in depth: at \d+, \d+, 30 min/, 'vs-sample-panel');
    await corin.press('Call them one by one');
    await corin.sees(/Next pull in/, '.one h1');
    await corin.press('Piece 1 is out', main);
    await corin.sees(/piece 2 of 3/, '.one .place');
    await corin.press('Bath');
    await corin.write('How much', '500 ml');
    await corin.press('Keep what was done', 'vs-bath-panel button');
    await corin.sees(/water or solution added: 500 ml/, 'vs-run-entry-log');
    await corin.write('How much', 'a bit');
    await corin.press('Keep what was done', 'vs-bath-panel button');
    await corin.sees(/[.]$/, 'vs-bath-panel .off');
    await corin.handedOver();
    const kept = await lotNow(lotId);
    expect(kept.entries.slice(dye + 1).map((e) => e.kind)).toEqual(['sample', 'pulls', 'pull', 'bath']);
    expect(kept.entries.find((e) => e.kind === 'pulls')?.detail?.pullMinutes).toHaveLength(3);
    await corin.press('Keep what is left');
    await corin.sees('Store a bath or liquor', 'h1');
    const volume = await corin.page.$eval('input[name=volume]', (e) => (e as HTMLInputElement).value);
    // What was filled and added, less what six wet hanks carry off.
    expect(Number(volume.replace(' l', '')) * 1000).toBeCloseTo(
      (lot.plan.steps[dye]?.baths[0]?.liquor.value ?? 0) + 500 - 900,
      -2,
    );
    await corin.press('Keep the liquor');
    await corin.sees(/Marram bath/, 'main');
  });

  it('is worked by the keyboard alone: Space does the one thing, a pedal can', async () => {
    const lotId = await newLot();
    const lot = await lotNow(lotId);
    const soak = lot.plan.steps.findIndex((s, i) => i > 0 && s.weighings.length === 0);
    await post(corin, '/api/bench/run-entries', {
      drafts: lot.plan.steps.slice(0, soak).map((s) => draft(lotId, s.index, 'skip', { text: 'done before' })),
    });
    await corin.settled(`/bench/${lotId}`);
    await corin.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await corin.page.keyboard.press('Space');
    await corin.sees('begun', 'vs-run-entry-log');
    await corin.page.keyboard.press('Enter');
    await corin.sees('are still to go. Is it done all the same?');
    await corin.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await corin.page.keyboard.press('Enter');
    await corin.sees('finished', 'vs-run-entry-log');
    await corin.handedOver();
    expect((await lotNow(lotId)).entries.filter((e) => e.stepIndex === soak).map((e) => e.kind)).toEqual([
      'start',
      'finish',
    ]);
  });

  it('puts a caution away for the day, keeps those that burn or poison, and lets a step be paused and done over', async () => {
    const lotId = await newLot();
    const lot = await lotNow(lotId);
    const mordant = lot.plan.steps.findIndex((s) => s.kind === 'mordant');
    await post(corin, '/api/bench/run-entries', {
      drafts: lot.plan.steps.slice(0, mordant).map((s) => draft(lotId, s.index, 'skip', { text: 'done before' })),
    });
    await corin.settled(`/bench/${lotId}`);
    await corin.sees(/Steam and hot liquor/, '.cautions');
    const before = await corin.page.$$eval('.cautions li', (all) => all.length);
    await corin.press('Put away for today', '.cautions button');
    await corin.page.waitForFunction((n) => document.querySelectorAll('.cautions li').length === n - 1, {}, before);
    await corin.settled(`/bench/${lotId}`);
    await corin.page.waitForFunction((n) => document.querySelectorAll('.cautions li').length === n - 1, {}, before);
    await corin.press('Begin', main);
    await corin.press('Pause');
    await corin.sees('Paused', '.one h1');
    await corin.press('Go on', main);
    await corin.press('More …');
    await corin.press(/^Do “.*” over, weighed out anew$/, 'vs-more-actions-panel button');
    await corin.sees('Say why it is done over', '.one');
    await corin.write('Why', 'spilt half of it');
    await corin.press(/^Do “.*” over, weighed out anew$/, 'vs-more-actions-panel button');
    await corin.sees(/done over/, '.one .place');
    await corin.handedOver();
    const kept = await lotNow(lotId);
    expect(kept.entries.slice(mordant).map((e) => e.kind)).toEqual(['start', 'pause', 'resume', 'redo']);
    expect(kept.deviations.map((d) => d.message)).toContain('done over: spilt half of it');
  });

  it('rehearses a lot that looks like nothing else and leaves no trace', async () => {
    const lotId = await newLot();
    const before = await lotNow(lotId);
    await corin.settled(`/lots/${lotId}`);
    await corin.press('Rehearse it', 'summary');
    await corin.press('Begin the rehearsal');
    await corin.sees(/rehearsal/i, '.rehearsing');
    await corin.press('Begin', main);
    await corin.sees(/Rug wool/, '.one h1');
    await corin.press('what is wanted');
    // Of what lies on the pan: an empty one is steady too.
    await corin.sees(/[1-9][\d.]* g\s+Steady\./, '.live');
    await corin.press(/^Take/, main);
    await corin.sees(/from .*, by a simulated instrument/, 'vs-run-entry-log');
    await corin.press('End it');
    await corin.sees('Begin at the bench');
    const after = await lotNow(lotId);
    expect([after.entries, after.madeFrom, after.summary.state]).toEqual([[], [], before.summary.state]);
    expect(after.stockLots).toEqual(before.stockLots);
  });

  it('keys a hand-written card in with its times, and finds a lot by the code on it', async () => {
    const lotId = await newLot();
    const lot = await lotNow(lotId);
    await corin.settled(`/bench/card/${lotId}`);
    const now = new Date();
    const clock = `${String(now.getHours()).padStart(2, '0')}:${String(now.getMinutes()).padStart(2, '0')}`;
    const fill = (label: string, value: string): Promise<void> =>
      corin.page.$eval(
        `[aria-label="${label}"]`,
        (e, v) => {
          (e as HTMLInputElement).value = v;
          e.dispatchEvent(new Event('input'));
        },
        value,
      );
    const [fibre] = lot.plan.steps;
    await fill(`Begun, ${fibre?.title}`, clock);
    await fill(`Finished, ${fibre?.title}`, clock);
    await fill(`Weighed, ${fibre?.weighings[0]?.materialName}`, '200 g');
    await fill(`Note, ${fibre?.title}`, 'hung in the loft');
    await corin.press('Keep what the card says');
    await corin.sees('4 lines keyed in.');
    const { entries } = await lotNow(lotId);
    expect(entries.map((e) => [e.kind, e.at.slice(11, 16), e.detail?.readBy])).toEqual(
      ['start', 'weigh', 'note', 'finish'].map((k) => [k, now.toISOString().slice(11, 16), 'card']),
    );
    const [tag] = await post<{ code: string }[]>(corin, '/api/tags', { id: v7(), tags: [{ kind: 'lot', lotId }] });
    await corin.page.keyboard.press('Escape');
    await corin.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await corin.page.keyboard.press('/');
    await corin.page.waitForSelector('#search-words');
    await corin.page.keyboard.type((tag?.code ?? '').toLowerCase().replaceAll('-', ''));
    await corin.sees(lot.summary.tag, '#search-hits');
    await corin.page.keyboard.press('Enter');
    await corin.page.waitForFunction((path) => location.pathname === path, {}, `/lots/${lotId}`);
  });
});

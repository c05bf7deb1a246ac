import type { Browser, ElementHandle, HTTPRequest, Page } from 'puppeteer-core';

/** For a machine four times slower than a quiet one. */
const PATIENCE_MS = Number(process.env['PATIENCE_MS'] ?? 60_000);
const QUIET_MS = 120;
/** A form asks this long after the last key, at most. */
const TYPED_MS = 400;
/** The lines on which the server tells of changes and instruments of readings: they stay open. */
const LISTENING = ['/api/events', '/api/instruments/live'];
/** A worker's program: where its page lets go of it while that loads, the request never ends. */
const WORKER = /^\/worker-/;
/** Kept by every page from its beginning: what it puts off until it is idle, and when it last drew something more. */
const WATCHES = `
  window.putOff = new Set();
  window.drewMs = 0;
  const { requestIdleCallback: ask, cancelIdleCallback: leave } = window;
  window.requestIdleCallback = (act, options) => {
    const id = ask.call(window, (time) => {
      window.putOff.delete(id);
      act(time);
    }, options);
    window.putOff.add(id);
    return id;
  };
  window.cancelIdleCallback = (id) => {
    window.putOff.delete(id);
    leave.call(window, id);
  };
  new MutationObserver((changes) => {
    if (changes.some((c) => c.addedNodes.length > 0)) window.drewMs = performance.now();
  }).observe(document, { childList: true, subtree: true });`;

/** Somebody at the interface: sees what is on the page, and types and presses as a person would. */
export class Someone {
  readonly troubles: string[] = [];
  /** Presses and fields written or chosen so far. */
  actions = 0;
  /**
   * What this page has asked for and not got yet. Kept here, because a request that a new page cuts off may end
   * without a word.
   */
  private readonly asked = new Set<HTTPRequest>();
  private lastEndedMs = 0;

  private constructor(
    readonly page: Page,
    readonly base: string,
  ) {
    page.on('pageerror', (error) => this.troubles.push(String(error)));
    page.on('console', (message) => {
      // A refusal is an answer, which the browser logs as a failed load.
      if (message.type() === 'error' && !/status of 4\d\d/.test(message.text())) this.troubles.push(message.text());
    });
    page.on('request', (request) => {
      const { pathname } = new URL(request.url());
      if (!LISTENING.includes(pathname) && !WORKER.test(pathname)) this.asked.add(request);
    });
    page.on('framenavigated', (frame) => {
      if (frame === page.mainFrame()) this.asked.clear();
    });
    page.on('requestfinished', (request) => this.ended(request));
    page.on('requestfailed', (request) => this.ended(request));
    page.setDefaultTimeout(PATIENCE_MS);
  }

  private ended(request: HTTPRequest): void {
    this.asked.delete(request);
    this.lastEndedMs = Date.now();
  }

  static async at(browser: Browser, base: string, { width = 1280, height = 800 } = {}): Promise<Someone> {
    const context = await browser.createBrowserContext();
    const page = await context.newPage();
    await page.setViewport({ width, height });
    await page.evaluateOnNewDocument(WATCHES);
    return new Someone(page, base);
  }

  async go(path: string): Promise<void> {
    await this.page.goto(this.base + path, { waitUntil: 'domcontentloaded' });
    await this.page.waitForSelector('h1');
  }

  /** Goes there, and waits until the page has all it asked for, has drawn it, and has been quiet a moment. */
  async settled(path: string): Promise<void> {
    await this.go(path);
    await this.settles(path);
  }

  /** Moves there inside the open page, as a link does, and waits as `settled` does. */
  async moves(path: string): Promise<void> {
    this.lastEndedMs = Date.now();
    await this.page.evaluate(async (to) => {
      history.pushState(null, '', to);
      dispatchEvent(new PopStateEvent('popstate', { state: null }));
      // The router hears of it a task later, and the page says that it is busy a frame after that.
      await new Promise((done) => {
        setTimeout(() => requestAnimationFrame(() => requestAnimationFrame(done)));
      });
    }, path);
    // Until the new page's program is here, it has asked for nothing yet, and the old one's heading still stands.
    await this.page.waitForSelector('main:not([aria-busy])');
    await this.settles(path);
    await this.page.waitForSelector('h1');
  }

  /** Waits until this page has all it asked for, and a moment longer: what was typed may be about to ask. */
  async answered(what: string): Promise<void> {
    await this.until(
      () => Promise.resolve(this.asked.size === 0 && Date.now() - this.lastEndedMs >= QUIET_MS),
      () => `${what} still waits for ${[...this.asked].map((r) => r.url()).join(', ')}`,
    );
  }

  /** Waits, besides, until what the page puts off until it is idle is there too, with all that this asks for. */
  async settles(what: string): Promise<void> {
    const isStill = async (): Promise<boolean> =>
      Boolean(
        await this.page.evaluate(`window.putOff.size === 0 && performance.now() - window.drewMs >= ${QUIET_MS}`),
      ) && this.asked.size === 0;
    await this.answered(what);
    await this.until(isStill, () => `${what} goes on drawing`);
  }

  /** Opens every fold, and waits until what lies in them is there. */
  async unfold(): Promise<void> {
    const opened = await this.page.evaluate(() => {
      const folds = document.querySelectorAll<HTMLDetailsElement>('main details:not([open])');
      for (const fold of folds) fold.open = true;
      return folds.length;
    });
    if (opened === 0) return;
    await this.drawn();
    await this.settles('what was folded away');
    // A fold may lie in what a fold has drawn.
    await this.unfold();
  }

  private async until(isSo: () => Promise<boolean>, otherwise: () => string): Promise<void> {
    const deadlineMs = Date.now() + PATIENCE_MS;
    while (!(await isSo())) {
      if (Date.now() > deadlineMs) throw new Error(otherwise());
      await this.page.evaluate(
        (ms) =>
          new Promise((done) => {
            setTimeout(done, ms);
          }),
        QUIET_MS / 4,
      );
    }
  }

  async signIn(name: string, passphrase: string): Promise<void> {
    await this.go('/');
    await this.press(name, 'label');
    await this.write('Passphrase', passphrase);
    await this.press('Come in');
    await this.page.waitForSelector('vs-shell');
  }

  /** Waits until the sheet (or what `within` names) shows the words. */
  async sees(label: string | RegExp, within = 'body'): Promise<void> {
    const [source, flags] =
      typeof label === 'string' ? [label.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), ''] : [label.source, label.flags];
    try {
      await this.page.waitForFunction(
        (s, f, w) => [...document.querySelectorAll(w)].some((e) => new RegExp(s, f).test((e as HTMLElement).innerText)),
        {},
        source,
        flags,
        within,
      );
    } catch {
      throw new Error(`expected to see ${String(label)}; ${within} shows:\n${await this.shown(within)}`);
    }
  }

  /** What stands there, the whole page too, and what is typed into its fields: for whoever has to find out why. */
  private async shown(within: string): Promise<string> {
    const typed = await this.page.evaluate(() =>
      [...document.querySelectorAll('input, textarea')]
        .map((e) => e as HTMLInputElement)
        .filter((e) => e.value !== '' && e.type !== 'checkbox' && e.type !== 'radio' && e.type !== 'password')
        .map((e) => `${e.name}: ${e.value}`)
        .join('; '),
    );
    const page = within === 'body' ? '' : `\nthe page:\n${(await this.text('body')).slice(0, 2500)}`;
    return `${(await this.text(within)).slice(0, 2500)}${page}\ntyped: ${typed}\n${this.troubles.slice(-5).join('\n')}`;
  }

  async text(within = 'main'): Promise<string> {
    return this.page.evaluate((w) => (document.querySelector(w) as HTMLElement | null)?.innerText ?? '', within);
  }

  /**
   * Presses the first thing with just these words, or that the pattern fits, once a finger could: it stands in sight,
   * or is brought there, and nothing lies over it.
   */
  async press(label: string | RegExp, selector = 'main button, main a, nav button, nav a'): Promise<void> {
    const pattern = typeof label === 'string' ? `^${label.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$` : label.source;
    const handle = (await this.page.waitForFunction(
      (w, s) => {
        const isHit = (e: Element): boolean => {
          const [box] = e.getClientRects();
          const hit = box && document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
          return Boolean(hit && (e.contains(hit) || hit.contains(e)));
        };
        return [...document.querySelectorAll(s)].find((e) => {
          if (!new RegExp(w).test((e as HTMLElement).innerText.trim().replace(/\s+/g, ' '))) return false;
          if ((e as HTMLButtonElement).disabled) return false;
          if (isHit(e)) return true;
          e.scrollIntoView({ block: 'center' });
          return isHit(e);
        });
      },
      {},
      pattern,
      selector,
    )) as ElementHandle<Element>;
    await handle.evaluate((e) => (e as HTMLElement).click());
    this.actions += 1;
  }

  /** Presses it with the mouse, once it holds still and nothing lies over it. */
  async point(selector: string): Promise<void> {
    await this.page.locator(selector).click();
    this.actions += 1;
  }

  /** Writes into the field with this label, in place of what is there. */
  async write(label: string, text: string, within = 'body'): Promise<void> {
    const field = await this.field(label, within);
    await field.evaluate((e) => {
      (e as HTMLInputElement).focus();
      (e as HTMLInputElement).select();
    });
    await this.page.keyboard.press('Backspace');
    await this.page.keyboard.type(text);
    this.actions += 1;
  }

  /** Two frames on: what has been answered is drawn. */
  async drawn(): Promise<void> {
    await this.page.evaluate(
      () =>
        new Promise((done) => {
          requestAnimationFrame(() => requestAnimationFrame(done));
        }),
    );
  }

  /** Whether a question with this button stands on the page, once what was pressed has been answered. */
  async asksWhether(label: string): Promise<boolean> {
    await this.drawn();
    return this.page.evaluate(
      (l) => [...document.querySelectorAll('main button')].some((b) => (b as HTMLElement).innerText.trim() === l),
      label,
    );
  }

  /** Waits until the server has every entry made on this screen. */
  async handedOver(): Promise<void> {
    await this.page.waitForSelector('vs-shell[data-waiting="0"]');
  }

  /** Looks at what stands before a lot may start: protection at hand, and a reason for going on past each caution. */
  async lookOver(reason = 'looked at, goes on'): Promise<void> {
    await this.page.waitForFunction(() => document.querySelector('vs-lot-checks'));
    // The last thing typed is proposed anew a moment later, with checks of its own.
    await this.page.evaluate(
      (ms) =>
        new Promise((done) => {
          setTimeout(done, ms);
        }),
      TYPED_MS,
    );
    await this.settles('the proposal');
    this.actions += await this.page.evaluate((why) => {
      let done = 0;
      for (const tick of document.querySelectorAll<HTMLInputElement>(
        'vs-lot-checks input[type=checkbox]:not(:checked)',
      )) {
        tick.click();
        done += 1;
      }
      for (const field of document.querySelectorAll<HTMLInputElement>('vs-lot-checks input:not([type=checkbox])')) {
        field.value = why;
        field.dispatchEvent(new Event('input'));
        done += 1;
      }
      return done;
    }, reason);
  }

  async choose(label: string, option: string, within = 'body'): Promise<void> {
    const field = await this.field(label, within);
    const offered = await this.page
      .waitForFunction(
        (select, label) => {
          const options = [...(select as HTMLSelectElement).options];
          return (options.find((o) => o.text.trim() === label) ?? options.find((o) => o.text.includes(label)))?.value;
        },
        {},
        field,
        option,
      )
      .catch(() => {
        throw new Error(`“${label}” offers no ${option}`);
      });
    const value = String(await offered.jsonValue());
    await field.select(value);
    this.actions += 1;
  }

  private async field(label: string, within: string): Promise<ElementHandle<Element>> {
    const found = await this.page.waitForFunction(
      (l, w) => {
        const field = [...document.querySelectorAll(`${w} mat-form-field`)].find(
          (f) => f.querySelector('mat-label')?.textContent?.trim() === l,
        );
        // A field folded away is unfolded first, as a person does.
        for (let fold = field?.closest('details'); fold; fold = fold.parentElement?.closest('details'))
          fold.open = true;
        return field?.querySelector('input, textarea, select');
      },
      {},
      label,
      within,
    );
    return found as ElementHandle<Element>;
  }

  /** Ticks or unticks the box with this label. */
  async tick(label: string | RegExp): Promise<void> {
    await this.press(label, 'main label.tick');
  }

  /** Sends something to the server as this page would: for what went before the part that is played. */
  send<T>(path: string, body: object, method: 'POST' | 'PUT' = 'POST'): Promise<T> {
    return this.page.evaluate(
      async (p, b, m) => {
        const reply = await fetch(p, { method: m, headers: { 'content-type': 'application/json' }, body: b });
        const said = (await reply.json()) as unknown;
        if (!reply.ok) throw new Error(`${p}: ${JSON.stringify(said)}`);
        return said;
      },
      path,
      JSON.stringify(body),
      method,
    ) as Promise<T>;
  }

  /** Asks the server what it holds, as this person. */
  ask<T>(path: string): Promise<T> {
    return this.page.evaluate(async (p) => (await (await fetch(p)).json()) as unknown, path) as Promise<T>;
  }
}

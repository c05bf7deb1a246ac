import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serveDemo } from '../scripts/serve.mjs';
import { Someone } from './person';

export interface DemoStudio {
  server: Served & { remove(): void };
  browser: Browser;
  /** An owner, who has come in. */
  isaby: Someone;
}

/** A demo studio and a browser of its own for each test of the suite it is called in; at the end nothing was amiss. */
export function inDemoStudio(): DemoStudio {
  const demo = {} as DemoStudio;
  beforeAll(async () => {
    [demo.server, demo.browser] = await Promise.all([serveDemo(), launch()]);
    demo.isaby = await Someone.at(demo.browser, demo.server.base);
    await demo.isaby.signIn('Isaby Fennimore', 'heron at low tide');
  });
  afterAll(async () => {
    await demo.browser.close();
    await demo.server.stop();
    demo.server.remove();
    expect(demo.isaby.troubles).toEqual([]);
  });
  return demo;
}

import type { Page } from 'puppeteer-core';

/** Comes in as the demo's first person. */
export async function signIn(page: Page, base: string, passphrase: string): Promise<void> {
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${base}/`);
  await page.waitForSelector('input[type=radio]');
  await page.click('input[type=radio]');
  await page.type('input[type=password]', passphrase);
  await page.click('button[type=submit]');
  await page.waitForSelector('vs-shell');
}

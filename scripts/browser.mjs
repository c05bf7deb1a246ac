// Debian's Chromium for journeys and pictures, with a profile of its own and nothing asked of the network.
import { existsSync } from 'node:fs';
import puppeteer from 'puppeteer-core';

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
export const chromiumPath = process.env.CHROMIUM ?? PLACES.find((path) => existsSync(path));

/** @param {readonly string[]} [more] further switches */
export function launch(more = []) {
  if (!chromiumPath)
    throw new Error(
      'Chromium is not on this machine. Install Debian’s package “chromium”, or set CHROMIUM to where it is.',
    );
  return puppeteer.launch({
    executablePath: chromiumPath,
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-lcd-text',
      '--force-color-profile=srgb',
      ...more,
    ],
  });
}

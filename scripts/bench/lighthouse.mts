// What Lighthouse makes of the views people open most, on the demo studio: `npm run bench -- --lighthouse`. Each is
// opened as on a desk, by somebody who is in; the door by nobody.
import type { Flags, Result } from 'lighthouse';
import lighthouse, { desktopConfig } from 'lighthouse';
import { Someone } from '../../e2e/person';
import { launch } from '../browser.mjs';
import { serveDemo } from '../serve.mjs';
import { report } from './report.mjs';

const AIM = 95;
const FLAGS: Flags = {
  // Whoever is in stays in.
  disableStorageReset: true,
  logLevel: 'silent',
};

async function look(someone: Someone, name: string, path: string): Promise<void> {
  // Lighthouse wants the page of the whole library, which is made by the part of it that we have.
  // eslint-disable-next-line no-restricted-syntax -- two packages’ types of one thing
  const page = someone.page as unknown as Parameters<typeof lighthouse>[3];
  const { lhr } = (await lighthouse(someone.base + path, FLAGS, desktopConfig, page)) ?? {};
  if (!lhr) throw new Error(`Lighthouse saw nothing of ${path}`);
  // A page that says why it can’t be shown is quick, and isn’t what was asked for.
  const refused = await someone.page.$eval('body', (body) => body.querySelector('.refusal')?.textContent?.trim());
  if (refused) throw new Error(`${path}: ${refused}`);
  const scores = Object.values(lhr.categories).map(
    (category) => `${category.title} ${Math.round((category.score ?? 0) * 100)}`,
  );
  report(name, `${AIM} each`, scores.join(', '));
  for (const line of whatCosts(lhr)) console.log(`  ${line}`);
}

/** What takes points where the aim is missed. */
function whatCosts(lhr: Result): string[] {
  return Object.values(lhr.categories)
    .filter((category) => (category.score ?? 0) * 100 < AIM)
    .flatMap((category) =>
      category.auditRefs
        .map(({ id, weight }) => ({ audit: lhr.audits[id], weight }))
        .filter(({ audit, weight }) => weight > 0 && audit?.score !== null && (audit?.score ?? 1) < 0.9)
        .map(({ audit }) => `${category.title}: ${audit?.title} ${audit?.displayValue ?? ''}`),
    );
}

const [server, browser] = await Promise.all([serveDemo(), launch()]);
try {
  const isaby = await Someone.at(browser, server.base);
  // What tsx adds to the functions that are run in the page.
  await isaby.page.evaluateOnNewDocument('window.__name = (f) => f');
  await isaby.signIn('Isaby Fennimore', 'heron at low tide');
  const [lot] = await isaby.ask<{ id: string }[]>('/api/lots');
  const [recipe] = await isaby.ask<{ versions: { id: string }[] }[]>('/api/recipes');
  for (const [name, path] of [
    ['Today', '/today'],
    ['Stores', '/stores'],
    ['Lots', '/lots'],
    ['a recipe', `/recipes/${recipe?.versions.at(-1)?.id}`],
    ['the bench', '/bench'],
    ['a lot', `/lots/${lot?.id}`],
  ] as const)
    await look(isaby, name, path);
  await look(await Someone.at(browser, server.base), 'the door', '/');
} finally {
  await browser.close();
  await server.stop();
  server.remove();
}

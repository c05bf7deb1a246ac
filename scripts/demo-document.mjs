// The demo studio's story ends on a day of its own. Moved by whole days, it ends on the last such hour before now.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const DAY_MS = 86_400_000;
const DATE = /"(\d{4}-\d{2}-\d{2})(T[\d:.]+Z)?"/g;

export function demoDocument(now = new Date()) {
  const text = readFileSync(join(root, 'demo', 'saltgrass-dyehouse.json'), 'utf8');
  const asOfMs = Date.parse(JSON.parse(text).asOf);
  const days = Math.floor((now.getTime() - asOfMs) / DAY_MS);
  const moved = (date, time = '') =>
    `"${new Date(Date.parse(`${date}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10)}${time}"`;
  return text.replace(DATE, (_all, date, time) => moved(date, time));
}

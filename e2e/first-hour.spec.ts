import { join } from 'node:path';
import type { LotDetail, LotSummary } from '@vestigia/contract';
import { expect, describe, it } from 'vitest';
import { launch } from '../scripts/browser.mjs';
import { serve, temporaryFolder } from '../scripts/serve.mjs';
import { Someone } from './person';

/** From an empty studio to fibre weighed for a first lot, in so many presses and fields. */
const AT_MOST = 40;

describe('the first hour', () => {
  it('leads from nothing to a lot that runs, in at most forty actions', async () => {
    const { folder, remove } = temporaryFolder('first-hour');
    const server = await serve(join(folder, 'data'));
    const browser = await launch();
    const ada = await Someone.at(browser, server.base);
    await ada.go('/');
    await ada.sees('A studio begins', 'h1');
    await ada.write('The studio’s name', 'Reedmace');
    await ada.write('Your name', 'Ada Reed');
    await ada.write('Your passphrase', 'ten green hanks');
    await ada.press('Open the studio');
    await ada.sees('Today', 'h1');
    await ada.press('Lots');
    await ada.press('Start a lot', '.empty a');
    await ada.press('Begin with a first lot, step by step');
    await ada.sees('A first lot', 'h1');
    await ada.sees('Say how many litres the pot holds.');
    await ada.write('Your pot holds, l', '12');
    await ada.write('How many, of what dry weight', '3 skeins of 100 g');
    await ada.choose('With which dyestuff', 'Onion skins');
    await ada.sees('Alum, hot, then the dye');
    await ada.press('Plan the lot');
    await ada.sees('A new lot', 'h1');
    await ada.sees('3 skeins of 100 g, 300 g dry');
    await ada.lookOver();
    await ada.press('Plan the lot and promise its stock');
    await ada.sees('Onion skins on wool');
    await ada.press('Begin at the bench');
    await ada.press('Begin');
    await ada.press('As asked: 300 g');
    await ada.handedOver();
    await ada.sees('Done');
    const [lot] = await ada.ask<LotSummary[]>('/api/lots');
    const { entries, madeFrom, plan } = await ada.ask<LotDetail>(`/api/lots/${lot?.id}`);
    expect(lot?.state).toBe('inWork');
    expect(entries.map((e) => e.kind)).toEqual(['start', 'weigh']);
    expect(madeFrom.map((m) => [m.material, m.amount])).toEqual([['Wool', 300_000]]);
    expect(plan.materials.every((m) => m.short === 0)).toBe(true);
    expect(ada.actions).toBeLessThanOrEqual(AT_MOST);
    expect(ada.troubles).toEqual([]);
    await browser.close();
    await server.stop();
    remove();
  });
});

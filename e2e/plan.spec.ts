import type { HouseTimesEdit, PlanFactsView } from '@vestigia/contract';
import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

describe('what is ahead', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  beforeAll(() => {
    ({ isaby } = demo);
  });
  const facts = (): Promise<PlanFactsView> => isaby.ask<PlanFactsView>('/api/plan');
  const isWorkedOut = (): Promise<unknown> =>
    isaby.page.waitForFunction(
      () => document.querySelector('.block') && !document.body.innerText.includes('Looking for a better plan'),
    );
  /** The steps that stand in the picture, as they are read out. */
  const blocks = (): Promise<string[]> =>
    isaby.page.evaluate(() => [...document.querySelectorAll('.block')].map((b) => b.getAttribute('aria-label') ?? ''));
  const movable = (): Promise<string> =>
    isaby.page.evaluate(() => {
      const block = [...document.querySelectorAll<HTMLElement>('.block:not(.fact)')].find((b) =>
        b.getAttribute('aria-label')?.startsWith('Lot 89'),
      );
      block?.focus();
      return block?.getAttribute('aria-label') ?? '';
    });

  it('is every step of the open lots, and nobody goes by it yet', async () => {
    await isaby.settled('/plan');
    await isWorkedOut();
    await isaby.sees('Nobody goes by a plan yet.');
    await isaby.sees(/All is done by/);
    const open = (await facts()).lots;
    for (const { tag } of open) expect((await blocks()).some((b) => b.startsWith(`${tag}, `))).toBe(true);
  });

  it('is gone by once it is accepted, and stands so when the page is read anew', async () => {
    const before = await blocks();
    await isaby.press('Go by this plan');
    await isaby.page.waitForFunction(async () => ((await (await fetch('/api/plan')).json()) as PlanFactsView).accepted);
    await isaby.settled('/plan');
    await isWorkedOut();
    const accepted = (await facts()).accepted;
    expect([accepted?.by, (accepted?.places.length ?? 0) > 5]).toEqual(['Isaby Fennimore', true]);
    // What was planned is where it was; what runs may have run on.
    const planned = before.filter((b) => b.includes('Wash once'));
    expect((await blocks()).filter((b) => b.includes('Wash once'))).toEqual(planned);
  });

  it('asks on Today for hands, one’s own first', async () => {
    await isaby.settled('/today');
    await isaby.sees('By the plan', 'h2');
    expect(await isaby.text()).toMatch(/By the plan\s[\s\S]*Isaby Fennimore/);
  });

  it('stands on the wall, with whose hands and when', async () => {
    await isaby.page.goto(`${demo.server.base}/wall`);
    await isaby.page.waitForSelector('.ahead li');
    const ahead = await isaby.page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('.ahead li')].map((li) => li.innerText),
    );
    expect(ahead[0]).toMatch(/\d{1,2}:\d{2}.* (Isaby|Wenna|Corin) .*, Lot 8\d$/);
  });

  it('lets a step be moved by keys, the hand staying on it, and shows what moves before anybody goes by it', async () => {
    await isaby.settled('/plan?days=2');
    await isWorkedOut();
    const was = (await facts()).accepted;
    const name = await movable();
    for (const _ of [1, 2]) {
      await isaby.page.keyboard.down('Alt');
      await isaby.page.keyboard.press('ArrowRight');
      await isaby.page.keyboard.up('Alt');
      await isWorkedOut();
    }
    await isaby.sees('What moves', 'h2');
    const focused = await isaby.page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
    const title = (label: string): string => label.split(', ').slice(0, 2).join(', ');
    expect(title(focused)).toBe(title(name));
    expect(focused).not.toBe(name);
    expect((await facts()).accepted).toEqual(was);
    await isaby.press('Back to the plan as it stands');
    await isWorkedOut();
    await isaby.page.waitForFunction(
      () => ![...document.querySelectorAll('h2')].some((h) => h.innerText === 'What moves'),
    );
  });

  it('holds a step to where it was moved, once that is said, and takes that back with the rest', async () => {
    await movable();
    await isaby.page.keyboard.press('Enter');
    await isaby.page.keyboard.down('Alt');
    await isaby.page.keyboard.press('ArrowRight');
    await isaby.page.keyboard.up('Alt');
    await isaby.sees('What moves', 'h2');
    await isWorkedOut();
    const there = (): Promise<string> => isaby.text('vs-step-place p');
    const moved = await there();
    await isaby.page.evaluate(() => document.querySelector<HTMLElement>('vs-step-place input[name=lock]')?.click());
    await isWorkedOut();
    expect(await there()).toBe(moved);
    await isaby.press('Close');
    const focused = await isaby.page.evaluate(() => document.activeElement?.classList.contains('block'));
    expect(focused).toBe(true);
    await isaby.press('Back to the plan as it stands');
    await isaby.page.waitForFunction(
      () => ![...document.querySelectorAll('h2')].some((h) => h.innerText === 'What moves'),
    );
  });

  it('tells a wish that can’t be had why, and where the step stands instead', async () => {
    await movable();
    await isaby.page.keyboard.press('Enter');
    await isaby.sees('Begins on');
    await isaby.write('At', '3:15', 'vs-step-place');
    await isaby.press('Try it then');
    await isaby.sees(/isn’t here then for/);
    await isWorkedOut();
    await isaby.press('Back to the plan as it stands');
  });

  it('keeps a promise, or says that it isn’t kept and what would make it', async () => {
    await isaby.settled('/plan');
    await isWorkedOut();
    await isaby.page.evaluate(() =>
      document.querySelector<HTMLElement>('[aria-label="Promise a day for Lot 89"]')?.click(),
    );
    await isaby.write('Promised for', 'tomorrow', 'vs-lot-promise');
    await isaby.press('Keep the day');
    await isaby.sees(/It is not kept: .* late\./);
    await isWorkedOut();
    expect((await facts()).lots.find((l) => l.tag === 'Lot 89')?.wantedOn).toBeTruthy();
    await isaby.press('What would make it?');
    await isaby.page.waitForFunction(() => document.querySelector('td ul[role=status] li'));
    expect(await isaby.text('td ul[role=status]')).toMatch(/longer|pot|hands|before|later day/);
  });

  it('goes by the hours people write, and takes days off out of a calendar file', async () => {
    await isaby.settled('/plan/times');
    await isaby.write('Open', 'Mon-Fri 9-17');
    await isaby.sees('Mon–Fri 9–17');
    await isaby.write('Open', 'Mon-Fri late');
    await isaby.sees('“Mon-Fri late” can’t be read as hours. Write them like: Mon–Fri 8–17, Sat 9–13.');
    await isaby.write('Open', 'Mon-Fri 9-17');
    await isaby.write('Pieces on the drying line', '12');
    await isaby.write('Long pan', 'tomorrow');
    await isaby.press('Keep hours and equipment');
    await isaby.sees('Kept.');
    const times = await isaby.ask<HouseTimesEdit>('/api/plan/times');
    expect(times.week.map((day) => day.length)).toEqual([1, 1, 1, 1, 1, 0, 0]);
    expect([times.room.dryingPieces, times.pots.length]).toEqual([12, 1]);
    await isaby.settled('/plan?by=vessel');
    await isWorkedOut();
    await isaby.sees('Drying line', 'vs-plan-picture');
  });
});

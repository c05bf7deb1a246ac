import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { beforeEach, describe, expect, it } from 'vitest';
import { Session } from '../../api/session';
import { PlanPicture } from './plan-picture';
import type { PlanBlock } from './plan-rows';

const HOUR = 3_600_000;
const DAY = Date.parse('2026-06-01T00:00:00.000Z');
const block = (key: string, from: number, to: number, over: Partial<PlanBlock> = {}): PlanBlock => ({
  key,
  stepId: key,
  lotTag: 'Lot 1',
  title: key,
  fromMs: DAY + from * HOUR,
  toMs: DAY + to * HOUR,
  hands: [{ fromMs: DAY + from * HOUR, toMs: DAY + (from + 1) * HOUR }],
  isFact: false,
  ...over,
});

describe('the plan as a picture', () => {
  let fixture: ComponentFixture<PlanPicture>;
  const moved: { stepId: string; toMs: number }[] = [];
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const blocks = (): HTMLElement[] => [...host().querySelectorAll<HTMLElement>('.block')];
  beforeEach(async () => {
    moved.length = 0;
    TestBed.configureTestingModule({
      providers: [provideRouter([]), { provide: Session, useValue: { zone: signal('UTC') } }],
    });
    fixture = TestBed.createComponent(PlanPicture);
    for (const [name, value] of Object.entries({
      rows: [
        {
          id: 'a',
          name: 'Lot 1',
          note: 'Marram',
          lotId: 'a',
          blocks: [
            block('Dye', 6, 18),
            block('Rinse', 12, 24),
            block('Begun', 0, 2, { isFact: true }),
            block('Far', 90, 99),
          ],
          held: [],
          thread: { lotTag: 'Lot 1', fromMs: DAY, toMs: DAY + 99 * HOUR },
          was: [
            { fromMs: DAY + 3 * HOUR, toMs: DAY + 6 * HOUR },
            { fromMs: DAY + 50 * HOUR, toMs: DAY + 60 * HOUR },
          ],
        },
      ],
      window: { fromMs: DAY, toMs: DAY + 24 * HOUR },
      nowMs: DAY + 6 * HOUR,
      open: [[DAY + 8 * HOUR, DAY + 18 * HOUR]],
      colours: new Map([['Lot 1', 'rgb(1, 2, 3)']]),
    }))
      fixture.componentRef.setInput(name, value);
    fixture.componentInstance.moved.subscribe((m) => moved.push(m));
    await fixture.whenStable();
  });

  it('runs the lot’s thread behind its steps, and shows where in sight one stood before', async () => {
    const thread = host().querySelector<HTMLElement>('.thread');
    expect([thread?.style.background, thread?.style.width]).toEqual(['rgb(1, 2, 3)', '100%']);
    const was = [...host().querySelectorAll<HTMLElement>('.was')];
    expect(was.map((w) => [w.style.left, w.style.width])).toEqual([['12.5%', '12.5%']]);
    expect(blocks().some((b) => b.classList.contains('kin'))).toBe(false);
    fixture.componentRef.setInput('selected', 'Dye');
    await fixture.whenStable();
    expect(blocks().every((b) => b.classList.contains('kin'))).toBe(true);
  });
  it('places what is in sight on the scale, one under another where they share a moment', () => {
    expect(
      blocks().map((b) => [b.querySelector('.said')?.textContent, b.style.left, b.style.width, b.style.top]),
    ).toEqual([
      ['Begun', '0%', expect.stringMatching(/^8\.33/), '0.2rem'],
      ['Dye', '25%', '50%', '0.2rem'],
      ['Rinse', '50%', '50%', '2.2rem'],
    ]);
    expect(host().querySelector<HTMLElement>('.now')?.style.left).toBe('25%');
    const closed = [...host().querySelectorAll<HTMLElement>('.closed')].map((c) => [c.style.left, c.style.width]);
    expect(closed).toEqual([
      ['0%', expect.stringMatching(/^33\.3/)],
      ['75%', '25%'],
    ]);
  });
  it('reads out what each is, from when to when', () =>
    expect(blocks()[1]?.getAttribute('aria-label')).toBe('Lot 1, Dye, Mon 1 Jun, 06:00 to Mon 1 Jun, 18:00'));
  it('is moved by Alt and the arrows by a quarter of an hour, but for what is begun', () => {
    const press = (at: number, key: string): boolean =>
      blocks()[at]?.dispatchEvent(new KeyboardEvent('keydown', { key, altKey: true, cancelable: true })) ?? true;
    expect([press(1, 'ArrowRight'), press(1, 'ArrowLeft'), press(0, 'ArrowRight')]).toEqual([false, false, true]);
    expect(moved).toEqual([
      { stepId: 'Dye', toMs: DAY + 6.25 * HOUR },
      { stepId: 'Dye', toMs: DAY + 5.75 * HOUR },
    ]);
  });
});

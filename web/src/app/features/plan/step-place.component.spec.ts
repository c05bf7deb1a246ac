import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { Session } from '../../api/session';
import { StepPlace } from './step-place';

const at = (clock: string): number => Date.parse(`2026-06-01T${clock}:00.000Z`);

describe('where a step is wanted', () => {
  let fixture: ComponentFixture<StepPlace>;
  const field = (name: string): HTMLInputElement =>
    (fixture.nativeElement as HTMLElement).querySelector(`[name="${name}"]`) as HTMLInputElement;
  const set = async (inputs: object): Promise<void> => {
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
  };
  const write = async (name: string, text: string): Promise<void> => {
    field(name).value = text;
    field(name).dispatchEvent(new Event('input', { bubbles: true }));
    await fixture.whenStable();
  };
  const wanted: number[] = [];
  beforeEach(async () => {
    wanted.length = 0;
    TestBed.configureTestingModule({
      providers: [{ provide: Session, useValue: { person: signal(null), zone: signal('UTC'), may: () => true } }],
    });
    fixture = TestBed.createComponent(StepPlace);
    fixture.componentInstance.wanted.subscribe((ms) => wanted.push(ms));
    await set({
      name: 'Lot 1, Dye',
      fromMs: at('08:00'),
      toMs: at('10:00'),
      people: [],
      things: [],
      isFact: false,
      isLocked: false,
      learntOf: null,
      reasons: [],
    });
  });

  it('follows each better plan, until somebody writes: that stays', async () => {
    await set({ fromMs: at('09:00') });
    expect(field('at').value).toBe('09:00');
    await write('at', '11:1');
    await set({ fromMs: at('09:30') });
    expect(field('at').value).toBe('11:1');
  });
  it('is told where it stands once that was asked for, and begins anew with another step', async () => {
    await write('at', '11:15');
    (fixture.nativeElement as HTMLElement).querySelector('form')?.dispatchEvent(new Event('submit'));
    await set({ fromMs: at('11:30') });
    expect([wanted, field('at').value]).toEqual([[at('11:15')], '11:30']);
    await write('at', '12:00');
    await set({ name: 'Lot 1, Rinse', fromMs: at('14:00') });
    expect(field('at').value).toBe('14:00');
    await set({ name: 'Lot 1, Dye', fromMs: at('11:30') });
    expect(field('at').value).toBe('11:30');
  });
});

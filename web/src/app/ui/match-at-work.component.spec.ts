import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Learning } from '@vestigia/core';
import { expect, it, vi } from 'vitest';
import { MatchAtWork } from './match-at-work';

it('says what is looked for, how far it has learnt where that takes a while, and stops by a press', async () => {
  const learning = signal<Learning | undefined>(undefined);
  const isStopped = signal(false);
  const [stop, askAgain] = [vi.fn(() => isStopped.set(true)), vi.fn(() => isStopped.set(false))];
  const fixture = TestBed.createComponent(MatchAtWork);
  fixture.componentRef.setInput('asked', { learning, isStopped, stop, askAgain });
  fixture.componentRef.setInput('what', 'Looking through what was dyed before …');
  const page = fixture.nativeElement as HTMLElement;
  const shown = async (): Promise<string> => {
    await fixture.whenStable();
    fixture.detectChanges();
    return page.textContent.replaceAll(/\s+/g, ' ').trim();
  };
  expect(await shown()).toBe('Looking through what was dyed before …');
  expect(page.querySelector('button')).toBeNull();
  learning.set({ readings: 2027, share: 0.414 });
  expect(await shown()).toContain('It learns from 2027 readings first.');
  const bar = page.querySelector('progress')!;
  expect([bar.value, bar.getAttribute('aria-label')]).toEqual([41, 'Learnt so far: 41 of a hundred']);
  page.querySelector('button')!.click();
  expect(await shown()).toBe('Stopped. Look again');
  page.querySelector('button')!.click();
  expect(askAgain).toHaveBeenCalledOnce();
});

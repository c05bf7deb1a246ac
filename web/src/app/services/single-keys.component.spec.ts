import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { SingleKeys } from './single-keys';

describe('keys that do something alone', () => {
  const field = document.createElement('input');
  const over = document.createElement('div');
  over.setAttribute('role', 'dialog');
  beforeEach(() => {
    localStorage.clear();
    over.remove();
    document.body.append(field);
  });
  const isPages = (from: EventTarget, more: KeyboardEventInit = {}): boolean => {
    let is = false;
    const hear = (e: Event): void => {
      is = TestBed.inject(SingleKeys).isPages(e as KeyboardEvent);
    };
    document.addEventListener('keydown', hear, { once: true });
    from.dispatchEvent(new KeyboardEvent('keydown', { key: '3', bubbles: true, ...more }));
    return is;
  };

  it('are the page’s, and nobody else’s', () => {
    expect(isPages(document.body)).toBe(true);
    expect(isPages(field)).toBe(false);
    expect(isPages(document.body, { ctrlKey: true })).toBe(false);
    document.body.append(over);
    expect(isPages(document.body)).toBe(false);
  });

  it('are switched off on this tablet, and stay so', () => {
    expect(TestBed.inject(SingleKeys).areOn()).toBe(true);
    TestBed.inject(SingleKeys).set(false);
    TestBed.resetTestingModule();
    expect(TestBed.inject(SingleKeys).areOn()).toBe(false);
    TestBed.inject(SingleKeys).set(true);
    TestBed.resetTestingModule();
    expect(TestBed.inject(SingleKeys).areOn()).toBe(true);
  });
});

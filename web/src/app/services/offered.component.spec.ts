import { signal } from '@angular/core';
import { describe, expect, it } from 'vitest';
import { offered } from './offered';

describe('what a field is offered', () => {
  it('stands until somebody writes, and comes back where the offer is another', () => {
    const news = signal({ tag: 'WELD-1', amount: 1 });
    const field = offered(() => news().tag);
    expect(field()).toBe('WELD-1');
    field.set('mine');
    news.set({ tag: 'WELD-1', amount: 2 });
    expect(field()).toBe('mine');
    news.set({ tag: 'WELD-2', amount: 2 });
    expect(field()).toBe('WELD-2');
  });
  it('knows by what two objects are the same', () => {
    const news = signal({ batch: 1 });
    const field = offered(
      () => ({ ...news() }),
      (x, y) => x.batch === y.batch,
    );
    field.set({ batch: 3 });
    news.set({ batch: 1 });
    expect(field()).toEqual({ batch: 3 });
    news.set({ batch: 2 });
    expect(field()).toEqual({ batch: 2 });
  });
});

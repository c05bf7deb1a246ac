import { TestBed } from '@angular/core/testing';
import { firstValueFrom, of, throwError } from 'rxjs';
import { describe, expect, it } from 'vitest';
import { FetchAhead } from './fetch-ahead';

describe('places fetched ahead', () => {
  it('fetches the places one after another, leaves the rest alone, and goes on where one can’t be fetched', async () => {
    const ahead = TestBed.inject(FetchAhead);
    const fetched: string[] = [];
    const asked = ['stores', 'stores/delivery', 'lots', 'lots/:id', 'bench'].map((path) =>
      ahead.preload({ path }, () => {
        fetched.push(path);
        return path === 'lots' ? throwError(() => new Error('the server is away')) : of(path);
      }),
    );
    expect(fetched).toEqual([]);
    await Promise.all(asked.map((o) => firstValueFrom(o)));
    expect(fetched).toEqual(['stores', 'lots', 'lots/:id', 'bench']);
  });
});

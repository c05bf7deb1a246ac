import { Location, LocationStrategy } from '@angular/common';
import { MockLocationStrategy } from '@angular/common/testing';
import { TestBed } from '@angular/core/testing';
import { ActivatedRoute, convertToParamMap } from '@angular/router';
import { describe, expect, it } from 'vitest';
import { AddressChoices, inAddress } from './in-address';

describe('a choice in the address', () => {
  const at = (address: string) => {
    const strategy = new MockLocationStrategy();
    strategy.internalPath = address;
    const query = Object.fromEntries(new URLSearchParams(address.split('?')[1] ?? ''));
    TestBed.configureTestingModule({
      providers: [
        { provide: LocationStrategy, useValue: strategy },
        { provide: ActivatedRoute, useValue: { snapshot: { queryParamMap: convertToParamMap(query) } } },
      ],
    });
    return TestBed.inject(Location);
  };
  const choice = (key: string, first?: string) => TestBed.runInInjectionContext(() => inAddress(key, first));

  it('is read from there, and nothing is written for what is chosen at first', () => {
    const location = at('/lots?state=released');
    expect([choice('state')(), choice('find')(), choice('by', 'number')()]).toEqual(['released', '', 'number']);
    TestBed.tick();
    expect(location.path()).toBe('/lots?state=released');
  });

  it('stands beside the others, as people write it, and goes again', () => {
    const location = at('/lots?state=released');
    const find = choice('find');
    find.set('Tide & ebb');
    TestBed.tick();
    expect(new URLSearchParams(location.path().split('?')[1]).get('find')).toBe('Tide & ebb');
    expect(location.path()).toContain('state=released');
    find.set('');
    TestBed.tick();
    expect(location.path()).toBe('/lots?state=released');
  });

  it('is chosen as a view kept before says, and what that doesn’t name as at first', () => {
    const location = at('/lots?state=released');
    const [state, find, by] = [choice('state'), choice('find'), choice('by', 'number')];
    TestBed.inject(AddressChoices).take('find=ebb&by=-at&gone=x');
    TestBed.tick();
    expect([state(), find(), by()]).toEqual(['', 'ebb', '-at']);
    expect(Object.fromEntries(new URLSearchParams(location.path().split('?')[1]))).toEqual({ find: 'ebb', by: '-at' });
  });

  it('leaves the address of another page alone', () => {
    const location = at('/lots');
    const find = choice('find');
    location.go('/lots/7');
    find.set('ebb');
    TestBed.tick();
    expect(location.path()).toBe('/lots/7');
  });
});

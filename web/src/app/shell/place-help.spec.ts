import { describe, expect, it } from 'vitest';
import { PLACE_HELP, helpOf } from './place-help';
import { PLACES } from './places';

describe('help', () => {
  it.each(PLACES.map((p) => [p.path, p.name] as const))('is there for %s', (path, name) => {
    const help = helpOf(path);
    // Lots are told of where one is begun.
    expect(help?.name).toBe(path === '/lots' ? 'A new lot' : name);
    expect(help?.is.length).toBeGreaterThan(60);
  });
  it('is that of the place a page lies in', () => {
    expect(helpOf('/stores/delivery')?.name).toBe('Stores');
    expect(helpOf('/lots/new')?.name).toBe('A new lot');
    expect(helpOf('/lots/01a1')?.name).toBe('A new lot');
    expect(helpOf('/scan')).toBeUndefined();
  });
  it('stops at each place once', () => {
    expect(new Set(PLACE_HELP.map((p) => p.path)).size).toBe(PLACE_HELP.length);
  });
});

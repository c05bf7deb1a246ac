import { describe, expect, it } from 'vitest';
import { PLACE_HELP, helpOf } from './place-help';

describe('help', () => {
  it.each(PLACE_HELP.map((p) => [p.path, p.name] as const))('is there for %s', (path, name) => {
    const help = helpOf(path);
    expect(help?.name).toBe(name);
    expect(help?.is.length).toBeGreaterThan(60);
  });
  it('is that of the place a page lies in', () => {
    expect(helpOf('/stores/delivery')?.name).toBe('Stores');
    expect(helpOf('/lots/new')?.name).toBe('Lots');
    expect(helpOf('/storeroom')).toBeUndefined();
    expect(helpOf('/scan')).toBeUndefined();
  });
  it('stops at each place once', () => {
    expect(new Set(PLACE_HELP.map((p) => p.path)).size).toBe(PLACE_HELP.length);
  });
});

import { describe, expect, it } from 'vitest';
import type { Settings } from './settings';
import { settingsForm, writtenOver } from './settings';

const opened = { version: 1, name: 'Saltgrass', roomC: 18, practice: { scour: 'hot' } } as unknown as Settings;

describe('settings written while others save', () => {
  it('sends only what was written here over what stands now', () => {
    const now = { ...opened, version: 2, practice: { scour: 'cold' } } as unknown as Settings;
    expect(writtenOver(now, opened, { ...opened, roomC: 21 })).toEqual({
      version: 2,
      name: 'Saltgrass',
      roomC: 21,
      practice: { scour: 'cold' },
    });
  });
  it('says its fields by the page’s own names', () =>
    expect(settingsForm({ name: 'the studio’s name', practice: 'house practice' }).say(opened)).toEqual({
      'the studio’s name': 'Saltgrass',
      'house practice': 'hot',
    }));
});

import type { Studio } from '@vestigia/contract';
import type { FormSource } from '../../api/opened-on';

export type Settings = Omit<Studio, 'people' | 'vessels' | 'waters' | 'heatSources'>;

/** Everything the settings hold, so that what a page doesn't show stays as it is. */
export function settingsOf({
  people: _people,
  vessels: _vessels,
  waters: _waters,
  heatSources: _heat,
  ...settings
}: Studio): Settings {
  // A step of 0.1 g comes in single precision; nobody typed that dust.
  return { ...settings, balanceResolutionG: Number(settings.balanceResolutionG.toPrecision(6)) };
}

/** The settings as a form is opened on them, by what the page calls them. */
export const settingsForm = (labels: Partial<Record<keyof Settings, string>>): FormSource<Settings> => ({
  key: () => 'settings',
  version: (s) => s.version,
  say: (s) =>
    Object.fromEntries(
      Object.entries(labels).map(([field, label]) => {
        const value = s[field as keyof Settings];
        return [label, typeof value === 'object' ? Object.values(value ?? {}).join(', ') : String(value ?? '')];
      }),
    ),
});

/**
 * What is to be sent: what stands now, with the fields that were written here. So a page that shows half of the settings
 * never puts the other half back.
 */
export function writtenOver(now: Settings, opened: Settings, written: Partial<Settings>): Settings {
  const changed = Object.entries(written).filter(
    ([field, value]) => JSON.stringify(value) !== JSON.stringify(opened[field as keyof Settings]),
  );
  return { ...now, ...(Object.fromEntries(changed) as Partial<Settings>) };
}

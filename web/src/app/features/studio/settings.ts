import type { Studio } from '@vestigia/contract';

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

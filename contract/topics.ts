/** What a change can touch; pages that show it read again. Told over the stream of events. */
export const TOPICS = [
  'stores',
  'recipes',
  'colourways',
  'lots',
  'studio',
  'notes',
  'swatches',
  'fastness',
  'plan',
  'orders',
] as const;
export type Topic = (typeof TOPICS)[number];

import { worded } from '../words/worded';
import { countLabel } from '../quantity/word-list';
import type { EYE_EVENNESS } from './by-eye';

/** How a strip’s colour leans to an eye. */
export const STRIP_WARMTHS = ['warm', 'between', 'cool'] as const;
/** One of `STRIP_WARMTHS`. */
export type StripWarmth = (typeof STRIP_WARMTHS)[number];
/** How each is said on screen. */
export const STRIP_WARMTH_LABELS: Readonly<Record<StripWarmth, string>> = worded(() => ({
  warm: $localize`warm`,
  between: $localize`neither warm nor cool`,
  cool: $localize`cool`,
}));

/** What an eye says of one strip beside the others. */
export interface SeenStrip {
  readonly number: number;
  /** Its place by depth among the strips: 1 the deepest; those that look alike share a place. */
  readonly place: number;
  readonly warmth: StripWarmth;
  readonly evenness: (typeof EYE_EVENNESS)[number];
  /** What this one would do for; empty where nothing was said. */
  readonly goodFor: string;
}

/** One person’s look at the strips of a trial, laid side by side. */
export interface StripLook {
  readonly state: 'wet' | 'dry';
  readonly byId: string;
  readonly seen: readonly SeenStrip[];
}

/** Why strips can’t have been seen so. */
export type StripLookRefusal =
  | { readonly code: 'noneSeen' }
  | { readonly code: 'noSuchStrip'; readonly strips: number }
  | { readonly code: 'seenTwice'; readonly number: number };

/** What hinders a look from being written down; `undefined` where nothing does. */
export function checkStripLook(seen: readonly SeenStrip[], strips: number): StripLookRefusal | undefined {
  if (seen.length === 0) return { code: 'noneSeen' };
  const other = seen.find((s) => s.number < 1 || s.number > strips);
  if (other) return { code: 'noSuchStrip', strips };
  const twice = seen.find((s, i) => seen.findIndex((o) => o.number === s.number) !== i);
  return twice ? { code: 'seenTwice', number: twice.number } : undefined;
}

/** Why strips can’t have been seen so, in a sentence that says what to do. */
export function sayStripLookRefusal(refusal: StripLookRefusal): string {
  switch (refusal.code) {
    case 'noneSeen':
      return $localize`Give at least one strip its place: 1 is the deepest.`;
    case 'noSuchStrip':
      return $localize`This trial has ${countLabel(refusal.strips, 'strip')}. Choose one of them.`;
    case 'seenTwice':
      return $localize`Strip ${refusal.number} stands there twice. Give it one place.`;
  }
}

/** A strip as eyes place it. */
export interface StripByEye {
  readonly number: number;
  /** Mean place over those who looked; 1 the deepest. */
  readonly place: number;
  readonly state: 'wet' | 'dry';
  /** Places it rose (positive) or fell from wet to dry; `null` where it was not seen in both. */
  readonly rose: number | null;
  readonly warmth: StripWarmth;
  readonly evenness: SeenStrip['evenness'];
  readonly goodFor: readonly string[];
  readonly people: number;
}

const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

/**
 * Strips as eyes rank them, deepest first: dry, and wet only what nobody has seen dry. Each person counts by the
 * newest look in each state. Looks in the order they were taken.
 */
export function rankByEye(looks: readonly StripLook[]): StripByEye[] {
  const newest = [...new Map(looks.map((l) => [`${l.state} ${l.byId}`, l])).values()];
  const seenIn = (state: StripLook['state'], number: number): SeenStrip[] =>
    newest.filter((l) => l.state === state).flatMap((l) => l.seen.filter((s) => s.number === number));
  const numbers = [...new Set(newest.flatMap((l) => l.seen.map((s) => s.number)))];
  return numbers
    .flatMap((number): StripByEye[] => {
      const [wet, dry] = [seenIn('wet', number), seenIn('dry', number)];
      const seen = dry.length > 0 ? dry : wet;
      const last = seen.at(-1);
      if (!last) return [];
      const place = mean(seen.map((s) => s.place));
      return [
        {
          number,
          place,
          state: dry.length > 0 ? 'dry' : 'wet',
          rose: wet.length > 0 && dry.length > 0 ? mean(wet.map((s) => s.place)) - place : null,
          warmth: last.warmth,
          evenness: last.evenness,
          goodFor: [...new Set(seen.map((s) => s.goodFor.trim()).filter((g) => g !== ''))],
          people: seen.length,
        },
      ];
    })
    .sort((a, b) => a.place - b.place || a.number - b.number);
}

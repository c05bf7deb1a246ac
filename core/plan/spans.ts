import type { Span } from './plan-problem';

/** Spans in order, those that touch or overlap made one, empty ones left out. */
export function tidySpans(spans: readonly Span[]): Span[] {
  const tidy: [number, number][] = [];
  for (const [from, to] of [...spans].filter(([from, to]) => to > from).sort((a, b) => a[0] - b[0])) {
    const last = tidy.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else tidy.push([from, to]);
  }
  return tidy;
}

/** Index of the first span that ends after a moment; spans tidy. */
function firstEndingAfter(spans: readonly Span[], atMin: number): number {
  let low = 0;
  let high = spans.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((spans[middle]?.[1] ?? Infinity) > atMin) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The earliest moment from `atMin` on that lies in a span which goes on for so long; `Infinity` where none does. */
export function earliestWithin(spans: readonly Span[], atMin: number, lengthMin: number): number {
  for (let i = firstEndingAfter(spans, atMin); i < spans.length; i += 1) {
    const [from, to] = spans[i] ?? [Infinity, Infinity];
    const start = Math.max(from, atMin);
    if (start + lengthMin <= to) return start;
  }
  return Infinity;
}

/** Whether one span has all of it. */
export const liesWithin = (spans: readonly Span[], fromMin: number, toMin: number): boolean =>
  earliestWithin(spans, fromMin, toMin - fromMin) === fromMin;

/** The longest span's length; 0 of none. */
export const longestSpan = (spans: readonly Span[]): number =>
  spans.reduce((most, [from, to]) => Math.max(most, to - from), 0);

import type { RunEntry, RunEntryKind, RunEntryOf } from './run-entry';

/** Minutes after the day of the tests begins, ISO in UTC. */
export const at = (minute: number): string => new Date(Date.UTC(2026, 5, 1, 8, 0) + minute * 60_000).toISOString();

let made = 0;
/** One entry of a run, with all that a test doesn't say filled in; each has an id of its own. */
export const runEntry = <K extends RunEntryKind>(
  kind: K,
  stepIndex: number,
  minute: number,
  rest: Partial<RunEntryOf<K>> = {},
): RunEntry =>
  ({
    id: `e${(made += 1)}`,
    stepIndex,
    kind,
    at: at(minute),
    replacesId: null,
    temperatureC: null,
    text: null,
    weighing: null,
    detail: null,
    ...rest,
  }) as RunEntry;

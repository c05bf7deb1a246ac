import type { PlannedStep } from '../scaling/lot-plan';
import type { RunEntry, RunEntryKind } from './run-entry';
import { currentEntries } from './run-entry';
import { isOver, stepState } from './run-record';
import type { StepRecord } from './step-record';

/** Who writes one of these down has looked. */
const LOOKED: readonly RunEntryKind[] = ['temperature', 'ph', 'sample', 'note', 'pull', 'zone', 'resume'];
const MS_IN_MIN = 60_000;

/** That a running step is to be looked at again. */
export interface LookAgain {
  readonly everyMin: number;
  /** Epoch ms. */
  readonly dueMs: number;
  readonly isDue: boolean;
}

/**
 * When a running step is to be looked at again: so many minutes after somebody last looked. `undefined` where nobody
 * asks for it, and while it doesn't run.
 * @param seenMs when somebody said that they looked, without writing anything down, epoch ms
 */
export function lookAgain(
  step: PlannedStep,
  record: StepRecord,
  entries: readonly RunEntry[],
  { nowMs, seenMs }: { readonly nowMs: number; readonly seenMs: number },
): LookAgain | undefined {
  const { lookEveryMin: everyMin, index } = step;
  if (everyMin === undefined || isOver(record) || stepState(record) !== 'running') return undefined;
  const looked = currentEntries(entries).flatMap((e) =>
    e.stepIndex === index && LOOKED.includes(e.kind) ? [Date.parse(e.at)] : [],
  );
  const dueMs = Math.max(Date.parse(record.startedAt ?? ''), seenMs, ...looked) + everyMin * MS_IN_MIN;
  return { everyMin, dueMs, isDue: nowMs >= dueMs };
}

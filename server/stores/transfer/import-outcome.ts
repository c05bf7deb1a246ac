import type { NewMaterial, StockLotRecord } from '@vestigia/contract';
import type { ConversionSeed, MovementFileRecord } from './movement-records';

export type Fate = 'new' | 'here' | 'refused';

export interface PlannedRow {
  readonly line: number;
  readonly label: string;
  readonly fate: Fate;
  readonly why: string;
}

/** What a file would add, checked against what is here. Written as it stands, or not at all. */
export interface ImportPlan {
  readonly materials: NewMaterial[];
  readonly stockLots: StockLotRecord[];
  readonly conversions: (ConversionSeed & { readonly by: string; readonly at: string })[];
  readonly movements: MovementFileRecord[];
  readonly newPeople: string[];
  readonly rows: PlannedRow[];
  readonly fates: Readonly<Record<Fate, number>>;
  /** What the shelf was numbered when this was planned: if it moved since, the plan is void. */
  readonly stamp: string;
}

/** Told how far reading is; throws to stop. Lets others be served between slices. */
export type Progress = (done: number, total: number) => Promise<void>;

export const SLICE = 500;

export const ASKED_AT_ONCE = 4000;

export const ROWS_TOLD = 400;

export const FUTURE_SLACK_MS = 36 * 3_600_000;

/** Same content, whatever the order its fields were written in. */
export const canonical = (value: unknown): string =>
  JSON.stringify(value, (_key, v: unknown) =>
    v !== null && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );

/** A step in work, as the pot line needs it. Times ISO in UTC. */
export interface RunningStep {
  readonly lotId: string;
  readonly lotTag: string;
  readonly title: string;
  readonly vesselNames: readonly string[];
  readonly startedAt: string;
  readonly durationMin: number;
  readonly attended: boolean;
}

/** A stretch of the pot line. */
export interface PotSegment {
  readonly label: string;
  readonly lotId: string;
  readonly lotTag: string;
  readonly title: string;
  /** 0-1 from the left edge of the window; clipped to it. */
  readonly from01: number;
  readonly to01: number;
  readonly endsAt: string;
  /** Past its planned end: a person is wanted. */
  readonly due: boolean;
  readonly attended: boolean;
  /** Line it is drawn on, from 0: segments that share a moment stand under one another. */
  readonly row: number;
}

/** The pot line of a window of time. */
export interface PotLine {
  readonly rows: number;
  readonly segments: readonly PotSegment[];
  readonly now01: number;
  /** The next moment that needs a person; undefined when nothing is in work. */
  readonly next?: { readonly at: string; readonly label: string; readonly lotId: string };
}

/**
 * Lays what is soaking, heating, cooling and curing on a time scale: one segment for each vessel in use,
 * or one for the lot where it stands in none.
 * @param fromMs start of the window, epoch ms; @param toMs its end; @param nowMs the present
 */
export function layPotLine(
  running: readonly RunningStep[],
  { fromMs, toMs, nowMs }: { fromMs: number; toMs: number; nowMs: number },
): PotLine {
  if (!(toMs > fromMs)) throw new RangeError('the window must end after it starts');
  const place = (ms: number): number => Math.min(1, Math.max(0, (ms - fromMs) / (toMs - fromMs)));
  const timed = running.map((r) => ({
    r,
    startMs: Date.parse(r.startedAt),
    endMs: Date.parse(r.startedAt) + r.durationMin * 60_000,
  }));
  const placed = timed.flatMap(({ r, startMs, endMs }) =>
    (r.vesselNames.length > 0 ? r.vesselNames : [r.lotTag]).map((label) => ({
      label,
      lotId: r.lotId,
      lotTag: r.lotTag,
      title: r.title,
      from01: place(startMs),
      to01: place(Math.max(endMs, nowMs)),
      endsAt: new Date(endMs).toISOString(),
      due: endMs <= nowMs,
      attended: r.attended,
    })),
  );
  const { segments, rows } = stack(placed);
  // A step that wants hands wants them now, not at its planned end.
  const wanted = timed
    .map(({ r, startMs, endMs }) => ({ r, atMs: r.attended ? startMs : endMs }))
    .sort((a, b) => a.atMs - b.atMs)[0];
  const next = wanted
    ? {
        next: {
          at: new Date(wanted.atMs).toISOString(),
          label: `${wanted.r.title}, ${wanted.r.lotTag}`,
          lotId: wanted.r.lotId,
        },
      }
    : {};
  return { segments, rows, now01: place(nowMs), ...next };
}

/** Gives each segment the first line that is free where it begins. */
function stack(segments: readonly Omit<PotSegment, 'row'>[]): { segments: PotSegment[]; rows: number } {
  const endOfRow: number[] = [];
  const stacked = [...segments]
    .sort((a, b) => a.from01 - b.from01)
    .map((segment) => {
      const free = endOfRow.findIndex((end) => end <= segment.from01);
      const row = free === -1 ? endOfRow.length : free;
      endOfRow[row] = segment.to01;
      return { ...segment, row };
    });
  return { segments: stacked, rows: endOfRow.length };
}

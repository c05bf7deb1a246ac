import { Injectable, inject, signal } from '@angular/core';
import type { TemperatureAt } from '@vestigia/core';
import { ReadingLog } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import type { Hanging } from '../../api/instruments';
import { Instruments } from '../../api/instruments';
import { ServerClock } from '../../api/server-clock';
import { newId } from '../../api/new-id';

const DRAWN = 700;
const WATCHED = 1600;
const SEND_EVERY_MS = 10_000;

interface Running {
  readonly lotId: string;
  readonly stepIndex: number;
  readonly startedAt: string;
  readonly typed: readonly { readonly at: string; readonly temperatureC: number }[];
}

/**
 * What is known of a bath's temperature: read back from the server, heard since, and typed. Sends what a probe on
 * this tablet's own port reads.
 */
@Injectable()
export class ProbeReadings {
  private readonly api = inject(ApiClient);
  private readonly instruments = inject(Instruments);
  private readonly clock = inject(ServerClock);
  private readonly before = signal<{ readonly key: string; readonly log: ReadingLog }>({
    key: '',
    log: new ReadingLog(),
  });
  private unsent: { atMs: number; temperatureC: number }[] = [];
  private readonly timer = setInterval(() => this.send(), SEND_EVERY_MS);

  constructor() {
    this.instruments.listen((kind, message) => {
      if (
        kind === 'probe' &&
        message.kind === 'temperature' &&
        this.instruments.hanging() &&
        this.instruments.sourceOf('probe') === 'serial'
      )
        this.unsent.push({ atMs: Date.now(), temperatureC: message.temperatureC });
    });
  }

  /** Reads back what the probe saw in this step before this page was opened. */
  fetch(lotId: string, stepIndex: number): void {
    const key = `${lotId} ${stepIndex}`;
    if (this.before().key === key) return;
    this.before.set({ key, log: new ReadingLog() });
    this.api
      .get('/api/lots/{id}/probe', { id: lotId, query: { step: String(stepIndex), max: String(WATCHED) } })
      .subscribe({
        next: ({ points }) => {
          const log = new ReadingLog();
          for (const [atMs, c] of points) log.add(atMs, c);
          if (this.before().key === key) this.before.set({ key, log });
        },
        // Without the server the curve begins with what is heard from now on.
        error: () => undefined,
      });
  }

  /** Readings of a step in minutes from its beginning: for watching, and thinned for drawing. */
  of(running: Running): { all: TemperatureAt[]; drawn: TemperatureAt[] } {
    const startMs = Date.parse(running.startedAt);
    this.instruments.logged();
    const { key, log } = this.before();
    const heard = this.instruments.logOf(running);
    const kept = key === `${running.lotId} ${running.stepIndex}` ? log : new ReadingLog();
    const aheadMs = this.instruments.sourceOf('probe') === 'serial' ? this.clock.now() - Date.now() : 0;
    const sinceMs = Math.max(startMs, kept.last()?.atMs ?? 0);
    const points = (max: number): TemperatureAt[] => {
      const merged = [
        ...kept.sampled(max, startMs),
        ...heard.sampled(max, sinceMs - aheadMs).map(([ms, c]) => [ms + aheadMs, c] as const),
      ].map(([ms, temperatureC]) => ({ minute: (ms - startMs) / 60_000, temperatureC }));
      const typed = running.typed.map((t) => ({
        minute: (Date.parse(t.at) - startMs) / 60_000,
        temperatureC: t.temperatureC,
      }));
      return typed.length === 0 ? merged : [...merged, ...typed].sort((a, b) => a.minute - b.minute);
    };
    return { all: points(WATCHED), drawn: points(DRAWN) };
  }

  /** The probe of this tablet's own port hangs in this bath now. */
  hang(hanging: Hanging | undefined): void {
    this.send();
    this.instruments.hanging.set(hanging);
  }

  stop(): void {
    this.send();
    clearInterval(this.timer);
  }

  private send(): void {
    const hanging = this.instruments.hanging();
    if (!hanging || this.unsent.length === 0) return;
    const points = this.unsent.splice(0, 2000);
    const nowMs = Date.now();
    this.api
      .post(
        '/api/lots/{id}/probe',
        {
          id: newId(),
          stepIndex: hanging.stepIndex,
          points: points.map((p) => [nowMs - p.atMs, p.temperatureC] as [number, number]),
        },
        hanging.lotId,
      )
      .subscribe({
        error: () => {
          this.unsent = [...points, ...this.unsent];
        },
      });
  }
}

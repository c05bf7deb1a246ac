import { Injectable, inject, signal } from '@angular/core';
import type { Instrument, InstrumentOrder } from '@vestigia/contract';
import type { InstrumentKind, InstrumentMessage, Pan } from '@vestigia/core';
import { decimals, formatTemperature, InstrumentLines, PanWatch, ReadingLog, sayLab, sayPh } from '@vestigia/core';
import type { Observable } from 'rxjs';
import { ApiClient } from './api-client';

/**
 * Where a tablet takes its readings from: typed by hand, the simulated instruments, or one on the tablet's own serial
 * port.
 */
export const SOURCES = ['hand', 'simulated', 'serial'] as const;
export type Source = (typeof SOURCES)[number];

/** The browser's serial port, as far as it is used here. */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
  close(): Promise<void>;
}
type WithSerial = Navigator & { serial?: { requestPort(): Promise<SerialPort> } };

const BAUD = 9600;
const USUAL_STEP_G = 0.1;
/** The screen is told of readings no more often than an eye follows; all of them go into the log. */
const SHOW_EVERY_MS = 50;
/** A balance's silence is noticed by looking again. */
const LOOK_AGAIN_MS = 1000;
const ROWS_KEPT = 30;
/** A load counts as another when it differs by more than wobble and drift. */
const CHANGED_STEPS = 5;

export interface Hanging {
  readonly lotId: string;
  readonly stepIndex: number;
}

/** What the instruments of this tablet say now, and the bath's temperature since the page was opened. */
@Injectable()
export class Instruments {
  private readonly api = inject(ApiClient);
  readonly list = signal<readonly Instrument[]>([]);
  readonly pan = signal<Pan | undefined>(undefined);
  readonly temperatureC = signal<number | undefined>(undefined);
  readonly ph = signal<number | undefined>(undefined);
  readonly colour = signal<Extract<InstrumentMessage, { kind: 'colour' }> | undefined>(undefined);
  readonly trouble = signal<string | undefined>(undefined);
  readonly connected = signal(false);
  /** The newest lines, for whoever wants to see what an instrument says. */
  readonly lines = signal<readonly { kind: InstrumentKind; text: string }[]>([]);
  /** The bath the probe hangs in: the house tells of its own, a tablet knows of the one on its port. */
  readonly hanging = signal<Hanging | undefined>(undefined);
  private readonly logs = new Map<string, ReadingLog>();
  private lastC: number | undefined;
  /** Counts up when a log grew. */
  readonly logged = signal(0);
  /** What lies on the pan was taken already: it has to change before the next is weighed. */
  readonly taken = signal(false);
  private takenG: number | undefined;
  private stepG = USUAL_STEP_G;
  private watch = new PanWatch(USUAL_STEP_G);
  private events: EventSource | undefined;
  private ports: SerialPort[] = [];
  private heard = 0;
  private shownMs = 0;
  private trailing: ReturnType<typeof setTimeout> | undefined;
  private timer: ReturnType<typeof setInterval> | undefined;
  private rehearsalId: string | null = null;
  private readonly onReading: ((kind: InstrumentKind, message: InstrumentMessage, atMs: number) => void)[] = [];

  sourceOf(kind: InstrumentKind): Source {
    const kept = localStorage.getItem(`vestigia-${kind}`);
    return this.rehearsalId !== null ? 'simulated' : (SOURCES.find((s) => s === kept) ?? 'hand');
  }

  choose(kind: InstrumentKind, source: Source): void {
    localStorage.setItem(`vestigia-${kind}`, source);
    this.start(this.rehearsalId);
  }

  listen(heard: (kind: InstrumentKind, message: InstrumentMessage, atMs: number) => void): void {
    this.onReading.push(heard);
  }

  /** Opens the line to the simulated instruments where one is wanted: those of the house, or a rehearsal's own. */
  start(rehearsalId: string | null): void {
    this.rehearsalId = rehearsalId;
    this.events?.close();
    this.events = undefined;
    this.timer ??= setInterval(() => this.show(true), LOOK_AGAIN_MS);
    if (
      rehearsalId === null &&
      !(['balance', 'probe', 'colour'] as const).some((kind) => this.sourceOf(kind) === 'simulated')
    )
      return;
    const events = new EventSource(
      rehearsalId === null ? '/api/instruments/live' : `/api/instruments/live?rehearsal=${rehearsalId}`,
    );
    this.events = events;
    events.addEventListener('hello', (event: MessageEvent<string>) => {
      this.connected.set(true);
      const list = JSON.parse(event.data) as Instrument[];
      this.list.set(list);
      const stepG = list.find((i) => i.kind === 'balance')?.stepG ?? USUAL_STEP_G;
      // Told again when the probe is hung elsewhere: a pan that stands still goes on standing.
      if (stepG !== this.stepG) this.watchBy(stepG);
      const probe = list.find((i) => i.kind === 'probe');
      if (this.sourceOf('probe') === 'simulated')
        this.hanging.set(
          probe?.lotId && probe.stepIndex !== null ? { lotId: probe.lotId, stepIndex: probe.stepIndex } : undefined,
        );
    });
    events.addEventListener('message', (event: MessageEvent<string>) => {
      const [kind, atMs, message] = JSON.parse(event.data) as [InstrumentKind, number, InstrumentMessage];
      if (this.sourceOf(kind) === 'simulated') this.take(kind, message, atMs);
    });
    events.addEventListener('error', () => this.connected.set(false));
  }

  stop(): void {
    this.events?.close();
    this.events = undefined;
    clearInterval(this.timer);
    clearTimeout(this.trailing);
    this.timer = undefined;
    for (const port of this.ports.splice(0)) void port.close().catch(() => undefined);
  }

  /** Attaches an instrument to this tablet's own port; it speaks the same lines. */
  async attach(kind: InstrumentKind): Promise<void> {
    const { serial } = navigator as WithSerial;
    if (!serial)
      throw new Error('This browser has no serial port. Use one that has, or type what the instrument shows.');
    const port = await serial.requestPort();
    await port.open({ baudRate: BAUD });
    this.ports.push(port);
    const lines = new InstrumentLines();
    const decoder = new TextDecoder();
    const reader = port.readable?.getReader();
    void (async () => {
      for (;;) {
        const next = await reader?.read().catch(() => undefined);
        if (!next || next.done) break;
        const atMs = Date.now();
        for (const message of lines.feed(decoder.decode(next.value, { stream: true }), atMs))
          this.take(kind, message, atMs);
      }
      this.trouble.set(
        $localize`The instrument’s lead is out. Put it back and attach it again; until then type what it shows.`,
      );
    })();
  }

  /** The load on the pan was written down. */
  markTaken(): void {
    this.takenG = this.pan()?.weightG ?? undefined;
    this.taken.set(this.takenG !== undefined);
  }

  private watchBy(stepG: number): void {
    this.stepG = stepG;
    this.watch = new PanWatch(stepG);
  }

  order(order: InstrumentOrder): Observable<{ ok: true }> {
    return this.api.post('/api/instruments', { ...order, rehearsalId: this.rehearsalId });
  }

  private take(kind: InstrumentKind, message: InstrumentMessage, atMs: number): void {
    if (message.kind === 'weight') {
      this.watch.feed({ atMs: performance.now(), weightG: message.weightG, state: message.state });
      if (
        this.takenG !== undefined &&
        Math.abs(message.weightG - this.takenG) > CHANGED_STEPS * this.stepG &&
        message.state !== 'asleep'
      ) {
        this.takenG = undefined;
        this.taken.set(false);
      }
    } else if (message.kind === 'temperature') this.takeTemperature(atMs, message.temperatureC);
    else if (message.kind === 'ph') this.ph.set(message.ph);
    else if (message.kind === 'colour') this.colour.set(message);
    else if (message.kind === 'trouble') this.trouble.set(message.message);
    else if (message.instrument === 'balance' && message.stepG) this.watchBy(message.stepG);
    for (const heard of this.onReading) heard(kind, message, atMs);
    this.lines.update((all) => [...all.slice(1 - ROWS_KEPT), { kind, text: sayMessage(message) }]);
    this.show(false);
  }

  /** What was heard of one bath since the page was opened. */
  logOf({ lotId, stepIndex }: Hanging): ReadingLog {
    const key = `${lotId} ${stepIndex}`;
    const log = this.logs.get(key) ?? new ReadingLog();
    this.logs.set(key, log);
    return log;
  }

  /** A reading belongs to the bath the probe hangs in when it comes; in none, it is only shown. */
  private takeTemperature(atMs: number, temperatureC: number): void {
    this.lastC = temperatureC;
    this.heard += 1;
    const hanging = this.hanging();
    if (hanging) this.logOf(hanging).add(atMs, temperatureC);
  }

  private show(anyway: boolean): void {
    const nowMs = performance.now();
    if (!anyway && nowMs - this.shownMs < SHOW_EVERY_MS) {
      // The last of a burst is shown too, as soon as its turn comes.
      this.trailing ??= setTimeout(() => this.show(true), SHOW_EVERY_MS - (nowMs - this.shownMs));
      return;
    }
    clearTimeout(this.trailing);
    this.trailing = undefined;
    this.shownMs = nowMs;
    const pan = this.watch.at(nowMs);
    const before = this.pan();
    if (before?.state !== pan.state || before.weightG !== pan.weightG) this.pan.set(pan);
    if (this.lastC !== undefined && this.heard !== this.logged()) {
      this.temperatureC.set(Math.round(this.lastC * 10) / 10);
      this.logged.set(this.heard);
    }
  }
}

function sayMessage(message: InstrumentMessage): string {
  switch (message.kind) {
    case 'weight':
      return `${decimals(message.weightG, 2)} g, ${message.state}`;
    case 'temperature':
      return formatTemperature(Math.round(message.temperatureC * 100) / 100);
    case 'ph':
      return sayPh(message.ph);
    case 'colour':
      return sayLab(message, 2);
    case 'hello':
      return $localize`${message.name} is there`;
    case 'trouble':
      return message.message;
  }
}

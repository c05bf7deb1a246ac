import type { Instrument, InstrumentOrder, LotDetail } from '@vestigia/contract';
import type { RunEntryKind } from '@vestigia/core';
import { foldRun, stepState, takesPieces } from '@vestigia/core';
import type { Context } from '../shared/context';
import type { Hanging } from '../devices/workbench';
import { Workbench } from '../devices/workbench';
import type { Db } from '../db/database';
import type { Writer } from '../http/write';
import { readLot } from '../lots/lots-store';
import type { ProbePoint } from '../lots/probe-log';
import { keepReadings } from '../lots/probe-log';
import { Refusal } from '../shared/problem';
import { readRoom } from '../studio/room';
import { beginBath, potCardFor } from './pot-card';
import type { PotWatch } from './pot-watch';

/** Probe readings are written down together this often; the newest of them are all that a killed server could lose. */
const KEEP_EVERY_MS = 10_000;

/** The simulated instruments of the house, at the pace of the day, and what their probe reads in a lot's bath. */
export class HouseBench {
  private bench: Workbench | undefined;
  private readonly pending: (Hanging & { readonly point: ProbePoint })[] = [];
  private stopKeeping: (() => void) | undefined;

  constructor(
    private readonly context: Context,
    private readonly writer: Writer,
    private readonly watch: PotWatch,
  ) {}

  async open(): Promise<Workbench> {
    if (this.bench) return this.bench;
    const { balance } = await readRoom(this.context.database.db);
    const nowMs = (): number => this.context.clock().getTime();
    this.bench ??= new Workbench(nowMs, nowMs, {
      name: balance.name,
      capacityG: balance.capacityG,
      resolutionG: balance.resolutionG,
    });
    return this.bench;
  }

  async list(): Promise<Instrument[]> {
    return listInstruments(await this.open());
  }

  async order(order: InstrumentOrder): Promise<void> {
    const bench = await this.open();
    if (order.do === 'hang') await this.hang(order.lotId, order.stepIndex ?? 0);
    else bench.obey(order);
  }

  private async hang(lotId: string | null, stepIndex: number): Promise<void> {
    const bench = await this.open();
    await this.keep();
    this.takeOut(bench);
    if (lotId === null) return;
    const { db } = this.context.database;
    const lot = await readLot(db, lotId);
    const step = lot.plan.steps[stepIndex];
    if (!step) throw new Refusal('notFound', $localize`This lot has no such step.`);
    bench.hang({ lotId, stepIndex }, potCardFor(lot, stepIndex, await readRoom(db)));
    if (takesPieces(step) && isBegun(lot, stepIndex)) bench.pot(lotId)?.enterFibre();
    await this.watch.begin(db, lotId, stepIndex, this.context.clock().getTime());
    const stop = bench.listen((heard) => {
      const hanging = bench.hangs;
      if (!hanging || heard.kind !== 'probe' || heard.message.kind !== 'temperature') return;
      const point = [heard.atMs, heard.message.temperatureC] as const;
      this.pending.push({ ...hanging, point });
      this.watch.add(hanging.lotId, hanging.stepIndex, [point]);
    });
    const keeping = setInterval(
      () =>
        void this.keep().catch((error: unknown) => this.context.log.error({ err: error }, 'probe readings not kept')),
      KEEP_EVERY_MS,
    );
    keeping.unref();
    this.stopKeeping = () => {
      stop();
      clearInterval(keeping);
    };
  }

  private takeOut(bench: Workbench): void {
    this.stopKeeping?.();
    this.stopKeeping = undefined;
    if (bench.hangs) this.watch.end(bench.hangs.lotId);
    bench.hang(undefined, undefined);
  }

  /**
   * Steps that were begun or are over: the probe goes on into the next bath of the lot it hangs in, and what is over
   * is watched no longer.
   */
  async follow(
    db: Db,
    now: Date,
    touched: readonly { lotId: string; stepIndex: number; kind: RunEntryKind }[],
  ): Promise<void> {
    for (const { lotId, stepIndex, kind } of touched) {
      if (kind === 'finish' || kind === 'skip' || kind === 'pause') this.watch.end(lotId, stepIndex);
      if (kind === 'cancel') this.watch.end(lotId);
      const bench = this.bench;
      if (bench?.hangs?.lotId !== lotId) continue;
      if (kind === 'resume') await this.watch.begin(db, lotId, stepIndex, now.getTime());
      if (kind !== 'start') continue;
      const lot = await readLot(db, lotId);
      const step = lot.plan.steps[stepIndex];
      if (!step?.usesBath) continue;
      beginBath(bench, lot, step, await readRoom(db));
      await this.watch.begin(db, lotId, stepIndex, now.getTime());
    }
  }

  /** Writes down what the probe read since the last time. */
  async keep(): Promise<void> {
    if (this.pending.length === 0) return;
    await this.writer.write({ call: 'probe', key: undefined, body: null, run: (tx, now) => this.keepWithin(tx, now) });
  }

  /**
   * The same inside a write that is going on: a step that is being finished wants to know what its probe saw. What
   * can't be kept now is kept the next time.
   */
  async keepWithin(db: Db, now: Date): Promise<void> {
    const taken = this.pending.splice(0);
    try {
      for (const key of new Set(taken.map((t) => `${t.lotId} ${t.stepIndex}`))) {
        const ofStep = taken.filter((t) => `${t.lotId} ${t.stepIndex}` === key);
        const [first] = ofStep;
        if (first)
          await keepReadings(
            db,
            { lotId: first.lotId, stepIndex: first.stepIndex, simulated: true },
            ofStep.map((t) => t.point),
            now,
          );
      }
    } catch (error) {
      this.pending.unshift(...taken);
      throw error;
    }
  }

  close(): void {
    this.stopKeeping?.();
    this.bench?.close();
  }
}

function isBegun(lot: LotDetail, stepIndex: number): boolean {
  const record = foldRun(lot.entries, lot.plan.steps.length)[stepIndex];
  return record !== undefined && stepState(record) !== 'waiting';
}

/** The instruments of a workbench, as they are told of. */
export function listInstruments(bench: Workbench): Instrument[] {
  const shared = { simulated: true, capacityG: null, stepG: null, lotId: null, stepIndex: null, pot: null, panG: null };
  const [capacityG, stepG] = [bench.card.capacityG, bench.card.resolutionG];
  return [
    {
      ...shared,
      id: 'balance',
      kind: 'balance',
      connected: bench.balance.connected,
      name: bench.card.name,
      capacityG,
      stepG,
      panG: bench.balance.panG,
    },
    {
      ...shared,
      id: 'probe',
      kind: 'probe',
      connected: bench.probe.connected,
      name: $localize`bath probe`,
      lotId: bench.hangs?.lotId ?? null,
      stepIndex: bench.hangs?.stepIndex ?? null,
      pot: bench.pot()?.state ?? null,
    },
    {
      ...shared,
      id: 'colour',
      kind: 'colour',
      connected: bench.reader.connected,
      name: $localize`contact colour reader`,
    },
  ];
}

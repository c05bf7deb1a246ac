import type { Instrument, InstrumentOrder, LotDetail } from '@vestigia/contract';
import { foldRun, stepState, takesPieces } from '@vestigia/core';
import type { Context } from '../context';
import type { Hanging } from '../devices/workbench';
import { Workbench } from '../devices/workbench';
import type { Db } from '../db/database';
import type { Writer } from '../http/write';
import { readLot } from '../lots/lots-store';
import type { ProbePoint } from '../lots/probe-log';
import { keepReadings } from '../lots/probe-log';
import { Refusal } from '../problem';
import { readRoom } from '../studio/room';
import { potCardFor } from './pot-card';

/** Probe readings are written down together this often; the newest of them are all that a killed server could lose. */
const KEEP_EVERY_MS = 10_000;

/** The simulated instruments of the house, at the pace of the day, and what their probe reads in a lot's bath. */
export class HouseBench {
  private bench: Workbench | undefined;
  private pending: ProbePoint[] = [];
  private pendingFor: Hanging | undefined;
  private stopKeeping: (() => void) | undefined;

  constructor(private readonly context: Context, private readonly writer: Writer) {}

  async open(): Promise<Workbench> {
    if (this.bench) return this.bench;
    const { balance } = await readRoom(this.context.database.db);
    const nowMs = (): number => this.context.clock().getTime();
    this.bench ??= new Workbench(nowMs, nowMs, { name: balance.name, capacityG: balance.capacityG, resolutionG: balance.resolutionG });
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
    this.stopKeeping?.();
    this.stopKeeping = undefined;
    if (lotId === null) {
      bench.hang(undefined, undefined);
      return;
    }
    const { db } = this.context.database;
    const lot = await readLot(db, lotId);
    const step = lot.plan.steps[stepIndex];
    if (!step) throw new Refusal('notFound', 'This lot has no such step.');
    bench.hang({ lotId, stepIndex }, potCardFor(lot, stepIndex, await readRoom(db)));
    if (takesPieces(step) && isBegun(lot, stepIndex)) bench.pot(lotId)?.enterFibre();
    this.pendingFor = { lotId, stepIndex };
    const stop = bench.listen((heard) => {
      if (heard.kind === 'probe' && heard.message.kind === 'temperature') this.pending.push([heard.atMs, heard.message.temperatureC]);
    });
    const keeping = setInterval(() => void this.keep().catch((error: unknown) => this.context.log.error({ err: error }, 'probe readings not kept')), KEEP_EVERY_MS);
    keeping.unref();
    this.stopKeeping = () => {
      stop();
      clearInterval(keeping);
    };
  }

  /** Writes down what the probe read since the last time. */
  async keep(): Promise<void> {
    const hanging = this.pendingFor;
    const points = this.pending.splice(0);
    if (!hanging || points.length === 0) return;
    await this.writer.write({ call: 'probe', key: undefined, body: null, run: (tx, now) => keepReadings(tx, { ...hanging, simulated: true }, points, now) });
  }

  /** The same inside a write that is going on: a step that is being finished wants to know the hottest of it. */
  async keepWithin(db: Db, now: Date): Promise<void> {
    const hanging = this.pendingFor;
    if (hanging && this.pending.length > 0) await keepReadings(db, { ...hanging, simulated: true }, this.pending.splice(0), now);
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
  const shared = { simulated: true, capacityG: null, stepG: null, lotId: null, pot: null, panG: null };
  const [capacityG, stepG] = [bench.card.capacityG, bench.card.resolutionG];
  return [
    { ...shared, id: 'balance', kind: 'balance', connected: bench.balance.connected, name: bench.card.name, capacityG, stepG, panG: bench.balance.panG },
    { ...shared, id: 'probe', kind: 'probe', connected: bench.probe.connected, name: 'bath probe', lotId: bench.hangs?.lotId ?? null, pot: bench.pot()?.state ?? null },
    { ...shared, id: 'colour', kind: 'colour', connected: bench.reader.connected, name: 'contact colour reader' },
  ];
}

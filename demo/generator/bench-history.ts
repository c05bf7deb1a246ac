import type { StudioFile } from '@vestigia/contract';
import type { Pot } from '@vestigia/core';
import { holdOf, letPotStand } from '@vestigia/core';
import type { Random } from './random';

type Doc = StudioFile;
type Lot = Doc['lots'][number];
type Entry = Doc['runEntries'][number];

interface StudioSettings {
  readonly random: Random;
  readonly byId: () => string;
}

const FOLLOWED = 4;
const PROBE_EVERY_S = 20;
const PROBE_W = 1100;
const ROOM_C = 18;
const PAIR_BYTES = 12;

/**
 * What the bench wrote down beside weights and times: probe curves, samples as the pot went, a pH, water added, a
 * hand-over; containers and tags.
 */
export function addBenchHistory(doc: Doc, { random, byId }: StudioSettings): void {
  const begun = (lot: Lot, stepIndex: number, kind: Entry['kind']): Entry | undefined =>
    doc.runEntries.find((e) => e.lotId === lot.id && e.stepIndex === stepIndex && e.kind === kind);
  const followed = doc.lots
    .filter((lot) => {
      const dye = lot.plan.steps.find((s) => s.kind === 'dye');
      return dye !== undefined && begun(lot, dye.index, 'finish') !== undefined;
    })
    .slice(-FOLLOWED);
  const probeLogs: NonNullable<Doc['probeLogs']> = [];
  const enter = (lot: Lot, stepIndex: number, kind: Entry['kind'], ms: number, rest: Partial<Entry>): void => {
    doc.runEntries.push({
      id: random.id(ms),
      lotId: lot.id,
      stepIndex,
      kind,
      at: new Date(ms).toISOString(),
      recordedAt: new Date(ms + 4000).toISOString(),
      replacesId: null,
      temperatureC: null,
      text: null,
      weighing: null,
      detail: null,
      byId: byId(),
      ...rest,
    } as Entry);
  };
  for (const lot of followed) {
    for (const step of lot.plan.steps) {
      const [start, finish] = [begun(lot, step.index, 'start'), begun(lot, step.index, 'finish')];
      if (!start || !finish || !step.usesBath || step.temperatureC === undefined) continue;
      const [startMs, endMs] = [Date.parse(start.at), Date.parse(finish.at)];
      const hold = holdOf({
        temperatureC: step.temperatureC,
        durationMin: step.durationMin,
        course: step.course ?? [],
      });
      const body = {
        liquorMl: lot.plan.batches[0]?.liquor.value ?? 10_000,
        wofG: lot.plan.batches[0]?.wof.value ?? 500,
      };
      const points = curve(body, hold?.atC ?? step.temperatureC, startMs, endMs, random);
      probeLogs.push({
        id: random.id(endMs),
        lotId: lot.id,
        stepIndex: step.index,
        simulated: true,
        base64: packed(points),
        at: finish.at,
      });
      if (step.kind === 'mordant')
        enter(lot, step.index, 'bath', startMs + 30 * 60_000, {
          detail: { batch: 1, bath: { kind: 'add', ml: 500 } },
          text: null,
        });
      if (step.kind !== 'dye') continue;
      const minutes = (endMs - startMs) / 60_000;
      for (const share of [0.2, 0.4, 0.65, 0.9]) {
        const depth = Math.round((1.15 * (1 - Math.exp(-2.2 * share)) + random.spread(0.02)) * 100) / 100;
        enter(lot, step.index, 'sample', startMs + share * minutes * 60_000, {
          detail: { sampleOf: 'piece', depth, readBy: 'hand', batch: 1 },
        });
      }
      enter(lot, step.index, 'ph', startMs + 0.15 * minutes * 60_000, {
        detail: { ph: Math.round((6.6 + random.spread(0.4)) * 10) / 10, readBy: 'strip' },
      });
      enter(lot, step.index, 'pause', startMs + 0.3 * minutes * 60_000, { text: 'the gas bottle ran empty' });
      enter(lot, step.index, 'resume', startMs + 0.3 * minutes * 60_000 + 8 * 60_000, {});
      const last = Math.round(minutes * 0.8);
      enter(lot, step.index, 'pulls', startMs + 0.35 * minutes * 60_000, {
        detail: { pullMinutes: [Math.round(minutes * 0.6), last] },
      });
      for (const [i, minute] of [Math.round(minutes * 0.6), last].entries())
        enter(lot, step.index, 'pull', startMs + (minute + 8) * 60_000, { detail: { piece: i + 1 } });
      const [first, second] = doc.people;
      if (first && second)
        enter(lot, step.index, 'hand', startMs + minutes * 0.5 * 60_000, {
          byId: first.id,
          detail: { toPerson: { id: second.id, name: second.name } },
        });
    }
  }
  doc.probeLogs = probeLogs;
  doc.containers = [
    ['Blue enamel jug', 412_300],
    ['Dosing beaker', 96_800],
    ['Tin scoop', 61_450],
  ].map(([name, tareMg]) => ({ id: random.id(Date.parse(doc.asOf)), name: String(name), tareMg: Number(tareMg) }));
  const at = doc.asOf;
  const nothing = { stockLotId: null, vesselId: null, lotId: null, number: null, stepIndex: null, at };
  doc.tags = [
    ...doc.vessels.map((v) => ({ ...nothing, kind: 'vessel' as const, vesselId: v.id })),
    ...doc.stockLots.slice(-8).map((s) => ({ ...nothing, kind: 'stockLot' as const, stockLotId: s.id })),
    ...followed.slice(-1).map((l) => ({ ...nothing, kind: 'lot' as const, lotId: l.id })),
  ].map((tag, i) => ({ ...tag, seq: i + 1 }));
}

/** A pot brought to its temperature by somebody who turns the ring down in time, as a probe would have read it. */
function curve(
  body: { liquorMl: number; wofG: number },
  toC: number,
  startMs: number,
  endMs: number,
  random: Random,
): [number, number][] {
  let pot: Pot = { ...body, temperatureC: Math.max(ROOM_C, toC - 22), usefulW: 0, lid: true };
  const points: [number, number][] = [];
  for (let ms = startMs; ms <= endMs; ms += PROBE_EVERY_S * 1000) {
    points.push([ms, Math.round((pot.temperatureC + random.spread(0.12)) * 100) / 100]);
    const wanted = pot.temperatureC < toC - 1 ? 1 : pot.temperatureC > toC ? 0 : 0.3;
    pot = letPotStand({ ...pot, usefulW: PROBE_W * wanted }, ROOM_C, PROBE_EVERY_S);
  }
  return points;
}

function packed(points: readonly (readonly [number, number])[]): string {
  const buffer = Buffer.alloc(points.length * PAIR_BYTES);
  points.forEach(([ms, c], i) => {
    buffer.writeDoubleLE(ms, i * PAIR_BYTES);
    buffer.writeFloatLE(c, i * PAIR_BYTES + 8);
  });
  return buffer.toString('base64');
}

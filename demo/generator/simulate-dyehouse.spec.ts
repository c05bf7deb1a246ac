import { readFileSync } from 'node:fs';
import type { StudioDocument } from '@vestigia/contract';
import { studioDocument } from '@vestigia/contract';
import { currentEntries, entriesOfKind, foldRun, labOfSpectrum, stepState } from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import { Random } from './random';
import { isInSeason } from './harvest';
import { simulateDyehouse } from './simulate-dyehouse';

const small = {
  seed: 5,
  asOf: '2026-06-01T10:00:00.000Z',
  days: 150,
  daysBetweenLots: 5,
  supplyScale: 1,
  supplyEvery: 1,
  countEvery: 9,
  lastStartsDaysBefore: [13, 2.03],
};
const demo = JSON.parse(readFileSync(new URL('../saltgrass-dyehouse.json', import.meta.url), 'utf8')) as StudioDocument;

describe('the simulated dyehouse', () => {
  it('tells the same story from the same seed, and another from another', () => {
    expect(simulateDyehouse(small)).toEqual(simulateDyehouse(small));
    expect(simulateDyehouse({ ...small, seed: 6 }).movements).not.toEqual(simulateDyehouse(small).movements);
  });

  it('writes what the contract reads', () =>
    expect(studioDocument.safeParse(simulateDyehouse(small)).error).toBeUndefined());
  it('makes ids in order of time', () => {
    const random = new Random(1);
    expect(random.id(1000) < random.id(2000)).toBe(true);
    expect(random.id(Date.parse('2026-06-01'))).toMatch(
      /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/,
    );
  });
});

describe('the demo studio', () => {
  it('is what the contract reads, a year and more of it', () => {
    expect(studioDocument.safeParse(demo).error).toBeUndefined();
    const times = demo.lots.map((l) => l.at).sort();
    expect(Date.parse(times.at(-1) ?? '') - Date.parse(times[0] ?? '')).toBeGreaterThan(365 * 86_400_000);
  });

  it('never holds less than nothing, nor promises more than is free, at any moment', () => {
    const onHand = new Map<string, number>();
    const reserved = new Map<string, number>();
    const line = [
      ...demo.movements.map((m) => ({ ...m, ledger: onHand })),
      ...demo.reservations.map((p) => ({ ...p, ledger: reserved })),
    ].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
    for (const { stockLotId, amount, ledger } of line) {
      ledger.set(stockLotId, (ledger.get(stockLotId) ?? 0) + amount);
      expect(onHand.get(stockLotId) ?? 0).toBeGreaterThanOrEqual(0);
      if (ledger === reserved && amount > 0)
        expect(reserved.get(stockLotId) ?? 0).toBeLessThanOrEqual(onHand.get(stockLotId) ?? 0);
    }
  });

  it('weighed what it moved, but for the vat that was poured back', () => {
    const netOf = new Map<string, number>();
    for (const m of demo.movements)
      if (m.runEntryId !== null) netOf.set(m.runEntryId, (netOf.get(m.runEntryId) ?? 0) - m.amount);
    const back = demo.movements.filter((m) => m.kind === 'reverse' && m.note === 'poured back');
    expect(back).toHaveLength(1);
    for (const e of entriesOfKind(currentEntries(demo.runEntries), 'weigh')) {
      const isBack = back.some((m) => m.runEntryId === e.id);
      expect(netOf.get(e.id)).toBeGreaterThan(0);
      expect(netOf.get(e.id) === e.weighing.amount).toBe(!isBack);
    }
  });

  it('uses what the product offers: bases together, placed colour, a vat, a bath used up, a refused lot rescued', () => {
    const lotOf = (colourway: string) => {
      const id = demo.colourways.find((c) => c.name === colourway)?.id;
      return demo.lots.find((l) => l.colourwayId === id);
    };
    const passed = (lot: StudioDocument['lots'][number] | undefined): boolean =>
      demo.verdicts.some((v) => v.lotId === lot?.id && v.verdict === 'pass');
    expect(lotOf('Saltings')?.extras.also).toHaveLength(2);
    const placed = lotOf('Tide Line');
    const body = demo.recipeVersions.find((v) => v.id === placed?.recipeVersionId)?.body;
    expect(body?.placed?.zones.length).toBeGreaterThan(2);
    expect(demo.runEntries.some((e) => e.lotId === placed?.id && e.kind === 'rescale')).toBe(true);
    for (const name of ['Saltings', 'Tide Line', 'Ebb', 'Deep Channel']) expect(passed(lotOf(name))).toBe(true);
    const jar = (tag: string) => demo.stockLots.find((s) => s.tag === tag)?.id ?? '';
    const onHand = (tag: string): number =>
      demo.movements.filter((m) => m.stockLotId === jar(tag)).reduce((sum, m) => sum + m.amount, 0);
    expect([onHand('CUB-1'), onHand('RUG-R')]).toEqual([0, 0]);
    expect(onHand('VAT-1')).toBeGreaterThan(20_000_000);
    const kinds = demo.liquorEntries.filter((e) => e.stockLotId === jar('VAT-1')).map((e) => e.kind);
    expect(kinds).toEqual(['save', 'feed', 'vat', 'return', 'vat', 'feed', 'vat']);
    expect([onHand('RIB-C'), onHand('IRS-1')]).toEqual([49_000, 500_000]);
    expect(demo.eyeReadings.map((e) => e.lotId)).toContain(lotOf('Ebb')?.id);
    const rescued = demo.lots.find((l) => l.plan.materials[0]?.picks[0]?.stockLotId === jar('RUG-R'));
    expect(passed(rescued)).toBe(true);
  });

  it('is judged by more than an eye: spectra, two readers, a book of pages, cards half-way, a photograph', () => {
    const taken = demo.readings.flatMap((r) => r.taken ?? []);
    expect(new Set(taken.map((t) => t.reader))).toEqual(new Set(['House reader', 'Borrowed reader']));
    const spectral = demo.readings.filter((r) => r.taken?.spectrum);
    expect(spectral.length).toBeGreaterThan(5);
    for (const { lab, taken: t, illuminant, observer } of spectral) {
      const worked = labOfSpectrum(t?.spectrum ?? [], { illuminant, observer });
      expect(Math.hypot(worked.L - lab.L, worked.a - lab.a, worked.b - lab.b)).toBeLessThan(0.05);
    }
    expect(demo.readings.filter((r) => r.piece !== null).length).toBeGreaterThanOrEqual(12);
    expect(new Set(demo.swatches.map((s) => s.page)).size).toBeGreaterThan(1);
    expect(new Set(demo.fastnessTests.map((t) => t.kind))).toEqual(new Set(['light', 'wash']));
    const unread = demo.fastnessTests.filter((t) => !demo.fastnessReadings.some((r) => r.testId === t.id));
    expect(unread).toHaveLength(1);
    expect(demo.attachments.some((a) => a.eyeReadingId !== null && a.type === 'image/jpeg')).toBe(true);
  });

  it('has what a screen needs to say something true', () => {
    expect(new Set(demo.verdicts.map((v) => v.verdict))).toEqual(new Set(['pass', 'hold', 'refuse']));
    expect(demo.verdicts.find((v) => v.verdict === 'refuse')?.reason).toContain('dented pot');
    expect(demo.lots.filter((l) => l.reorderOfId !== null).length).toBeGreaterThan(10);
    expect(new Set(demo.lots.map((l) => l.water?.name))).toEqual(new Set(['Tap', 'Rain barrel']));
    const judged = new Set(demo.verdicts.map((v) => v.lotId));
    expect(demo.lots.filter((l) => !judged.has(l.id)).length).toBeGreaterThanOrEqual(4);
  });

  it('ends with nothing hot left alone: the demo is opened at any hour, and no pot of it calls for somebody then', () => {
    for (const lot of demo.lots) {
      const records = foldRun(
        demo.runEntries.filter((e) => e.lotId === lot.id),
        lot.plan.steps.length,
      );
      for (const step of lot.plan.steps) {
        const record = records[step.index];
        const isLeftAlone = record && stepState(record) === 'running' && !step.attended;
        if (isLeftAlone) expect(step.temperatureC ?? 0).toBeLessThan(45);
      }
    }
  });

  it('gathers in season, heats no faster than its rings can, and uses what the bench and the shelf offer', () => {
    for (const m of demo.movements.filter((one) => one.kind === 'gather')) {
      const jar = demo.stockLots.find((s) => s.id === m.stockLotId);
      const season = demo.materials.find((x) => x.id === jar?.materialId)?.facts.season;
      if (season) expect(isInSeason(Date.parse(m.at), season)).toBe(true);
    }
    for (const read of demo.runEntries.filter((e) => e.kind === 'temperature' && e.text === null)) {
      const step = demo.lots.find((l) => l.id === read.lotId)?.plan.steps[read.stepIndex];
      const began = demo.runEntries.find(
        (e) => e.lotId === read.lotId && e.stepIndex === read.stepIndex && e.kind === 'start',
      );
      const heatMin = Math.max(0, ...(step?.baths ?? []).map((b) => (b.heating?.ok ? b.heating.minutes.value : 0)));
      expect((Date.parse(read.at) - Date.parse(began?.at ?? '')) / 60_000).toBeGreaterThanOrEqual(heatMin - 0.1);
    }
    const kinds = new Set<string>([...demo.runEntries, ...demo.movements].map((e) => e.kind));
    for (const kind of ['pause', 'skip', 'redo', 'ph', 'pulls', 'pull', 'sample', 'hand', 'spoil', 'give', 'gather'])
      expect([...kinds]).toContain(kind);
    expect(demo.lots.some((l) => l.plan.batches.some((b) => b.fill === 2))).toBe(true);
    expect(demo.lots.some((l) => l.extras.intake.flags.length > 0)).toBe(true);
  });

  it('has curves of a probe that stay in the bath, samples that deepen, and codes that are given once', () => {
    expect(demo.probeLogs.length).toBeGreaterThan(4);
    for (const log of demo.probeLogs) {
      const packed = Buffer.from(log.base64, 'base64');
      const step = demo.lots.find((l) => l.id === log.lotId)?.plan.steps[log.stepIndex];
      for (let i = 0; i < packed.length; i += 12) {
        expect(packed.readFloatLE(i + 8)).toBeGreaterThan(10);
        expect(packed.readFloatLE(i + 8)).toBeLessThan((step?.temperatureC ?? 0) + 3);
      }
    }
    const samples = entriesOfKind(demo.runEntries, 'sample');
    for (const lotId of new Set(samples.map((e) => e.lotId))) {
      const depths = samples.filter((e) => e.lotId === lotId).map((e) => e.detail.depth);
      expect(depths.at(-1)).toBeGreaterThan(depths[0] ?? 1);
    }
    expect(new Set(demo.tags.map((t) => t.seq)).size).toBe(demo.tags.length);
    expect(demo.containers.every((c) => c.tareMg > 0)).toBe(true);
  });

  it('looks deeper wet than dry, every time', () => {
    for (const lot of demo.lots) {
      for (const batch of lot.plan.batches) {
        const of = (state: string) =>
          demo.readings.find((r) => r.lotId === lot.id && r.batch === batch.number && r.state === state);
        const [wet, dry] = [of('wet'), of('dry')];
        if (wet && dry) expect(wet.lab.L).toBeLessThan(dry.lab.L);
      }
    }
  });

  it('shows the weaker harvest in the shade', () => {
    const strongOf = (lot: StudioDocument['lots'][number]): string =>
      demo.stockLots.find(
        (s) => s.id === lot.plan.materials.find((m) => m.name.startsWith('Weld'))?.picks[0]?.stockLotId,
      )?.note ?? '';
    const chroma = (lot: StudioDocument['lots'][number]): number => {
      const r = demo.readings.find((x) => x.lotId === lot.id && x.state === 'dry');
      return r ? Math.hypot(r.lab.a, r.lab.b) : NaN;
    };
    const marrams = demo.lots.filter(
      (l) =>
        demo.colourways.find((c) => c.id === l.colourwayId)?.name === 'Marram' &&
        !l.plan.batches.some((b) => b.vesselName === 'Dented pot'),
    );
    const mean = (lots: typeof marrams): number => {
      const known = lots.map(chroma).filter((c) => !Number.isNaN(c));
      return known.reduce((sum, c) => sum + c, 0) / known.length;
    };
    const [weak, strong] = [marrams.filter((l) => strongOf(l) !== ''), marrams.filter((l) => strongOf(l) === '')];
    expect(weak.length).toBeGreaterThan(0);
    expect(mean(weak)).toBeLessThan(mean(strong));
  });
});

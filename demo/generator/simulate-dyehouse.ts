import type { StudioFile } from '@vestigia/contract';
import { recipeBody } from '@vestigia/contract';
import type { Lab, LotPlan, PlanMaterial } from '@vestigia/core';
import {
  checkVerdict,
  ciede2000,
  compareThenAndNow,
  convertGramsToMilligrams,
  lotColour,
  planLot,
  readLotSize,
  roundToResolution,
} from '@vestigia/core';
import { Random } from './random';
import { addBenchHistory } from './bench-history';
import { addRecipesHistory } from './recipes-history';
import { addStoresHistory } from './stores-history';
import type { ColourwaySeed, RecipeSeed } from './saltgrass';
import { COLOURWAYS, HEAT_SOURCES, MATERIALS, PEOPLE, RECIPES, SETTINGS, SUPPLIES, VESSELS, WATERS } from './saltgrass';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** The one lot dyed in the pot that once met iron: a Marram, which shows it. */
const SPOILED_LOT = 31;

export interface Simulation {
  readonly seed: number;
  /** The moment the story ends. */
  readonly asOf: string;
  readonly days: number;
  /** Days between the starts of two lots: stock is weighed in a lot's first days, so lots don't meet at the jars. */
  readonly daysBetweenLots: number;
  /** Makes each delivery this much larger. */
  readonly supplyScale: number;
  /** Makes deliveries come this much less often, and what they bring keep as much longer. */
  readonly supplyEvery: number;
  /** A jar is counted after this many of its weighings. */
  readonly countEvery: number;
  /** Starts of the last lots, days before the story ends: they are what is in the pots. The first of them waits for its verdict. */
  readonly lastStartsDaysBefore: readonly number[];
}

type Doc = StudioFile;
type DocLot = Doc['lots'][number];
interface Jar {
  readonly id: string;
  readonly materialId: string;
  readonly receivedOn: string;
  readonly bestBefore: string | null;
  readonly strength: number;
  onHand: number;
  promised: number;
  weighings: number;
}
interface Made {
  readonly lot: DocLot;
  readonly lab: Lab;
}

/**
 * A small simulated dyehouse: deliveries come, lots are planned with the product's own arithmetic, dyed with the slips
 * people make, read wet and dry, judged. Shade follows the dyestuff's strength, the water and the pot by a simple
 * saturating law, so that two harvests, two waters and one spoiled pot leave marks that can be found again.
 */
export function simulateDyehouse(sim: Simulation): StudioFile {
  return new Dyehouse(sim).run();
}

class Dyehouse {
  private readonly random: Random;
  private readonly endMs: number;
  private readonly startMs: number;
  private readonly doc: Doc;
  private readonly jars: Jar[] = [];
  private readonly tagNumbers = new Map<string, number>();
  private readonly released = new Map<string, Made[]>();
  private readonly materialIds = new Map<string, string>();

  constructor(private readonly sim: Simulation) {
    this.random = new Random(sim.seed);
    this.endMs = Date.parse(sim.asOf);
    this.startMs = this.endMs - sim.days * DAY_MS;
    this.doc = this.furnish();
  }

  run(): Doc {
    const deliveries = this.planDeliveries();
    const last = this.sim.lastStartsDaysBefore;
    const steadyDays = this.sim.days - 5 - (last[0] ?? 0);
    const steady = Array.from(
      { length: Math.floor(steadyDays / this.sim.daysBetweenLots) },
      (_, n) => this.startMs + (5 + n * this.sim.daysBetweenLots) * DAY_MS,
    );
    const starts = [...steady, ...last.map((days) => this.endMs - days * DAY_MS)];
    starts.forEach((startMs, n) => {
      while ((deliveries[0]?.atMs ?? Infinity) <= startMs) this.deliver(deliveries.shift() as Delivery);
      this.dyeLot(n, startMs, n === steady.length);
    });
    for (const delivery of deliveries) this.deliver(delivery);
    addStoresHistory(this.doc, {
      random: this.random,
      endMs: this.endMs,
      materialId: (name) => this.materialId(name),
      byId: () => this.personId(),
    });
    addRecipesHistory(this.doc, {
      random: new Random(this.sim.seed + 2),
      endMs: this.endMs,
      materialId: (name) => this.materialId(name),
    });
    addBenchHistory(this.doc, { random: new Random(this.sim.seed + 3), byId: () => this.personId() });
    this.doc.movements.sort(byTime);
    this.doc.promises.sort(byTime);
    this.doc.runEntries.sort((a, b) => byText(a.recordedAt, b.recordedAt));
    return this.doc;
  }

  private furnish(): Doc {
    const { random, startMs } = this;
    const id = (): string => random.id(startMs - DAY_MS);
    // Furniture that came later has its own chance, so that the story stays what it was.
    const later = new Random(this.sim.seed + 1);
    const heatSources = HEAT_SOURCES.map((h) => ({ id: later.id(startMs - DAY_MS), ...h }));
    const people = PEOPLE.map((p) => ({ id: id(), ...p }));
    const materials = MATERIALS.map((m) => ({
      id: id(),
      name: m.name,
      kind: m.kind,
      measure: m.measure ?? ('weight' as const),
      hazards: m.hazards,
      note: m.note ?? '',
      base: m.base ?? null,
      facts: m.facts ?? {},
    }));
    for (const m of materials) this.materialIds.set(m.name, m.id);
    const who = { byId: people[0]?.id ?? '', at: iso(startMs - DAY_MS) };
    const recipes = RECIPES.map((r) => ({ id: id(), name: r.name }));
    const bodyOf = ({ name: _name, ...r }: RecipeSeed) => ({
      ...r,
      steps: r.steps.map((s) => ({
        ...s,
        doses: s.doses.map(([name, percentOwf]) => ({ materialId: this.materialId(name), percentOwf })),
      })),
    });
    const recipeVersions = recipes.map((r, i) => ({
      id: id(),
      recipeId: r.id,
      number: 1,
      body: bodyOf(RECIPES[i] as RecipeSeed),
      ...who,
    }));
    const standings = recipeVersions.map((v) => ({
      id: id(),
      recipeVersionId: v.id,
      standing: 'proven' as const,
      reason: 'Four proofs within tolerance',
      ...who,
    }));
    const colourways = COLOURWAYS.map((c) => ({
      id: id(),
      name: c.name,
      recipeVersionId:
        recipeVersions.find((v) => recipes.find((r) => r.id === v.recipeId)?.name === c.recipe)?.id ?? '',
      baseMaterialId: this.materialId(c.base),
      master: { ...c.shade, illuminant: 'D65' as const, observer: '10' as const },
      toleranceDeltaE: c.toleranceDeltaE,
      note: c.note,
    }));
    return {
      format: 'vestigia-studio',
      formatVersion: 2,
      asOf: this.sim.asOf,
      settings: SETTINGS,
      people,
      heatSources,
      vessels: VESSELS.map(({ heat, ...v }) => ({
        id: id(),
        ...v,
        heatSourceId: heatSources.find((h) => h.name === heat)?.id ?? null,
      })),
      waters: WATERS.map((w) => ({ id: id(), ...w })),
      materials,
      stockLots: [],
      recipes,
      recipeVersions,
      standings,
      colourways,
      lots: [],
      movements: [],
      promises: [],
      runEntries: [],
      readings: [],
      verdicts: [],
    };
  }

  private planDeliveries(): Delivery[] {
    const deliveries = SUPPLIES.flatMap((supply, s) => {
      const everyMs = supply.everyMonths * this.sim.supplyEvery * 30.4 * DAY_MS;
      const times: Delivery[] = [];
      for (
        let atMs = this.startMs + (s % 4) * DAY_MS * 0.5, n = 0;
        atMs < this.endMs - DAY_MS;
        n += 1, atMs = this.startMs + n * everyMs + this.random.between(-6, 6) * DAY_MS * Math.sign(n)
      ) {
        times.push({ supply, atMs, strength: supply.strengths[n % supply.strengths.length] ?? 1 });
      }
      return times;
    });
    return deliveries.sort((a, b) => a.atMs - b.atMs);
  }

  private deliver({ supply, atMs, strength }: Delivery): void {
    const materialId = this.materialId(supply.material);
    const stem = supply.material
      .replace(/[^A-Za-z]/g, '')
      .slice(0, 3)
      .toUpperCase();
    const number = (this.tagNumbers.get(stem) ?? 0) + 1;
    this.tagNumbers.set(stem, number);
    const receivedOn = iso(atMs).slice(0, 10);
    const bestBefore =
      supply.keepsMonths === null
        ? null
        : iso(atMs + supply.keepsMonths * this.sim.supplyEvery * 30.4 * DAY_MS).slice(0, 10);
    const id = this.random.id(atMs);
    const amount = Math.round((supply.each * this.sim.supplyScale * this.random.between(0.9, 1.1)) / 5) * 5 * 1000;
    const grown = supply.pence === 0;
    const first = number === 1;
    // A harvest is known to be weak once a strip was dyed with it; the first of a dyestuff is what the others are told against.
    const strengths =
      supply.strengths.length < 2
        ? {}
        : first
          ? { reference: true, strengthPercent: 100, strengthBasis: 'the first we had' }
          : number % 2 === 0
            ? { strengthPercent: Math.round(strength * 100), strengthBasis: 'strip test against the first' }
            : {};
    this.doc.stockLots.push({
      id,
      materialId,
      tag: `${stem}-${number}`,
      receivedOn,
      bestBefore,
      place: supply.place,
      source: supply.source,
      note: strength < 0.95 ? 'Wet summer: smells faint.' : '',
      costMinor: grown ? null : Math.round((supply.pence * amount) / 1000),
      facts: {
        ...(grown
          ? {
              origin: 'harvest' as const,
              form: 'dried' as const,
              gathering: {
                permission: supply.source.includes('leave') ? 'the owner of the carr' : 'the studio: our own bed',
                sharePercent: supply.source.includes('leave') ? 20 : 60,
                note: '',
              },
            }
          : {}),
        ...strengths,
        ...(amount < 5_000_000 ? { container: 'glass jar', tareMg: 380_000 + (number % 3) * 45_000 } : {}),
      },
    });
    this.doc.movements.push({
      id: this.random.id(atMs),
      stockLotId: id,
      kind: grown ? 'gather' : 'receive',
      amount,
      lotId: null,
      runEntryId: null,
      reversesId: null,
      note: supply.source,
      byId: this.personId(),
      at: iso(atMs),
    });
    this.jars.push({ id, materialId, receivedOn, bestBefore, strength, onHand: amount, promised: 0, weighings: 0 });
  }

  private dyeLot(n: number, startMs: number, unjudged: boolean): void {
    const seed = COLOURWAYS[(n * 7 + Math.floor(n / COLOURWAYS.length)) % COLOURWAYS.length] as ColourwaySeed;
    const colourway = this.doc.colourways.find((c) => c.name === seed.name);
    const version = this.doc.recipeVersions.find((v) => v.id === colourway?.recipeVersionId);
    const base = this.doc.materials.find((m) => m.id === colourway?.baseMaterialId);
    if (!colourway || !version || !base?.base) throw new Error(`${seed.name} is not furnished`);
    const earlier = this.released.get(colourway.id)?.at(-1);
    const spoiled = n === SPOILED_LOT;
    const reorderOf = earlier && this.random.next() < 0.6 && !spoiled ? earlier : undefined;
    const written = spoiled ? '5 x 200 g' : reorderOf ? reorderOf.lot.written : this.random.pick(seed.sizes);
    const size = readLotSize(written, base.base);
    if (!size.ok) throw new Error(size.sentence);
    const vessels = this.doc.vessels.filter((v) => (spoiled ? v.name === 'Dented pot' : v.name !== 'Dented pot'));
    const planned = planLot({
      today: iso(startMs).slice(0, 10),
      water: null,
      room: SETTINGS,
      recipe: {
        id: version.id,
        recipeName: seed.recipe,
        number: version.number,
        ...recipeBody.parse(version.body),
        ...(spoiled ? { allowedMetals: ['aluminium' as const] } : {}),
      },
      bases: [{ ...this.forPlan(base.id), fibre: base.base.fibre, pieceWord: base.base.pieceWord, ...size.size }],
      materials: this.doc.materials.filter((m) => m.kind !== 'fibre').map((m) => this.forPlan(m.id)),
      vessels: vessels.map((v) => ({
        ...v,
        heatSource: this.doc.heatSources?.find((h) => h.id === v.heatSourceId) ?? null,
      })),
      balance: {
        name: SETTINGS.balanceName,
        resolutionG: SETTINGS.balanceResolutionG,
        capacityG: SETTINGS.balanceCapacityG,
      },
    });
    // A lot that doesn't fit or is short was not dyed that week.
    if (!planned.ok || planned.plan.materials.some((m) => m.short > 0)) return;
    const water = this.doc.waters[this.random.next() < 0.78 ? 0 : 1] as Doc['waters'][number];
    const lot = this.agree(planned.plan, {
      colourway,
      startMs,
      written,
      water,
      reorderOf: reorderOf?.lot,
      recipeVersionId: version.id,
      baseId: base.id,
    });
    this.work(lot, seed, startMs + 40 * 60_000, { spoiled, unjudged, water: water.name, undyed: base.base.undyed });
  }

  private agree(
    plan: LotPlan,
    of: {
      colourway: Doc['colourways'][number];
      startMs: number;
      written: string;
      water: Doc['waters'][number];
      reorderOf: DocLot | undefined;
      recipeVersionId: string;
      baseId: string;
    },
  ): DocLot {
    const { note: _note, ...water } = of.water;
    const lot: DocLot = {
      id: this.random.id(of.startMs),
      number: this.doc.lots.length + 1,
      colourwayId: of.colourway.id,
      recipeVersionId: of.recipeVersionId,
      baseMaterialId: of.baseId,
      waterId: water.id,
      water,
      reorderOfId: of.reorderOf?.id ?? null,
      written: of.written,
      plan: plan as DocLot['plan'],
      factors: [],
      note: '',
      byId: this.personId(),
      at: iso(of.startMs),
    };
    if (of.reorderOf) lot.factors = compareThenAndNow(this.conditions(of.reorderOf), this.conditions(lot));
    this.doc.lots.push(lot);
    for (const pick of plan.materials.flatMap((m) => m.picks))
      this.promise(lot, pick.stockLotId, pick.amount, of.startMs);
    return lot;
  }

  /** Dyes what can be dyed until the story ends: whatever lies after that is left open. */
  private work(lot: DocLot, seed: ColourwaySeed, startMs: number, how: Circumstances): void {
    let atMs = startMs;
    const enter = (
      stepIndex: number,
      kind: Doc['runEntries'][number]['kind'],
      ms: number,
      rest: Partial<Doc['runEntries'][number]> = {},
    ): string | undefined => {
      if (ms > this.endMs) return undefined;
      const id = this.random.id(ms);
      this.doc.runEntries.push({
        id,
        lotId: lot.id,
        stepIndex,
        kind,
        at: iso(ms),
        recordedAt: iso(ms + 5000),
        replacesId: null,
        temperatureC: null,
        text: null,
        weighing: null,
        byId: this.personId(),
        ...rest,
      });
      return id;
    };
    for (const step of lot.plan.steps) {
      if (step.kind === 'wash') this.read(lot, seed, 'cured', atMs, how);
      atMs = this.workingTime(atMs, step.temperatureC !== undefined && !step.attended ? step.durationMin : 20);
      if (enter(step.index, 'start', atMs) === undefined) return;
      let weighMs = atMs;
      for (const weighing of step.weighings) {
        for (const pick of weighing.picks) {
          weighMs += 90_000;
          if (pick.stockLotId !== null)
            this.weigh(
              lot,
              step.index,
              weighing.batch,
              weighing.materialId,
              pick.stockLotId,
              pick.amount,
              weighMs,
              enter,
            );
        }
      }
      if (step.temperatureC !== undefined) {
        const slip = this.random.next() < 0.04 ? 9 : 0;
        enter(step.index, 'temperature', weighMs + Math.min(25, step.durationMin / 2) * 60_000, {
          temperatureC: Math.round(step.temperatureC + this.random.spread(1.2) + slip),
        });
      }
      if (how.spoiled && step.kind === 'dye')
        enter(step.index, 'note', weighMs + 30 * 60_000, {
          text: 'Going dull and greenish. Is it this pot? Nobody remembers what it held.',
        });
      const minutes = step.attended
        ? step.durationMin * this.random.between(0.8, 1.3)
        : step.durationMin * this.random.between(0.98, 1.1) + 2;
      const finishedMs = this.waking(Math.max(weighMs, atMs) + minutes * 60_000, step.durationMin > 180);
      if (enter(step.index, 'finish', finishedMs) === undefined) return;
      this.releaseLeftOver(lot, step.index, finishedMs);
      if (step.kind === 'rinse') this.read(lot, seed, 'wet', finishedMs + 60_000, how);
      if (step.kind === 'dry') this.read(lot, seed, 'dry', finishedMs + 60_000, how);
      atMs = finishedMs + 15 * 60_000;
    }
    if (!how.unjudged) this.judge(lot, seed, atMs + 2 * HOUR_MS, how);
  }

  private weigh(
    lot: DocLot,
    stepIndex: number,
    batch: number,
    materialId: string,
    jarId: string,
    amountMg: number,
    atMs: number,
    enter: (stepIndex: number, kind: 'weigh', ms: number, rest: object) => string | undefined,
  ): void {
    const jar = this.jar(jarId);
    // Dust and drips: a hair off, now and then clearly over.
    const off = this.random.next() < 0.03 ? 1.06 : 1 + this.random.spread(0.002);
    const wantedMg = convertGramsToMilligrams(roundToResolution((amountMg / 1000) * off, SETTINGS.balanceResolutionG));
    const spare = jar.onHand - jar.promised;
    const takenMg = Math.max(100, Math.min(wantedMg, amountMg + Math.max(0, spare), jar.onHand));
    const runEntryId = enter(stepIndex, 'weigh', atMs, {
      weighing: { batch, materialId, stockLotId: jarId, amount: takenMg },
    });
    if (runEntryId === undefined) return;
    this.doc.movements.push({
      id: this.random.id(atMs),
      stockLotId: jarId,
      kind: 'use',
      amount: -takenMg,
      lotId: lot.id,
      runEntryId,
      reversesId: null,
      note: '',
      byId: this.personId(),
      at: iso(atMs),
    });
    jar.onHand -= takenMg;
    jar.weighings += 1;
    this.promise(lot, jarId, -Math.min(takenMg, this.promisedTo(lot, jarId)), atMs);
    if (jar.weighings % this.sim.countEvery === 0) this.countJar(jar, atMs + 60_000);
  }

  private countJar(jar: Jar, atMs: number): void {
    const lossMg = Math.round(((jar.onHand - jar.promised) * this.random.between(0, 0.004)) / 100) * 100;
    if (lossMg <= 0) return;
    this.doc.movements.push({
      id: this.random.id(atMs),
      stockLotId: jar.id,
      kind: 'count',
      amount: -lossMg,
      lotId: null,
      runEntryId: null,
      reversesId: null,
      note: 'Dust at the scoop, most likely',
      byId: this.personId(),
      at: iso(atMs),
    });
    jar.onHand -= lossMg;
  }

  private releaseLeftOver(lot: DocLot, stepIndex: number, atMs: number): void {
    const later = new Set(
      lot.plan.steps.filter((s) => s.index > stepIndex).flatMap((s) => s.weighings.map((w) => w.materialId)),
    );
    for (const m of lot.plan.materials) {
      if (later.has(m.materialId)) continue;
      for (const p of m.picks)
        if (p.stockLotId !== null) this.promise(lot, p.stockLotId, -this.promisedTo(lot, p.stockLotId), atMs);
    }
  }

  private promise(lot: DocLot, jarId: string | null, amount: number, atMs: number): void {
    if (jarId === null || amount === 0) return;
    this.jar(jarId).promised += amount;
    this.doc.promises.push({
      id: this.random.id(atMs),
      lotId: lot.id,
      stockLotId: jarId,
      amount,
      byId: lot.byId,
      at: iso(atMs),
    });
  }

  private promisedTo(lot: DocLot, jarId: string): number {
    let sum = 0;
    for (let i = this.doc.promises.length - 1; i >= 0; i -= 1) {
      const p = this.doc.promises[i];
      if (p?.lotId === lot.id && p.stockLotId === jarId) sum += p.amount;
      if (p && p.lotId !== lot.id) break;
    }
    return sum;
  }

  /** The colour that came out: strength and dose against what is wanted, then water, pot and chance. */
  private shadeOf(lot: DocLot, seed: ColourwaySeed, batch: number, how: Circumstances): Lab {
    const dyeId = this.materialId(seed.dyestuff);
    const wanted = lot.plan.steps
      .flatMap((s) => s.weighings)
      .filter((w) => w.materialId === dyeId && w.batch === batch)
      .reduce((sum, w) => sum + w.target.value, 0);
    const given = this.doc.runEntries
      .filter((e) => e.lotId === lot.id && e.weighing?.materialId === dyeId && e.weighing.batch === batch)
      .reduce(
        (sum, e) => sum + ((e.weighing?.amount ?? 0) / 1000) * this.jar(e.weighing?.stockLotId ?? '').strength,
        0,
      );
    const depth = (1 - Math.exp((-1.6 * given) / wanted)) / (1 - Math.exp(-1.6));
    const mix = (from: number, to: number): number => from + (to - from) * depth;
    const rain = how.water === 'Rain barrel' ? 1 : 0;
    const { L, a, b } = {
      L: mix(how.undyed.L, seed.shade.L),
      a: mix(how.undyed.a, seed.shade.a),
      b: mix(how.undyed.b, seed.shade.b),
    };
    const dull = how.spoiled ? 0.8 : 1;
    return {
      L: L + rain * 0.9 - (how.spoiled ? 6 : 0) + this.chance(lot, batch, 0),
      a: a * dull + rain * 0.3 + this.chance(lot, batch, 1),
      b: b * dull - rain * 0.8 + this.chance(lot, batch, 2),
    };
  }

  /** A batch's own luck: the same each time it is read. */
  private chance(lot: DocLot, batch: number, axis: number): number {
    return new Random(this.sim.seed + lot.number * 97 + batch * 13 + axis).spread(0.35);
  }

  private read(
    lot: DocLot,
    seed: ColourwaySeed,
    state: 'wet' | 'dry' | 'cured',
    atMs: number,
    how: Circumstances,
  ): void {
    if (atMs > this.endMs) return;
    for (const { number } of lot.plan.batches) {
      const ms = atMs + number * 60_000;
      const dry = this.shadeOf(lot, seed, number, how);
      const seen = state === 'wet' ? { L: dry.L * 0.86, a: dry.a * 1.14, b: dry.b * 1.12 } : dry;
      const noisy = (value: number): number => Math.round((value + this.random.spread(0.12)) * 100) / 100;
      this.doc.readings.push({
        id: this.random.id(ms),
        lotId: lot.id,
        batch: number,
        state,
        lab: { L: noisy(seen.L), a: noisy(seen.a), b: noisy(seen.b) },
        illuminant: 'D65',
        observer: '10',
        note: '',
        replacesId: null,
        byId: this.personId(),
        at: iso(ms),
      });
    }
  }

  private judge(lot: DocLot, seed: ColourwaySeed, atMs: number, how: Circumstances): void {
    if (atMs > this.endMs) return;
    const readings = this.doc.readings.filter((r) => r.lotId === lot.id);
    const last = lot.plan.batches.flatMap((b) =>
      readings.filter((r) => r.batch === b.number && r.state !== 'wet').slice(-1),
    );
    const colour = lotColour(seed.shade, last);
    const first = this.released.get(lot.colourwayId)?.[0];
    const within = colour.worstDeltaE <= seed.toleranceDeltaE;
    const near = colour.worstDeltaE <= seed.toleranceDeltaE * 1.5;
    const verdict = within || near ? ('pass' as const) : ('refuse' as const);
    const reason = within
      ? ''
      : near
        ? 'A shade off, but its own set: not to be mixed with older lots.'
        : how.spoiled
          ? 'Dull and greyed. The dented pot met iron once; not to be used for yellows.'
          : 'Too far from the master to sell under this name.';
    const refused = checkVerdict({
      verdict,
      reason,
      master: { lab: seed.shade, illuminant: 'D65', observer: '10', toleranceDeltaE: seed.toleranceDeltaE },
      batches: lot.plan.batches.length,
      readings,
      openSteps: 0,
    });
    if (refused) throw new Error(`lot ${lot.number}: ${refused.sentence}`);
    const toFirst =
      lot.reorderOfId !== null && first ? ciede2000(first.lab, colour.lab, { kL: 1, kC: 1, kH: 1 }).deltaE : null;
    this.doc.verdicts.push({
      id: this.random.id(atMs),
      lotId: lot.id,
      verdict,
      reason,
      toMaster: colour.worstDeltaE,
      toFirst,
      betweenBatches: colour.betweenBatchesDeltaE,
      byId: this.personId(),
      at: iso(atMs),
    });
    if (verdict === 'pass')
      this.released.set(lot.colourwayId, [...(this.released.get(lot.colourwayId) ?? []), { lot, lab: colour.lab }]);
  }

  private conditions(lot: DocLot): Parameters<typeof compareThenAndNow>[0] {
    const version = this.doc.recipeVersions.find((v) => v.id === lot.recipeVersionId);
    const recipe = this.doc.recipes.find((r) => r.id === version?.recipeId);
    const sources = (m: DocLot['plan']['materials'][number]) =>
      m.picks.flatMap((p) =>
        p.stockLotId === null
          ? []
          : [{ stockLotId: p.stockLotId, tag: this.doc.stockLots.find((s) => s.id === p.stockLotId)?.tag ?? '' }],
      );
    const isBase = (m: DocLot['plan']['materials'][number]): boolean => m.materialId === lot.baseMaterialId;
    return {
      recipe: { id: lot.recipeVersionId, name: `${recipe?.name ?? ''}, version ${version?.number ?? 1}` },
      water: lot.water ?? null,
      liquorRatio: lot.plan.liquorRatio,
      base: lot.plan.materials.filter(isBase).flatMap(sources),
      materials: lot.plan.materials
        .filter((m) => !isBase(m))
        .map((m) => ({
          materialId: m.materialId,
          name: m.name,
          measure: m.measure ?? 'weight',
          percentOwf: (m.total.value / lot.plan.wof.value) * 100,
          sources: sources(m),
        })),
      vessels: lot.plan.batches.map((b) => ({ id: b.vesselId, name: b.vesselName, metal: b.metal })),
    };
  }

  /** The next moment work with this much to hold can begin: between nine and four. */
  private workingTime(atMs: number, minutes: number): number {
    const at = new Date(atMs);
    const hour = at.getUTCHours() + at.getUTCMinutes() / 60;
    if (hour < 9) return at.setUTCHours(9, 5, 0, 0);
    if (hour + Math.min(minutes, 180) / 60 > 17.5) return at.setUTCHours(33, 10, 0, 0);
    return atMs;
  }

  /** Nobody is there at night: what ends in the dark is found in the morning. */
  private waking(atMs: number, mayWait: boolean): number {
    const at = new Date(atMs);
    const hour = at.getUTCHours();
    if (!mayWait || (hour >= 8 && hour < 19)) return atMs;
    return hour >= 19 ? at.setUTCHours(32, 20, 0, 0) : at.setUTCHours(8, 20, 0, 0);
  }

  private forPlan(materialId: string): PlanMaterial {
    const material = this.doc.materials.find((m) => m.id === materialId);
    const stock = this.jars
      .filter((j) => j.materialId === materialId)
      .map((j) => ({
        stockLotId: j.id,
        free: j.onHand - j.promised,
        receivedOn: j.receivedOn,
        ...(j.bestBefore === null ? {} : { bestBefore: j.bestBefore }),
      }));
    return {
      id: materialId,
      name: material?.name ?? '',
      hazards: material?.hazards ?? [],
      measure: material?.measure ?? 'weight',
      packet: null,
      spoons: [],
      dryFactor: null,
      stock,
    };
  }

  private materialId(name: string): string {
    const id = this.materialIds.get(name);
    if (id === undefined) throw new Error(`no material called ${name}`);
    return id;
  }

  private jar(id: string): Jar {
    const jar = this.jars.find((j) => j.id === id);
    if (!jar) throw new Error(`no jar ${id}`);
    return jar;
  }

  private personId(): string {
    return this.random.pick(this.doc.people).id;
  }
}

interface Circumstances {
  readonly spoiled: boolean;
  readonly unjudged: boolean;
  readonly water: string;
  readonly undyed: Lab;
}

interface Delivery {
  readonly supply: (typeof SUPPLIES)[number];
  readonly atMs: number;
  readonly strength: number;
}

const iso = (ms: number): string => new Date(ms).toISOString();
const byText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
const byTime = (a: { at: string }, b: { at: string }): number => byText(a.at, b.at);

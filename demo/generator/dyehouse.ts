import type { StudioFile } from '@vestigia/contract';
import type { BathContent, Lab, PlanMaterial } from '@vestigia/core';
import type { HarvestMonths } from './harvest';
import { Random } from './random';
import type { SUPPLIES } from './saltgrass-supplies';

export const HOUR_MS = 3_600_000;

export const DAY_MS = 24 * HOUR_MS;

/** The one lot dyed in the pot that once met iron: a Marram, which shows it. */
export const SPOILED_LOT = 31;

/** The weaver's large order of Marram: more than the pots hold at once. */
export const LARGE_LOT = 24;

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
  /**
   * Starts of the last lots, days before the story ends: they are what is in the pots. The first of them waits for
   * its verdict.
   */
  readonly lastStartsDaysBefore: readonly number[];
}

export type Doc = StudioFile;

export type DocLot = Doc['lots'][number];

export interface Jar {
  readonly id: string;
  readonly materialId: string;
  readonly receivedOn: string;
  readonly bestBefore: string | null;
  readonly strength: number;
  onHand: number;
  reserved: number;
  weighings: number;
}

export interface Created {
  readonly lot: DocLot;
  readonly lab: Lab;
}

export interface Circumstances {
  readonly spoiled: boolean;
  readonly unjudged: boolean;
  readonly water: string;
  readonly undyed: Lab;
  /** So many times as heavy as written the pieces came. */
  readonly heavier?: number;
}

export interface Delivery {
  readonly supply: (typeof SUPPLIES)[number];
  readonly atMs: number;
  readonly strength: number;
}

export const iso = (ms: number): string => new Date(ms).toISOString();

export const byText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

export const byTime = (a: { at: string }, b: { at: string }): number => byText(a.at, b.at);

/** The dyehouse while its story is told: the studio file so far, its chance and what stands on its shelf. */
export class Dyehouse {
  random: Random;
  readonly endMs: number;
  readonly startMs: number;
  readonly doc: Doc;
  readonly stockLots: Jar[] = [];
  readonly tagNumbers = new Map<string, number>();
  readonly released = new Map<string, Created[]>();
  readonly materialIds = new Map<string, string>();
  /** What kept liquors hold, in grams to the litre of each. */
  readonly liquors = new Map<string, readonly (BathContent & { readonly gPerL: number })[]>();

  constructor(
    readonly sim: Simulation,
    furnish: (house: Dyehouse) => Doc,
  ) {
    this.random = new Random(sim.seed);
    this.endMs = Date.parse(sim.asOf);
    this.startMs = this.endMs - sim.days * DAY_MS;
    this.doc = furnish(this);
  }

  /** The next moment work with this much to hold can begin: between nine and four. */
  workingTime(atMs: number, minutes: number): number {
    const at = new Date(atMs);
    const hour = at.getUTCHours() + at.getUTCMinutes() / 60;
    if (hour < 9) return at.setUTCHours(9, 5, 0, 0);
    if (hour + Math.min(minutes, 180) / 60 > 17.5) return at.setUTCHours(33, 10, 0, 0);
    return atMs;
  }

  /** Nobody is there at night: what ends in the dark is found in the morning. */
  waking(atMs: number, mayWait: boolean): number {
    const at = new Date(atMs);
    const hour = at.getUTCHours();
    if (!mayWait || (hour >= 8 && hour < 19)) return atMs;
    return hour >= 19 ? at.setUTCHours(32, 20, 0, 0) : at.setUTCHours(8, 20, 0, 0);
  }

  forPlan(materialId: string): PlanMaterial {
    const material = this.doc.materials.find((m) => m.id === materialId);
    const stock = this.stockLots
      .filter((j) => j.materialId === materialId)
      .map((j) => ({
        stockLotId: j.id,
        free: j.onHand - j.reserved,
        receivedOn: j.receivedOn,
        ...(j.bestBefore === null ? {} : { bestBefore: j.bestBefore }),
      }));
    return {
      id: materialId,
      name: material?.name ?? '',
      kind: material?.kind ?? null,
      catalogueKey: material?.facts?.catalogueKey ?? null,
      hazards: material?.hazards ?? [],
      measure: material?.measure ?? 'weight',
      packet: null,
      spoons: [],
      dryFactor: null,
      stock,
    };
  }

  /** When a material is taken, as the studio has it; `null` where it is not of a season. */
  seasonOf(name: string): HarvestMonths | null {
    return this.doc.materials.find((m) => m.id === this.materialId(name))?.facts?.season ?? null;
  }

  materialId(name: string): string {
    const id = this.materialIds.get(name);
    if (id === undefined) throw new Error(`no material called ${name}`);
    return id;
  }

  stockLot(id: string): Jar {
    const stockLot = this.stockLots.find((j) => j.id === id);
    if (!stockLot) throw new Error(`no jar ${id}`);
    return stockLot;
  }

  /** What so much of a kept liquor holds, µl; nothing of a jar that is none. */
  contentsOf(stockLotId: string, volumeUl: number): BathContent[] | undefined {
    return this.liquors
      .get(stockLotId)
      ?.map(({ gPerL, ...c }) => ({ ...c, grams: Math.round((gPerL * volumeUl) / 1000) / 1000 }));
  }

  /** Tells a part of the story by its own chance, so that the rest stays what it was. */
  aside(seed: number, tell: () => void): void {
    const own = this.random;
    this.random = new Random(this.sim.seed + seed);
    tell();
    this.random = own;
  }

  personId(): string {
    return this.random.pick(this.doc.people).id;
  }
}

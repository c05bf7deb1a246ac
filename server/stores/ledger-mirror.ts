import { setImmediate } from 'node:timers/promises';
import type { MovementKind } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { oneValue } from './shelf';

/** One movement, with what sums over all of time ask of it. */
export interface MirroredMovement {
  /** By which it is known here: half a million names would be much memory. */
  readonly id: number;
  readonly materialId: string;
  readonly stockLotId: string;
  readonly amount: number;
  readonly kind: MovementKind;
  readonly conversionId: string | null;
  readonly conversionKind: string | null;
  readonly reversesId: number | null;
  readonly reversedKind: MovementKind | null;
  readonly atMs: number;
}

/** As the database tells it: short, because there may be very many. */
type Raw = [
  seq: number,
  stockLotId: string,
  materialId: string,
  amount: number,
  kind: MovementKind,
  conversionId: string | null,
  conversionKind: string | null,
  reversesId: number | null,
  reversedKind: MovementKind | null,
  atMs: number,
];

/** So many are read at once; others are served between. */
const PIECE = 500;

/**
 * The ledger of movements in memory. It is only ever added to, in the order of its numbers, so each reading asks for
 * what came since: half a million movements are summed here in the time the database would need to find them.
 */
export class LedgerMirror {
  private readonly byMaterial = new Map<string, MirroredMovement[]>();
  private readonly unsorted = new Set<string>();
  private readonly groups = new Groups();
  private readonly names = new Map<string, string>();
  private seen = 0;
  /** So many wait for it. */
  private wanted = 0;
  private last: Promise<unknown> = Promise.resolve();

  /** Takes in what came since, for somebody who waits for it. */
  async follow(db: Db): Promise<void> {
    this.wanted += 1;
    try {
      await this.inTurn(db, setImmediate);
    } finally {
      this.wanted -= 1;
    }
  }

  /** Takes in what came since, for nobody yet. @param between awaited between pieces; throws to stop it where it is */
  readAhead(db: Db, between: () => Promise<unknown>): Promise<void> {
    // Whoever waits for it now would wait for itself, if others went first.
    return this.inTurn(db, () => (this.wanted > 0 ? setImmediate() : between()));
  }

  private inTurn(db: Db, between: () => Promise<unknown>): Promise<void> {
    const mine = this.last.then(() => this.takeIn(db, between));
    this.last = mine.catch(() => undefined);
    return mine;
  }

  /** Those of a material, in order of time; of one conversion, what goes in before what comes out. */
  of(materialId: string): readonly MirroredMovement[] {
    const own = this.byMaterial.get(materialId) ?? [];
    if (this.unsorted.delete(materialId)) own.sort(inTime);
    return own;
  }

  /** How many there are of several materials. */
  count(materialIds: readonly string[]): number {
    return materialIds.reduce((sum, id) => sum + (this.byMaterial.get(id)?.length ?? 0), 0);
  }

  /** Those of several materials together. */
  ofAll(materialIds: readonly string[]): readonly MirroredMovement[] {
    const [only, ...more] = materialIds;
    if (only !== undefined && more.length === 0) return this.of(only);
    return materialIds.flatMap((id) => this.of(id)).sort(inTime);
  }

  materialIds(): string[] {
    return [...this.byMaterial.keys()];
  }

  /** The materials whose value hangs together with this one's, since what was made of one carries the cost of the other. */
  groupOf(materialId: string): readonly string[] {
    return this.groups.of(materialId);
  }

  private async takeIn(db: Db, between: () => Promise<unknown>): Promise<void> {
    for (;;) {
      const rows = await oneValue<Raw[]>(
        db,
        sql`(SELECT coalesce(json_agg(json_build_array(m.seq, m.stock_lot_id, s.material_id, m.amount, m.kind, m.conversion_id, c.kind, o.seq, o.kind, extract(epoch from m.at) * 1000) ORDER BY m.seq), '[]')
        FROM (SELECT * FROM movements WHERE seq > ${this.seen} ORDER BY seq LIMIT ${PIECE}) m
        JOIN stock_lots s ON s.id = m.stock_lot_id LEFT JOIN conversions c ON c.id = m.conversion_id
        LEFT JOIN movements o ON o.id = m.reverses_id)`,
      );
      for (const row of rows) this.add(row);
      this.seen = rows.at(-1)?.[0] ?? this.seen;
      if (rows.length < PIECE) return;
      await between();
    }
  }

  private add([seq, jar, of, amount, kind, converted, conversionKind, reversesId, reversedKind, atMs]: Raw): void {
    const [stockLotId, materialId] = [this.once(jar), this.once(of)];
    const conversionId = converted === null ? null : this.once(converted);
    const own = this.byMaterial.get(materialId);
    const movement: MirroredMovement = {
      id: seq,
      materialId,
      stockLotId,
      amount,
      kind: this.once(kind),
      conversionId,
      conversionKind: conversionKind === null ? null : this.once(conversionKind),
      reversesId,
      reversedKind: reversedKind === null ? null : this.once(reversedKind),
      atMs,
    };
    if (conversionId !== null) this.groups.join(conversionId, materialId);
    if (!own) {
      this.byMaterial.set(materialId, [movement]);
      return;
    }
    const before = own.at(-1);
    if (before && inTime(before, movement) > 0) this.unsorted.add(materialId);
    own.push(movement);
  }

  /** The same words are kept once: half a million times the name of a jar would be much memory. */
  private once<T extends string>(word: T): T {
    const known = this.names.get(word);
    if (known !== undefined) return known as T;
    this.names.set(word, word);
    return word;
  }
}

const comesOut = ({ kind, amount }: MirroredMovement): number => (kind === 'convert' && amount > 0 ? 1 : 0);
const inTime = (a: MirroredMovement, b: MirroredMovement): number =>
  a.atMs - b.atMs || comesOut(a) - comesOut(b) || a.id - b.id;

/** Materials that a change of form ties together. */
class Groups {
  private readonly firstOf = new Map<string, string>();
  private readonly groupOf = new Map<string, string[]>();

  of(materialId: string): readonly string[] {
    return this.groupOf.get(materialId) ?? [materialId];
  }

  join(conversionId: string, materialId: string): void {
    const first = this.firstOf.get(conversionId);
    if (first === undefined) this.firstOf.set(conversionId, materialId);
    const [one, other] = [this.of(first ?? materialId), this.of(materialId)];
    if (one === other || one.includes(materialId)) return;
    const together = [...one, ...other];
    for (const id of together) this.groupOf.set(id, together);
  }
}

import { dayOf } from '@vestigia/core';
import { studioZone } from '../../studio/studio-store';
import type { NewMaterial, StockLotRecord, StoresDocument, TransferKind } from '@vestigia/contract';
import type { DatedMovement, StockMeasure } from '@vestigia/core';
import { firstOverdraft, formatAmount, refusedSalt } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import type { Db } from '../../db/database';
import { oneValue } from '../shelf';
import { readConversionRecords, readMaterialRecords, readMovementRecords, readStockLotRecords } from './export-stores';
import type { ConversionSeed, MovementFileRecord } from './movement-records';
import type { Read } from './read-cells';
import { materialFrom, stockLotFrom } from './records';
import { movementFrom } from './movement-records';
import { guarded, rowOf } from './read-cells';
import type { Fate, PlannedRow, ImportPlan, Progress } from './import-outcome';
import { SLICE, ASKED_AT_ONCE, ROWS_TOLD, FUTURE_SLACK_MS, canonical } from './import-outcome';

/** What is here already, apart from the movements, of which there may be very many. */
export interface Here {
  readonly materials: NewMaterial[];
  readonly stockLots: StockLotRecord[];
  readonly conversions: readonly { readonly id: string }[];
  readonly people: readonly string[];
  readonly zone: string;
  readonly balances: Readonly<
    Record<string, { readonly onHand: number; readonly reserved: number; readonly lastAt: string | null }>
  >;
}

export async function readHere(db: Db): Promise<Here> {
  const { people, balances } = await oneValue<Pick<Here, 'people' | 'balances'>>(
    db,
    sql`json_build_object(
    'people', (SELECT coalesce(json_agg(name), '[]') FROM people),
    'balances',
      (SELECT coalesce(json_object_agg(b.stock_lot_id, json_build_object('onHand', b.on_hand, 'reserved',
      b.reserved, 'lastAt', (SELECT to_json(max(m.at)) FROM movements m
      WHERE m.stock_lot_id = b.stock_lot_id))), '{}') FROM stock_balances b))`,
  );
  return {
    zone: await studioZone(db),
    materials: await readMaterialRecords(db),
    stockLots: await readStockLotRecords(db),
    conversions: await readConversionRecords(db),
    people,
    balances,
  };
}

export class Planner {
  private readonly materials = new Map<string, NewMaterial>();
  private readonly materialByName = new Map<string, NewMaterial>();
  private readonly stockLots = new Map<string, StockLotRecord>();
  private readonly stockLotByTag = new Map<string, { id: string; measure: StockMeasure }>();
  private readonly moved = new Map<string, MovementFileRecord>();
  private readonly reversed = new Set<string>();
  private readonly conversionsHere: Set<string>;
  private readonly people: Set<string>;
  private readonly occurrences = new Map<string, number>();
  private readonly added = {
    materials: [] as NewMaterial[],
    stockLots: [] as StockLotRecord[],
    conversions: new Map<string, ConversionSeed & { by: string; at: string }>(),
    movements: [] as MovementFileRecord[],
    people: new Set<string>(),
  };
  private readonly rows: PlannedRow[] = [];
  private readonly fates = { new: 0, here: 0, refused: 0 };
  private readonly lineOfMovement = new Map<string, number>();

  constructor(
    private readonly db: Db,
    private readonly here: Here,
    private readonly now: Date,
  ) {
    this.people = new Set(here.people);
    this.conversionsHere = new Set(here.conversions.map((c) => c.id));
    for (const m of here.materials) this.knowMaterial(m);
    for (const s of here.stockLots) this.knowStockLot(s);
  }

  private knowMaterial(m: NewMaterial): void {
    this.materials.set(m.id, m);
    this.materialByName.set(m.name.toLowerCase(), m);
  }

  private knowStockLot(s: StockLotRecord): void {
    this.stockLots.set(s.id, s);
    this.stockLotByTag.set(s.tag, { id: s.id, measure: this.materials.get(s.materialId)?.measure ?? 'weight' });
  }

  private knowMovement(m: MovementFileRecord): void {
    this.moved.set(m.id, m);
    if (m.reversesId !== null) this.reversed.add(m.reversesId);
  }

  async addTable(
    kind: Exclude<TransferKind, 'document'>,
    { header, rows }: { header: readonly string[]; rows: readonly { line: number; cells: readonly string[] }[] },
    importer: string,
    progress: Progress,
  ): Promise<void> {
    const moved: { line: number; label: string; reading: Read<MovementFileRecord> }[] = [];
    for (const [i, { line, cells }] of rows.entries()) {
      if (i % SLICE === 0) await progress(i, rows.length);
      const label = cells.filter(Boolean).slice(0, 4).join(' · ').slice(0, 80);
      if (kind === 'materials')
        this.takeMaterial(
          line,
          label,
          guarded(() => materialFrom(rowOf(header, cells))),
        );
      else if (kind === 'stockLots')
        this.takeStockLot(
          line,
          label,
          guarded(() => stockLotFrom(rowOf(header, cells), this.materialByName)),
        );
      else
        moved.push({
          line,
          label,
          reading: guarded(() =>
            movementFrom(rowOf(header, cells), this.stockLotByTag, importer, this.here.zone, (key) => this.nth(key)),
          ),
        });
    }
    await this.takeMovements(moved, progress);
    await progress(rows.length, rows.length);
  }

  /** Movements by their ids: only those that are here already, or that the file reverses, are asked for. */
  private async takeMovements(
    rows: readonly { line: number; label: string; reading: Read<MovementFileRecord> }[],
    progress: Progress,
  ): Promise<void> {
    const named = rows.flatMap(({ reading }) =>
      reading.ok ? [reading.value.id, ...(reading.value.reversesId === null ? [] : [reading.value.reversesId])] : [],
    );
    for (let i = 0; i < named.length; i += ASKED_AT_ONCE) {
      await progress(Math.min(i, rows.length), rows.length);
      const ids = JSON.stringify(named.slice(i, i + ASKED_AT_ONCE));
      for (const m of await readMovementRecords(
        this.db,
        sql`m.id IN (SELECT x::uuid FROM json_array_elements_text(${ids}::json) x)`,
      ))
        this.knowMovement(m);
      for (const reversed of await oneValue<string[]>(
        this.db,
        sql`(SELECT coalesce(json_agg(m.reverses_id), '[]') FROM movements m WHERE m.reverses_id IN (SELECT x::uuid FROM json_array_elements_text(${ids}::json) x))`,
      ))
        this.reversed.add(reversed);
    }
    for (const [i, { line, label, reading }] of rows.entries()) {
      if (i % SLICE === 0) await progress(i, rows.length);
      this.takeMovement(line, label, reading);
    }
  }

  async addDocument(d: StoresDocument, progress: Progress): Promise<void> {
    const total = d.materials.length + d.stockLots.length + d.movements.length;
    let line = 0;
    const step = async (): Promise<void> => {
      if (line % SLICE === 0) await progress(line, total);
      line += 1;
    };
    for (const m of d.materials) {
      await step();
      this.takeMaterial(line, m.name, { ok: true, value: m });
    }
    for (const s of d.stockLots) {
      await step();
      this.takeStockLot(line, s.tag, { ok: true, value: s });
    }
    const seeds = new Map(d.conversions.map((c) => [c.id, c]));
    const moved = d.movements.map((m, i) => ({
      line: line + i + 1,
      label: `${m.kind} ${dayOf(Date.parse(m.at), this.here.zone)}`,
      reading: { ok: true as const, value: m.conversion === null ? m : { ...m, created: seeds.get(m.conversion) } },
    }));
    await this.takeMovements(moved, progress);
    await progress(total, total);
  }

  private nth(key: string): number {
    const n = this.occurrences.get(key) ?? 0;
    this.occurrences.set(key, n + 1);
    return n;
  }

  private tell(line: number, label: string, fate: Fate, why = ''): void {
    this.fates[fate] += 1;
    this.rows.push({ line, label, fate, why });
  }

  /** Known already and the same; known and other; or new, unless something stands against it. */
  private settle<T extends { id: string }>(
    line: number,
    label: string,
    reading: Read<T>,
    known: ReadonlyMap<string, T>,
    shape: (value: T) => unknown,
    against: (value: T) => string | undefined,
  ): T | undefined {
    if (!reading.ok) {
      this.tell(line, label, 'refused', reading.message);
      return undefined;
    }
    const { value } = reading;
    const before = known.get(value.id);
    if (before) {
      if (canonical(shape(before)) === canonical(shape(value))) this.tell(line, label, 'here');
      else
        this.tell(
          line,
          label,
          'refused',
          $localize`It is here already and says something else. Change it on its own page, or give this row another id.`,
        );
      return undefined;
    }
    const why = against(value);
    if (why !== undefined) {
      this.tell(line, label, 'refused', why);
      return undefined;
    }
    this.tell(line, label, 'new');
    return value;
  }

  private takeMaterial(line: number, label: string, reading: Read<NewMaterial>): void {
    const taken = this.settle(
      line,
      label,
      reading,
      this.materials,
      (m) => m,
      (m) =>
        this.materialByName.has(m.name.toLowerCase())
          ? $localize`A material called “${m.name}” is here already, under another id.`
          : refusedSalt(m.name),
    );
    if (!taken) return;
    this.knowMaterial(taken);
    this.added.materials.push(taken);
  }

  private takeStockLot(line: number, label: string, reading: Read<StockLotRecord>): void {
    const taken = this.settle(
      line,
      label,
      reading,
      this.stockLots,
      (s) => s,
      (s) => {
        if (!this.materials.has(s.materialId))
          return $localize`Its material is not here. Bring the materials in first.`;
        if (s.bestBefore !== null && s.bestBefore < s.receivedOn)
          return $localize`It would be past its best before it came. Check the two dates.`;
        return this.stockLotByTag.has(s.tag) ? $localize`Another jar is tagged “${s.tag}”.` : undefined;
      },
    );
    if (!taken) return;
    this.knowStockLot(taken);
    this.added.stockLots.push(taken);
  }

  private takeMovement(line: number, label: string, reading: Read<MovementFileRecord>): void {
    const shape = ({ created: _created, ...m }: MovementFileRecord): unknown => ({
      ...m,
      recordedAt: m.recordedAt ?? null,
    });
    const taken = this.settle(line, label, reading, this.moved, shape, (m) => this.againstMovement(m));
    if (!taken) return;
    this.knowMovement(taken);
    this.added.movements.push(taken);
    this.lineOfMovement.set(taken.id, line);
    if (!this.people.has(taken.by)) this.added.people.add(taken.by);
    // A reversal names its conversion too, but was made by somebody else at another time.
    if (
      taken.created &&
      taken.kind === 'convert' &&
      !this.conversionsHere.has(taken.created.id) &&
      !this.added.conversions.has(taken.created.id)
    )
      this.added.conversions.set(taken.created.id, { by: taken.by, at: taken.at, ...taken.created });
  }

  private againstMovement(m: MovementFileRecord): string | undefined {
    if (!this.stockLots.has(m.stockLotId)) return $localize`Its jar is not here. Bring the stock lots in first.`;
    if (Date.parse(m.at) > this.now.getTime() + FUTURE_SLACK_MS)
      return $localize`It is dated in a time still to come. Check its date.`;
    if (m.conversion !== null && !m.created && !this.conversionsHere.has(m.conversion))
      return $localize`It belongs to a conversion that the file does not tell of.`;
    if (m.reversesId === null) return undefined;
    const target = this.moved.get(m.reversesId);
    if (!target) return $localize`It reverses a movement that is not here. Put that row before it.`;
    if (this.reversed.has(m.reversesId)) return $localize`What it reverses was reversed already.`;
    return target.amount !== -m.amount || target.stockLotId !== m.stockLotId
      ? $localize`A reversal is equal and opposite to what it reverses, in the same jar.`
      : undefined;
  }

  /**
   * Looks at every jar the file moves: none may ever have held less than nothing. What comes after all that is known
   * of a jar goes on from its balance; only a jar whose past is written into has its whole line asked for.
   */
  private async refuseOverdrafts(): Promise<void> {
    const added = new Map<string, MovementFileRecord[]>();
    for (const m of this.added.movements) {
      const own = added.get(m.stockLotId);
      if (own) own.push(m);
      else added.set(m.stockLotId, [m]);
    }
    const balance = (id: string): Here['balances'][string] =>
      this.here.balances[id] ?? { onHand: 0, reserved: 0, lastAt: null };
    const rewritten = [...added]
      .filter(
        ([id, own]) =>
          balance(id).lastAt !== null && own.some((m) => m.at <= new Date(balance(id).lastAt ?? 0).toISOString()),
      )
      .map(([id]) => id);
    const past = await oneValue<DatedMovement[]>(
      this.db,
      sql`(SELECT coalesce(json_agg(json_build_object('stockLotId', x.stock_lot_id, 'at', to_json(x.at), 'amount', x.amount)), '[]') FROM (
      SELECT stock_lot_id, at, sum(amount)::bigint AS amount FROM movements
        WHERE stock_lot_id IN (SELECT y::uuid
        FROM json_array_elements_text(${JSON.stringify(rewritten)}::json) y) GROUP BY 1, 2) x)`,
    );
    const known = new Set(rewritten);
    const line: DatedMovement[] = past.map((m) => ({ ...m, at: new Date(m.at).toISOString() }));
    for (const [id, own] of added) {
      if (!known.has(id) && balance(id).onHand !== 0) line.push({ stockLotId: id, at: '', amount: balance(id).onHand });
      for (const m of own) line.push({ stockLotId: id, at: m.at, amount: m.amount });
    }
    const over = firstOverdraft(line);
    if (over)
      this.refuseStockLot(
        over.stockLotId,
        (tag, measure) =>
          $localize`${tag} would have held ${formatAmount(over.balance, measure)} on ${dayOf(Date.parse(over.at), this.here.zone)}. A movement into it is missing, or one out of it is too large.`,
      );
    for (const [id, own] of added) {
      if (own.reduce((sum, m) => sum + m.amount, balance(id).onHand) < balance(id).reserved)
        this.refuseStockLot(
          id,
          (tag) =>
            $localize`${tag} would hold less than is promised to lots. Book in a delivery first, or leave these rows out.`,
        );
    }
  }

  private refuseStockLot(id: string, say: (tag: string, measure: StockMeasure) => string): void {
    const stockLot = this.stockLots.get(id);
    const first = this.added.movements.find((m) => m.stockLotId === id);
    const line = (first && this.lineOfMovement.get(first.id)) ?? 0;
    const at = this.rows.findIndex((r) => r.line === line);
    const why = say(stockLot?.tag ?? '', this.materials.get(stockLot?.materialId ?? '')?.measure ?? 'weight');
    const before = this.rows[at];
    if (!before || before.fate === 'refused') return;
    this.fates[before.fate] -= 1;
    this.fates.refused += 1;
    this.rows[at] = { ...before, fate: 'refused', why };
  }

  async finish(stamp: string): Promise<ImportPlan> {
    await this.refuseOverdrafts();
    const order: Readonly<Record<Fate, number>> = { refused: 0, new: 1, here: 2 };
    return {
      materials: this.added.materials,
      stockLots: this.added.stockLots,
      conversions: [...this.added.conversions.values()],
      movements: this.added.movements,
      newPeople: [...this.added.people].sort(),
      rows: [...this.rows].sort((a, b) => order[a.fate] - order[b.fate] || a.line - b.line).slice(0, ROWS_TOLD),
      fates: this.fates,
      stamp,
    };
  }
}

import highsLoader from 'highs';
import type { PlanProblem, PlanStep, Span } from '../../core/index';

/**
 * A plan problem as a mixed-integer one over a grid of moments, for an exact solver to be measured against. Made from
 * the problem alone; it shares nothing with how plans are made.
 */
interface Term {
  readonly name: string;
  readonly by: number;
}

export interface MipResult {
  readonly status: string;
  /** Cost of the best plan the solver found. */
  readonly cost: number;
}

class Model {
  readonly rows: string[] = [];
  readonly cost: Term[] = [];
  readonly binaries: string[] = [];

  row(terms: readonly Term[], relation: '<=' | '>=' | '=', right: number): void {
    if (terms.length > 0) this.rows.push(`c${this.rows.length}: ${say(terms)} ${relation} ${right}`);
  }

  binary(name: string): string {
    this.binaries.push(name);
    return name;
  }

  text(): string {
    return ['Minimize', `obj: ${say(this.cost)}`, 'Subject To', ...this.rows, 'Binary', ...this.binaries, 'End'].join(
      '\n',
    );
  }
}

const say = (terms: readonly Term[]): string =>
  terms.map(({ name, by }) => `${by < 0 ? '-' : '+'} ${Math.abs(by)} ${name}`).join('\n ');

const within = (spans: readonly Span[], from: number, to: number): boolean =>
  spans.some(([a, b]) => a <= from && to <= b);

interface Begin {
  readonly name: string;
  readonly at: number;
  readonly extra: number;
  readonly needs: readonly string[];
  readonly holds: readonly string[];
}
interface End {
  readonly name: string;
  /** When hands take it up again. */
  readonly at: number;
}
interface Touch {
  readonly name: string;
  readonly person: string;
  readonly from: number;
  readonly to: number;
}

/** Writes the model in the LP format. Every time of the problem is a multiple of the grid. */
export function planMip(problem: PlanProblem, gridMin: number): string {
  const m = new Model();
  const moments: number[] = [];
  for (let t = 0; t <= problem.horizonMin; t += gridMin) moments.push(t);
  const begins = new Map<string, Begin[]>();
  const ends = new Map<string, End[]>();
  const touches: Touch[] = [];
  let count = 0;
  const handsFor = (s: PlanStep, from: number, to: number): { person: string | null; out: number }[] => {
    if (to === from) return [{ person: null, out: 0 }];
    return problem.people
      .filter((p) => s.hazards.every((h) => p.may.includes(h)))
      .flatMap((p) => {
        if (within(p.hours, from, to)) return [{ person: p.id, out: 0 }];
        return within([...p.hours, ...p.evenings], from, to) ? [{ person: p.id, out: 1 }] : [];
      });
  };
  for (const lot of problem.lots)
    for (const s of lot.steps) {
      const holds = lot.holds.filter((h) => h.fromStepId === s.id);
      let ways: { needs: string[]; holds: string[]; extra: number; wh: number }[] = [
        { needs: [], holds: [], extra: 0, wh: 0 },
      ];
      for (const need of s.needs)
        ways = ways.flatMap((w) =>
          need.options.map((o) => ({
            ...w,
            needs: [...w.needs, o.resourceId],
            extra: Math.max(w.extra, o.extraMin),
            wh: w.wh + o.heatWh,
          })),
        );
      for (const h of holds) ways = ways.flatMap((w) => h.resourceIds.map((r) => ({ ...w, holds: [...w.holds, r] })));
      const begin: Begin[] = [];
      const end: End[] = [];
      for (const w of ways)
        for (const t of moments) {
          const length = s.beginHandsMin + s.aloneMin + w.extra + s.endHandsMin;
          if (t < s.notBeforeMin || t > (s.notAfterMin ?? Infinity) || t + length > problem.horizonMin) continue;
          const touchTo = t + (s.watched ? length : s.beginHandsMin);
          for (const { person, out } of handsFor(s, t, touchTo)) {
            const name = m.binary(`x${(count += 1)}`);
            begin.push({ name, at: t, extra: w.extra, needs: w.needs, holds: w.holds });
            if (person !== null) touches.push({ name, person, from: t, to: touchTo });
            const cost = out * problem.weights.outOfHours + (w.wh / 1000) * problem.weights.heatKwh;
            if (cost > 0) m.cost.push({ name, by: cost });
          }
        }
      if (!s.watched)
        for (const t of moments) {
          if (t + s.endHandsMin > problem.horizonMin) continue;
          for (const { person, out } of handsFor(s, t, t + s.endHandsMin)) {
            const name = m.binary(`y${(count += 1)}`);
            end.push({ name, at: t });
            if (person !== null) touches.push({ name, person, from: t, to: t + s.endHandsMin });
            if (out > 0) m.cost.push({ name, by: problem.weights.outOfHours });
          }
        }
      begins.set(s.id, begin);
      ends.set(s.id, end);
      m.row(begin.map(one), '=', 1);
      if (s.watched) continue;
      m.row(end.map(one), '=', 1);
      // Alone for as long as it takes, and no longer than it may be.
      const alone = [
        ...end.map(({ name, at }) => ({ name, by: at })),
        ...begin.map(({ name, at, extra }) => ({ name, by: -(at + s.beginHandsMin + extra) })),
      ];
      m.row(alone, '>=', s.aloneMin);
      if (s.aloneMaxMin !== null) m.row(alone, '<=', s.aloneMaxMin);
      if (s.overnight) continue;
      // Left and taken up again within one and the same opening.
      const leaves = begin.map((b) => ({ name: b.name, at: b.at + s.beginHandsMin }));
      for (const [from, to] of problem.open) {
        const isIn = ({ at }: End): boolean => from <= at && at <= to;
        m.row([...leaves.filter(isIn).map(one), ...end.filter(isIn).map(({ name }) => ({ name, by: -1 }))], '=', 0);
      }
      const isOutside = ({ at }: End): boolean => !problem.open.some(([a, b]) => a <= at && at <= b);
      m.row([...leaves, ...end].filter(isOutside).map(one), '=', 0);
    }
  const endOf = (s: PlanStep, sign: number): Term[] =>
    s.watched
      ? (begins.get(s.id) ?? []).map((b) => ({
          name: b.name,
          by: sign * (b.at + s.beginHandsMin + s.aloneMin + b.extra + s.endHandsMin),
        }))
      : (ends.get(s.id) ?? []).map((e) => ({ name: e.name, by: sign * (e.at + s.endHandsMin) }));
  problem.lots.forEach((lot, l) => {
    const byId = new Map(lot.steps.map((s) => [s.id, s]));
    m.cost.push({ name: `f${l}`, by: problem.weights.finish });
    if (lot.dueMin !== null) {
      m.cost.push({ name: `l${l}`, by: problem.weights.late });
      m.row(
        [
          { name: `l${l}`, by: 1 },
          { name: `f${l}`, by: -1 },
        ],
        '>=',
        -lot.dueMin,
      );
    }
    for (const s of lot.steps) {
      m.row([{ name: `f${l}`, by: 1 }, ...endOf(s, -1)], '>=', 0);
      for (const a of s.after) {
        const before = byId.get(a.stepId);
        if (!before) continue;
        const gap = [...(begins.get(s.id) ?? []).map((b) => ({ name: b.name, by: b.at })), ...endOf(before, -1)];
        m.row(gap, '>=', a.minMin);
        if (a.maxMin !== null) m.row(gap, '<=', a.maxMin);
      }
    }
  });
  for (const t of moments) {
    for (const p of problem.people)
      m.row(touches.filter((x) => x.person === p.id && x.from <= t && x.to > t).map(one), '<=', 1);
    for (const r of problem.resources) {
      const uses: Term[] = [];
      const use = (from: readonly Begin[], to: PlanStep, amount: number): void => {
        const began = from.filter((b) => b.at <= t);
        if (began.length === 0) return;
        const name = `o${(count += 1)}`;
        const over = endedBy(to, t, begins, ends);
        m.row([{ name, by: 1 }, ...began.map(({ name }) => ({ name, by: -1 })), ...over], '>=', 0);
        uses.push({ name, by: amount });
      };
      for (const lot of problem.lots) {
        for (const s of lot.steps)
          s.needs.forEach((need, i) =>
            use(
              (begins.get(s.id) ?? []).filter((b) => b.needs[i] === r.id),
              s,
              need.amount,
            ),
          );
        for (const hold of lot.holds) {
          const i = lot.holds.filter((h) => h.fromStepId === hold.fromStepId).indexOf(hold);
          const to = lot.steps.find((s) => s.id === hold.toStepId);
          if (to)
            use(
              (begins.get(hold.fromStepId) ?? []).filter((b) => b.holds[i] === r.id),
              to,
              hold.amount,
            );
        }
      }
      const out = r.out.some(([a, b]) => a <= t && b > t);
      m.row(uses, '<=', out ? 0 : r.capacity);
    }
  }
  return m.text();
}

const one = ({ name }: { readonly name: string }): Term => ({ name, by: 1 });

function endedBy(
  s: PlanStep,
  t: number,
  begins: ReadonlyMap<string, readonly Begin[]>,
  ends: ReadonlyMap<string, readonly End[]>,
): Term[] {
  return s.watched
    ? (begins.get(s.id) ?? [])
        .filter((b) => b.at + s.beginHandsMin + s.aloneMin + b.extra + s.endHandsMin <= t)
        .map(one)
    : (ends.get(s.id) ?? []).filter((e) => e.at + s.endHandsMin <= t).map(one);
}

/** Solves it exactly, or to a share its bound is within, as far as the seconds allow. */
export async function solveMip(problem: PlanProblem, gridMin: number, seconds: number, gap = 0): Promise<MipResult> {
  const highs = await highsLoader();
  const found = highs.solve(planMip(problem, gridMin), {
    time_limit: seconds,
    mip_rel_gap: gap,
    output_flag: false,
  });
  return { status: found.Status, cost: found.ObjectiveValue };
}

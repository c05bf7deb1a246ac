import type { PlanFactsView } from '@vestigia/contract';
import type { KeptPlace, PlacedStep, PlanStep, PlannedHouse } from '@vestigia/core';
import { handsAt, movedSteps, planClock, planStepId } from '@vestigia/core';

/** By what the plan is laid out. */
export const PLAN_VIEWS = ['lot', 'vessel', 'person'] as const;
export type PlanView = (typeof PLAN_VIEWS)[number];

/** Something in a row of the picture, times epoch ms. */
export interface PlanBlock {
  /** Stays the same where it is moved. */
  readonly key: string;
  readonly stepId: string;
  readonly lotTag: string;
  readonly title: string;
  readonly fromMs: number;
  readonly toMs: number;
  /** When hands are at it. */
  readonly hands: readonly { readonly fromMs: number; readonly toMs: number }[];
  readonly isFact: boolean;
}

export interface PlanRow {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  /** A lot’s own row leads to it. */
  readonly lotId?: string;
  readonly blocks: readonly PlanBlock[];
  /** What it is held over: a pot between its filling and its emptying. */
  readonly held: readonly { readonly lotTag: string; readonly fromMs: number; readonly toMs: number }[];
  /** A lot’s thread, from the first of its steps in the row to the last. */
  readonly thread?: PlanStretch & { readonly lotTag: string };
  /** Where the accepted plan has what lies elsewhere in this one. */
  readonly was: readonly PlanStretch[];
}

/** From a moment up to another, epoch ms. */
export interface PlanStretch {
  readonly fromMs: number;
  readonly toMs: number;
}

/** A touch of somebody’s hands, as a day’s list has it. */
export interface Touch {
  readonly stepId: string;
  readonly lotTag: string;
  readonly title: string;
  readonly personId: string | null;
  readonly atMs: number;
  readonly minutes: number;
  /** Begins a step, ends it, or is all of it. */
  readonly kind: 'begin' | 'end' | 'stay';
}

const MINUTE = 60_000;

/** A step in its place, and the lot it is of. */
export interface Placed {
  readonly place: PlacedStep;
  readonly step: PlanStep;
  readonly lotId: string;
  readonly lotTag: string;
}

/** Every step of a plan with its place. */
export const placedOf = ({ problem, plan }: PlannedHouse): Placed[] => {
  const at = new Map(plan.placed.map((p) => [p.stepId, p]));
  return problem.lots.flatMap((lot) =>
    lot.steps.flatMap((step) => {
      const place = at.get(step.id);
      return place ? [{ place, step, lotId: lot.id, lotTag: lot.name }] : [];
    }),
  );
};

/** Lays a plan out in rows: a lot, a pot with its burner, or a person each. */
export function planRows(found: PlannedHouse, facts: PlanFactsView, view: PlanView): PlanRow[] {
  const from = Date.parse(found.problem.origin);
  const ms = (min: number): number => from + min * MINUTE;
  const all = placedOf(found);
  const block = ({ place, step, lotTag }: Placed, whose?: string): PlanBlock => ({
    key: step.id,
    stepId: step.id,
    lotTag,
    title: step.title,
    fromMs: ms(place.startMin),
    toMs: ms(place.endMin),
    hands: handsOf(step, place)
      .filter((h) => whose === undefined || h.by === whose)
      .map((h) => ({ fromMs: ms(h.from), toMs: ms(h.to) })),
    isFact: step.fixed !== null,
  });
  const left = leftPlaces(found, facts);
  if (view === 'lot')
    return facts.lots.map((lot) => {
      const blocks = all.filter((p) => p.lotId === lot.id && !isLongOver(p)).map((p) => block(p));
      const fromMs = Math.min(...blocks.map((b) => b.fromMs));
      const toMs = Math.max(...blocks.map((b) => b.toMs));
      return {
        id: lot.id,
        name: lot.tag,
        note: lot.colourway,
        lotId: lot.id,
        blocks,
        held: [],
        ...(blocks.length > 0 ? { thread: { lotTag: lot.tag, fromMs, toMs } } : {}),
        was: left.filter((p) => p.lotId === lot.id).map((p) => stretch(p.startAt, p.endAt)),
      };
    });
  if (view === 'person')
    return facts.people.map(({ id, name }) => ({
      id,
      name,
      note: '',
      blocks: all
        .filter((p) => handsOf(p.step, p.place).some((h) => h.by === id))
        .flatMap((p) => {
          const whole = block(p, id);
          return whole.hands.map((h, i) => ({
            ...whole,
            key: `${whole.key} ${i}`,
            fromMs: h.fromMs,
            toMs: h.toMs,
            hands: [h],
          }));
        }),
      held: [],
      was: left.flatMap((p) => {
        const isStayed = facts.lots.find((l) => l.id === p.lotId)?.steps.find((s) => s.index === p.stepIndex)
          ?.times.watched;
        if (isStayed === true) return p.beginBy === id ? [stretch(p.startAt, p.endAt)] : [];
        return [
          ...(p.beginBy === id ? [stretch(p.startAt, p.aloneFromAt)] : []),
          ...(p.endBy === id ? [stretch(p.aloneToAt, p.endAt)] : []),
        ];
      }),
    }));
  const usesPot = (lotId: string, stepId: string, vesselId: string): boolean =>
    facts.lots
      .find((l) => l.id === lotId)
      ?.steps.some((s) => planStepId(lotId, s.index) === stepId && s.vesselIds.includes(vesselId)) === true;
  const holds = new Map(found.problem.lots.flatMap((l) => l.holds.map((h) => [h.id, { hold: h, lot: l }] as const)));
  return found.problem.resources.map(({ id, name }) => ({
    id,
    name,
    note: '',
    held: found.plan.holds
      .filter((h) => h.resourceId === id)
      .map((h) => ({ lotTag: holds.get(h.holdId)?.lot.name ?? '', fromMs: ms(h.fromMin), toMs: ms(h.toMin) })),
    blocks: all
      .filter((p) => !isLongOver(p) && (p.place.resourceIds.includes(id) || usesPot(p.lotId, p.step.id, id)))
      .map((p) => block(p)),
    was: left
      .filter((p) => p.resourceIds.includes(id) || usesPot(p.lotId, planStepId(p.lotId, p.stepIndex), id))
      .map((p) => stretch(p.startAt, p.endAt)),
  }));
}

const stretch = (from: string, to: string): PlanStretch => ({ fromMs: Date.parse(from), toMs: Date.parse(to) });

/** Places of the accepted plan that this one leaves. */
function leftPlaces(found: PlannedHouse, { accepted }: PlanFactsView): readonly KeptPlace[] {
  if (!accepted) return [];
  const moved = new Set(movedSteps(accepted, found).map((m) => m.stepId));
  return accepted.places.filter((p) => moved.has(planStepId(p.lotId, p.stepIndex)));
}

/** What is done has been told elsewhere. */
const isLongOver = ({ step, place }: Placed): boolean => step.fixed !== null && place.endMin <= 0;

/** What is begun or done asks nobody any more. */
const handsOf = (step: PlanStep, place: PlacedStep): ReturnType<typeof handsAt> =>
  step.fixed ? [] : handsAt(step, place);

/** What hands are asked for, in the order of the clock. */
export function touchesOf(found: PlannedHouse): Touch[] {
  const clock = planClock(found.problem.origin);
  return placedOf(found)
    .flatMap(({ step, place, lotTag }) =>
      handsOf(step, place).map((h) => ({
        stepId: step.id,
        lotTag,
        title: step.title,
        personId: h.by,
        atMs: Date.parse(clock.toIso(h.from)),
        minutes: h.to - h.from,
        kind: step.watched ? ('stay' as const) : h.from === place.startMin ? ('begin' as const) : ('end' as const),
      })),
    )
    .sort((a, b) => a.atMs - b.atMs || a.lotTag.localeCompare(b.lotTag));
}

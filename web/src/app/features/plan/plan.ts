import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  addDays,
  fourInFiveBy,
  hoursBetween,
  keepPlan,
  movedSteps,
  ofPlanStep,
  planClock,
  planOrigin,
  planStepId,
  sayPlanBreach,
  sayMinutes,
  sayPlanFault,
  sayPlanHelp,
  sayPlansKept,
  sayWeek,
  screenColour,
  whyNotAt,
} from '@vestigia/core';
import type { HelpTried, KeptPlace, LotsTook, PlanProblem, PlannedHouse, WantedPlace } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { inAddress } from '../../services/in-address';
import { StudioCalendar } from '../../services/studio-calendar';
import { ActBar } from '../../ui/act-bar';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';
import { When } from '../../ui/when';
import { DayByDay } from './day-by-day';
import { LotPromise } from './lot-promise';
import { PlanCalendar } from './plan-calendar';
import { PlanMaker } from '../../services/plan-maker';
import { PlanPicture } from './plan-picture';
import type { Placed, PlanView } from './plan-rows';
import { PLAN_VIEWS, placedOf, planRows, touchesOf } from './plan-rows';
import { StepPlace } from './step-place';
import { StockAwaited } from './stock-awaited';

const DAY_MS = 86_400_000;
const MINUTE = 60_000;
const SPANS_DAYS = [2, 7, 14] as const;

/**
 * What is ahead: every open lot placed over pots, burners and hands. The plan that was accepted stands until another
 * is; what ran on meanwhile, and what somebody tries, is worked out beside it and shown with what it moves.
 */
@Component({
  selector: 'vs-plan',
  imports: [
    ActBar,
    DayByDay,
    LotPromise,
    StockAwaited,
    May,
    PlanCalendar,
    PlanPicture,
    RefusalNote,
    RouterLink,
    ScrollRegion,
    StepPlace,
    When,
  ],
  providers: [PlanMaker],
  templateUrl: './plan.html',
  styleUrl: './plan.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanPage {
  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  protected readonly maker = inject(PlanMaker);
  protected readonly page = liveQuery(['lots', 'studio', 'stores', 'orders', 'plan'], () => this.api.get('/api/plan'));
  protected readonly accepting = pageAction();

  protected readonly views = PLAN_VIEWS;
  protected readonly spans = SPANS_DAYS;
  protected readonly viewLabels: Readonly<Record<PlanView, string>> = {
    lot: $localize`By lot`,
    vessel: $localize`By pot and burner`,
    person: $localize`By person`,
  };
  private readonly viewed = inAddress('by', 'lot');
  protected readonly view = computed((): PlanView => PLAN_VIEWS.find((v) => v === this.viewed()) ?? 'lot');
  private readonly spanned = inAddress('days', '7');
  protected readonly span = computed(() => SPANS_DAYS.find((d) => String(d) === this.spanned()) ?? 7);
  /** Days the picture begins after today. */
  protected readonly ahead = signal(0);

  /** Where somebody wants steps that stand elsewhere in the plan. */
  protected readonly wanted = signal<readonly WantedPlace[]>([]);
  /** Steps that stay where they are, and where that is: as accepted, until somebody changes it here. */
  protected readonly locked = linkedSignal({
    source: () => this.page.value()?.accepted?.id,
    computation: (): ReadonlyMap<string, KeptPlace> => lockedIn(untracked(this.page.value)?.accepted?.places ?? []),
  });
  /** Nothing but what is locked is held to. */
  protected readonly isAnew = signal(false);
  protected readonly selected = signal<string | undefined>(undefined);
  /** Why the last step that was moved isn't where it was wanted. */
  protected readonly reasons = signal<readonly string[]>([]);
  private asked: WantedPlace | undefined;

  private readonly origin = computed(() => {
    const facts = this.page.value();
    return facts && planOrigin(facts.now);
  });

  constructor() {
    effect(() => {
      const [facts, origin, wanted, locked] = [this.page.value(), this.origin(), this.wanted(), this.locked()];
      if (!facts || origin === undefined) return;
      const settled = this.isAnew() ? [] : (facts.accepted?.places ?? []);
      const accepted = {
        places: [
          ...settled.filter((p) => !locked.has(planStepId(p.lotId, p.stepIndex))).map(unlocked),
          ...locked.values(),
        ],
        holds: facts.accepted?.holds ?? [],
      };
      untracked(() => this.maker.make({ facts: { ...facts, accepted }, origin, wanted }));
    });
    effect(() => {
      const found = this.maker.found();
      const asked = this.asked;
      if (!found || !asked || this.maker.isAtWork()) return;
      const at = found.plan.placed.find((p) => p.stepId === asked.stepId);
      if (at?.startMin === asked.startMin) untracked(() => this.reasons.set([]));
    });
  }

  protected readonly window = computed(() => {
    const facts = this.page.value();
    const day = addDays(this.calendar.dayOf(Date.parse(facts?.now ?? new Date().toISOString())), this.ahead());
    return {
      fromMs: this.calendar.instantOf(day, '00:00'),
      toMs: this.calendar.instantOf(addDays(day, this.span()), '00:00'),
    };
  });
  protected readonly open = computed(() => {
    const facts = this.page.value();
    if (!facts) return [];
    const { fromMs, toMs } = this.window();
    return hoursBetween(facts.times.week, {
      fromDay: this.calendar.dayOf(fromMs),
      toDay: this.calendar.dayOf(toMs),
      zone: facts.zone,
      away: facts.times.closed,
    });
  });
  protected readonly nowMs = computed(() => Date.parse(this.page.value()?.now ?? ''));
  protected readonly colours = computed(
    () =>
      new Map(
        (this.page.value()?.lots ?? []).flatMap(({ tag, lab }) =>
          lab ? [[tag, screenColour(lab, lab).css] as const] : [],
        ),
      ),
  );
  protected readonly rows = computed(() => {
    const [found, facts] = [this.maker.found(), this.page.value()];
    return found && facts ? planRows(found, facts, this.view()) : [];
  });
  protected readonly touches = computed(() => {
    const found = this.maker.found();
    return found ? touchesOf(found) : [];
  });
  protected readonly chosen = computed(() => {
    const found = this.maker.found();
    const id = this.selected();
    const placed = found && id !== undefined ? placedOf(found).find((p) => p.step.id === id) : undefined;
    if (!placed || !found) return undefined;
    const ms = (min: number): number => Date.parse(found.problem.origin) + min * MINUTE;
    return {
      ...placed,
      fromMs: ms(placed.place.startMin),
      toMs: ms(placed.place.endMin),
      isLocked: this.locked().has(placed.step.id),
      learntOf: this.learntOf(placed.step.id),
      people: [...new Set([placed.place.beginBy, placed.place.endBy])].flatMap((p) => this.nameOf(p) ?? []),
      things: found.plan.holds
        .filter(
          (h) =>
            h.holdId.startsWith(`${placed.lotId}:`) &&
            h.fromMin <= placed.place.startMin &&
            h.toMin >= placed.place.endMin,
        )
        .map((h) => h.resourceId)
        .concat(placed.place.resourceIds)
        .flatMap((id) => found.problem.resources.find((r) => r.id === id)?.name ?? []),
    };
  });

  protected readonly says = {
    took: ({ lots, middle, fourInFive, within }: LotsTook): string =>
      [
        $localize`Of the ${lots} newest lots that are done, half took no more than ${percent(middle)} % of what a plan by today’s hours gives them, four in five no more than ${percent(fourInFive)} %.`,
        within === null
          ? ''
          : $localize`Each held against the others: ${within} of ${lots} were done by the day four in five are said to be.`,
      ].join(' '),
  };
  /** When each lot is done, and how that lies to what was promised. */
  protected readonly ready = computed(() => {
    const [found, facts] = [this.maker.found(), this.page.value()];
    if (!found || !facts) return [];
    const { toIso } = planClock(found.problem.origin);
    return facts.lots.map((lot) => {
      const done = found.plan.lots.find((l) => l.lotId === lot.id);
      const fault = found.faults.find((f) => f.lotId === lot.id)?.fault;
      const stuck = found.plan.unplaced.find((u) => u.lotId === lot.id);
      return {
        lot,
        doneAt: done && !stuck ? toIso(done.finishMin) : undefined,
        sureBy: sayLater(done?.finishMin, fourInFiveBy(found, lot.id, facts.took), toIso),
        lateMin: done?.lateMin ?? 0,
        says: fault ? sayPlanFault(fault) : stuck ? this.sayStuck(found.problem, stuck.stepId) : '',
      };
    });
  });
  protected readonly moved = computed(() => {
    const [found, facts] = [this.maker.found(), this.page.value()];
    if (!found || !facts?.accepted) return [];
    const { toIso } = planClock(found.problem.origin);
    const all = new Map(placedOf(found).map((p) => [p.step.id, p]));
    return movedSteps(facts.accepted, found).map((m) => ({
      stepId: m.stepId,
      lotTag: all.get(m.stepId)?.lotTag ?? '',
      title: all.get(m.stepId)?.step.title ?? '',
      from: toIso(m.fromMin),
      to: toIso(m.toMin),
    }));
  });
  /** Steps that no accepted plan has yet. */
  protected readonly fresh = computed(() => {
    const [found, facts] = [this.maker.found(), this.page.value()];
    if (!found || !facts) return 0;
    const known = new Set((facts.accepted?.places ?? []).map((p) => planStepId(p.lotId, p.stepIndex)));
    return placedOf(found).filter((p) => !p.step.fixed && !known.has(p.step.id)).length;
  });
  protected readonly isNew = computed(
    () => this.moved().length > 0 || this.fresh() > 0 || this.wanted().length > 0 || this.hasOtherLocks(),
  );
  private readonly hasOtherLocks = computed(() => {
    const kept = lockedIn(this.page.value()?.accepted?.places ?? []);
    return kept.size !== this.locked().size || [...kept.keys()].some((id) => !this.locked().has(id));
  });
  protected readonly tooLate = computed(() => this.named((found) => found.tooLate));
  protected readonly spoiled = computed(() => this.named((found) => found.spoiled));

  private named(which: (found: PlannedHouse) => readonly string[]): Placed[] {
    const found = this.maker.found();
    const ids = new Set(found ? which(found) : []);
    return found ? placedOf(found).filter((p) => ids.has(p.step.id)) : [];
  }
  protected readonly lastDoneAt = computed(() =>
    this.ready()
      .flatMap((r) => r.doneAt ?? [])
      .sort()
      .at(-1),
  );

  /** The hours the house is open, as they are written. */
  protected readonly hours = computed(() => sayWeek(this.page.value()?.times.week ?? []));

  private learntOf(stepId: string): number | null {
    const { lotId, stepIndex } = ofPlanStep(stepId);
    const lot = this.page.value()?.lots.find((l) => l.id === lotId);
    return lot?.steps.find((s) => s.index === stepIndex)?.learntOf ?? null;
  }

  protected nameOf(personId: string | null): string | undefined {
    return this.page.value()?.people.find((p) => p.id === personId)?.name;
  }

  protected see(view: PlanView): void {
    this.viewed.set(view);
  }

  protected reach(days: number): void {
    this.spanned.set(String(days));
  }

  /** Tries a step at another moment: what stands is planned round it. */
  protected move(stepId: string, toMs: number): void {
    const found = this.maker.found();
    if (!found) return;
    const startMin = Math.round((toMs - Date.parse(found.problem.origin)) / MINUTE);
    const own = found.problem.lots.find((l) => l.steps.some((s) => s.id === stepId));
    const inLot = new Set(own?.steps.map((s) => s.id));
    // Steps that follow it are planned round it anyway.
    const breaches = whyNotAt(found.problem, found.plan, stepId, startMin).filter(
      (b) => !(b.code === 'order' && b.stepId !== stepId && inLot.has(b.stepId)),
    );
    this.reasons.set(breaches.map((b) => sayPlanBreach(found.problem, b)));
    this.asked = { stepId, startMin };
    this.selected.set(stepId);
    this.lock(stepId, false);
    this.wanted.update((all) => [...all.filter((w) => w.stepId !== stepId), { stepId, startMin }]);
  }

  /** Holds a step to where it stands now, or no longer. */
  protected lock(stepId: string, isLocked: boolean): void {
    const found = this.maker.found();
    const place = found && keepPlan(found.problem, found.plan, new Set([stepId])).places.find((p) => isOf(p, stepId));
    this.locked.update((all) => {
      const others = [...all].filter(([id]) => id !== stepId);
      return new Map(isLocked && place ? [...others, [stepId, place]] : others);
    });
  }

  /** Puts what stood under the picture away; the hand goes back to the step. */
  protected close(): void {
    document.querySelector<HTMLElement>('vs-plan-picture [aria-pressed=true]')?.focus();
    this.selected.set(undefined);
  }

  protected forget(): void {
    this.wanted.set([]);
    this.isAnew.set(false);
    this.locked.set(lockedIn(this.page.value()?.accepted?.places ?? []));
    this.reasons.set([]);
    this.asked = undefined;
  }

  protected accept(): void {
    const [found, facts] = [this.maker.found(), this.page.value()];
    if (!found || !facts) return;
    const body = {
      id: newId(),
      origin: found.problem.origin,
      after: facts.accepted?.id ?? null,
      plan: keepPlan(found.problem, found.plan, new Set(this.locked().keys())),
    };
    this.accepting.run(this.api.post('/api/plan', body), () => {
      this.wanted.set([]);
      this.isAnew.set(false);
      this.reasons.set([]);
      this.asked = undefined;
    });
  }

  protected readonly minutes = sayMinutes;
  protected readonly sayHelp = sayPlanHelp;
  protected readonly sayKept = sayPlansKept;
  protected readonly isAsking = signal(false);
  /** What would let a late lot be done by its day. */
  protected readonly helps = signal<{ lotId: string; helps: readonly HelpTried[] } | undefined>(undefined);

  protected askHelp(lotId: string, lateMin: number): void {
    const found = this.maker.found();
    if (!found) return;
    this.isAsking.set(true);
    void this.maker
      .help({ problem: found.problem, late: { lotId, lateMin, hotMordantIds: this.hotMordantsOf(lotId) } })
      .then((helps) => this.helps.set({ lotId, helps }))
      .finally(() => this.isAsking.set(false));
  }

  private hotMordantsOf(lotId: string): string[] {
    const steps = this.page.value()?.lots.find((l) => l.id === lotId)?.steps ?? [];
    return steps.filter((s) => s.kind === 'mordant' && s.times.isHot).map((s) => planStepId(lotId, s.index));
  }

  private sayStuck(problem: PlanProblem, stepId: string): string {
    const title = problem.lots.flatMap((l) => l.steps).find((s) => s.id === stepId)?.title ?? '';
    return $localize`No place was found for “${title}”. Look whether its pot, its burner or somebody for it is there in the next months.`;
  }

  protected readonly isEmpty = computed(() => this.page.value()?.lots.length === 0);
  protected readonly windowDays = computed(() => Math.round((this.window().toMs - this.window().fromMs) / DAY_MS));
}

const isOf = (place: KeptPlace, stepId: string): boolean => planStepId(place.lotId, place.stepIndex) === stepId;
const unlocked = (place: KeptPlace): KeptPlace => ({ ...place, locked: false });
const lockedIn = (places: readonly KeptPlace[]): ReadonlyMap<string, KeptPlace> =>
  new Map(places.filter((p) => p.locked).map((p) => [planStepId(p.lotId, p.stepIndex), p]));
/** Later by less isn’t worth a word. */
const WORTH_SAYING_MIN = 60;
/** A later moment as an instant; nothing where it is none. */
const sayLater = (
  min: number | undefined,
  sureMin: number | undefined,
  toIso: (min: number) => string,
): string | undefined =>
  min === undefined || sureMin === undefined || sureMin - min < WORTH_SAYING_MIN ? undefined : toIso(sureMin);
const percent = (share: number): number => Math.round(share * 100);

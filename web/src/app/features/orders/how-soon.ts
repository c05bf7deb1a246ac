import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import type { PlanFactsView, Proposal } from '@vestigia/contract';
import type { PlannableLot, PlannedHouse } from '@vestigia/core';
import { fourInFiveBy, learntKey, ofPlanStep, planClock, planOrigin, plannable, withLearnt } from '@vestigia/core';
import { forkJoin } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { PlanMaker } from '../../services/plan-maker';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

/** A lot that isn’t there yet. */
const SUPPOSED = 'supposed';

/** The earliest day a line of an order could be ready, if a lot were agreed to for it now, beside all that is planned. */
@Component({
  selector: 'vs-how-soon',
  imports: [RefusalNote, When],
  providers: [PlanMaker],
  template: `@if (canAsk()) {
      <p>
        <button i18n class="plain" type="button" [disabled]="asking.busy() || maker.isAtWork()" (click)="ask()">
          How soon could it be ready?
        </button>
        <span role="status">
          @if (says(); as text) {
            {{ text }}
          } @else if (readyAt(); as at) {
            <span i18n>It could be ready {{ at | when: 'moment' }}, beside all that is planned.</span>
            @if (sureAt(); as by) {
              <span i18n>By how long lots really took, four in five are done by {{ by | when: 'moment' }}.</span>
            }
          } @else if (asking.busy() || maker.isAtWork()) {
            <span i18n>Looking …</span>
          }
        </span>
      </p>
    }
    <vs-refusal [problem]="asking.problem()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HowSoon {
  private readonly api = inject(ApiClient);
  protected readonly maker = inject(PlanMaker);
  readonly colourwayId = input.required<string | null>();
  readonly pieces = input.required<number | null>();
  readonly pieceWeightG = input.required<number | null>();
  protected readonly asking = pageAction();
  private readonly asked = signal(false);
  private readonly before = signal<PlannedHouse | undefined>(undefined);
  private readonly took = signal<PlanFactsView['took']>(null);
  protected readonly canAsk = computed(() => this.colourwayId() !== null && this.pieces() !== null);

  constructor() {
    // What was found is of what stood there when it was asked.
    effect(() => {
      this.colourwayId();
      this.pieces();
      this.pieceWeightG();
      this.asked.set(false);
    });
  }

  /** What was found since it was asked. */
  private readonly answer = computed(() => {
    const found = this.maker.found();
    return this.asked() && found !== this.before() ? found : undefined;
  });
  protected readonly says = computed(() => {
    if (this.maker.failed()) return $localize`That could not be worked out. Try again.`;
    const found = this.answer();
    if (!found) return undefined;
    const fault = found.faults.find((f) => f.lotId === SUPPOSED);
    return fault || found.plan.unplaced.some((u) => u.lotId === SUPPOSED)
      ? $localize`It can’t be planned by the hours and pots there are.`
      : undefined;
  });
  protected readonly readyAt = computed(() => {
    const found = this.answer();
    if (!found) return undefined;
    const ends = found.plan.placed.filter((p) => ofPlanStep(p.stepId).lotId === SUPPOSED).map((p) => p.endMin);
    return ends.length === 0 ? undefined : planClock(found.problem.origin).toIso(Math.max(...ends));
  });
  /** By when lots like it would mostly be done; nothing where too few say so, or it is no later. */
  protected readonly sureAt = computed(() => {
    const [found, readyAt] = [this.answer(), this.readyAt()];
    const sureMin = found && fourInFiveBy(found, SUPPOSED, this.took());
    const sureAt = found && sureMin !== undefined ? planClock(found.problem.origin).toIso(sureMin) : undefined;
    return sureAt !== undefined && readyAt !== undefined && sureAt > readyAt ? sureAt : undefined;
  });

  protected ask(): void {
    const weight = this.pieceWeightG();
    const quantityText = weight === null ? `${this.pieces()} pieces` : `${this.pieces()} × ${weight} g`;
    this.asking.run(
      forkJoin([
        this.api.get('/api/plan'),
        this.api.post('/api/lots/proposal', {
          colourwayId: this.colourwayId() ?? '',
          quantityText,
          waterId: null,
          reorderOfId: null,
        }),
      ]),
      ([facts, proposal]) => this.work(facts, proposal),
    );
  }

  private work(facts: PlanFactsView, { plan, recipe }: Proposal): void {
    const learnt = new Map(facts.learnt.map((t) => [t.key, t]));
    const supposed: PlannableLot = {
      id: SUPPOSED,
      tag: '',
      pieces: plan.pieces,
      wantedOn: null,
      steps: plan.steps.map((s) => {
        const own = plannable(s);
        return { ...own, times: withLearnt(own.times, learnt.get(learntKey(recipe.id, s))) };
      }),
      records: plan.steps.map(() => ({})),
    };
    this.before.set(this.maker.found());
    this.asked.set(true);
    this.took.set(facts.took);
    this.maker.make({
      facts: { ...facts, lots: [...facts.lots, supposed] },
      origin: planOrigin(facts.now),
      wanted: [],
    });
  }
}

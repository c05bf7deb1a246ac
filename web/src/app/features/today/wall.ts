import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { sayTouch } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { LiveChanges, liveQuery } from '../../api/live-query';
import { Session } from '../../api/session';
import { nowMs } from '../../services/now-ms';
import { StudioCalendar } from '../../services/studio-calendar';
import { RefusalNote } from '../../ui/refusal';
import { Thread } from '../../ui/thread';
import { inOrderOfMoment, sayNext, wantedAtMs } from './next-of-lot';

/** So many lots are read across a room; what is further off waits. */
const SHOWN = 5;
/** So many touches by the plan stand below them. */
const TOUCHES_SHOWN = 4;

/** Today on a wall: what is in the pots and what is wanted next, large enough to read from across the room. */
@Component({
  selector: 'vs-wall',
  imports: [RefusalNote, RouterLink, Thread],
  template: `<main>
    <div class="top">
      <h1>{{ studioName() }}</h1>
      <p class="clock">{{ clock() }}</p>
    </div>
    @if (!changes.connected()) {
      <p i18n class="lost" role="status">The server can’t be reached. What stands here may be old: look at the pots.</p>
    }
    <vs-refusal [problem]="today.problem()" />
    @for (row of rows(); track row.lot.id) {
      <section [class.due]="row.isDue" [attr.aria-label]="row.lot.tag">
        <h2>
          {{ row.lot.next?.title }} <span class="soft">{{ row.lot.tag }}, {{ row.lot.colourway.name }}</span>
        </h2>
        <p class="left">{{ row.said }}</p>
        <vs-thread [wide]="true" [lot]="row.lot" />
      </section>
    } @empty {
      <p i18n class="left">Nothing is in the pots.</p>
    }
    @if (ahead().length > 0) {
      <ul class="ahead" [attr.aria-label]="says.byPlan">
        @for (t of ahead(); track t.lotId + t.stepIndex + t.kind) {
          <li>
            <strong>{{ t.at }}</strong> {{ t.who }} <span class="soft">{{ t.said }}, {{ t.lotTag }}</span>
          </li>
        }
      </ul>
    }
    @if (also()) {
      <p class="also">{{ also() }}</p>
    }
    <a i18n class="back" routerLink="/today">Back to Today</a>
  </main>`,
  styles: `
    :host {
      display: block;
      height: 100dvh;
      overflow-y: auto;
      background: var(--sheet);
    }
    main {
      min-height: 100dvh;
      box-sizing: border-box;
      display: flex;
      flex-direction: column;
      gap: 1.5vh;
      padding: 2vh 2.5vw;
    }
    .top {
      display: flex;
      justify-content: space-between;
      align-items: baseline;
      border-bottom: 4px solid var(--ink);
    }
    h1,
    .also,
    .ahead {
      font-size: max(1.25rem, 3vh);
      margin: 0;
    }
    .ahead {
      list-style: none;
      padding: 1vh 0 0 1.5vw;
      border-top: 1px solid var(--line-strong);
    }
    .clock {
      font-size: max(2rem, 7vh);
      font-weight: 700;
      margin: 0;
      line-height: 1.1;
    }
    section {
      display: flex;
      flex-wrap: wrap;
      justify-content: space-between;
      gap: 0 2vw;
      align-items: baseline;
      border-left: 0.5rem solid transparent;
      padding-left: 1vw;
    }
    section.due {
      border-left-color: var(--ink);
    }
    h2 {
      font-size: max(1.5rem, 5vh);
      line-height: 1.1;
      margin: 0;
    }
    h2 span {
      font-weight: 400;
      font-size: 0.7em;
    }
    .left {
      font-size: max(1.5rem, 5vh);
      line-height: 1.1;
      margin: 0;
    }
    .due .left {
      font-weight: 700;
    }
    vs-thread {
      flex: 0 0 100%;
    }
    .lost {
      font-size: max(1.25rem, 4vh);
      font-weight: 700;
      border: 4px solid var(--ink);
      padding: 0.5rem 1rem;
      margin: 0;
      max-width: none;
    }
    .back {
      margin-top: auto;
      align-self: end;
      min-height: 44px;
      display: inline-flex;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WallPage {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly calendar = inject(StudioCalendar);
  protected readonly changes = inject(LiveChanges);
  private readonly now = nowMs();
  protected readonly today = liveQuery(['lots', 'stores', 'studio', 'plan', 'orders'], () =>
    this.api.get('/api/today'),
  );
  protected readonly studioName = this.session.studioName;
  protected readonly clock = computed(() => this.calendar.formatClock(new Date(this.now()).toISOString()));
  /** Where the plan stands below them, one less has room. */
  private readonly shown = computed(() => ((this.today.value()?.byPlan ?? []).length > 0 ? SHOWN - 1 : SHOWN));
  private readonly inOrder = computed(() => inOrderOfMoment(this.today.value()?.inWork ?? []));
  protected readonly rows = computed(() =>
    this.inOrder()
      .slice(0, this.shown())
      .map((lot) => ({ lot, said: sayNext(lot, this.now()), isDue: wantedAtMs(lot) <= this.now() })),
  );
  protected readonly says = { byPlan: $localize`By the plan` };
  /** What hands are asked for next by the plan, whose they are, and when: tonight’s soaks too. */
  protected readonly ahead = computed(() =>
    (this.today.value()?.byPlan ?? []).slice(0, TOUCHES_SHOWN).map((t) => ({
      ...t,
      said: sayTouch(t),
      at: this.isToday(t.startAt) ? this.calendar.formatClock(t.startAt) : this.calendar.formatMoment(t.startAt),
    })),
  );
  private isToday(at: string): boolean {
    return this.calendar.dayOf(Date.parse(at)) === this.calendar.dayOf(this.now());
  }
  protected readonly also = computed(() => {
    const t = this.today.value();
    if (!t) return '';
    const ready = t.orders.filter((o) => o.stands === 'ready');
    const more = this.inOrder().length - this.shown();
    return [
      more > 0 ? $localize`${more} more in work.` : '',
      t.planned.length > 0 ? $localize`Not begun: ${t.planned.map((l) => l.tag).join(', ')}.` : '',
      t.toJudge.length > 0 ? $localize`To judge: ${t.toJudge.map((l) => l.tag).join(', ')}.` : '',
      ready.length > 0 ? $localize`To hand over: ${ready.map((o) => $localize`order ${o.number}`).join(', ')}.` : '',
      t.short.length > 0 ? $localize`Short: ${t.short.map((j) => j.tag).join(', ')}.` : '',
    ]
      .filter((w) => w !== '')
      .join(' ');
  });

  private lit: WakeLockSentinel | undefined;

  constructor() {
    // It goes out with the page's being out of sight, and is asked for again when it comes back.
    const stayLit = (): void => void this.stayLit();
    document.addEventListener('visibilitychange', stayLit);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('visibilitychange', stayLit);
      void this.lit?.release();
    });
    stayLit();
  }

  /** Where the browser allows it, the screen isn’t put to sleep while this stands on it. */
  private async stayLit(): Promise<void> {
    // Not there over plain HTTP, whatever its type says.
    const lights = navigator.wakeLock as WakeLock | undefined;
    if (document.hidden || (this.lit && !this.lit.released)) return;
    this.lit = await lights?.request('screen').catch(() => undefined);
  }
}

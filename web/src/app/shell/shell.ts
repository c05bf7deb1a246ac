import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  computed,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { NavigationStart, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { filter } from 'rxjs';
import { figuresShownIn } from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { LiveChanges, liveQuery } from '../api/live-query';
import { Outbox } from '../api/outbox';
import { Session } from '../api/session';
import { ROLE_LABELS } from '../format/deed-words';
import { sizeOf } from '../format/file-size';
import { ContextPanel } from '../services/context-panel';
import { ContextPanelView } from './context-panel-view';
import { ComeInAgain } from './come-in-again';
import { PLACES } from './places';
import type { PlaceHelp } from './place-help';
import { helpOf } from './place-help';
import { Tour } from './tour';
import { Drafts } from '../services/drafts';
import { PagePlace } from '../services/page-place';
import { SingleKeys } from '../services/single-keys';
import { OtherUnitTip } from './other-unit-tip';
import { PotAlarm } from './pot-alarm';
import { PotLineStrip } from './pot-line-strip';
import { RefusedTouches } from './refused-touches';
import { SearchBox } from './search';
import { TodayNow } from './today-now';
import { Count } from '../ui/count';

/** The house: spine, sheet, margin and pot line. */
@Component({
  selector: 'vs-shell',
  imports: [
    ComeInAgain,
    Count,
    RouterOutlet,
    RouterLink,
    RouterLinkActive,
    ContextPanelView,
    MatMenuModule,
    OtherUnitTip,
    PotAlarm,
    PotLineStrip,
    RefusedTouches,
    SearchBox,
    Tour,
  ],
  templateUrl: './shell.html',
  providers: [TodayNow],
  styleUrl: './shell.scss',
  host: { '(document:keydown)': 'onKey($event)', '[attr.data-waiting]': 'outbox.waiting().length + outbox.writing()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Shell {
  /** What its template says by what holds. */
  protected readonly says = {
    touchWaits: $localize`touch waits`,
    touchesWait: $localize`touches wait`,
    photographWaits: $localize`photograph waits`,
    photographsWait: $localize`photographs wait`,
  };
  protected readonly session = inject(Session);
  protected readonly changes = inject(LiveChanges);
  protected readonly outbox = inject(Outbox);
  protected readonly router = inject(Router);
  protected readonly contextPanel = inject(ContextPanel);
  private readonly injector = inject(Injector);
  private readonly api = inject(ApiClient);
  protected readonly keys = inject(SingleKeys);
  private readonly sheet = viewChild.required<ElementRef<HTMLElement>>('sheet');
  private readonly page = viewChild.required<ElementRef<HTMLElement>>('page');
  protected readonly places = PLACES;
  protected readonly roleLabel = ROLE_LABELS;
  protected readonly size = sizeOf;
  private readonly today = inject(TodayNow).today;
  protected readonly disk = computed(() => this.today.value()?.disk);
  private readonly auth = liveQuery(['studio'], () => this.api.get('/api/auth'));
  /** Somebody chose other units meanwhile: what stands here is written in the old ones until it is drawn anew. */
  protected readonly readsOtherwise = computed(() => {
    const shownIn = this.auth.value()?.studio?.shownIn;
    return shownIn !== undefined && JSON.stringify(shownIn) !== JSON.stringify(figuresShownIn());
  });
  protected readonly searching = signal(false);
  protected readonly help = signal(false);
  protected readonly drafts = inject(Drafts);
  protected readonly asksToLeave = signal(false);
  /** Of the place it was asked for in. */
  protected readonly placeHelp = signal<PlaceHelp | undefined>(undefined);
  private readonly tour = viewChild.required(Tour);
  private readonly search = viewChild(SearchBox);
  private before: HTMLElement | null = null;

  constructor() {
    this.router.events
      .pipe(
        filter((e) => e instanceof NavigationStart),
        takeUntilDestroyed(),
      )
      .subscribe(() => {
        this.contextPanel.clear();
        this.help.set(false);
      });
    const place = inject(PagePlace);
    const leaving = inject(DestroyRef);
    afterNextRender(() => leaving.onDestroy(place.watch(this.sheet().nativeElement, this.page().nativeElement)));
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      if (this.help()) this.help.set(false);
      else if (this.searching()) this.closeSearch();
      else this.contextPanel.closeWorking();
      return;
    }
    if (!this.keys.areOn() || !this.keys.isPages(event)) return;
    // The tenth is at nought, as on the row of digits.
    const place = /^\d$/.test(event.key) ? PLACES[(Number(event.key) + 9) % 10] : undefined;
    if (place) void this.router.navigateByUrl(place.path);
    else if (event.key === '/') this.openSearch();
    else if (event.key === '?') this.toggleHelp();
    else return;
    event.preventDefault();
  }

  protected openSearch(): void {
    this.before = document.activeElement as HTMLElement | null;
    this.searching.set(true);
    afterNextRender(() => this.search()?.focus(), { injector: this.injector });
  }

  protected closeSearch(): void {
    this.searching.set(false);
    this.before?.focus();
  }

  protected toggleHelp(): void {
    this.placeHelp.set(helpOf(this.router.url.split('?')[0] ?? ''));
    this.help.update((open) => !open);
  }

  protected takeTour(): void {
    this.help.set(false);
    this.tour().begin();
  }

  /** Drafts are kept, so nothing half-written in a form is lost by it. */
  protected drawAnew(): void {
    location.reload();
  }

  protected skip(event: Event): void {
    event.preventDefault();
    document.getElementById('sheet')?.focus();
  }

  /** Half-written forms go with whoever leaves, so that is asked first, once. */
  protected leave(): void {
    if (this.drafts.count() > 0 && !this.asksToLeave()) {
      this.asksToLeave.set(true);
      return;
    }
    this.session.leave().subscribe(() => void this.router.navigateByUrl('/come-in'));
  }
}

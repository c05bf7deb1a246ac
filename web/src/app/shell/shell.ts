import {
  ChangeDetectionStrategy,
  Component,
  afterNextRender,
  inject,
  Injector,
  signal,
  viewChild,
} from '@angular/core';
import { NavigationStart, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { filter } from 'rxjs';
import { LiveChanges } from '../api/live';
import { Outbox } from '../api/outbox';
import { Session } from '../api/session';
import { Margin } from './margin';
import { MarginPanel } from './margin-panel';
import { PLACES, isTyping } from './places';
import { PotAlarm } from './pot-alarm';
import { PotLineStrip } from './pot-line-strip';
import { SearchBox } from './search';
import { TodayNow } from './today-now';

/** The house: spine, sheet, margin and pot line. */
@Component({
  selector: 'vs-shell',
  imports: [RouterOutlet, RouterLink, RouterLinkActive, MarginPanel, PotAlarm, PotLineStrip, SearchBox],
  template: ` <a class="skip" href="#sheet" (click)="skip($event)">To the sheet</a>
    <nav class="spine" aria-label="Places">
      <p class="name" [title]="session.studioName()">{{ session.studioName() }}</p>
      <ol>
        @for (place of places; track place.path; let i = $index) {
          <li>
            <a
              [routerLink]="place.path"
              routerLinkActive="here"
              ariaCurrentWhenActive="page"
              [attr.aria-keyshortcuts]="i + 1"
              ><span class="initial" aria-hidden="true">{{ place.name.slice(0, 2) }}</span
              ><span class="word">{{ place.name }}</span></a
            >
          </li>
        }
      </ol>
      <div class="foot">
        <button type="button" class="plain" (click)="openSearch()" aria-keyshortcuts="/">Search <kbd>/</kbd></button>
        <button type="button" class="plain" (click)="toggleHelp()" aria-keyshortcuts="?">Keys <kbd>?</kbd></button>
        <p class="small who">{{ session.person()?.name }}</p>
        <button type="button" class="plain" (click)="leave()">Leave</button>
      </div>
    </nav>
    <div class="middle">
      @if (searching()) {
        <vs-search (closed)="closeSearch()" />
      }
      @if (!changes.connected()) {
        <p class="lost" role="status">
          The server can’t be reached just now. What you see may be old. Touches at the bench are kept in this tablet
          and sent when it is back; nothing else is recorded until then.
        </p>
      }
      @if (outbox.waiting().length > 0 && !outbox.reached()) {
        <p class="lost" role="status">
          {{ outbox.waiting().length }} {{ outbox.waiting().length === 1 ? 'touch waits' : 'touches wait' }} in this
          tablet.
        </p>
      }
      @if (outbox.ofOthers() > 0) {
        <p class="lost" role="status">
          {{ outbox.ofOthers() }} touches here are somebody else’s: they are sent when that person comes in on this
          tablet.
        </p>
      }
      @for (t of outbox.refused(); track t.key) {
        <p class="lost" role="alert">
          Not recorded: “{{ t.words }}”. {{ t.refused }}
          <button class="plain" type="button" (click)="outbox.forget(t.key)">I have read it</button>
        </p>
      }
      @if (help()) {
        <section class="help" aria-label="Keys">
          <h2>Keys</h2>
          <dl class="facts">
            <dt><kbd>1</kbd> – <kbd>9</kbd></dt>
            <dd>the places, down the spine</dd>
            <dt><kbd>/</kbd></dt>
            <dd>search everything</dd>
            <dt><kbd>Space</kbd> <kbd>Enter</kbd></dt>
            <dd>at the bench: done, next. A foot pedal sends either.</dd>
            <dt><kbd>Tab</kbd></dt>
            <dd>from figure to figure; each shows its working</dd>
            <dt><kbd>Esc</kbd></dt>
            <dd>closes this list and the search</dd>
          </dl>
        </section>
      }
      <div class="pages">
        <main id="sheet" tabindex="-1"><router-outlet /></main>
        <aside aria-label="Working, cautions and history"><vs-margin /></aside>
      </div>
    </div>
    <vs-pot-line />
    <vs-pot-alarm />`,
  providers: [TodayNow],
  styleUrl: './shell.scss',
  host: { '(document:keydown)': 'onKey($event)', '[attr.data-waiting]': 'outbox.waiting().length' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Shell {
  protected readonly session = inject(Session);
  protected readonly changes = inject(LiveChanges);
  protected readonly outbox = inject(Outbox);
  private readonly router = inject(Router);
  private readonly margin = inject(Margin);
  private readonly injector = inject(Injector);
  protected readonly places = PLACES;
  protected readonly searching = signal(false);
  protected readonly help = signal(false);
  private readonly search = viewChild(SearchBox);
  private before: HTMLElement | null = null;

  constructor() {
    this.router.events
      .pipe(
        filter((e) => e instanceof NavigationStart),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.margin.clear());
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      this.help.set(false);
      if (this.searching()) this.closeSearch();
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
    const place = /^[1-9]$/.test(event.key) ? PLACES[Number(event.key) - 1] : undefined;
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
    this.help.update((open) => !open);
  }

  protected skip(event: Event): void {
    event.preventDefault();
    document.getElementById('sheet')?.focus();
  }

  protected leave(): void {
    this.session.leave().subscribe(() => void this.router.navigateByUrl('/door'));
  }
}

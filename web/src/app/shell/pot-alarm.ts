import { A11yModule } from '@angular/cdk/a11y';
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { forgottenPots } from '@vestigia/core';
import { ServerClock } from '../api/server-clock';
import { Alarms, callOf } from '../services/alarms';
import { isHalfWritten } from '../services/is-typing';
import { PotNotices } from '../services/pot-notices';
import { PageTitle } from '../services/page-title';
import { TodayNow } from './today-now';
import { Tone } from '../services/tone';

const LOOK_EVERY_MS = 1500;

/**
 * A pot that calls: over the whole screen, in the title and by sound, wherever somebody is looking just now. The hand is
 * in it until it is answered, by going there or by saying that it is known; then it is back where it was.
 */
@Component({
  selector: 'vs-pot-alarm',
  imports: [A11yModule],
  template: ` @if (calls()) {
    <div
      class="call"
      role="alertdialog"
      aria-modal="true"
      aria-labelledby="pot-calls"
      aria-describedby="what-calls"
      cdkTrapFocus
    >
      <h1 #heading id="pot-calls" tabindex="-1">
        {{ callOf(alarms.sounding()) }}
      </h1>
      <div id="what-calls">
        @for (a of alarms.sounding(); track a.key) {
          <p>{{ a.message }}</p>
        }
      </div>
      <div class="answers">
        <button i18n class="act main bench" type="button" (click)="go()">I am going there</button>
        <button i18n class="act bench" type="button" (click)="stay()">I know; I stay on this page</button>
      </div>
    </div>
  }`,
  styleUrl: './pot-alarm.scss',
  host: { '(document:keydown)': 'onKey($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PotAlarm {
  protected readonly callOf = callOf;
  private readonly router = inject(Router);
  private readonly clock = inject(ServerClock);
  protected readonly alarms = inject(Alarms);
  private readonly tone = inject(Tone);
  private readonly notices = inject(PotNotices);
  private readonly today = inject(TodayNow).today;
  private readonly injector = inject(Injector);
  private readonly title = inject(PageTitle);
  private readonly heading = viewChild<ElementRef<HTMLElement>>('heading');
  /** Where the hand was when it called, and whether something stood there half-written. */
  private before: HTMLElement | null = null;
  private halfWritten = false;
  protected readonly calls = computed(() => this.alarms.sounding().length > 0);

  constructor() {
    const timer = setInterval(() => this.look(), LOOK_EVERY_MS);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(timer);
      this.tone.stop();
    });
    effect(() => {
      if (this.calls()) this.takeHand();
    });
    effect(() => {
      this.title.call.set(this.calls() ? $localize`▲ Go to the pot` : undefined);
      if (this.calls()) this.tone.start();
      else this.tone.stop();
      void this.notices.say(this.alarms.sounding());
    });
    effect(() => {
      const today = this.today.value();
      if (!today) return;
      this.clock.set(today.now);
      this.alarms.set(
        'probes',
        today.calls.map((c) => ({
          key: `${c.lotId} ${c.stepIndex} ${c.code}`,
          message: c.message,
          path: `/bench/${c.lotId}`,
        })),
      );
    });
  }

  private look(): void {
    const running = (this.today.value()?.running ?? []).filter((r) => r.pausedAt === null);
    this.alarms.set(
      'forgotten',
      forgottenPots(running, this.clock.now()).map((f) => ({
        key: `forgotten ${f.lotId} ${f.title}`,
        message: f.message,
        path: `/bench/${f.lotId}`,
      })),
    );
    this.alarms.look();
  }

  private takeHand(): void {
    this.before = document.activeElement as HTMLElement | null;
    this.halfWritten = isHalfWritten(this.before);
    afterNextRender(() => this.heading()?.nativeElement.focus(), { injector: this.injector });
  }

  protected onKey(event: KeyboardEvent): void {
    if (!this.calls() || event.repeat) return;
    if (event.key === 'Escape') this.stay();
    // Half-way through a word, or with a balance that types, a space and an Enter are the field’s, though the hand is
    // here now. Where nothing was begun a pedal goes to the pot. A button has its own keys.
    else if ((event.key === ' ' || event.key === 'Enter') && !(event.target instanceof HTMLButtonElement)) {
      if (!this.halfWritten) this.go();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected go(): void {
    const path = this.alarms.sounding()[0]?.path;
    this.alarms.quiet();
    if (path !== undefined) void this.router.navigateByUrl(path);
  }

  protected stay(): void {
    this.alarms.quiet();
    this.before?.focus();
  }
}

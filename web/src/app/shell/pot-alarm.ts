import { ChangeDetectionStrategy, Component, DestroyRef, effect, inject } from '@angular/core';
import { Router } from '@angular/router';
import { forgottenPots } from '@vestigia/core';
import { ServerClock } from '../api/server-clock';
import type { Alarm } from '../services/alarms';
import { Alarms } from '../services/alarms';
import { isHalfWritten } from '../services/is-typing';
import { TodayNow } from './today-now';
import { Tone } from '../services/tone';

const LOOK_EVERY_MS = 1500;

/** A pot that calls: over the whole screen, in the title and by sound, wherever somebody is looking just now. */
@Component({
  selector: 'vs-pot-alarm',
  template: ` @if (alarms.sounding(); as all) {
    @if (all.length > 0) {
      <div class="call" role="alertdialog" aria-modal="true" aria-labelledby="pot-calls">
        <h1 id="pot-calls">{{ all.every(isRehearsal) ? 'Rehearsal: go to the pot' : 'Go to the pot' }}</h1>
        @for (a of all; track a.key) {
          <p>{{ a.message }}</p>
        }
        <button class="act main bench" type="button" (click)="go(all[0]!.path)">I am there</button>
      </div>
    }
  }`,
  styleUrl: './pot-alarm.scss',
  host: { '(document:keydown)': 'onKey($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PotAlarm {
  private readonly router = inject(Router);
  private readonly clock = inject(ServerClock);
  protected readonly alarms = inject(Alarms);
  private readonly tone = inject(Tone);
  private readonly today = inject(TodayNow).today;
  private title = '';
  protected readonly isRehearsal = (a: Alarm): boolean => a.rehearsal === true;

  constructor() {
    const timer = setInterval(() => this.look(), LOOK_EVERY_MS);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(timer);
      this.tone.stop();
    });
    effect(() => {
      if (this.alarms.sounding().length === 0) {
        this.tone.stop();
        if (this.title !== '') document.title = this.title;
        this.title = '';
      } else {
        this.tone.start();
        if (this.title === '') this.title = document.title;
        document.title = `▲ Go to the pot · ${this.title}`;
      }
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

  protected onKey(event: KeyboardEvent): void {
    const [first] = this.alarms.sounding();
    if (!first || event.repeat) return;
    // Half-way through a word, or with a balance that types, a space and an Enter belong to the field. An empty one
    // waits for a weighing: there a pedal goes to the pot.
    const goes =
      event.key === 'Escape' || (!isHalfWritten(event.target) && (event.key === ' ' || event.key === 'Enter'));
    if (!goes) return;
    event.preventDefault();
    event.stopPropagation();
    this.go(first.path);
  }

  protected go(path: string): void {
    this.alarms.quiet();
    void this.router.navigateByUrl(path);
  }
}

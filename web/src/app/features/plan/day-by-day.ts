import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { sayMinutes, sayTouch } from '@vestigia/core';
import { StudioCalendar } from '../../services/studio-calendar';
import { ScrollRegion } from '../../ui/scroll-region';
import type { Touch } from './plan-rows';

const DAYS_AT_FIRST = 3;

/** What hands are asked for, day by day in the order of the clock: the plan without its picture. */
@Component({
  selector: 'vs-day-by-day',
  imports: [ScrollRegion],
  template: `
    <h2 i18n>Hands, day by day</h2>
    @for (d of shown(); track d.day) {
      <h3>{{ d.name }}</h3>
      <div class="scroller">
        <table class="ledger">
          <caption class="unseen">
            {{
              d.name
            }}
          </caption>
          <tbody>
            @for (t of d.touches; track t.stepId + t.kind) {
              <tr>
                <th scope="row">{{ t.clock }}</th>
                <td class="who">{{ t.who }}</td>
                <td>{{ say(t) }}</td>
                <td class="lot">{{ t.lotTag }}</td>
                <td class="number">{{ minutes(t.minutes) }}</td>
              </tr>
            }
          </tbody>
        </table>
      </div>
    } @empty {
      <p i18n>Nothing asks for hands.</p>
    }
    @if (days().length > shown().length) {
      <button i18n class="plain" type="button" (click)="isWhole.set(true)">Show the days after that</button>
    }
  `,
  styles: `
    th {
      width: 5rem;
    }
    .who {
      width: 12rem;
    }
    .lot {
      width: 7rem;
    }
    .number {
      width: 6rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DayByDay {
  private readonly calendar = inject(StudioCalendar);
  readonly touches = input.required<readonly Touch[]>();
  readonly people = input.required<readonly { readonly id: string; readonly name: string }[]>();
  protected readonly isWhole = signal(false);
  protected readonly minutes = sayMinutes;
  protected readonly say = sayTouch;
  protected readonly days = computed(() => {
    const days = new Map<string, Touch[]>();
    for (const t of this.touches()) {
      const day = this.calendar.dayOf(t.atMs);
      days.set(day, [...(days.get(day) ?? []), t]);
    }
    return [...days].map(([day, touches]) => ({
      day,
      name: this.calendar.formatWeekday(new Date(touches[0]?.atMs ?? 0).toISOString()),
      touches: touches.map((t) => ({
        ...t,
        clock: this.calendar.formatClock(new Date(t.atMs).toISOString()),
        who: this.people().find((p) => p.id === t.personId)?.name ?? '',
      })),
    }));
  });
  protected readonly shown = computed(() => (this.isWhole() ? this.days() : this.days().slice(0, DAYS_AT_FIRST)));
}

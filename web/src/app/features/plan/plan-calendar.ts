import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';

/** One’s own part of the accepted plan for a calendar program: as a file, or by a private address that can be ended. */
@Component({
  selector: 'vs-plan-calendar',
  imports: [RefusalNote],
  template: `
    <h2 i18n>In your calendar</h2>
    <p>
      <a i18n href="/api/plan/calendar" download="plan.ics">What you have to do, as a calendar file</a>
    </p>
    @if (address(); as a) {
      <p i18n role="status">
        Give this address to your calendar program. It is shown this one time, and whoever has it reads your part of the
        plan:
      </p>
      <p>
        <code>{{ a }}</code>
      </p>
    }
    <p>
      <button i18n class="plain" type="button" [disabled]="making.busy()" (click)="make()">
        Make a private address
      </button>
      @if (has()) {
        <button i18n class="plain" type="button" [disabled]="ending.busy()" (click)="end()">End the address</button>
        <span i18n class="soft small">A new one ends the one there is.</span>
      }
    </p>
    <vs-refusal [problem]="making.problem() ?? ending.problem()" />
  `,
  styles: `
    code {
      overflow-wrap: anywhere;
      user-select: all;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanCalendar {
  private readonly api = inject(ApiClient);
  private readonly known = liveQuery([], () => this.api.get('/api/plan/calendar/address'));
  private readonly told = signal<{ has: boolean; key: string | null } | undefined>(undefined);
  protected readonly making = pageAction();
  protected readonly ending = pageAction();
  protected readonly has = computed(() => (this.told() ?? this.known.value())?.has === true);
  protected readonly address = computed(() => {
    const key = this.told()?.key;
    return key ? `${location.origin}/api/calendar?key=${key}` : undefined;
  });

  protected make(): void {
    this.making.run(this.api.post('/api/plan/calendar/address', undefined), (told) => this.told.set(told));
  }

  protected end(): void {
    this.ending.run(this.api.delete('/api/plan/calendar/address'), (told) => this.told.set(told));
  }
}

import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import type { Session } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { sayBrowser } from '../../format/deed-words';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { ScrollRegion } from '../../ui/scroll-region';

/** Where people are in, and an end to it: a tablet that was lost, or left on somebody else’s bench. */
@Component({
  selector: 'vs-sessions',
  imports: [ScrollRegion, RefusalNote, When],
  template: `@if (sessions.value(); as all) {
      <div class="scroller">
        <table class="ledger">
          <caption i18n class="small">
            Where people are in
          </caption>
          <tbody>
            @for (s of all; track s.id) {
              <tr>
                <th scope="row">{{ s.person.name }}</th>
                <td>{{ browser(s) }}{{ s.isThis ? says.here : '' }}</td>
                <td class="small">{{ s.address }}</td>
                <td class="small">{{ s.since ? says.since : '' }}{{ s.since | when: 'moment' }}</td>
                <td>
                  @if (!s.isThis) {
                    <button
                      i18n
                      class="plain"
                      type="button"
                      [disabled]="action.busy()"
                      [attr.aria-label]="says.endItFor(s.person.name, browser(s))"
                      (click)="end(s)"
                    >
                      End it there
                    </button>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
    }
    <vs-refusal [problem]="sessions.problem() ?? action.problem()" />`,
  styles: `
    @media (max-width: 40rem) {
      th,
      td {
        display: block;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sessions {
  /** What its template says by what holds. */
  protected readonly says = {
    here: $localize`, here`,
    since: $localize`since `,
    endItFor: (name: string | number, where: string | number): string => $localize`End it for ${name}, ${where}`,
  };

  private readonly api = inject(ApiClient);
  protected readonly sessions = liveQuery(['studio'], () => this.api.get('/api/sessions'));
  protected readonly action = pageAction();
  protected readonly browser = sayBrowser;

  protected end({ id }: Session): void {
    this.action.run(this.api.delete('/api/sessions/{id}', id), () => this.sessions.reload());
  }
}

import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import type { Deed, DeedThing, Topic } from '@vestigia/contract';
import { EMPTY } from 'rxjs';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { sayChanges, sayDeed } from '../format/deed-words';
import { StudioCalendar } from '../services/studio-calendar';
import { May } from './may';
import { RefusalNote } from './refusal';
import { When } from './when';

/** What may have been changed when deeds are told anew. */
export const DEED_TOPICS: readonly Topic[] = ['studio', 'stores', 'recipes', 'colourways', 'swatches', 'orders'];

/** Who changed the thing the page is about, and what: read when it is unfolded. */
@Component({
  selector: 'vs-deeds-of',
  imports: [May, RefusalNote, When],
  template: `<details *vsMay="'helper'" (toggle)="isOpen.set($any($event.target).open)">
    <summary i18n>Who changed this</summary>
    <vs-refusal [problem]="deeds.problem()" />
    @if (deeds.value(); as page) {
      <ul class="plain-list">
        @for (d of page.deeds; track d.id) {
          <li>
            {{ say(d) }} <span class="soft small">{{ d.at | when: 'moment' }}</span>
            @for (change of changes(d); track change) {
              <br /><span class="small">{{ change }}</span>
            }
          </li>
        } @empty {
          <li i18n>Nobody, since this is kept.</li>
        }
      </ul>
    }
  </details>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeedsOf {
  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  readonly thing = input.required<DeedThing>();
  readonly thingId = input<string>();
  protected readonly isOpen = signal(false);
  protected readonly say = sayDeed;
  protected readonly changes = ({ changes }: Deed): string[] => sayChanges(changes, this.calendar);
  protected readonly deeds = liveQuery(
    DEED_TOPICS,
    () => {
      if (!this.isOpen()) return EMPTY;
      const thingId = this.thingId();
      return this.api.get('/api/deeds', {
        query: { thing: this.thing(), ...(thingId === undefined ? {} : { thingId }) },
      });
    },
    () => `${this.thing()} ${this.thingId() ?? ''} ${this.isOpen()}`,
  );
}

import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { Deed, DeedThing } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { sayChanges, sayDeed } from '../../format/deed-words';
import { StudioCalendar } from '../../services/studio-calendar';
import { DEED_TOPICS } from '../../ui/deeds-of';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { ScrollRegion } from '../../ui/scroll-region';

const KINDS_OF_THINGS: Readonly<Record<DeedThing, string>> = {
  person: $localize`people, and who came in`,
  studio: $localize`settings`,
  vessel: $localize`vessels`,
  heatSource: $localize`heat sources`,
  water: $localize`waters`,
  material: $localize`materials`,
  jar: $localize`jars`,
  recipe: $localize`recipes`,
  colourway: $localize`colourways`,
  swatch: $localize`snippets`,
  container: $localize`containers`,
  order: $localize`orders`,
  customer: $localize`customers`,
  file: $localize`files in and out`,
};

/** Who did what to what can be changed, the newest first. What is dyed, weighed and read tells its own who and when. */
@Component({
  selector: 'vs-deeds',
  imports: [ScrollRegion, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, RouterLink, When],
  template: `<div class="head">
      <h1 i18n>Who did what</h1>
      <div class="actions"><a i18n class="act" routerLink="/studio">Back to the studio</a></div>
    </div>
    <p i18n>
      Changes of what can be changed, and files that came or went; nothing here is ever taken away. What was dyed,
      weighed and read stands with its lot and its jar.
    </p>
    <div class="fields">
      <mat-form-field
        ><mat-label i18n>Of what</mat-label
        ><select matNativeControl name="thing" [(ngModel)]="thing">
          <option i18n value="">everything</option>
          @for (t of things; track t[0]) {
            <option [value]="t[0]">{{ t[1] }}</option>
          }
        </select></mat-form-field
      >
      <mat-form-field
        ><mat-label i18n>By whom</mat-label
        ><select matNativeControl name="by" [(ngModel)]="by">
          <option i18n value="">anybody</option>
          @for (p of people.value()?.people ?? []; track p.id) {
            <option [value]="p.id">{{ p.name }}</option>
          }
        </select></mat-form-field
      >
    </div>
    <vs-refusal [problem]="newest.problem()" />
    @if (newest.value()) {
      <div class="scroller">
        <table class="ledger">
          <caption i18n class="small">
            The newest first
          </caption>
          <thead>
            <tr>
              <th i18n scope="col">When</th>
              <th i18n scope="col">What</th>
              <th i18n scope="col">From and to</th>
            </tr>
          </thead>
          <tbody>
            @for (d of all(); track d.id) {
              <tr>
                <td class="moment">{{ d.at | when: 'moment' }}</td>
                <th scope="row">{{ say(d) }}</th>
                <td class="small">
                  @for (change of changes(d); track change; let isLast = $last) {
                    {{ change }}{{ isLast ? '' : '; ' }}
                  }
                </td>
              </tr>
            } @empty {
              <tr>
                <td i18n colspan="3">Nothing yet.</td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      @if (hasMore()) {
        <button i18n class="act" type="button" [disabled]="action.busy()" (click)="more()">Show older ones</button>
      }
      <vs-refusal [problem]="action.problem()" />
    }`,
  styles: `
    @media (min-width: 40rem) {
      .moment {
        white-space: nowrap;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeedsPage {
  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  protected readonly things = Object.entries(KINDS_OF_THINGS);
  protected readonly thing = signal('');
  protected readonly by = signal('');
  protected readonly action = pageAction();
  protected readonly people = liveQuery(['studio'], () => this.api.get('/api/studio'));
  protected readonly newest = liveQuery(
    DEED_TOPICS,
    () => this.api.get('/api/deeds', { query: this.query() }),
    () => JSON.stringify(this.query()),
  );
  private readonly older = signal<{ key: string; deeds: readonly Deed[]; hasMore: boolean } | undefined>(undefined);
  private readonly olderHere = computed(() => {
    const older = this.older();
    return older?.key === JSON.stringify(this.query()) ? older : undefined;
  });
  protected readonly all = computed(() => [...(this.newest.value()?.deeds ?? []), ...(this.olderHere()?.deeds ?? [])]);
  protected readonly hasMore = computed(() => this.olderHere()?.hasMore ?? this.newest.value()?.hasMore ?? false);
  protected readonly say = sayDeed;
  protected readonly changes = ({ changes }: Deed): string[] => sayChanges(changes, this.calendar);

  private query(): Record<string, string> {
    return { ...(this.thing() === '' ? {} : { thing: this.thing() }), ...(this.by() === '' ? {} : { by: this.by() }) };
  }

  protected more(): void {
    const last = this.all().at(-1);
    if (!last) return;
    const [query, before] = [this.query(), this.olderHere()?.deeds ?? []];
    this.action.run(this.api.get('/api/deeds', { query: { ...query, before: String(last.seq) } }), (page) =>
      this.older.set({ key: JSON.stringify(query), deeds: [...before, ...page.deeds], hasMore: page.hasMore }),
    );
  }
}

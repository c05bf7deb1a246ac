import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { CopyOfStudio, StudioCopies } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { sizeOf } from '../../format/file-size';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { ScrollRegion } from '../../ui/scroll-region';

const SHOWN_AT_FIRST = 3;

/** Copies of the whole studio: the last good one, what is wrong with them, one by hand, and the file to take away. */
@Component({
  selector: 'vs-copies',
  imports: [ScrollRegion, RefusalNote, When],
  template: `
    <h2 i18n>Copies of the whole studio</h2>
    @if (told(); as t) {
      @if (t.copies[0]; as last) {
        <p i18n>
          The last good copy is of <b>{{ last.at | when }}, {{ last.at | when: 'clock' }}</b> ({{ size(last.bytes) }}):
          written, opened again and found the same as the studio.
        </p>
      } @else {
        <p i18n>There is no copy yet. One is made by itself after a day’s work, at 19:00 or the next morning.</p>
      }
      @if (t.problem; as problem) {
        <p class="refusal" role="alert">{{ problem }}</p>
      }
      @if (t.isOld) {
        <p i18n class="refusal" role="alert">
          {{ t.copies.length > 0 ? says.daysAgo : says.neverCopied }}
          Make one now, and see that the computer is on for a while after the day’s work.
        </p>
      }
      @if (t.isNearlyFull) {
        <p i18n class="refusal" role="alert">
          The disk of the copies is nearly full: {{ size(t.freeBytes ?? 0) }} are left. Make room, or name another
          folder as COPIES_DIR.
        </p>
      }
      <div class="actions">
        <button class="act" type="button" [disabled]="action.busy()" (click)="make()">
          {{ action.busy() ? says.copying : says.copyNow }}
        </button>
        <a i18n class="act" href="/api/studio-file" download>Take the studio file away</a>
      </div>
      @if (made(); as m) {
        <p i18n role="status">A copy of {{ size(m.bytes) }} was made and is good.</p>
      }
      <vs-refusal [problem]="action.problem()" />
      @if (t.copies.length > 0) {
        <div class="scroller">
          <table class="ledger">
            <caption i18n class="small">
              Kept in
              {{
                t.folder
              }}: of the last seven days, five weeks and twelve months the newest each. To go back to one: npm run
              restore.
            </caption>
            <tbody>
              @for (copy of shown(); track copy.name) {
                <tr>
                  <th scope="row">{{ copy.at | when }}, {{ copy.at | when: 'clock' }}</th>
                  <td class="number">{{ size(copy.bytes) }}</td>
                  <td class="small">{{ copy.name }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        @if (t.copies.length > shown().length) {
          <button i18n class="plain" type="button" (click)="areAllShown.set(true)">
            Show all {{ t.copies.length }}
          </button>
        }
      }
    }
    <vs-refusal [problem]="reading.problem()" />
    <p i18n>
      A copy and a studio file are the same: one zip in an open format, with every photograph and sheet, that opens in
      an empty studio on any machine. Passphrases stay behind; whoever opens it is told a code for each person.
    </p>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Copies {
  /** What its template says by what holds. */
  protected readonly says = {
    daysAgo: $localize`That is days ago, and work was done since.`,
    neverCopied: $localize`Work was done for days without one.`,
    copying: $localize`Copying and looking it over …`,
    copyNow: $localize`Make a copy now`,
  };

  private readonly api = inject(ApiClient);
  protected readonly reading = pageAction();
  protected readonly action = pageAction();
  protected readonly told = signal<StudioCopies | undefined>(undefined);
  protected readonly made = signal<CopyOfStudio | undefined>(undefined);
  protected readonly areAllShown = signal(false);
  protected readonly shown = computed(() =>
    (this.told()?.copies ?? []).slice(0, this.areAllShown() ? undefined : SHOWN_AT_FIRST),
  );
  protected readonly size = sizeOf;

  constructor() {
    this.look();
  }

  protected make(): void {
    this.made.set(undefined);
    this.action.run(this.api.post('/api/copies', undefined), (copy) => {
      this.made.set(copy);
      this.look();
    });
  }

  private look(): void {
    this.reading.run(this.api.get('/api/copies'), (told) => this.told.set(told));
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import type { CopyOfStudio, OpenedDocument, OpeningDocument } from '@vestigia/contract';
import { formatClock, formatDay } from '@vestigia/core';
import type { Observable } from 'rxjs';
import { catchError, finalize, of, switchMap, timer } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { sizeOf } from '../../format/file-size';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';

const LOOK_EVERY_MS = 500;
const SHOWN_AT_FIRST = 5;
const PHASES: Readonly<Record<OpeningDocument['phase'], string>> = {
  none: $localize`Beginning …`,
  receiving: $localize`Taking the file in`,
  reading: $localize`Reading it; a large one takes a minute …`,
  keeping: $localize`Writing it down`,
};

/** An empty studio’s way back: a copy that lies in the folder for them, or a studio file from elsewhere. */
@Component({
  selector: 'vs-bring-back',
  imports: [ScrollRegion, RefusalNote],
  template: `
    <h2 i18n>Or bring one back</h2>
    @if (copies().length > 0) {
      <div class="scroller">
        <table class="ledger">
          <caption i18n class="small">
            Copies that lie in this computer’s folder for them; each was looked over when it was made.
          </caption>
          <tbody>
            @for (copy of shown(); track copy.name) {
              <tr>
                <th scope="row">{{ when(copy) }}</th>
                <td class="number">{{ size(copy.bytes) }}</td>
                <td>
                  <button
                    i18n
                    class="act"
                    type="button"
                    [disabled]="action.busy()"
                    [attr.aria-label]="says.bringBackTheStudio(when(copy))"
                    (click)="openCopy(copy)"
                  >
                    Bring this back
                  </button>
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      @if (copies().length > shown().length) {
        <button i18n class="plain" type="button" (click)="areAllShown.set(true)">Show older ones</button>
      }
    }
    <p i18n>
      A studio file that Vestigia wrote opens whole: its history, photographs and sheets. Passphrases don’t travel; you
      will be shown a code for each person.
    </p>
    <input
      type="file"
      accept=".zip,.json,application/zip,application/json"
      aria-label="Studio file"
      i18n-aria-label
      [disabled]="action.busy()"
      (change)="openFile($event)"
    />
    @if (action.busy()) {
      <p role="status">{{ phase() }}</p>
      <progress
        [attr.value]="share()"
        max="1"
        aria-label="How far the studio file is opened"
        i18n-aria-label
      ></progress>
      <div class="actions"><button i18n class="act" type="button" (click)="stop()">Stop</button></div>
    }
    <vs-refusal [problem]="action.problem()" />
  `,
  styles: `
    input[type='file'] {
      font: inherit;
      min-height: 44px;
    }
    progress {
      width: 100%;
      accent-color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BringBack {
  /** What its template says by what holds. */
  protected readonly says = {
    bringBackTheStudio: (copy: string | number): string => $localize`Bring back the studio of ${copy}`,
  };

  private readonly api = inject(ApiClient);
  readonly opened = output<OpenedDocument['codes']>();
  protected readonly action = pageAction();
  protected readonly copies = signal<readonly CopyOfStudio[]>([]);
  protected readonly areAllShown = signal(false);
  protected readonly shown = computed(() =>
    this.areAllShown() ? this.copies() : this.copies().slice(0, SHOWN_AT_FIRST),
  );
  protected readonly size = sizeOf;
  private readonly progress = signal<OpeningDocument>({ phase: 'none', done: 0, total: null });
  protected readonly phase = computed(() => PHASES[this.progress().phase]);
  protected readonly share = computed(() => {
    const { done, total } = this.progress();
    return total ? Math.min(1, done / total) : null;
  });

  constructor() {
    this.api.get('/api/auth/copies').subscribe({ next: (copies) => this.copies.set(copies), error: () => undefined });
  }

  protected when(copy: CopyOfStudio): string {
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    return `${formatDay(copy.at, timeZone)}, ${formatClock(copy.at, timeZone)}`;
  }

  protected openCopy({ name }: CopyOfStudio): void {
    this.open(this.api.post('/api/auth/copies', { name }));
  }

  protected openFile(event: Event): void {
    const input = event.target as HTMLInputElement;
    const file = input.files?.[0];
    // The same file may be chosen again after it was refused.
    input.value = '';
    if (file) this.open(this.api.upload('/api/auth/document', file, 'application/octet-stream'));
  }

  protected stop(): void {
    this.api.delete('/api/auth/document').subscribe({ error: () => undefined });
  }

  private open(asked: Observable<OpenedDocument>): void {
    const looking = timer(0, LOOK_EVERY_MS)
      .pipe(switchMap(() => this.api.get('/api/auth/document').pipe(catchError(() => of(this.progress())))))
      .subscribe((progress) => this.progress.set(progress));
    this.action.run(asked.pipe(finalize(() => looking.unsubscribe())), ({ codes }) => this.opened.emit(codes));
  }
}

import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import type { ImportJob, TransferKind } from '@vestigia/contract';
import { Subject, catchError, of, switchMap, takeWhile, timer } from 'rxjs';
import type { ShownProblem } from '../../../api/api-client';
import { ApiClient } from '../../../api/api-client';
import { Session } from '../../../api/session';
import { pageAction } from '../../../api/page-action';
import { typeOf } from '../../../format/file-type';
import { RefusalNote } from '../../../ui/refusal';
import { StoresNav } from '../stores-nav';
import { ScrollRegion } from '../../../ui/scroll-region';

const KINDS: readonly { kind: TransferKind; name: string }[] = [
  { kind: 'materials', name: $localize`Materials` },
  { kind: 'stockLots', name: $localize`Stock lots` },
  { kind: 'movements', name: $localize`Movements` },
];
const LARGEST = 40_000_000;
const LOOK_EVERY_MS = 250;

/** Stores as open files: tables out and in, with every row's fate shown before anything is written. */
@Component({
  selector: 'vs-files',
  imports: [ScrollRegion, FormsModule, RefusalNote, StoresNav],
  templateUrl: './files.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FilesPage {
  /** What its template says by what holds. */
  protected readonly says = {
    reading: $localize`Reading`,
    writing: $localize`Writing`,
    readingTheFile: $localize`Reading the file`,
  };

  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  protected readonly mayTake = computed(() => this.session.may('dyer'));
  protected readonly kinds = KINDS;
  protected readonly allKinds = [...KINDS, { kind: 'document' as const, name: $localize`All of Stores (JSON)` }];
  protected readonly fates = {
    new: $localize`new`,
    here: $localize`here already`,
    refused: $localize`can’t be taken`,
  } as const;
  protected readonly kind = signal<TransferKind>('materials');
  protected readonly sending = pageAction();
  protected readonly job = signal<ImportJob | undefined>(undefined);
  protected readonly problem = signal<ShownProblem | undefined>(undefined);
  protected readonly working = computed(() => ['reading', 'writing'].includes(this.job()?.state ?? ''));
  protected readonly rowsShown = computed(() => this.job()?.rows.length ?? 0);
  protected readonly all = computed(() => Object.values(this.job()?.fates ?? {}).reduce((sum, n) => sum + n, 0));
  private readonly watched = new Subject<string>();

  constructor() {
    this.watched
      .pipe(
        switchMap((id) =>
          timer(LOOK_EVERY_MS, LOOK_EVERY_MS).pipe(
            switchMap(() => this.api.get('/api/stores/imports/{id}', { id }).pipe(catchError(() => of(undefined)))),
            takeWhile((job) => job === undefined || ['reading', 'writing'].includes(job.state), true),
          ),
        ),
        takeUntilDestroyed(inject(DestroyRef)),
      )
      .subscribe((job) => job && this.job.set(job));
  }

  protected choose(event: Event): void {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    this.job.set(undefined);
    this.sending.clear();
    this.problem.set(
      file.size > LARGEST
        ? {
            detail: $localize`That file has ${Math.round(file.size / 1_000_000)} MB; 40 MB are taken at once. Split it by year and bring the parts one after another.`,
          }
        : undefined,
    );
    if (this.problem()) return;
    this.sending.run(
      this.api.upload('/api/stores/imports', file, tableType(file), {
        query: { kind: this.kind(), name: file.name.slice(0, 120) },
      }),
      (job) => this.watch(job),
    );
  }

  protected run(job: ImportJob): void {
    this.sending.run(this.api.post('/api/stores/imports/{id}/run', undefined, job.id), (next) => this.watch(next));
  }

  protected cancel(job: ImportJob): void {
    this.sending.run(this.api.delete('/api/stores/imports/{id}', job.id), (next) => this.watch(next));
  }

  private watch(job: ImportJob): void {
    this.job.set(job);
    this.watched.next(job.id);
  }
}

/** Spreadsheet programs register types of their own for .csv. */
const tableType = (file: File): string => {
  const type = typeOf(file);
  return type === 'application/json' ? type : 'text/csv';
};

import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import type { ImportJob, TransferKind } from '@vestigia/contract';
import { Subject, catchError, of, switchMap, takeWhile, timer } from 'rxjs';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { typeOf } from '../../ui/file-type';
import { RefusalNote } from '../../ui/refusal';
import { StoresNav } from './stores-nav';

const KINDS: readonly { kind: TransferKind; name: string }[] = [
  { kind: 'materials', name: 'Materials' },
  { kind: 'stockLots', name: 'Stock lots' },
  { kind: 'movements', name: 'Movements' },
];
const LARGEST = 40_000_000;
const LOOK_EVERY_MS = 250;

/** Stores as open files: tables out and in, with every row's fate shown before anything is written. */
@Component({
  selector: 'vs-files',
  imports: [FormsModule, RefusalNote, StoresNav],
  template: ` <div class="head"><h1>Files in and out</h1></div>
    <vs-stores-nav />
    <h2>Out</h2>
    <p>
      Tables by RFC 4180, safe to open in a spreadsheet; or everything as one JSON document, whose
      <a href="/api/stores/schema.json" target="_blank" rel="noopener">schema</a> is published.
    </p>
    <table class="ledger">
      <tbody>
        @for (k of kinds; track k.kind) {
          <tr>
            <td>{{ k.name }}</td>
            <td><a [href]="'/api/stores/export?kind=' + k.kind" download>CSV, commas</a></td>
            <td><a [href]="'/api/stores/export?separator=%3B&kind=' + k.kind" download>CSV, semicolons</a></td>
          </tr>
        }
        <tr>
          <td>All of Stores</td>
          <td><a href="/api/stores/export?kind=document" download>JSON</a></td>
          <td></td>
        </tr>
      </tbody>
    </table>
    <h2>In</h2>
    <p>
      Materials first, then stock lots, then movements. Nothing is written until you have seen what becomes of every
      row; then all of it is, or none. The same file twice changes nothing.
    </p>
    <fieldset>
      <legend>The file holds</legend>
      @for (k of allKinds; track k.kind) {
        <label class="tick"><input type="radio" name="kind" [value]="k.kind" [(ngModel)]="kind" /> {{ k.name }}</label>
      }
    </fieldset>
    <label class="tick"
      >Choose the file
      <input type="file" accept=".csv,.json,text/csv,application/json" (change)="choose($event)" [disabled]="working()"
    /></label>
    <vs-refusal [problem]="problem() ?? sending.problem()" />
    @if (job(); as j) {
      @if (working()) {
        <p role="status">{{ j.state === 'reading' ? 'Reading' : 'Writing' }}: {{ j.done }} of {{ j.total }}</p>
        <progress
          [value]="j.done"
          [max]="j.total || 1"
          [attr.aria-label]="j.state === 'reading' ? 'Reading the file' : 'Writing'"
        ></progress>
        <div class="actions"><button class="act" type="button" (click)="cancel(j)">Stop</button></div>
      }
      @switch (j.state) {
        @case ('ready') {
          <h3>What becomes of it</h3>
          <p>
            <strong
              >{{ j.fates.new }} new, {{ j.fates.here }} here already, {{ j.fates.refused }} can’t be taken.</strong
            >
            @if (j.newPeople.length > 0) {
              These people are added, without a passphrase: {{ j.newPeople.join(', ') }}.
            }
          </p>
          @if (j.fates.refused > 0) {
            <p>Mend those rows in the file and choose it again: a file goes in whole.</p>
          }
          <div class="scroller">
            <table class="ledger">
              <thead>
                <tr>
                  <th class="number">Line</th>
                  <th>Row</th>
                  <th>Fate</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                @for (r of j.rows; track r.line + r.words) {
                  <tr [class.mark]="r.fate === 'refused'">
                    <td class="number">{{ r.line }}</td>
                    <td>{{ r.words }}</td>
                    <td>{{ fates[r.fate] }}</td>
                    <td class="small">{{ r.why }}</td>
                  </tr>
                }
              </tbody>
            </table>
          </div>
          @if (told() < all()) {
            <p class="small soft">{{ all() - told() }} more rows, none of which stands in the way.</p>
          }
          <div class="actions">
            <button
              class="act main"
              type="button"
              (click)="run(j)"
              [disabled]="j.fates.refused > 0 || j.fates.new === 0 || sending.busy()"
            >
              Write it, all of it</button
            ><button class="act" type="button" (click)="cancel(j)">Leave it</button>
          </div>
        }
        @case ('done') {
          <p role="status">
            <strong>Written: {{ j.fates.new }} rows.</strong> {{ j.fates.here }} were here already.
          </p>
        }
        @case ('cancelled') {
          <p role="status">Stopped. Nothing was kept.</p>
        }
        @case ('refused') {
          <p class="refusal" role="alert">{{ j.problem }}</p>
        }
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FilesPage {
  private readonly api = inject(ApiClient);
  protected readonly kinds = KINDS;
  protected readonly allKinds = [...KINDS, { kind: 'document' as const, name: 'All of Stores (JSON)' }];
  protected readonly fates = { new: 'new', here: 'here already', refused: 'can’t be taken' } as const;
  protected readonly kind = signal<TransferKind>('materials');
  protected readonly sending = doing();
  protected readonly job = signal<ImportJob | undefined>(undefined);
  protected readonly problem = signal<ShownProblem | undefined>(undefined);
  protected readonly working = computed(() => ['reading', 'writing'].includes(this.job()?.state ?? ''));
  protected readonly told = computed(() => this.job()?.rows.length ?? 0);
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
            detail: `That file has ${Math.round(file.size / 1_000_000)} MB; 40 MB are taken at once. Split it by year and bring the parts one after another.`,
          }
        : undefined,
    );
    if (this.problem()) return;
    this.sending.run(
      this.api.upload('/api/stores/imports', file, tableType(file), { query: { kind: this.kind() } }),
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

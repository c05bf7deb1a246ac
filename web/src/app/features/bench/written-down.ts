import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, RunEntryView } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';
import type { ShownProblem } from '../../api/api-client';
import { entryWords } from '../../ui/entry-words';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { BenchState } from './bench-state';
import { readNumber } from './read-number';

const SHOWN = 14;

/** What was written down last, newest first; a wrong entry is corrected beside what it was. */
@Component({
  selector: 'vs-written-down',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, When],
  template: ` <h2>Written down</h2>
    <table class="ledger">
      <tbody>
        @for (e of shown(); track e.entry.id) {
          <tr [class.struck]="e.struck">
            <td class="small">{{ e.entry.at | when: 'moment' }}</td>
            <td class="soft">{{ e.step }}</td>
            <td>
              {{ e.words }}
              @for (p of e.entry.photos; track p) {
                <a [href]="'/api/attachments/' + p" target="_blank" rel="noopener"> photograph</a>
              }
            </td>
            <td class="small">{{ e.entry.by.name }}</td>
            <td>
              @if (e.correctable) {
                <button class="plain small" type="button" (click)="correct(e.entry)">Correct</button>
              }
            </td>
          </tr>
          @if (correcting()?.id === e.entry.id) {
            <tr>
              <td colspan="5">
                <form class="aside" (ngSubmit)="keep()">
                  <mat-form-field
                    ><mat-label>{{
                      e.entry.kind === 'weigh'
                        ? 'What was really weighed'
                        : e.entry.kind === 'temperature'
                          ? 'What it really was, °C'
                          : 'What should stand'
                    }}</mat-label
                    ><input matInput name="right" [(ngModel)]="right" /></mat-form-field
                  ><button class="act" type="submit">Correct it</button>
                  <button class="plain" type="button" (click)="correcting.set(undefined)">Leave it</button
                  ><vs-refusal [problem]="problem()" />
                </form>
              </td>
            </tr>
          }
        }
      </tbody>
    </table>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WrittenDown {
  private readonly state = inject(BenchState);
  readonly lot = input.required<LotDetail>();
  protected readonly correcting = signal<RunEntryView | undefined>(undefined);
  protected readonly right = signal('');
  protected readonly problem = signal<ShownProblem | undefined>(undefined);
  protected readonly shown = computed(() => {
    const l = this.lot();
    const replaced = new Set(l.entries.map((e) => e.replacesId));
    const open = ['inWork', 'toJudge', 'held'].includes(l.summary.state);
    return [...l.entries]
      .reverse()
      .slice(0, SHOWN)
      .map((e) => ({
        entry: e,
        step: l.plan.steps[e.stepIndex]?.title ?? '',
        words: entryWords(e, l),
        struck: replaced.has(e.id),
        correctable: open && !replaced.has(e.id) && ['weigh', 'temperature', 'note'].includes(e.kind),
      }));
  });

  protected correct(e: RunEntryView): void {
    this.correcting.set(e);
    this.right.set(
      e.weighing
        ? formatAmount(
            e.weighing.amount,
            this.lot().plan.materials.find((m) => m.materialId === e.weighing?.materialId)?.measure ?? 'weight',
          )
        : e.temperatureC !== null
          ? String(e.temperatureC)
          : (e.text ?? ''),
    );
  }

  protected keep(): void {
    const e = this.correcting();
    if (!e) return;
    const weighing = e.weighing
      ? {
          batch: e.weighing.batch,
          materialId: e.weighing.materialId,
          stockLotId: e.weighing.stockLotId,
          written: this.right(),
        }
      : null;
    void this.state
      .touch(this.lot().summary.id, e.stepIndex, e.kind, {
        replacesId: e.id,
        weighing,
        temperatureC: e.kind === 'temperature' ? (readNumber(this.right()) ?? null) : null,
        text: e.kind === 'note' ? this.right() : null,
        detail: e.detail,
      })
      .then((sentence) => {
        this.problem.set(sentence === undefined ? undefined : { detail: sentence });
        if (sentence === undefined) this.correcting.set(undefined);
      });
  }
}

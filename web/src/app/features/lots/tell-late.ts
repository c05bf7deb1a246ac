import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';
import { DraftOf } from '../../ui/draft';

/** What was forgotten while a lot was in work: told beside its closed record, never in place of it. */
@Component({
  selector: 'vs-tell-late',
  imports: [DraftOf, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <form (ngSubmit)="tell()">
      <vs-draft [of]="'told late of ' + lot().summary.id" [action]="action" />
      <p i18n class="small">
        The record is closed: what stands there stands. This comes beside it, with the reason, and is told when the lot
        is dyed again.
      </p>
      <div class="fields">
        <mat-form-field
          ><mat-label i18n>At which step</mat-label
          ><select matNativeControl name="lateStep" [(ngModel)]="stepIndex">
            @for (s of lot().plan.steps; track s.index) {
              <option [ngValue]="s.index">{{ s.title }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field class="wide"
          ><mat-label i18n>What really happened</mat-label><input matInput name="late" [(ngModel)]="what"
        /></mat-form-field>
        <mat-form-field class="wide"
          ><mat-label i18n>Why it is told only now</mat-label><input matInput name="lateWhy" [(ngModel)]="why"
        /></mat-form-field>
      </div>
      <vs-refusal [problem]="action.problem()" />
      <button class="act" type="submit" [disabled]="action.busy() || what().trim() === '' || why().trim() === ''">
        {{ what().trim() === '' || why().trim() === '' ? says.missing : says.write }}
      </button>
    </form>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TellLate {
  /** What its template says by what holds. */
  protected readonly says = {
    missing: $localize`Say what, and why only now`,
    write: $localize`Write it beside the record`,
  };

  private readonly api = inject(ApiClient);
  readonly lot = input.required<LotDetail>();
  readonly told = output();
  protected readonly action = pageAction();
  protected readonly stepIndex = signal(0);
  protected readonly what = signal('');
  protected readonly why = signal('');

  protected tell(): void {
    const body = {
      id: newId(),
      stepIndex: this.stepIndex(),
      kind: 'note' as const,
      replacesId: null,
      temperatureC: null,
      weighing: null,
      text: this.what(),
      detail: { deviation: true, late: this.why() },
    };
    this.action.run(this.api.post('/api/lots/{id}/entries', body, this.lot().summary.id), () => {
      this.what.set('');
      this.why.set('');
      this.told.emit();
    });
  }
}

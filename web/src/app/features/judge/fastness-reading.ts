import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { FastnessTest } from '@vestigia/contract';
import type { GreyGrade, Lab } from '@vestigia/core';
import { GREY_GRADES, sayGreyGrade } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { DraftOf } from '../../ui/draft';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';

/** What a test shows on a day: read before and after, or graded by eye against the grey scale. */
@Component({
  selector: 'vs-fastness-reading',
  imports: [DayField, DayPicker, DraftOf, FormsModule, MatFormFieldModule, MatInputModule, NumberField, RefusalNote],
  template: `<form (ngSubmit)="keep()">
    <vs-draft [of]="'card ' + test().id" [action]="action" />
    <div class="fields">
      <mat-form-field
        ><mat-label i18n>Looked at on</mat-label
        ><input
          matInput
          vsDay
          #onDateDay="vsDay"
          name="onDate"
          [ngModel]="onDate()"
          (ngModelChange)="day.set($event)"
          [latest]="today()" /><vs-day-picker matIconSuffix [for]="onDateDay"
      /></mat-form-field>
      @if (test().cloths.length > 0) {
        <mat-form-field
          ><mat-label i18n>What is looked at</mat-label
          ><select matNativeControl name="cloth" [(ngModel)]="cloth">
            <option i18n [ngValue]="null">the piece itself</option>
            @for (c of test().cloths; track c) {
              <option i18n [ngValue]="c">the white {{ c }}</option>
            }
          </select></mat-form-field
        >
      }
      <mat-form-field
        ><mat-label i18n>Grade by the grey scale</mat-label
        ><select matNativeControl name="grade" [(ngModel)]="grade">
          <option i18n [ngValue]="null">read, not graded</option>
          @for (g of grades; track g) {
            <option [ngValue]="g">{{ say(g) }}{{ g === 5 ? says.noChange : '' }}</option>
          }
        </select></mat-form-field
      >
    </div>
    @if (grade() === null) {
      <fieldset class="fields">
        <legend>
          {{ test().kind === 'light' ? says.theCoveredHalf : cloth() ? says.theWhiteUnwashed : says.before }}
        </legend>
        <mat-form-field><mat-label>L*</mat-label><input matInput vsNumber name="bL" [(ngModel)]="bL" /></mat-form-field>
        <mat-form-field><mat-label>a*</mat-label><input matInput vsNumber name="ba" [(ngModel)]="ba" /></mat-form-field>
        <mat-form-field><mat-label>b*</mat-label><input matInput vsNumber name="bb" [(ngModel)]="bb" /></mat-form-field>
      </fieldset>
      <fieldset class="fields">
        <legend>{{ test().kind === 'light' ? says.theOpenHalf : says.after }}</legend>
        <mat-form-field><mat-label>L*</mat-label><input matInput vsNumber name="aL" [(ngModel)]="aL" /></mat-form-field>
        <mat-form-field><mat-label>a*</mat-label><input matInput vsNumber name="aa" [(ngModel)]="aa" /></mat-form-field>
        <mat-form-field><mat-label>b*</mat-label><input matInput vsNumber name="ab" [(ngModel)]="ab" /></mat-form-field>
      </fieldset>
    }
    <vs-refusal [problem]="action.problem()" />
    <button i18n class="act" type="submit" [disabled]="action.busy()">Keep the reading</button>
  </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FastnessReading {
  /** What its template says by what holds. */
  protected readonly says = {
    noChange: $localize`, no change`,
    theCoveredHalf: $localize`The covered half`,
    theWhiteUnwashed: $localize`The white, unwashed`,
    before: $localize`Before`,
    theOpenHalf: $localize`The open half`,
    after: $localize`After`,
  };

  private readonly api = inject(ApiClient);
  readonly test = input.required<FastnessTest>();
  readonly today = input.required<string>();
  readonly changed = output();
  protected readonly grades = GREY_GRADES;
  protected readonly say = sayGreyGrade;
  protected readonly day = signal<string | undefined>(undefined);
  protected readonly onDate = computed(() => this.day() ?? this.today());
  protected readonly cloth = signal<string | null>(null);
  protected readonly grade = signal<GreyGrade | null>(null);
  protected readonly bL = signal<number | null>(null);
  protected readonly ba = signal<number | null>(null);
  protected readonly bb = signal<number | null>(null);
  protected readonly aL = signal<number | null>(null);
  protected readonly aa = signal<number | null>(null);
  protected readonly ab = signal<number | null>(null);
  protected readonly action = pageAction();
  private readingId = newId();

  protected keep(): void {
    const isGraded = this.grade() !== null;
    const lab = (L: number | null, a: number | null, b: number | null): Lab | null =>
      isGraded || L === null || a === null || b === null ? null : { L, a, b };
    const body = {
      id: this.readingId,
      cloth: this.cloth(),
      onDate: this.onDate(),
      before: lab(this.bL(), this.ba(), this.bb()),
      after: lab(this.aL(), this.aa(), this.ab()),
      typedGrade: this.grade(),
      note: '',
      replacesId: null,
    };
    this.action.run(this.api.post('/api/fastness/{id}/readings', body, this.test().id), () => {
      this.readingId = newId();
      this.grade.set(null);
      for (const field of [this.aL, this.aa, this.ab]) field.set(null);
      this.changed.emit();
    });
  }
}

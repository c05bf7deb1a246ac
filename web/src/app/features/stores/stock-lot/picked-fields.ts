import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { NumberField } from '../../../ui/number-field';

/** Names as they are written one after another. */
export const pickersIn = (text: string): string[] =>
  text
    .split(/[,;\n]| and /)
    .map((name) => name.trim())
    .filter((name) => name !== '');

/** Who picked, how long, and what came along. */
@Component({
  selector: 'vs-picked-fields',
  imports: [NumberField, FormsModule, MatFormFieldModule, MatInputModule],
  template: `
    <div class="fields">
      <mat-form-field
        ><mat-label i18n>Picked by</mat-label
        ><input matInput name="pickers" [(ngModel)]="pickers" placeholder="e.g. Wren, Tam" i18n-placeholder
      /></mat-form-field>
      <mat-form-field
        ><mat-label i18n>Minutes, each of them</mat-label
        ><input matInput vsNumber name="minutesEach" [(ngModel)]="minutesEach"
      /></mat-form-field>
      <mat-form-field
        ><mat-label i18n>Picked with it</mat-label
        ><input
          matInput
          name="pickedWith"
          [(ngModel)]="pickedWith"
          placeholder="e.g. stems, some green"
          i18n-placeholder
      /></mat-form-field>
    </div>
    <label class="tick"
      ><input type="checkbox" name="guessed" [(ngModel)]="guessed" />
      <ng-container i18n>its weight is guessed, not weighed</ng-container></label
    >
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PickedFields {
  readonly pickers = model('');
  readonly minutesEach = model<number | null>(null);
  readonly pickedWith = model('');
  readonly guessed = model(false);
}

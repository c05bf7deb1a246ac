import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ShownProblem } from '../api/api-client';

/** Asks for the code that the computer Vestigia runs on shows, once too many tries for a name were wrong. */
@Component({
  selector: 'vs-console-code',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: `@if (isWanted()) {
    <mat-form-field
      ><mat-label i18n>The code it shows</mat-label
      ><input matInput name="console-code" autocomplete="one-time-code" [(ngModel)]="code"
    /></mat-form-field>
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConsoleCode {
  readonly problem = input<ShownProblem | undefined>(undefined);
  /** As typed; `undefined` where none is. */
  readonly code = model<string | undefined>(undefined);
  protected readonly isWanted = computed(() => this.problem()?.code === 'askConsole' || (this.code() ?? '') !== '');
}

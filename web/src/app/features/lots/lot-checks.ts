import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotCheck } from '@vestigia/core';

export const AT_HAND = $localize`protection at hand, sheet read`;

/**
 * What was looked at before a lot may start: stops, cautions that want a reason, and protection that must be at hand.
 */
@Component({
  selector: 'vs-lot-checks',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: ` @for (c of checks(); track c.key) {
    <div class="check" [class.stop]="c.severity === 'stop'">
      <p>
        <strong>{{ c.severity === 'stop' ? says.stop : '' }}{{ c.message }}</strong> {{ c.why }}
        <span class="soft small">({{ c.cites }})</span>
      </p>
      @if (c.protection) {
        <label class="tick"
          ><input
            type="checkbox"
            [name]="'hand ' + c.key"
            [checked]="!!reasons()[c.key]"
            (change)="say(c.key, reasons()[c.key] ? '' : atHand)"
          />
          <ng-container i18n>It is at hand, and the sheet is read</ng-container></label
        >
      } @else if (c.severity === 'caution') {
        <mat-form-field subscriptSizing="dynamic"
          ><mat-label i18n>Why go on all the same?</mat-label
          ><input
            matInput
            maxlength="200"
            [name]="'why ' + c.key"
            [ngModel]="reasons()[c.key] ?? ''"
            (ngModelChange)="say(c.key, $event)"
            [attr.aria-label]="says.whyGoOn(c.message)"
        /></mat-form-field>
      }
    </div>
  }`,
  styles: `
    .check {
      border-left: 3px solid var(--line-strong);
      padding: 0 0 0.25rem 0.9rem;
      margin: 0.6rem 0;
      max-width: 56rem;
    }
    .check p {
      max-width: none;
      margin: 0.1rem 0 0.25rem;
    }
    .stop {
      border-left: 14px solid var(--ink);
    }
    mat-form-field {
      max-width: 32rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotChecks {
  /** What its template says by what holds. */
  protected readonly says = {
    stop: $localize`Stop. `,
    whyGoOn: (message: string | number): string => $localize`Why go on all the same? ${message}`,
  };

  readonly checks = input.required<readonly LotCheck[]>();
  /** Reasons given, by the check's key. */
  readonly reasons = model.required<Readonly<Record<string, string>>>();
  protected readonly atHand = AT_HAND;

  protected say(key: string, reason: string): void {
    this.reasons.set({ ...this.reasons(), [key]: reason });
  }
}

/** A lot may be agreed to when nothing stops it and every caution has its reason. */
export const mayGoOn = (checks: readonly LotCheck[], reasons: Readonly<Record<string, string>>): boolean =>
  checks.every((c) => c.severity !== 'stop' && (reasons[c.key] ?? '').trim() !== '');

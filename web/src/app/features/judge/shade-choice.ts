import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { ShadeOf } from '@vestigia/core';
import { sayShade } from '@vestigia/core';

export const WHOLE: ShadeOf = { batch: 1, group: null, zone: null, piece: null };

/** What of a lot is looked at: batch, its base and part where they differ, a zone, a single piece by its mark. */
@Component({
  selector: 'vs-shade-choice',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: `
    <mat-form-field
      ><mat-label>Batch</mat-label
      ><select
        matNativeControl
        [ngModel]="shade().batch"
        (ngModelChange)="shade.set({ batch: $event, group: null, zone: null, piece: null })"
        name="batch"
      >
        @for (b of lot().plan.batches; track b.number) {
          <option [ngValue]="b.number">{{ b.number }}, {{ b.vesselName }}</option>
        }
      </select></mat-form-field
    >
    @if (groups().length > 1) {
      <mat-form-field
        ><mat-label>Which pieces</mat-label
        ><select matNativeControl [ngModel]="shade().group" (ngModelChange)="set({ group: $event })" name="group">
          <option [ngValue]="null">the batch as a whole</option>
          @for (g of groups(); track g.key) {
            <option [ngValue]="g.key">{{ g.label }}</option>
          }
        </select></mat-form-field
      >
    }
    @if (zones().length > 0) {
      <mat-form-field
        ><mat-label>Zone</mat-label
        ><select matNativeControl [ngModel]="shade().zone" (ngModelChange)="set({ zone: $event })" name="zone">
          <option [ngValue]="null">no one zone</option>
          @for (z of zones(); track z) {
            <option [ngValue]="z">{{ z }}</option>
          }
        </select></mat-form-field
      >
    }
    <mat-form-field
      ><mat-label>One piece</mat-label
      ><input
        matInput
        name="piece"
        [ngModel]="shade().piece ?? ''"
        (ngModelChange)="set({ piece: $event.trim() === '' ? null : $event })"
        placeholder="its mark; empty: all"
    /></mat-form-field>
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShadeChoice {
  readonly lot = input.required<LotDetail>();
  readonly shade = model.required<ShadeOf>();
  protected readonly groups = computed(() => {
    const { plan } = this.lot();
    const here = plan.batches.find((b) => b.number === this.shade().batch)?.groups ?? [];
    if (plan.groups.length <= 1) return [];
    return here.map(({ key }) => ({ key, label: sayShade(plan, { group: key, zone: null, piece: null }) }));
  });

  protected readonly zones = computed(() => (this.lot().plan.placed?.zones ?? []).map((z) => z.title));

  protected set(change: Partial<ShadeOf>): void {
    this.shade.update((shade) => ({ ...shade, ...change }));
  }
}

import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { ShadeOf } from '@vestigia/core';
import { WHOLE, dipsOf, sayShade } from '@vestigia/core';

/** What of a lot is looked at: batch, its base and part where they differ, a zone, a single piece by its mark. */
@Component({
  selector: 'vs-shade-choice',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: `
    <mat-form-field
      ><mat-label i18n>Batch</mat-label
      ><select matNativeControl [ngModel]="shade().batch" (ngModelChange)="startAt($event)" name="batch">
        @for (b of lot().plan.batches; track b.number) {
          <option [ngValue]="b.number">{{ b.number }}, {{ b.vesselName }}</option>
        }
      </select></mat-form-field
    >
    @if (groups().length > 1) {
      <mat-form-field
        ><mat-label i18n>Which pieces</mat-label
        ><select matNativeControl [ngModel]="shade().group" (ngModelChange)="set({ group: $event })" name="group">
          <option i18n [ngValue]="null">the batch as a whole</option>
          @for (g of groups(); track g.key) {
            <option [ngValue]="g.key">{{ g.label }}</option>
          }
        </select></mat-form-field
      >
    }
    @if (zones().length > 0) {
      <mat-form-field
        ><mat-label i18n>Zone</mat-label
        ><select matNativeControl [ngModel]="shade().zone" (ngModelChange)="set({ zone: $event })" name="zone">
          <option i18n [ngValue]="null">no one zone</option>
          @for (z of zones(); track z) {
            <option [ngValue]="z">{{ z }}</option>
          }
        </select></mat-form-field
      >
    }
    @if (dips().length > 0) {
      <mat-form-field
        ><mat-label i18n>Dip</mat-label
        ><select matNativeControl [ngModel]="shade().dip" (ngModelChange)="set({ dip: $event })" name="dip">
          <option i18n [ngValue]="null">as it came out</option>
          @for (n of dips(); track n) {
            <option i18n [ngValue]="n">after dip {{ n }}</option>
          }
        </select></mat-form-field
      >
    }
    <mat-form-field
      ><mat-label i18n>One piece</mat-label
      ><input
        matInput
        name="piece"
        [ngModel]="shade().piece ?? ''"
        (ngModelChange)="set({ piece: $event.trim() === '' ? null : $event })"
        placeholder="its mark; empty: all"
        i18n-placeholder
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
    return here.map(({ key }) => ({ key, label: sayShade(plan, { ...WHOLE, group: key }) }));
  });

  protected readonly zones = computed(() => (this.lot().plan.placed?.zones ?? []).map((z) => z.title));

  /** Dips before the last: after that it is as it came out. */
  protected readonly dips = computed(() => {
    const all = dipsOf(this.lot().plan, this.shade().group);
    return all > 1 ? Array.from({ length: all - 1 }, (_, i) => i + 1) : [];
  });

  protected startAt(batch: number): void {
    this.shade.set({ ...WHOLE, batch });
  }

  protected set(change: Partial<ShadeOf>): void {
    this.shade.update((shade) => ({ ...shade, ...change }));
  }
}

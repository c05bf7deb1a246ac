import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import { MATERIAL_FORMS, readAmount } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { typeOf } from '../../ui/file-type';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

/** What the jar's label says, and its photographs. */
@Component({
  selector: 'vs-jar-label',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, When],
  template: ` <h2>The label</h2>
    <form (ngSubmit)="save()">
      <div class="fields">
        <mat-form-field
          ><mat-label>Place on the shelf</mat-label><input matInput name="place" [(ngModel)]="place"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Best before</mat-label><input matInput type="date" name="bestBefore" [(ngModel)]="bestBefore"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Form</mat-label
          ><select matNativeControl name="form" [(ngModel)]="form">
            <option value="">not said</option>
            @for (f of forms; track f) {
              <option [value]="f">{{ f }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>Container</mat-label
          ><input matInput name="container" [(ngModel)]="container" placeholder="e.g. 3 l jar"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>The container weighs</mat-label
          ><input matInput name="tare" [(ngModel)]="tare" placeholder="e.g. 640 g"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Moisture, %</mat-label
          ><input matInput type="number" name="moisture" [(ngModel)]="moisture" min="0" max="100" step="0.1"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Strength, % of the reference</mat-label
          ><input
            matInput
            type="number"
            name="strength"
            [(ngModel)]="strength"
            min="1"
            max="1000"
            step="0.1"
            [disabled]="reference()"
            placeholder="unknown until tested"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>How the strength is known</mat-label><input matInput name="basis" [(ngModel)]="basis"
        /></mat-form-field>
        <mat-form-field class="wide"
          ><mat-label>Note</mat-label><textarea matInput name="note" rows="2" [(ngModel)]="note"></textarea>
        </mat-form-field>
      </div>
      <label class="tick"
        ><input type="checkbox" name="reference" [(ngModel)]="reference" /> the studio’s reference lot of this material:
        every other strength is told against it</label
      >
      <vs-refusal [problem]="wrong() ?? saving.problem()" />
      @if (theirs(); as t) {
        <p>
          Now standing: place “{{ t.place }}”, best before {{ (t.bestBefore | when) || 'none' }}, note “{{ t.note }}”.
          <button class="plain" type="button" (click)="takeTheirs()">Take theirs</button>
        </p>
      }
      <button class="act" type="submit" [disabled]="saving.busy()">Keep the label</button>
    </form>
    <h2>Photographs</h2>
    <div class="photos">
      @for (a of jar().attachments; track a.id) {
        <a [href]="'/api/attachments/' + a.id" target="_blank" rel="noopener"
          ><img
            [src]="'/api/attachments/' + a.id"
            [alt]="'Photograph ' + a.name + ' of ' + (a.at | when)"
            width="160"
            height="120"
            loading="lazy"
        /></a>
      }
    </div>
    <label class="tick"
      >Attach one <input type="file" accept="image/png,image/jpeg,image/webp" (change)="photograph($event)"
    /></label>
    <vs-refusal [problem]="attaching.problem()" />`,
  styles: `
    .photos {
      display: flex;
      flex-wrap: wrap;
      gap: 0.75rem;
    }
    img {
      object-fit: cover;
      border: 1px solid var(--line-strong);
      background: var(--mount);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JarLabel {
  private readonly api = inject(ApiClient);
  readonly jar = input.required<StockLot>();
  readonly changed = output();
  protected readonly forms = MATERIAL_FORMS;
  protected readonly saving = doing();
  protected readonly attaching = doing();
  protected readonly place = linkedSignal(() => this.jar().row.place);
  protected readonly bestBefore = linkedSignal(() => this.jar().row.bestBefore ?? '');
  protected readonly note = linkedSignal(() => this.jar().note);
  protected readonly form = linkedSignal<string>(() => this.jar().facts.form ?? '');
  protected readonly container = linkedSignal(() => this.jar().facts.container);
  protected readonly tare = linkedSignal(() =>
    this.jar().facts.tareMg === null ? '' : `${(this.jar().facts.tareMg ?? 0) / 1000} g`,
  );
  protected readonly moisture = linkedSignal(() => this.jar().facts.moisturePercent);
  protected readonly strength = linkedSignal(() => this.jar().facts.strengthPercent);
  protected readonly basis = linkedSignal(() => this.jar().facts.strengthBasis);
  protected readonly reference = linkedSignal(() => this.jar().facts.reference);
  private readonly version = linkedSignal(() => this.jar().version);
  protected readonly theirs = computed(() =>
    this.saving.problem()?.code === 'stale'
      ? (this.saving.problem()?.theirs as { place: string; note: string; bestBefore: string | null })
      : undefined,
  );
  private readonly tareReading = computed(() =>
    this.tare().trim() === '' ? undefined : readAmount(this.tare(), 'weight', { allowNothing: true }),
  );
  protected readonly wrong = computed(() => {
    const tare = this.tareReading();
    return tare && !tare.ok ? { detail: `The container: ${tare.sentence}` } : undefined;
  });

  protected save(): void {
    const tare = this.tareReading();
    if (tare && !tare.ok) return;
    const facts = {
      ...this.jar().facts,
      form: (this.form() || null) as (typeof MATERIAL_FORMS)[number] | null,
      container: this.container(),
      tareMg: tare?.ok ? tare.amount : null,
      moisturePercent: this.moisture(),
      strengthPercent: this.strength(),
      strengthBasis: this.basis(),
      reference: this.reference(),
    };
    this.saving.run(
      this.api.put(
        '/api/stock-lots/{id}',
        {
          version: this.version(),
          place: this.place(),
          note: this.note(),
          bestBefore: this.bestBefore() || null,
          facts,
        },
        this.jar().row.id,
      ),
      () => this.changed.emit(),
    );
  }

  protected takeTheirs(): void {
    this.changed.emit();
    this.saving.clear();
  }

  protected photograph(event: Event): void {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    // Emptied at once, so that the same file can be chosen again after a refusal.
    field.value = '';
    if (!file) return;
    this.attaching.run(
      this.api.upload('/api/stock-lots/{id}/attachments', file, typeOf(file), {
        id: this.jar().row.id,
        query: { id: newId(), name: file.name.slice(0, 200) },
      }),
      () => {
        this.changed.emit();
      },
    );
  }
}

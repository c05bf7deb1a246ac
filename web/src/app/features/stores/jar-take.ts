import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import { formatAmount, packetsFor, readAmount, readWeight } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { House } from '../../api/house';
import { live } from '../../api/live';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

type Kind = 'use' | 'spoil' | 'give';
const REASON_LABELS: Readonly<Record<Kind, string>> = { use: 'What for', spoil: 'What spoiled it', give: 'To whom' };

/** Takes stock out without a lot: used for a trial, spoiled, given away. A packet takes its auxiliaries along. */
@Component({
  selector: 'vs-jar-take',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote],
  template: ` <details>
    <summary>Take out without a lot: used, spoiled or given away</summary>
    <form (ngSubmit)="take()">
      <div class="fields">
        <mat-form-field
          ><mat-label>It was …</mat-label
          ><select matNativeControl name="kind" [(ngModel)]="kind">
            <option value="use">used</option>
            <option value="spoil">spoiled</option>
            <option value="give">given away</option>
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>How much</mat-label><input matInput name="taken" [(ngModel)]="taken" autocomplete="off"
        /></mat-form-field>
        <mat-form-field class="wide"
          ><mat-label>{{ reasonLabel() }}</mat-label
          ><input matInput name="why" [(ngModel)]="why"
        /></mat-form-field>
        @for (need of needs(); track need.materialId) {
          <mat-form-field class="wide"
            ><mat-label>{{ need.words }}, from</mat-label
            ><select
              matNativeControl
              [name]="need.materialId"
              [ngModel]="from()[need.materialId] ?? ''"
              (ngModelChange)="choose(need.materialId, $event)"
            >
              <option value=""></option>
              @for (j of need.jars; track j.id) {
                <option [value]="j.id">{{ j.tag }} · {{ j.place }}</option>
              }
            </select></mat-form-field
          >
        }
      </div>
      @if (packet()) {
        <div class="fields">
          <mat-form-field
            ><mat-label>For dry fibre of</mat-label
            ><input matInput name="fibre" [(ngModel)]="fibre" placeholder="e.g. 600 g"
          /></mat-form-field>
        </div>
        @if (enough(); as f) {
          <p>
            That takes <vs-figure [figure]="f" name="Packets" />.
            <button class="plain" type="button" (click)="taken.set(f.value + ' packets')">Take so many</button>
          </p>
        }
      }
      @if (echo()) {
        <p>{{ echo() }}</p>
      }
      <vs-refusal [problem]="taking.problem()" />
      <button class="act" type="submit" [disabled]="taking.busy() || taken().trim() === ''">Book it out</button>
    </form>
  </details>`,
  styles: `
    summary {
      min-height: 44px;
      display: flex;
      align-items: center;
      cursor: pointer;
      font-weight: 600;
      text-decoration: underline;
      text-underline-offset: 0.18em;
      margin-top: 0.75rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JarTake {
  private readonly api = inject(ApiClient);
  private readonly house = inject(House);
  readonly jar = input.required<StockLot>();
  readonly changed = output();
  protected readonly taking = doing();
  protected readonly kind = signal<Kind>('use');
  protected readonly taken = signal('');
  protected readonly why = signal('');
  protected readonly from = signal<Readonly<Record<string, string>>>({});
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  protected readonly reasonLabel = computed(() => REASON_LABELS[this.kind()]);

  protected readonly fibre = signal('');
  protected readonly packet = computed(
    () => this.materials.value()?.find((m) => m.id === this.jar().row.materialId)?.facts.packet,
  );
  /** Whole packets for so much fibre. */
  protected readonly enough = computed(() => {
    const [packet, fibre] = [this.packet(), readWeight(this.fibre())];
    return packet && fibre.ok ? packetsFor(fibre.weightG, packet).packets : undefined;
  });
  private readonly amount = computed(() =>
    readAmount(this.taken(), this.jar().row.measure, this.house.measuring(this.jar().bulkDensityGPerMl)),
  );
  protected readonly echo = computed(() => {
    const reading = this.amount();
    if (this.taken().trim() === '') return '';
    return reading.ok
      ? `${formatAmount(reading.amount, this.jar().row.measure)} leaves the jar${reading.note ? ` (${reading.note})` : ''}.`
      : reading.sentence;
  });
  /** What goes with so many packets, and the jars it may come from. */
  protected readonly needs = computed(() => {
    const reading = this.amount();
    const all = this.materials.value() ?? [];
    const packet = this.packet();
    if (this.kind() !== 'use' || !packet || !reading.ok) return [];
    return packet.auxiliaries.map((a) => {
      const material = all.find((m) => m.id === a.materialId);
      return {
        materialId: a.materialId,
        words: `${formatAmount(a.amount * reading.amount, material?.measure ?? 'weight')} of ${material?.name ?? ''}`,
        jars: (this.shelf.value() ?? []).filter((j) => j.materialId === a.materialId && j.free > 0),
      };
    });
  });

  protected choose(materialId: string, jarId: string): void {
    this.from.update((f) => ({ ...f, [materialId]: jarId }));
  }

  protected take(): void {
    const auxiliaries = Object.values(this.from())
      .filter(Boolean)
      .map((stockLotId) => ({ movementId: newId(), stockLotId }));
    this.taking.run(
      this.api.post(
        '/api/stock-lots/{id}/takings',
        { id: newId(), kind: this.kind(), written: this.taken(), note: this.why(), auxiliaries },
        this.jar().row.id,
      ),
      () => {
        this.taken.set('');
        this.why.set('');
        this.changed.emit();
      },
    );
  }
}

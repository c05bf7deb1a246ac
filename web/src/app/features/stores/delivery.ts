import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { StockOrigin } from '@vestigia/core';
import { MATERIAL_FORMS, formatAmount, readAmount } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { House } from '../../api/house';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

const ORIGINS: readonly { origin: StockOrigin; name: string; from: string }[] = [
  { origin: 'receipt', name: 'bought', from: 'From whom' },
  { origin: 'harvest', name: 'gathered or grown', from: 'Where it grew' },
  { origin: 'gift', name: 'given', from: 'From whom' },
];

/** Books in what came: a new stock lot with its first movement. */
@Component({
  selector: 'vs-delivery',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  providers: [House],
  template: ` <div class="head"><h1>Book in</h1></div>
    @if (materials.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p>A delivery is of a material. Say first what it is.</p>
          <a class="act main" routerLink="/stores/material">A new material</a>
        </div>
      }
      <form (ngSubmit)="book()">
        <fieldset>
          <legend>It was</legend>
          @for (o of origins; track o.origin) {
            <label class="tick"
              ><input type="radio" name="origin" [value]="o.origin" [(ngModel)]="origin" /> {{ o.name }}</label
            >
          }
        </fieldset>
        <div class="fields">
          <mat-form-field class="wide"
            ><mat-label>Material</mat-label
            ><select matNativeControl name="material" [(ngModel)]="materialId">
              <option value=""></option>
              @for (m of all; track m.id) {
                <option [value]="m.id">{{ m.name }}</option>
              }
            </select></mat-form-field
          >
          @if (withContainer()) {
            <mat-form-field
              ><mat-label>With its container</mat-label
              ><input matInput name="gross" [(ngModel)]="gross" autocomplete="off" placeholder="e.g. 1.84 kg"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>The container alone</mat-label
              ><input matInput name="tare" [(ngModel)]="tare" autocomplete="off" placeholder="e.g. 640 g"
            /></mat-form-field>
          } @else {
            <mat-form-field
              ><mat-label>How much, net</mat-label
              ><input
                matInput
                name="written"
                [(ngModel)]="written"
                autocomplete="off"
                [placeholder]="
                  measure() === 'pieces'
                    ? 'e.g. 3 packets'
                    : measure() === 'volume'
                      ? 'e.g. 5 l or 1 US gal'
                      : 'e.g. 1.5 kg or 3 lb 4 oz'
                "
            /></mat-form-field>
          }
          <mat-form-field
            ><mat-label>Came on</mat-label><input matInput type="date" name="receivedOn" [(ngModel)]="receivedOn"
          /></mat-form-field>
        </div>
        @if (measure() === 'weight') {
          <label class="tick"
            ><input type="checkbox" name="withContainer" [(ngModel)]="withContainer" /> weighed in its container</label
          >
        }
        @if (echo()) {
          <p>
            <strong>{{ echo() }}</strong>
          </p>
        }
        <div class="fields">
          <mat-form-field
            ><mat-label>{{ fromLabel() }}</mat-label
            ><input matInput name="source" [(ngModel)]="source"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Place on the shelf</mat-label><input matInput name="place" [(ngModel)]="place" list="places"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Best before, if it goes off</mat-label
            ><input matInput type="date" name="bestBefore" [(ngModel)]="bestBefore"
          /></mat-form-field>
          @if (origin() !== 'harvest') {
            <mat-form-field
              ><mat-label>Cost of all of it</mat-label
              ><input matInput name="cost" [(ngModel)]="cost" autocomplete="off" placeholder="e.g. 12.50"
            /></mat-form-field>
          }
          @if (!isFibre()) {
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
              ><mat-label>Plant part</mat-label><input matInput name="part" [(ngModel)]="part"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Stage</mat-label
              ><input matInput name="stage" [(ngModel)]="stage" placeholder="e.g. in full flower"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Moisture, %</mat-label
              ><input matInput type="number" min="0" max="100" step="0.1" name="moisture" [(ngModel)]="moisture"
            /></mat-form-field>
          }
          <mat-form-field
            ><mat-label>Container</mat-label
            ><input matInput name="container" [(ngModel)]="container" placeholder="e.g. 3 l jar"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Tag, or one is made</mat-label><input matInput name="tag" [(ngModel)]="tag"
          /></mat-form-field>
          <mat-form-field class="wide"
            ><mat-label>Note</mat-label><textarea matInput name="note" rows="2" [(ngModel)]="note"></textarea>
          </mat-form-field>
        </div>
        <datalist id="places">
          @for (p of places(); track p) {
            <option [value]="p"></option>
          }
        </datalist>
        @if (origin() === 'harvest') {
          <fieldset>
            <legend>Gathering</legend>
            <p class="small">
              Ask first, and take part of a stand only. Some plants and lichens are protected, and some sites: local
              rules decide. Beside roads and sprayed fields plants carry what fell on them. Be sure of the species; some
              are poisonous to touch.
            </p>
            <div class="fields">
              <mat-form-field
                ><mat-label>Whose leave there was</mat-label
                ><input
                  matInput
                  name="permission"
                  [(ngModel)]="permission"
                  placeholder="e.g. our own bed, or the owner’s name for the place"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>Share of the stand taken, %</mat-label
                ><input matInput type="number" min="0" max="100" name="share" [(ngModel)]="share"
              /></mat-form-field>
              <mat-form-field class="wide"
                ><mat-label>The stand</mat-label><input matInput name="standNote" [(ngModel)]="standNote"
              /></mat-form-field>
            </div>
          </fieldset>
        }
        <vs-refusal [problem]="action.problem()" />
        <div class="actions">
          <button class="act main" type="submit" [disabled]="action.busy() || materialId() === ''">
            Put it on the shelf</button
          ><a routerLink="/stores">Back to Stores</a>
        </div>
      </form>
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeliveryPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly house = inject(House);
  readonly material = input<string>();
  protected readonly origins = ORIGINS;
  protected readonly forms = MATERIAL_FORMS;
  protected readonly action = doing();
  protected readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  protected readonly places = computed(() =>
    [...new Set((this.shelf.value() ?? []).map((r) => r.place).filter(Boolean))].sort(),
  );
  protected readonly origin = signal<StockOrigin>('receipt');
  protected readonly materialId = linkedSignal(() => this.material() ?? '');
  protected readonly written = signal('');
  protected readonly withContainer = signal(false);
  protected readonly gross = signal('');
  protected readonly tare = signal('');
  protected readonly receivedOn = signal(new Date().toLocaleDateString('en-CA'));
  protected readonly bestBefore = signal('');
  protected readonly source = signal('');
  protected readonly place = signal('');
  protected readonly cost = signal('');
  protected readonly form = signal('');
  protected readonly part = signal('');
  protected readonly stage = signal('');
  protected readonly moisture = signal<number | null>(null);
  protected readonly container = signal('');
  protected readonly tag = signal('');
  protected readonly note = signal('');
  protected readonly permission = signal('');
  protected readonly share = signal<number | null>(null);
  protected readonly standNote = signal('');
  private readonly id = newId();
  private readonly movementId = newId();

  private readonly chosen = computed(() => this.materials.value()?.find((m) => m.id === this.materialId()));
  protected readonly measure = computed(() => this.chosen()?.measure ?? 'weight');
  protected readonly isFibre = computed(() => this.chosen()?.kind === 'fibre');
  protected readonly fromLabel = computed(() => ORIGINS.find((o) => o.origin === this.origin())?.from ?? '');
  protected readonly echo = computed(() => {
    const material = this.chosen();
    if (!material) return '';
    if (this.withContainer()) {
      const gross = readAmount(this.gross(), 'weight');
      const tare = readAmount(this.tare(), 'weight', { allowNothing: true });
      return gross.ok && tare.ok && gross.amount > tare.amount
        ? `${formatAmount(gross.amount - tare.amount, 'weight')} net of ${material.name}`
        : '';
    }
    if (this.written().trim() === '') return '';
    const reading = readAmount(this.written(), material.measure, this.house.measuring(material.bulkDensityGPerMl));
    return reading.ok
      ? `${formatAmount(reading.amount, material.measure)} of ${material.name}${reading.note ? ` (${reading.note})` : ''}`
      : reading.sentence;
  });

  protected book(): void {
    const harvest = this.origin() === 'harvest';
    const boxed = this.withContainer() && this.measure() === 'weight';
    const body = {
      id: this.id,
      movementId: this.movementId,
      materialId: this.materialId(),
      tag: this.tag(),
      written: boxed ? '' : this.written(),
      grossWritten: boxed ? this.gross() : '',
      tareWritten: boxed ? this.tare() || '0 g' : '',
      receivedOn: this.receivedOn(),
      bestBefore: this.bestBefore() || null,
      place: this.place(),
      source: this.source(),
      note: this.note(),
      cost: harvest ? '' : this.cost(),
      facts: {
        origin: this.origin(),
        plantPart: this.part(),
        stage: this.stage(),
        form: (this.form() || null) as (typeof MATERIAL_FORMS)[number] | null,
        container: this.container(),
        moisturePercent: this.moisture(),
        gathering:
          harvest && this.permission().trim() !== '' && this.share() !== null
            ? { permission: this.permission(), sharePercent: this.share() ?? 0, note: this.standNote() }
            : null,
      },
    };
    this.action.run(this.api.post('/api/stock-lots', body), ({ id }) => void this.router.navigate(['/stores', id]));
  }
}

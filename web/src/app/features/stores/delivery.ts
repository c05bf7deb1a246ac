import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import { formatAmount, readAmount } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

/** Books in what came: a new stock lot with its first movement. */
@Component({
  selector: 'vs-delivery',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <div class="head"><h1>Book in a delivery</h1></div>
    @if (materials.value(); as all) {
      @if (all.length === 0) { <div class="empty"><p>A delivery is of a material. Say first what it is.</p><a class="act main" routerLink="/stores/material">A new material</a></div> }
      <form (ngSubmit)="book()">
        <div class="fields">
          <mat-form-field class="wide"><mat-label>Material</mat-label><select matNativeControl name="material" [(ngModel)]="materialId"><option value=""></option>@for (m of all; track m.id) { <option [value]="m.id">{{ m.name }}</option> }</select></mat-form-field>
          <mat-form-field><mat-label>How much, net</mat-label><input matInput name="written" [(ngModel)]="written" autocomplete="off" placeholder="e.g. 1.5 kg or 3 lb 4 oz"></mat-form-field>
          <mat-form-field><mat-label>Came on</mat-label><input matInput type="date" name="receivedOn" [(ngModel)]="receivedOn"></mat-form-field>
          <mat-form-field><mat-label>From whom or where</mat-label><input matInput name="source" [(ngModel)]="source"></mat-form-field>
          <mat-form-field><mat-label>Place on the shelf</mat-label><input matInput name="place" [(ngModel)]="place"></mat-form-field>
          <mat-form-field><mat-label>Best before, if it goes off</mat-label><input matInput type="date" name="bestBefore" [(ngModel)]="bestBefore"></mat-form-field>
          <mat-form-field><mat-label>Tag (left empty, one is made)</mat-label><input matInput name="tag" [(ngModel)]="tag"></mat-form-field>
          <mat-form-field class="wide"><mat-label>Note</mat-label><textarea matInput name="note" rows="2" [(ngModel)]="note"></textarea></mat-form-field>
        </div>
        @if (echo()) { <p>{{ echo() }}</p> }
        <vs-refusal [problem]="action.problem()" />
        <div class="actions"><button class="act main" type="submit" [disabled]="action.busy() || materialId() === ''">Put it on the shelf</button><a routerLink="/stores">Back to Stores</a></div>
      </form>
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeliveryPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = doing();
  protected readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly materialId = signal('');
  protected readonly written = signal('');
  protected readonly receivedOn = signal(new Date().toLocaleDateString('en-CA'));
  protected readonly bestBefore = signal('');
  protected readonly source = signal('');
  protected readonly place = signal('');
  protected readonly tag = signal('');
  protected readonly note = signal('');
  private readonly id = newId();
  private readonly movementId = newId();

  protected readonly echo = computed(() => {
    const material = this.materials.value()?.find((m) => m.id === this.materialId());
    if (!material || this.written().trim() === '') return '';
    const reading = readAmount(this.written(), material.measure);
    return reading.ok ? `${formatAmount(reading.amount, material.measure)} of ${material.name}` : reading.sentence;
  });

  protected book(): void {
    const body = {
      id: this.id, movementId: this.movementId, materialId: this.materialId(), tag: this.tag(), written: this.written(), receivedOn: this.receivedOn(),
      bestBefore: this.bestBefore() || null, place: this.place(), source: this.source(), note: this.note(),
    };
    this.action.run(this.api.post('/api/stock-lots', body), ({ id }) => void this.router.navigate(['/stores', id]));
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LotDetail } from '@vestigia/contract';
import type { ShadeOf } from '@vestigia/core';
import { WHOLE, sayShade } from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { newId } from '../api/new-id';
import { pageAction } from '../api/page-action';
import { NumberField } from './number-field';
import { RefusalNote } from './refusal';
import { ShadeChoice } from './shade-choice';

/** Cuts a snippet of a lot: the book gives page and place, and what it was made with is written already. */
@Component({
  selector: 'vs-cut-snippet',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, NumberField, RefusalNote, RouterLink, ShadeChoice],
  template: `<form (ngSubmit)="cut()">
    <div class="fields">
      <vs-shade-choice [lot]="lot()" [(shade)]="shade" />
      <mat-form-field
        ><mat-label i18n>Name on the page</mat-label
        ><input matInput name="snippetName" [(ngModel)]="name" [placeholder]="usualName()"
      /></mat-form-field>
      <mat-form-field
        ><mat-label i18n>Page</mat-label
        ><input
          matInput
          vsNumber
          name="snippetPage"
          inputmode="numeric"
          placeholder="next free"
          i18n-placeholder
          [(ngModel)]="page"
      /></mat-form-field>
      <mat-form-field
        ><mat-label i18n>Place on it</mat-label
        ><input
          matInput
          vsNumber
          name="snippetSlot"
          inputmode="numeric"
          placeholder="next free"
          i18n-placeholder
          [(ngModel)]="slot"
      /></mat-form-field>
      <mat-form-field class="wide"
        ><mat-label i18n>Note</mat-label><input matInput name="snippetNote" [(ngModel)]="note"
      /></mat-form-field>
    </div>
    <vs-refusal [problem]="action.problem()" />
    <button i18n class="act" type="submit" [disabled]="action.busy()">Cut a snippet</button>
    @if (fastened(); as f) {
      <p i18n role="status">
        Fasten it on <a routerLink="/judge/book" [queryParams]="{ page: f.page }">page {{ f.page }}</a
        >, place <strong>{{ f.slot }}</strong>.
      </p>
    }
  </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CutSnippet {
  private readonly api = inject(ApiClient);
  readonly lot = input.required<LotDetail>();
  readonly changed = output();
  protected readonly action = pageAction();
  protected readonly shade = signal<ShadeOf>(WHOLE);
  protected readonly name = signal('');
  protected readonly page = signal<number | null>(null);
  protected readonly slot = signal<number | null>(null);
  protected readonly note = signal('');
  protected readonly fastened = signal<{ readonly page: number; readonly slot: number } | undefined>(undefined);
  protected readonly usualName = computed(() => {
    const { summary, plan } = this.lot();
    return [summary.colourway.name, sayShade(plan, this.shade())].filter((w) => w !== '').join(', ');
  });
  private swatchId = newId();

  protected cut(): void {
    const [page, slot] = [this.page(), this.slot()];
    const body = {
      id: this.swatchId,
      name: this.name().trim() || this.usualName(),
      lotId: this.lot().summary.id,
      of: this.shade(),
      place: page === null && slot === null ? null : { page: page ?? NaN, slot: slot ?? NaN },
      note: this.note(),
    };
    this.action.run(this.api.post('/api/swatches', body), (at) => {
      this.swatchId = newId();
      this.fastened.set(at);
      for (const field of [this.name, this.note]) field.set('');
      for (const field of [this.page, this.slot]) field.set(null);
      this.changed.emit();
    });
  }
}

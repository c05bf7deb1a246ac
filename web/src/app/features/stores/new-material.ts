import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { Material } from '@vestigia/contract';
import type { FibreKind, Hazard } from '@vestigia/core';
import { FIBRE_KINDS, HAZARDS, HAZARD_WORDS, readWeight } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

const KINDS: readonly Material['kind'][] = ['fibre', 'dyestuff', 'mordant', 'tannin', 'assistant', 'modifier', 'detergent'];

/** Says what a material is; jars of it are booked in as deliveries. */
@Component({
  selector: 'vs-new-material',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <div class="head"><h1>A new material</h1></div>
    <form (ngSubmit)="add()">
      <div class="fields">
        <mat-form-field class="wide"><mat-label>Name</mat-label><input matInput name="name" [(ngModel)]="name"></mat-form-field>
        <mat-form-field><mat-label>Kind</mat-label><select matNativeControl name="kind" [(ngModel)]="kind">@for (k of kinds; track k) { <option [value]="k">{{ k === 'fibre' ? 'fibre, a base to dye' : k }}</option> }</select></mat-form-field>
        @if (kind() !== 'fibre') { <mat-form-field><mat-label>Kept by</mat-label><select matNativeControl name="measure" [(ngModel)]="measure"><option value="weight">weight</option><option value="volume">volume</option></select></mat-form-field> }
        @if (kind() === 'fibre') {
          <mat-form-field><mat-label>Fibre</mat-label><select matNativeControl name="fibre" [(ngModel)]="fibre">@for (f of fibres; track f) { <option [value]="f">{{ f }}</option> }</select></mat-form-field>
          <mat-form-field><mat-label>One piece is called a …</mat-label><input matInput name="pieceWord" [(ngModel)]="pieceWord"></mat-form-field>
          <mat-form-field><mat-label>and usually weighs, dry</mat-label><input matInput name="pieceWeight" [(ngModel)]="pieceWeight" placeholder="e.g. 100 g"></mat-form-field>
          <mat-form-field><mat-label>Undyed L*</mat-label><input matInput type="number" step="0.01" name="L" [(ngModel)]="L"></mat-form-field>
          <mat-form-field><mat-label>Undyed a*</mat-label><input matInput type="number" step="0.01" name="a" [(ngModel)]="a"></mat-form-field>
          <mat-form-field><mat-label>Undyed b*</mat-label><input matInput type="number" step="0.01" name="b" [(ngModel)]="b"></mat-form-field>
        }
        <mat-form-field class="wide"><mat-label>Note</mat-label><textarea matInput rows="2" name="note" [(ngModel)]="note"></textarea></mat-form-field>
      </div>
      <fieldset><legend>What it can do to people</legend>
        <p class="small soft">As the supplier’s safety data sheet says. Shown wherever it is handled.</p>
        @for (h of hazards; track h) { <label class="tick"><input type="checkbox" [checked]="chosen().includes(h)" (change)="toggle(h)"> {{ hazardWords[h] }}</label> }
      </fieldset>
      <vs-refusal [problem]="weightProblem() ?? action.problem()" />
      <div class="actions"><button class="act main" type="submit" [disabled]="action.busy()">Add the material</button></div>
    </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewMaterialPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = doing();
  protected readonly kinds = KINDS;
  protected readonly fibres = FIBRE_KINDS;
  protected readonly hazards = HAZARDS;
  protected readonly hazardWords = HAZARD_WORDS;
  protected readonly name = signal('');
  protected readonly kind = signal<Material['kind']>('dyestuff');
  protected readonly measure = signal<Material['measure']>('weight');
  protected readonly note = signal('');
  protected readonly chosen = signal<readonly Hazard[]>([]);
  protected readonly fibre = signal<FibreKind>('wool');
  protected readonly pieceWord = signal('hank');
  protected readonly pieceWeight = signal('100 g');
  protected readonly L = signal(85);
  protected readonly a = signal(0);
  protected readonly b = signal(10);
  protected readonly weightProblem = signal<{ detail: string } | undefined>(undefined);
  private readonly id = newId();

  protected toggle(hazard: Hazard): void {
    this.chosen.update((now) => (now.includes(hazard) ? now.filter((h) => h !== hazard) : [...now, hazard]));
  }

  protected add(): void {
    const isFibre = this.kind() === 'fibre';
    const weight = readWeight(this.pieceWeight());
    this.weightProblem.set(isFibre && !weight.ok ? { detail: weight.sentence } : undefined);
    if (isFibre && !weight.ok) return;
    const base = isFibre && weight.ok ? { fibre: this.fibre(), pieceWord: this.pieceWord(), usualPieceWeightG: weight.weightG, undyed: { L: this.L(), a: this.a(), b: this.b(), illuminant: 'D65' as const, observer: '10' as const } } : null;
    const body = { id: this.id, name: this.name(), kind: this.kind(), measure: isFibre ? ('weight' as const) : this.measure(), hazards: [...this.chosen()], note: this.note(), base };
    this.action.run(this.api.post('/api/materials', body), () => void this.router.navigateByUrl('/stores/delivery'));
  }
}

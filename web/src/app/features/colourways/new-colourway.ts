import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { LabUnder } from '@vestigia/contract';
import { describeColour } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';

/** Names a result worth repeating. */
@Component({
  selector: 'vs-new-colourway',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, Swatch],
  template: ` <div class="head"><h1>Name a colourway</h1></div>
    <form (ngSubmit)="keep()">
      <div class="fields">
        <mat-form-field class="wide"
          ><mat-label>Name</mat-label><input matInput name="name" [(ngModel)]="name"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Recipe version</mat-label
          ><select matNativeControl name="recipe" [(ngModel)]="recipeVersionId">
            <option value=""></option>
            @for (v of versions(); track v.id) {
              <option [value]="v.id">{{ v.words }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>Base</mat-label
          ><select matNativeControl name="base" [(ngModel)]="baseId">
            <option value=""></option>
            @for (b of bases(); track b.id) {
              <option [value]="b.id">{{ b.name }}</option>
            }
          </select></mat-form-field
        >
      </div>
      <fieldset>
        <legend>Master swatch, as the colour reader gives it</legend>
        <div class="fields">
          <mat-form-field
            ><mat-label>L*</mat-label><input matInput type="number" step="0.01" name="L" [(ngModel)]="L"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>a*</mat-label><input matInput type="number" step="0.01" name="a" [(ngModel)]="a"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>b*</mat-label><input matInput type="number" step="0.01" name="b" [(ngModel)]="b"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Light</mat-label
            ><select matNativeControl name="illuminant" [(ngModel)]="illuminant">
              <option>D65</option>
              <option>D50</option>
              <option>A</option>
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>Observer</mat-label
            ><select matNativeControl name="observer" [(ngModel)]="observer">
              <option value="10">10°</option>
              <option value="2">2°</option>
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>Tolerance, ΔE00</mat-label
            ><input matInput type="number" step="0.1" name="tolerance" [(ngModel)]="tolerance"
          /></mat-form-field>
        </div>
        <div class="mounts">
          <figure>
            <vs-swatch [lab]="master()" [width]="9" label="master" />
            <figcaption>{{ words() }}</figcaption>
          </figure>
        </div>
      </fieldset>
      <mat-form-field
        ><mat-label>Note</mat-label><textarea matInput rows="2" name="note" [(ngModel)]="note"></textarea>
      </mat-form-field>
      <vs-refusal [problem]="action.problem()" />
      <div class="actions">
        <button class="act main" type="submit" [disabled]="action.busy() || !recipeVersionId() || !baseId()">
          Keep the colourway
        </button>
      </div>
    </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewColourwayPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = doing();
  private readonly recipes = live(['recipes'], () => this.api.get('/api/recipes'));
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly versions = computed(() =>
    (this.recipes.value() ?? []).flatMap((r) =>
      r.versions
        .filter((v) => v.standing !== 'retired')
        .map((v) => ({ id: v.id, words: `${r.name}, version ${v.number} (${v.standing})` })),
    ),
  );
  protected readonly bases = computed(() => (this.materials.value() ?? []).filter((m) => m.kind === 'fibre'));
  protected readonly name = signal('');
  protected readonly recipeVersionId = signal('');
  protected readonly baseId = signal('');
  protected readonly L = signal(60);
  protected readonly a = signal(0);
  protected readonly b = signal(20);
  protected readonly illuminant = signal<LabUnder['illuminant']>('D65');
  protected readonly observer = signal<LabUnder['observer']>('10');
  protected readonly tolerance = signal(2);
  protected readonly note = signal('');
  private readonly id = newId();
  protected readonly master = computed<LabUnder>(() => ({
    L: this.L() ?? 0,
    a: this.a() ?? 0,
    b: this.b() ?? 0,
    illuminant: this.illuminant(),
    observer: this.observer(),
  }));
  protected readonly words = computed(() => describeColour(this.master()));

  protected keep(): void {
    const body = {
      id: this.id,
      name: this.name(),
      recipeVersionId: this.recipeVersionId(),
      baseMaterialId: this.baseId(),
      master: this.master(),
      toleranceDeltaE: this.tolerance(),
      note: this.note(),
    };
    this.action.run(this.api.post('/api/colourways', body), ({ id }) => void this.router.navigate(['/colourways', id]));
  }
}

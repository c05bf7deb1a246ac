import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial } from '@vestigia/contract';
import type { DoseWay } from '@vestigia/core';
import {
  KITCHEN_UNITS,
  MATERIAL_FORMS,
  PH_REAGENTS,
  PH_REAGENT_WORDS,
  VOLUME_SYSTEMS,
  VOLUME_SYSTEM_WORDS,
} from '@vestigia/core';
import type { DoseDraft } from './draft';

const WAY_WORDS: Readonly<Record<DoseWay, string>> = {
  percentOwf: 'of the weight of fibre',
  gPerLitre: 'to the litre of bath',
  solution: 'of a solution',
  perPiece: 'a piece',
  packet: 'by the packet',
  spoons: 'by a taught spoon',
  toPh: 'to a pH',
};
const FIRST_WORDS: Readonly<Record<DoseWay, string>> = {
  percentOwf: '% of the weight of fibre',
  gPerLitre: 'g to the litre',
  solution: 'ml per 100 g of fibre',
  perPiece: 'g a piece',
  packet: '',
  spoons: 'Spoons per 100 g of fibre',
  toPh: 'The pH to come to',
};
/** Ways that make sense for what is weighed, measured out, or counted. */
const WAYS: Readonly<Record<ListedMaterial['measure'], readonly DoseWay[]>> = {
  weight: ['percentOwf', 'gPerLitre', 'solution', 'perPiece', 'spoons', 'toPh'],
  volume: ['solution', 'toPh'],
  pieces: ['packet'],
};

/** One dose of a step: which material, in which way, how much. */
@Component({
  selector: 'vs-dose-form',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: ` <div class="fields">
    <mat-form-field
      ><mat-label>Material</mat-label
      ><select matNativeControl [name]="name() + 'm'" [ngModel]="dose().materialId" (ngModelChange)="choose($event)">
        <option value=""></option>
        @for (m of materials(); track m.id) {
          <option [value]="m.id">{{ m.name }}</option>
        }
      </select></mat-form-field
    >
    <mat-form-field
      ><mat-label>Dosed</mat-label
      ><select matNativeControl [name]="name() + 'w'" [(ngModel)]="dose().by">
        @for (w of ways(); track w) {
          <option [value]="w">{{ wayWords[w] }}</option>
        }
      </select></mat-form-field
    >
    @if (dose().by !== 'packet') {
      <mat-form-field
        ><mat-label>{{ firstWords[dose().by] }}</mat-label
        ><input matInput type="number" step="any" [name]="name() + '1'" [(ngModel)]="dose().first"
      /></mat-form-field>
    }
    @switch (dose().by) {
      @case ('percentOwf') {
        <mat-form-field
          ><mat-label>Its form</mat-label
          ><select matNativeControl [name]="name() + 'f'" [(ngModel)]="dose().form">
            <option value="">not said</option>
            @for (f of forms; track f) {
              <option [value]="f">{{ f }}</option>
            }
          </select></mat-form-field
        >
      }
      @case ('solution') {
        <mat-form-field
          ><mat-label>Strength of the solution, g/l</mat-label
          ><input matInput type="number" step="any" [name]="name() + '2'" [(ngModel)]="dose().second"
        /></mat-form-field>
      }
      @case ('spoons') {
        <mat-form-field
          ><mat-label>Spoon</mat-label
          ><select matNativeControl [name]="name() + 'u'" [(ngModel)]="dose().unit">
            @for (u of units; track u) {
              <option [value]="u">{{ u }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>of</mat-label
          ><select matNativeControl [name]="name() + 's'" [(ngModel)]="dose().system">
            @for (s of systems; track s) {
              <option [value]="s">{{ systemWords[s] }}</option>
            }
          </select></mat-form-field
        >
      }
      @case ('toPh') {
        <mat-form-field
          ><mat-label>It is</mat-label
          ><select matNativeControl [name]="name() + 'r'" [(ngModel)]="dose().reagent">
            @for (r of reagents; track r) {
              <option [value]="r">{{ reagentWords[r] }}</option>
            }
          </select></mat-form-field
        >
      }
    }
    <button class="plain" type="button" (click)="gone.emit()">Take it out</button>
  </div>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DoseForm {
  readonly dose = input.required<DoseDraft>();
  readonly materials = input.required<readonly ListedMaterial[]>();
  readonly name = input.required<string>();
  readonly gone = output();
  protected readonly forms = MATERIAL_FORMS;
  protected readonly units = KITCHEN_UNITS;
  protected readonly systems = VOLUME_SYSTEMS;
  protected readonly systemWords = VOLUME_SYSTEM_WORDS;
  protected readonly reagents = PH_REAGENTS;
  protected readonly reagentWords = PH_REAGENT_WORDS;
  protected readonly wayWords = WAY_WORDS;
  protected readonly firstWords = FIRST_WORDS;
  private readonly measureOf = (id: string): ListedMaterial['measure'] =>
    this.materials().find((m) => m.id === id)?.measure ?? 'weight';
  protected ways(): readonly DoseWay[] {
    return WAYS[this.measureOf(this.dose().materialId)];
  }

  protected choose(materialId: string): void {
    const dose = this.dose();
    dose.materialId = materialId;
    const ways = WAYS[this.measureOf(materialId)];
    if (!ways.includes(dose.by)) dose.by = ways[0] ?? 'percentOwf';
  }
}

import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial } from '@vestigia/contract';
import type { BathUnit, DoseWay } from '@vestigia/core';
import {
  BATH_UNITS,
  KITCHEN_UNITS,
  MATERIAL_FORMS,
  PH_REAGENTS,
  PH_REAGENT_LABELS,
  VOLUME_SYSTEMS,
  VOLUME_SYSTEM_LABELS,
} from '@vestigia/core';
import type { DoseDraft } from './draft';
import { WITHOUT_FIGURE } from './draft';
import { NumberField } from '../../ui/number-field';
import { Said } from '../../ui/said';

const WAY_LABELS: Readonly<Record<DoseWay, string>> = {
  percentOwf: $localize`of the weight of fibre`,
  gPerLitre: $localize`to the litre of bath`,
  solution: $localize`of a solution`,
  perPiece: $localize`a piece`,
  perBath: $localize`so much for the bath`,
  count: $localize`pieces by weight of fibre`,
  packet: $localize`by the packet`,
  spoons: $localize`by a taught spoon`,
  toPh: $localize`to a pH`,
  allThere: $localize`as much as there is`,
  liquor: $localize`as the liquor itself`,
};
const FIRST_LABELS: Readonly<Record<DoseWay, string>> = {
  percentOwf: $localize`% of the weight of fibre`,
  gPerLitre: $localize`g to the litre`,
  solution: $localize`ml per 100 g of fibre`,
  perPiece: $localize`g a piece`,
  perBath: $localize`For each bath`,
  count: $localize`Pieces per 100 g of fibre`,
  packet: '',
  spoons: $localize`Spoons per 100 g of fibre`,
  toPh: $localize`The pH to come to`,
  allThere: '',
  liquor: '',
};
/** Ways that make sense for what is weighed, measured out, or counted. */
const WAYS: Readonly<Record<ListedMaterial['measure'], readonly DoseWay[]>> = {
  weight: ['percentOwf', 'gPerLitre', 'solution', 'perPiece', 'perBath', 'spoons', 'toPh', 'allThere'],
  volume: ['solution', 'perBath', 'spoons', 'toPh', 'allThere', 'liquor'],
  pieces: ['packet', 'count', 'perBath', 'allThere'],
};

/** One dose of a step: which material, in which way, how much. */
@Component({
  selector: 'vs-dose-form',
  imports: [Said, NumberField, NgTemplateOutlet, FormsModule, MatFormFieldModule, MatInputModule],
  templateUrl: './dose-form.html',
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
  protected readonly systemLabel = VOLUME_SYSTEM_LABELS;
  protected readonly reagents = PH_REAGENTS;
  protected readonly reagentLabel = PH_REAGENT_LABELS;
  protected readonly wayLabel = WAY_LABELS;
  protected readonly withoutFigure = WITHOUT_FIGURE;
  protected readonly bathUnits = BATH_UNITS;
  protected readonly firstLabel = FIRST_LABELS;
  /** Whose size differs by country, so that the recipe must say which is meant. */
  protected isKitchenUnit(unit: BathUnit): boolean {
    return KITCHEN_UNITS.some((u) => u === unit);
  }
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

import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial } from '@vestigia/contract';
import {
  FINISHED_BY,
  HEAT_LEGS,
  HEAT_LEG_LABELS,
  STEP_KINDS,
  STEP_KIND_LABELS,
  STEP_PURPOSES,
  STRAIN_WAYS,
  STRAIN_LABELS,
  VESSEL_METALS,
} from '@vestigia/core';
import { DoseForm } from './dose-form';
import type { BodyDraft, StepDraft } from './draft';
import { newDose } from './draft';
import { NumberField } from '../../ui/number-field';
import { InDegrees } from '../../ui/degrees';
import { Said } from '../../ui/said';

const FINISHED_LABELS = {
  clock: $localize`by the clock`,
  eye: $localize`by the eye`,
  both: $localize`by both`,
} as const;

/** One step of a recipe's chain, to write. What is seldom said is folded away. */
@Component({
  selector: 'vs-step-form',
  imports: [Said, InDegrees, NumberField, FormsModule, MatFormFieldModule, MatInputModule, DoseForm],
  templateUrl: './step-form.html',
  styles: `
    details p {
      max-width: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepForm {
  /** What its template says by what holds. */
  protected readonly says = {
    reachAndHold: $localize`Reach and hold`,
    neverAbove: $localize`Never above`,
    reachAndHoldLater: $localize`reach and hold`,
    legs: (value: string | number): string => $localize`${value} legs`,
    to: $localize`To`,
  };

  /** Written into as it is typed: the draft belongs to the page. */
  readonly step = input.required<StepDraft>();
  readonly body = input.required<BodyDraft>();
  readonly materials = input.required<readonly ListedMaterial[]>();
  protected readonly kinds = STEP_KINDS;
  protected readonly kindLabel = STEP_KIND_LABELS;
  protected readonly purposes = STEP_PURPOSES;
  protected readonly finished = FINISHED_BY;
  protected readonly finishedLabel = FINISHED_LABELS;
  protected readonly legs = HEAT_LEGS;
  protected readonly legLabel = HEAT_LEG_LABELS;
  protected readonly strains = STRAIN_WAYS;
  protected readonly strainLabel = STRAIN_LABELS;
  protected readonly metals = VESSEL_METALS;
  protected readonly dose = newDose;
  protected readonly n = (field: string): string => `${this.step().key} ${field}`;

  protected others(): readonly StepDraft[] {
    return this.body().steps.filter((s) => s !== this.step());
  }

  protected follow(key: string): void {
    const s = this.step();
    s.after = this.toggled(s.after ?? [], key);
  }

  protected toggled<T>(list: readonly T[], item: T): T[] {
    return list.includes(item) ? list.filter((i) => i !== item) : [...list, item];
  }

  protected followLabel(): string {
    const { after } = this.step();
    const who = [...this.step().fibres, ...this.step().parts].join(', ');
    const when =
      after === null
        ? $localize`after the one before it`
        : after.length === 0
          ? $localize`it may begin at once`
          : $localize`after ${after.map((k) => this.body().steps.find((s) => s.key === k)?.title ?? k).join($localize` and `)}`;
    return `${who || $localize`all pieces`}, ${when}`;
  }
}

import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial, LotExtras } from '@vestigia/contract';
import type { IntakeFlag } from '@vestigia/core';
import { INTAKE_FLAGS, INTAKE_FLAG_LABELS, PRACTICE } from '@vestigia/core';
import { NumberField } from '../../ui/number-field';

type Mark = LotExtras['intake']['marks'][number];

/**
 * What a lot may want beside its colourway and size: what was seen at intake, other bases in the same pots, another
 * school.
 */
@Component({
  selector: 'vs-lot-extras',
  imports: [NumberField, FormsModule, MatFormFieldModule, MatInputModule],
  templateUrl: './lot-extras.html',
  styles: `
    .schools {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
      gap: 0.25rem 1rem;
    }
    .short {
      max-width: 10rem;
    }
    .fields {
      max-width: 46rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotExtrasForm {
  readonly extras = model.required<LotExtras>();
  readonly bases = input.required<readonly ListedMaterial[]>();
  /** The colourway's own. */
  readonly baseId = input('');
  readonly baseName = input('');
  protected readonly baseIds = computed(() => [
    ...new Set([this.baseId(), ...this.extras().also.map((a) => a.baseId)].filter((id) => id !== '')),
  ]);
  protected readonly nameOf = (id: string): string =>
    id === this.baseId() ? this.baseName() : (this.bases().find((b) => b.id === id)?.name ?? '');
  protected readonly flags = INTAKE_FLAGS;
  protected readonly label = INTAKE_FLAG_LABELS;
  protected readonly questions = PRACTICE.filter((q) => q.replans);

  protected toggleFlag(flag: IntakeFlag): void {
    const { intake } = this.extras();
    const flags = intake.flags.includes(flag) ? intake.flags.filter((f) => f !== flag) : [...intake.flags, flag];
    this.change({
      intake: { ...intake, flags, syntheticPercent: flags.includes('syntheticShare') ? intake.syntheticPercent : null },
    });
  }

  protected synthetic(percent: number | null): void {
    this.change({ intake: { ...this.extras().intake, syntheticPercent: percent } });
  }

  protected addMark(): void {
    this.setMarks([...this.extras().intake.marks, { of: '', text: '' }]);
  }

  protected mark(index: number, part: Partial<Mark>): void {
    this.setMarks(this.extras().intake.marks.map((m, i) => (i === index ? { ...m, ...part } : m)));
  }

  protected dropMark(index: number): void {
    this.setMarks(this.extras().intake.marks.filter((_, i) => i !== index));
  }

  private setMarks(marks: Mark[]): void {
    this.change({ intake: { ...this.extras().intake, marks } });
  }

  protected toggleOwn(baseId: string): void {
    const { ownGoods } = this.extras();
    this.change({
      ownGoods: ownGoods.includes(baseId) ? ownGoods.filter((id) => id !== baseId) : [...ownGoods, baseId],
    });
  }

  protected addBase(): void {
    this.change({ also: [...this.extras().also, { baseId: '', quantityText: '' }] });
  }

  protected also(index: number, part: Partial<LotExtras['also'][number]>): void {
    this.change({ also: this.extras().also.map((a, i) => (i === index ? { ...a, ...part } : a)) });
  }

  protected drop(index: number): void {
    this.change({ also: this.extras().also.filter((_, i) => i !== index) });
  }

  protected answerOf(key: string): string {
    return this.extras().schools.find((s) => s.key === key)?.answer ?? '';
  }

  protected costsOf(key: string): string {
    const answer = this.answerOf(key);
    return PRACTICE.find((q) => q.key === key)?.choices.find((c) => c.key === answer)?.costsAndGains ?? '';
  }

  protected school(key: string, answer: string): void {
    const others = this.extras().schools.filter((s) => s.key !== key);
    this.change({ schools: answer === '' ? others : [...others, { key, answer }] });
  }

  private change(part: Partial<LotExtras>): void {
    this.extras.set({ ...this.extras(), ...part });
  }
}

import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial, LotExtras } from '@vestigia/contract';
import type { IntakeFlag } from '@vestigia/core';
import { INTAKE_FLAGS, INTAKE_FLAG_WORDS, PRACTICE } from '@vestigia/core';

/** What a lot may want beside its colourway and size: what was seen at intake, other bases in the same pots, another school. */
@Component({
  selector: 'vs-lot-extras',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: ` <fieldset>
      <legend>Seen at intake</legend>
      @for (f of flags; track f) {
        <label class="tick"
          ><input
            type="checkbox"
            [name]="'flag ' + f"
            [checked]="extras().intake.flags.includes(f)"
            (change)="toggleFlag(f)"
          />
          {{ words[f] }}</label
        >
      }
      @if (extras().intake.flags.includes('syntheticShare')) {
        <mat-form-field class="short"
          ><mat-label>Synthetic, %</mat-label
          ><input
            matInput
            type="number"
            name="synthetic"
            [ngModel]="extras().intake.syntheticPercent"
            (ngModelChange)="synthetic($event)"
        /></mat-form-field>
      }
    </fieldset>
    <fieldset>
      <legend>Other bases in the same pots</legend>
      @for (a of extras().also; track $index) {
        <div class="fields">
          <mat-form-field
            ><mat-label>Also this base</mat-label
            ><select
              matNativeControl
              [name]="'base ' + $index"
              [ngModel]="a.baseId"
              (ngModelChange)="also($index, { baseId: $event })"
            >
              <option value=""></option>
              @for (b of bases(); track b.id) {
                <option [value]="b.id">{{ b.name }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>How many of it</mat-label
            ><input
              matInput
              [name]="'also ' + $index"
              [ngModel]="a.written"
              (ngModelChange)="also($index, { written: $event })"
              placeholder="4 reels of 25 g"
          /></mat-form-field>
          <button class="plain" type="button" (click)="drop($index)">Take it out</button>
        </div>
      }
      <button class="plain" type="button" (click)="addBase()">Another base in the pot</button>
    </fieldset>
    <fieldset class="schools">
      <legend>Another school for this lot</legend>
      @for (q of questions; track q.key) {
        <mat-form-field
          ><mat-label>{{ q.question }}</mat-label
          ><select
            matNativeControl
            [name]="'school ' + q.key"
            [ngModel]="answerOf(q.key)"
            (ngModelChange)="school(q.key, $event)"
          >
            <option value="">as the recipe was proven</option>
            @for (c of q.choices; track c.key) {
              <option [value]="c.key">{{ c.words }}</option>
            }</select
          ><mat-hint>{{ costsOf(q.key) }}</mat-hint></mat-form-field
        >
      }
    </fieldset>`,
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
  protected readonly flags = INTAKE_FLAGS;
  protected readonly words = INTAKE_FLAG_WORDS;
  protected readonly questions = PRACTICE.filter((q) => q.replans);

  protected toggleFlag(flag: IntakeFlag): void {
    const { intake } = this.extras();
    const flags = intake.flags.includes(flag) ? intake.flags.filter((f) => f !== flag) : [...intake.flags, flag];
    this.change({
      intake: { flags, syntheticPercent: flags.includes('syntheticShare') ? intake.syntheticPercent : null },
    });
  }

  protected synthetic(percent: number | null): void {
    this.change({ intake: { ...this.extras().intake, syntheticPercent: percent } });
  }

  protected addBase(): void {
    this.change({ also: [...this.extras().also, { baseId: '', written: '' }] });
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

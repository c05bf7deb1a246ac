import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial } from '@vestigia/contract';
import {
  FINISHED_BY,
  HEAT_LEGS,
  HEAT_LEG_WORDS,
  STEP_KINDS,
  STEP_KIND_WORDS,
  STEP_PURPOSES,
  STRAIN_WAYS,
  STRAIN_WORDS,
  VESSEL_METALS,
} from '@vestigia/core';
import { DoseForm } from './dose-form';
import type { BodyDraft, StepDraft } from './draft';
import { newDose } from './draft';

const FINISHED_WORDS = { clock: 'by the clock', eye: 'by the eye', both: 'by both' } as const;

/** One step of a recipe's chain, to write. What is seldom said is folded away. */
@Component({
  selector: 'vs-step-form',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, DoseForm],
  template: ` @let s = step();
    <div class="fields">
      <mat-form-field
        ><mat-label>Kind</mat-label
        ><select matNativeControl [name]="n('kind')" [(ngModel)]="s.kind">
          @for (k of kinds; track k) {
            <option [value]="k">{{ kindWords[k] }}</option>
          }</select
        ><mat-hint>{{ purposes[s.kind] }}</mat-hint></mat-form-field
      >
      <mat-form-field
        ><mat-label>Title</mat-label><input matInput [name]="n('title')" [(ngModel)]="s.title"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Reach and hold, °C</mat-label
        ><input matInput type="number" [name]="n('temperature')" [(ngModel)]="s.temperatureC"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Never above, °C</mat-label
        ><input matInput type="number" [name]="n('ceiling')" [(ngModel)]="s.ceilingC"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Minutes</mat-label><input matInput type="number" [name]="n('minutes')" [(ngModel)]="s.durationMin"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Finished</mat-label
        ><select matNativeControl [name]="n('finished')" [(ngModel)]="s.finishedBy">
          @for (f of finished; track f) {
            <option [value]="f">{{ finishedWords[f] }}</option>
          }
        </select></mat-form-field
      >
      <mat-form-field class="wide"
        ><mat-label>What to do</mat-label
        ><textarea matInput rows="2" [name]="n('do')" [(ngModel)]="s.instruction"></textarea>
      </mat-form-field>
      <mat-form-field class="wide"
        ><mat-label>Look for</mat-label><input matInput [name]="n('look')" [(ngModel)]="s.lookFor"
      /></mat-form-field>
    </div>
    <label class="tick"
      ><input type="checkbox" [name]="n('attended')" [(ngModel)]="s.attended" /> hands all the time</label
    >
    <label class="tick"
      ><input type="checkbox" [name]="n('bath')" [(ngModel)]="s.usesBath" /> in a pot, at the liquor ratio</label
    >
    @for (d of s.doses; track d; let j = $index) {
      <vs-dose-form [dose]="d" [materials]="materials()" [name]="n('dose' + j)" (gone)="s.doses.splice(j, 1)" />
    }
    <button class="plain" type="button" (click)="s.doses.push(dose())">Weigh in a material</button>

    <details>
      <summary>Course of heat: {{ s.course.length === 0 ? 'reach and hold' : s.course.length + ' legs' }}</summary>
      @for (leg of s.course; track leg; let j = $index) {
        <div class="fields">
          <mat-form-field
            ><mat-label>Leg {{ j + 1 }}</mat-label
            ><select matNativeControl [name]="n('leg' + j)" [(ngModel)]="leg.do">
              @for (k of legs; track k) {
                <option [value]="k">{{ legWords[k] }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>°C</mat-label><input matInput type="number" [name]="n('legc' + j)" [(ngModel)]="leg.toC"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Minutes of it</mat-label
            ><input matInput type="number" [name]="n('legm' + j)" [(ngModel)]="leg.minutes"
          /></mat-form-field>
          <button class="plain" type="button" (click)="s.course.splice(j, 1)">Take the leg out</button>
        </div>
      }
      <button
        class="plain"
        type="button"
        (click)="s.course.push({ do: s.course.length === 0 ? 'raise' : 'hold', toC: s.temperatureC, minutes: 30 })"
      >
        Another leg
      </button>
    </details>
    <details>
      <summary>Which pieces, after what: {{ followWords() }}</summary>
      <label class="tick"
        ><input type="radio" [name]="n('after')" [checked]="s.after === null" (change)="s.after = null" /> after the
        step before it</label
      >
      <label class="tick"
        ><input type="radio" [name]="n('after')" [checked]="s.after !== null" (change)="s.after = []" /> after those
        ticked (none: it may begin at once)</label
      >
      @if (s.after !== null) {
        <div>
          @for (o of others(); track o.key) {
            <label class="tick"
              ><input type="checkbox" [checked]="s.after.includes(o.key)" (change)="follow(o.key)" />
              {{ o.title }}</label
            >
          }
        </div>
      }
      @if (body().fibres.length > 1) {
        <p>
          Only for:
          @for (f of body().fibres; track f) {
            <label class="tick"
              ><input type="checkbox" [checked]="s.fibres.includes(f)" (change)="s.fibres = toggled(s.fibres, f)" />
              {{ f }}</label
            >
          }
        </p>
      }
      @if (body().parts.length > 0) {
        <p>
          Only the part:
          @for (p of body().parts; track p.key) {
            <label class="tick"
              ><input
                type="checkbox"
                [checked]="s.parts.includes(p.key)"
                (change)="s.parts = toggled(s.parts, p.key)"
              />
              {{ p.name || p.key }}</label
            >
          }
        </p>
      }
    </details>
    <details>
      <summary>Bath, pots, pH, straining, waiting, cautions</summary>
      <div class="fields">
        <mat-form-field
          ><mat-label>Shares the bath called</mat-label
          ><input matInput [name]="n('shared')" [(ngModel)]="s.bath" placeholder="its own"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Liquor ratio here, ml per g</mat-label
          ><input matInput type="number" step="any" [name]="n('ratio')" [(ngModel)]="s.liquorRatio"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Times over</mat-label
          ><input matInput type="number" min="1" [name]="n('repeats')" [(ngModel)]="s.repeats"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>pH from</mat-label
          ><input matInput type="number" step="any" [name]="n('phlow')" [(ngModel)]="s.phLow"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>pH to</mat-label
          ><input matInput type="number" step="any" [name]="n('phhigh')" [(ngModel)]="s.phHigh"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Strain</mat-label
          ><select
            matNativeControl
            [name]="n('strain')"
            [ngModel]="s.strain ?? ''"
            (ngModelChange)="s.strain = $event || null"
          >
            <option value="">not said</option>
            @for (w of strains; track w) {
              <option [value]="w">{{ strainWords[w] }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>Then wait at least, min</mat-label
          ><input matInput type="number" [name]="n('least')" [(ngModel)]="s.leastMin"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>and at most, min</mat-label
          ><input matInput type="number" [name]="n('most')" [(ngModel)]="s.mostMin"
        /></mat-form-field>
        <mat-form-field class="wide"
          ><mat-label>A caution of its own</mat-label
          ><input
            matInput
            [name]="n('caution')"
            [ngModel]="s.cautions[0] ?? ''"
            (ngModelChange)="s.cautions = $event.trim() ? [$event] : []"
        /></mat-form-field>
      </div>
      <p>
        Pots of:
        @for (m of metals; track m) {
          <label class="tick"
            ><input type="checkbox" [checked]="s.metals.includes(m)" (change)="s.metals = toggled(s.metals, m)" />
            {{ m }}</label
          >
        }
        <span class="soft small">none ticked: as the recipe says</span>
      </p>
    </details>`,
  styles: `
    details p {
      max-width: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepForm {
  /** Written into as it is typed: the draft belongs to the page. */
  readonly step = input.required<StepDraft>();
  readonly body = input.required<BodyDraft>();
  readonly materials = input.required<readonly ListedMaterial[]>();
  protected readonly kinds = STEP_KINDS;
  protected readonly kindWords = STEP_KIND_WORDS;
  protected readonly purposes = STEP_PURPOSES;
  protected readonly finished = FINISHED_BY;
  protected readonly finishedWords = FINISHED_WORDS;
  protected readonly legs = HEAT_LEGS;
  protected readonly legWords = HEAT_LEG_WORDS;
  protected readonly strains = STRAIN_WAYS;
  protected readonly strainWords = STRAIN_WORDS;
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

  protected followWords(): string {
    const { after } = this.step();
    const who = [...this.step().fibres, ...this.step().parts].join(', ');
    const when =
      after === null
        ? 'after the one before it'
        : after.length === 0
          ? 'it may begin at once'
          : `after ${after.map((k) => this.body().steps.find((s) => s.key === k)?.title ?? k).join(' and ')}`;
    return `${who || 'all pieces'}, ${when}`;
  }
}

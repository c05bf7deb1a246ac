import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { MaterialPage } from '@vestigia/contract';
import type { KitchenUnit, VolumeSystem } from '@vestigia/core';
import { VOLUME_SYSTEMS, kitchenUnitMl, planInSpoons, readWeight, sayKitchenUnit } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

const SPOONS: readonly { unit: KitchenUnit; system: VolumeSystem }[] = VOLUME_SYSTEMS.flatMap((system) =>
  (['tsp', 'tbsp', 'cup'] as const).map((unit) => ({ unit, system })),
);

/** Teaches a spoon: level spoonfuls weighed a few times; then doses can be told in spoons, with the error that brings. */
@Component({
  selector: 'vs-teach-spoon',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote],
  template: ` <h2>Teach a spoon</h2>
    @if (page().spoons.length > 0) {
      <table class="ledger">
        <thead>
          <tr>
            <th>Spoon</th>
            <th class="number">One level spoonful</th>
            <th class="number">Spread</th>
            <th class="number">Weighings</th>
            <th class="number">Bulk density</th>
          </tr>
        </thead>
        <tbody>
          @for (s of page().spoons; track s.name) {
            <tr>
              <td>{{ s.name }}</td>
              <td class="number">{{ s.meanG.toFixed(2) }} g</td>
              <td class="number">{{ s.weighings < 2 ? 'not known' : '± ' + s.spreadG.toFixed(2) + ' g' }}</td>
              <td class="number">{{ s.weighings }}</td>
              <td class="number"><vs-figure [figure]="s.bulkDensity" [name]="'Bulk density by ' + s.name" /></td>
            </tr>
          }
        </tbody>
      </table>
    } @else {
      <p class="soft">
        A spoon of one powder is not a spoon of another. Weigh a level spoonful three times or more; then spoons and
        cups of this can be read as weights.
      </p>
    }
    <form (ngSubmit)="weigh()">
      <div class="fields">
        <mat-form-field
          ><mat-label>Spoon</mat-label
          ><select matNativeControl name="spoon" [(ngModel)]="chosen">
            @for (s of spoons; track $index) {
              <option [value]="$index">{{ name(s) }} · {{ ml(s) }} ml</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>A level spoonful weighs</mat-label
          ><input
            matInput
            name="spoonful"
            [(ngModel)]="written"
            (ngModelChange)="fromBalance.set(false)"
            autocomplete="off"
            placeholder="e.g. 4.8 g"
        /></mat-form-field>
      </div>
      <vs-refusal [problem]="weighing.problem() ?? reading.problem()" />
      <div class="actions">
        <button class="act" type="submit" [disabled]="weighing.busy() || written().trim() === ''">
          Keep this weighing</button
        ><button class="act" type="button" (click)="readBalance()" [disabled]="reading.busy()">Read the balance</button>
        @if (instrument()) {
          <span class="small soft">{{ instrument() }}</span>
        }
      </div>
    </form>
    @if (page().spoons[0]; as best) {
      <div class="fields">
        <mat-form-field
          ><mat-label>A dose of … in spoons</mat-label
          ><input matInput name="dose" [(ngModel)]="dose" placeholder="e.g. 18 g"
        /></mat-form-field>
      </div>
      @if (inSpoons(); as f) {
        <p>{{ dose() }} is <vs-figure [figure]="f" name="In spoons" /></p>
        <p class="small">{{ f.working.notes.join('; ') }}.</p>
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TeachSpoon {
  private readonly api = inject(ApiClient);
  readonly page = input.required<MaterialPage>();
  readonly changed = output();
  protected readonly spoons = SPOONS;
  protected readonly weighing = doing();
  protected readonly reading = doing();
  protected readonly chosen = signal('0');
  protected readonly written = signal('');
  protected readonly fromBalance = signal(false);
  protected readonly instrument = signal('');
  protected readonly dose = signal('');
  private readonly spoon = computed(() => SPOONS[Number(this.chosen())] ?? (SPOONS[0] as (typeof SPOONS)[number]));
  protected readonly inSpoons = computed(() => {
    const best = this.page().spoons[0];
    const dose = readWeight(this.dose());
    return best && dose.ok ? planInSpoons(dose.weightG, best, best.name) : undefined;
  });

  protected readonly name = (s: (typeof SPOONS)[number]): string => sayKitchenUnit(s.unit, s.system);
  protected readonly ml = (s: (typeof SPOONS)[number]): string => (kitchenUnitMl(s.unit, s.system) ?? 0).toFixed(1);

  protected weigh(): void {
    const { unit, system } = this.spoon();
    this.weighing.run(
      this.api.post(
        '/api/materials/{id}/spoons',
        { id: newId(), unit, system, written: this.written(), fromBalance: this.fromBalance() },
        this.page().material.id,
      ),
      () => {
        this.written.set('');
        this.instrument.set('');
        this.changed.emit();
      },
    );
  }

  protected readBalance(): void {
    const { unit, system } = this.spoon();
    this.reading.run(
      this.api.post('/api/balance/reading', {
        what: 'spoon',
        materialId: this.page().material.id,
        spoonMl: kitchenUnitMl(unit, system) ?? 5,
      }),
      (r) => {
        this.instrument.set(`${r.instrument}, settled after ${(r.settledMs / 1000).toFixed(1)} s.`);
        this.written.set(`${r.weightG} g`);
        this.fromBalance.set(true);
      },
    );
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import type { LiquorSign } from '@vestigia/core';
import {
  LIQUOR_SIGNS,
  LIQUOR_WORDS,
  figure,
  judgeSigns,
  ladderStrength,
  readWeight,
  replenish,
  volumeForDose,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

type Act = 'use' | 'replenish' | 'check' | 'ladder';
const ACTS: readonly { act: Act; name: string }[] = [
  { act: 'use', name: 'It was used' },
  { act: 'replenish', name: 'Replenish it' },
  { act: 'check', name: 'Look at it' },
  { act: 'ladder', name: 'Measure it by a ladder' },
];
const USUAL_UPTAKE = 60;

/** A kept liquor: what is in it, what was done to it, and what to add before it is used again. */
@Component({
  selector: 'vs-jar-liquor',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote, When],
  template: ` @if (jar().liquor; as l) {
    <h2>{{ capital(kinds[l.what]) }}{{ l.vessel ? ', in ' + l.vessel : '' }}</h2>
    @if (l.signs.length > 0) {
      <p>
        <strong>{{
          {
            use: 'Fit to use when last looked at.',
            'test first': 'Dye a strip in it first.',
            discard: 'Don’t use it: pour it away as your local rules say.',
          }[verdict()]
        }}</strong>
        Seen: {{ l.signs.join(', ') }}.
      </p>
    }
    <table class="ledger">
      <thead>
        <tr>
          <th>In it now, by estimate</th>
          <th class="number">Grams</th>
          <th class="number">Per litre</th>
        </tr>
      </thead>
      <tbody>
        @for (c of figures(); track c.name) {
          <tr>
            <td>{{ c.name }}</td>
            <td class="number"><vs-figure [figure]="c.grams" [name]="c.name" /></td>
            <td class="number">{{ c.perLitre }}</td>
          </tr>
        } @empty {
          <tr>
            <td colspan="3" class="soft">Nothing is said of what is in it.</td>
          </tr>
        }
      </tbody>
    </table>
    @if (l.what === 'stockSolution' || l.what === 'ironLiquor') {
      <div class="fields">
        <mat-form-field
          ><mat-label>For a dose of</mat-label
          ><input matInput name="doseWritten" [(ngModel)]="doseWritten" placeholder="e.g. 2.5 g"
        /></mat-form-field>
      </div>
      @if (doseVolume(); as f) {
        <p>Take <vs-figure [figure]="f" name="Volume for the dose" /> of it.</p>
      }
    }
    @if (l.working; as w) {
      <p class="small">Last worked out: <vs-figure [figure]="w" name="last" /></p>
    }
    <div class="within" role="tablist" aria-label="What to record">
      @for (a of acts; track a.act) {
        <button
          type="button"
          class="plain"
          role="tab"
          [attr.aria-selected]="act() === a.act"
          [class.here]="act() === a.act"
          (click)="act.set(a.act)"
        >
          {{ a.name }}
        </button>
      }
    </div>
    <form (ngSubmit)="record()">
      <div class="fields">
        @switch (act()) {
          @case ('use') {
            <mat-form-field
              ><mat-label>Dry fibre that was in it</mat-label
              ><input matInput name="fibre" [(ngModel)]="fibre" placeholder="e.g. 1.2 kg"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Liquor the fibre carried off</mat-label
              ><input matInput name="carried" [(ngModel)]="carried" placeholder="e.g. 1.5 l"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Uptake assumed, %</mat-label
              ><input matInput type="number" min="0" max="100" name="uptake" [(ngModel)]="uptake"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>or measured: grams left</mat-label
              ><input matInput type="number" min="0" step="0.1" name="measured" [(ngModel)]="measured"
            /></mat-form-field>
          }
          @case ('replenish') {
            <mat-form-field
              ><mat-label>Target, % of dry fibre</mat-label
              ><input matInput type="number" min="0.1" step="0.1" name="target" [(ngModel)]="target"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Dry fibre that is next</mat-label
              ><input matInput name="next" [(ngModel)]="next" placeholder="e.g. 800 g"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Added, from the balance</mat-label><input matInput name="addWritten" [(ngModel)]="addWritten"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>From the jar</mat-label
              ><select matNativeControl name="fromJar" [(ngModel)]="fromJar">
                <option value=""></option>
                @for (j of jars(); track j.id) {
                  <option [value]="j.id">{{ j.tag }} · {{ j.material }}</option>
                }
              </select></mat-form-field
            >
          }
          @case ('check') {
            <div class="wide">
              @for (s of allSigns; track s) {
                <label class="tick"
                  ><input type="checkbox" [checked]="signs().includes(s)" (change)="toggle(s)" /> {{ s }}</label
                >
              }
            </div>
          }
          @case ('ladder') {
            <p class="wide small">
              Dye a strip with a measured volume of the liquor, and strips of the same cloth with weighed crystals. Dry
              them, read their lightness L* in the same light.
            </p>
            @for (r of rungs(); track $index) {
              <mat-form-field
                ><mat-label>Rung {{ $index + 1 }}: crystals, % of fibre</mat-label
                ><input
                  matInput
                  type="number"
                  min="0"
                  step="0.1"
                  [name]="'dose' + $index"
                  [ngModel]="r.percentOwf"
                  (ngModelChange)="setRung($index, { percentOwf: $event })"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>Rung {{ $index + 1 }}: L*</mat-label
                ><input
                  matInput
                  type="number"
                  min="0"
                  max="100"
                  step="0.1"
                  [name]="'light' + $index"
                  [ngModel]="r.lightness"
                  (ngModelChange)="setRung($index, { lightness: $event })"
              /></mat-form-field>
            }
            <mat-form-field
              ><mat-label>The liquor’s strip: L*</mat-label
              ><input matInput type="number" min="0" max="100" step="0.1" name="stripL" [(ngModel)]="stripL"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>it took, ml of liquor</mat-label
              ><input matInput type="number" min="0" step="0.1" name="stripMl" [(ngModel)]="stripMl"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>and weighs dry, g</mat-label
              ><input matInput type="number" min="0" step="0.1" name="stripG" [(ngModel)]="stripG"
            /></mat-form-field>
          }
        }
        <mat-form-field class="wide"
          ><mat-label>Note</mat-label><input matInput name="note" [(ngModel)]="note"
        /></mat-form-field>
      </div>
      @if (act() === 'replenish' && toAdd(); as add) {
        <p>To add: <vs-figure [figure]="add" name="To add" /></p>
      }
      @if (act() === 'ladder' && ladder(); as read) {
        <p>
          {{ read.ok ? '' : read.sentence }}
          @if (read.ok) {
            Strength: <vs-figure [figure]="read.strength" name="Strength as crystals" />, between
            {{ read.lowGPerL }} and {{ read.highGPerL }} g/l
          }
        </p>
      }
      @if (act() === 'replenish') {
        <p class="small">Powder: dust mask, gloves, no draught. The supplier’s safety data sheet says more.</p>
      }
      <vs-refusal [problem]="doingIt.problem()" />
      <button class="act" type="submit" [disabled]="doingIt.busy()">Record it</button>
    </form>
    <table class="ledger">
      <tbody>
        @for (e of newestFirst(); track e.id) {
          <tr>
            <td class="small">{{ e.at | when: 'moment' }}</td>
            <td>{{ e.note || 'kept' }}</td>
            <td>{{ e.by.name }}</td>
          </tr>
        }
      </tbody>
    </table>
  }`,
  styles: `
    .within button {
      border-bottom: 4px solid transparent;
      text-decoration: none;
      font-weight: 600;
    }
    .within button.here {
      border-color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JarLiquor {
  private readonly api = inject(ApiClient);
  readonly jar = input.required<StockLot>();
  readonly changed = output();
  protected readonly kinds = LIQUOR_WORDS;
  protected readonly acts = ACTS;
  protected readonly allSigns = LIQUOR_SIGNS;
  protected readonly act = signal<Act>('use');
  protected readonly doingIt = doing();
  protected readonly fibre = signal('');
  protected readonly carried = signal('');
  protected readonly uptake = signal(USUAL_UPTAKE);
  protected readonly measured = signal<number | null>(null);
  protected readonly target = signal(15);
  protected readonly next = signal('');
  protected readonly addWritten = signal('');
  protected readonly fromJar = signal('');
  protected readonly signs = signal<readonly LiquorSign[]>([]);
  protected readonly rungs = signal<readonly { percentOwf: number | null; lightness: number | null }[]>([
    { percentOwf: 1, lightness: null },
    { percentOwf: 2, lightness: null },
    { percentOwf: 4, lightness: null },
  ]);
  protected readonly stripL = signal<number | null>(null);
  protected readonly stripMl = signal<number | null>(null);
  protected readonly stripG = signal<number | null>(10);
  protected readonly note = signal('');
  protected readonly doseWritten = signal('');
  private readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  protected readonly jars = computed(() =>
    (this.shelf.value() ?? []).filter((j) => j.measure === 'weight' && j.free > 0 && j.kind !== 'fibre'),
  );
  protected readonly newestFirst = computed(() => [...this.jar().liquorLog].reverse());
  protected readonly verdict = computed(() => judgeSigns(this.jar().liquor?.signs ?? []));

  protected readonly figures = computed(() => {
    const { liquor, liquorNow, row } = this.jar();
    return liquorNow.map((c, i) => {
      const then = liquor?.contents[i]?.grams ?? 0;
      return {
        name: c.name,
        perLitre: row.onHand > 0 ? `${Math.round((c.grams / (row.onHand / 1_000_000)) * 100) / 100} g/l` : '–',
        grams: figure(
          c.grams,
          'g',
          'grams at the last entry × volume now ÷ volume then',
          [
            { name: 'grams at the last entry', value: then, unit: 'g' },
            { name: 'volume now', value: row.onHand / 1000, unit: 'ml' },
            { name: 'volume then', value: (liquor?.volumeUl ?? 0) / 1000, unit: 'ml' },
          ],
          ['an estimate'],
        ),
      };
    });
  });
  protected readonly toAdd = computed(() => {
    const fibre = readWeight(this.next());
    return fibre.ok && this.target() > 0
      ? replenish(this.jar().liquorNow[0]?.grams ?? 0, this.target(), fibre.weightG)
      : undefined;
  });
  /** Millilitres that hold a dose, by what is in the liquor now. */
  protected readonly doseVolume = computed(() => {
    const dose = readWeight(this.doseWritten());
    const { liquorNow, row } = this.jar();
    const gPerL = row.onHand > 0 ? (liquorNow[0]?.grams ?? 0) / (row.onHand / 1_000_000) : 0;
    return dose.ok && gPerL > 0 ? volumeForDose(dose.weightG, Math.round(gPerL * 1000) / 1000) : undefined;
  });
  protected readonly ladder = computed(() => {
    const strip = { lightness: this.stripL(), liquorMl: this.stripMl(), fibreG: this.stripG() };
    const rungs = this.rungs().filter((r) => r.percentOwf !== null && r.lightness !== null);
    if (strip.lightness === null || strip.liquorMl === null || strip.fibreG === null || rungs.length < 2)
      return undefined;
    return ladderStrength(
      rungs as { percentOwf: number; lightness: number }[],
      strip as { lightness: number; liquorMl: number; fibreG: number },
    );
  });

  protected readonly capital = (words: string): string => `${words[0]?.toUpperCase()}${words.slice(1)}`;

  protected toggle(sign: LiquorSign): void {
    this.signs.update((now) => (now.includes(sign) ? now.filter((s) => s !== sign) : [...now, sign]));
  }

  protected setRung(at: number, change: { percentOwf?: number | null; lightness?: number | null }): void {
    this.rungs.update((rungs) => rungs.map((r, i) => (i === at ? { ...r, ...change } : r)));
  }

  protected record(): void {
    this.doingIt.run(this.api.post('/api/stock-lots/{id}/liquor', this.entry(), this.jar().row.id), () => {
      for (const field of [this.fibre, this.carried, this.addWritten, this.note]) field.set('');
      this.signs.set([]);
      this.changed.emit();
    });
  }

  private entry() {
    const base = { id: newId(), note: this.note() };
    const act = this.act();
    switch (act) {
      case 'use':
        return {
          ...base,
          kind: act,
          movementId: newId(),
          fibreWritten: this.fibre(),
          carriedOffWritten: this.carried() || '0 ml',
          uptakePercent: this.uptake(),
          measuredLeftG: this.measured(),
        };
      case 'replenish':
        return { ...base, kind: act, movementId: newId(), stockLotId: this.fromJar(), written: this.addWritten() };
      case 'check':
        return { ...base, kind: act, signs: [...this.signs()] };
      case 'ladder':
        return {
          ...base,
          kind: act,
          rungs: this.rungs().filter((r) => r.percentOwf !== null && r.lightness !== null) as {
            percentOwf: number;
            lightness: number;
          }[],
          lightness: this.stripL() ?? 0,
          liquorMl: this.stripMl() ?? 0,
          fibreG: this.stripG() ?? 0,
        };
    }
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { ConversionKind, Figure } from '@vestigia/core';
import { blendStrength, formatAmount, freshToDried, readAmount, stockConcentration } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { House } from '../../api/house';
import { live } from '../../api/live';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

const KINDS: readonly { kind: ConversionKind; name: string; out: string; hint: string }[] = [
  {
    kind: 'dry',
    name: 'Dry',
    out: 'What it weighs dried',
    hint: 'Fresh stock dried. Both weights give its fresh to dried factor, kept with the material.',
  },
  {
    kind: 'freeze',
    name: 'Freeze',
    out: 'What went into the freezer',
    hint: 'Fresh stock into the freezer; what was sorted out is the loss.',
  },
  {
    kind: 'grind',
    name: 'Grind',
    out: 'What came out of the mill',
    hint: 'Whole stock ground. Dust mask, goggles, no draught.',
  },
  {
    kind: 'dissolve',
    name: 'Make a stock solution',
    out: 'Made up to, volume',
    hint: 'Crystals dissolved and made up to a volume. The concentration follows.',
  },
  {
    kind: 'blend',
    name: 'Blend',
    out: 'What the blend weighs',
    hint: 'Several jars into one. Its strength is the mean by weight, known only if every part’s is; every parent stays known.',
  },
  { kind: 'open', name: 'Open packets', out: 'What was in them', hint: 'Whole packets into a jar, by weight.' },
  {
    kind: 'compost',
    name: 'To the compost',
    out: '',
    hint: 'What is left over leaves the shelf. Local rules say what may go on soil.',
  },
];

interface Part {
  readonly jarId: string;
  readonly written: string;
}

/** Changes the form of stock: dries, freezes, grinds, dissolves, blends, opens, composts. Parents stay known. */
@Component({
  selector: 'vs-convert',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote],
  providers: [House],
  template: ` <div class="head"><h1>Change a form</h1></div>
    <form (ngSubmit)="convert()">
      <fieldset>
        <legend>What is done</legend>
        @for (k of kinds; track k.kind) {
          <label class="tick"
            ><input type="radio" name="kind" [value]="k.kind" [(ngModel)]="kind" /> {{ k.name }}</label
          >
        }
      </fieldset>
      <p>{{ chosen().hint }}</p>
      <h2>What goes in</h2>
      @for (part of parts(); track $index; let i = $index) {
        <div class="fields">
          <mat-form-field
            ><mat-label>Jar</mat-label
            ><select
              matNativeControl
              [name]="'jar' + i"
              [ngModel]="part.jarId"
              (ngModelChange)="set(i, { jarId: $event })"
            >
              <option value=""></option>
              @for (j of jars(); track j.id) {
                <option [value]="j.id">{{ j.tag }} · {{ j.material }} · {{ amount(j.free, j.measure) }} free</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>How much of it</mat-label
            ><input
              matInput
              [name]="'much' + i"
              [ngModel]="part.written"
              (ngModelChange)="set(i, { written: $event })"
              autocomplete="off"
          /></mat-form-field>
        </div>
      }
      @if (kind() === 'blend') {
        <button class="plain" type="button" (click)="add()">One more jar</button>
      }
      @if (kind() !== 'compost') {
        <h2>What comes out</h2>
        <div class="fields">
          <mat-form-field
            ><mat-label>{{ chosen().out }}</mat-label
            ><input matInput name="out" [(ngModel)]="out" autocomplete="off"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>It is kept as</mat-label
            ><select matNativeControl name="into" [(ngModel)]="into">
              <option value="">the same material</option>
              @for (m of materials.value(); track m.id) {
                <option [value]="m.id">{{ m.name }}</option>
              }
              <option value="new">a new material …</option>
            </select></mat-form-field
          >
          @if (into() === 'new') {
            <mat-form-field
              ><mat-label>Its name</mat-label><input matInput name="newName" [(ngModel)]="newName"
            /></mat-form-field>
          }
          <mat-form-field
            ><mat-label>Place on the shelf</mat-label><input matInput name="place" [(ngModel)]="place"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Container</mat-label><input matInput name="container" [(ngModel)]="container"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Best before, if it goes off</mat-label
            ><input matInput type="date" name="bestBefore" [(ngModel)]="bestBefore"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Tag, or one is made</mat-label><input matInput name="tag" [(ngModel)]="tag"
          /></mat-form-field>
        </div>
      }
      <mat-form-field><mat-label>Note</mat-label><input matInput name="note" [(ngModel)]="note" /></mat-form-field>
      @if (result(); as f) {
        <p>{{ resultWords() }}: <vs-figure [figure]="f" [name]="resultWords()" /></p>
      }
      @if (loss(); as words) {
        <p>{{ words }}</p>
      }
      <vs-refusal [problem]="action.problem()" />
      <div class="actions">
        <button class="act main" type="submit" [disabled]="action.busy() || !parts()[0]?.jarId">Record it</button
        ><a routerLink="/stores">Back to Stores</a>
      </div>
    </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConvertPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly house = inject(House);
  readonly jar = input<string>();
  protected readonly kinds = KINDS;
  protected readonly action = doing();
  protected readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  /** What one would most likely do with the jar one came from. */
  private readonly measure = computed(() => this.shelf.value()?.find((j) => j.id === this.jar())?.measure);
  protected readonly kind = linkedSignal<ConversionKind>(() =>
    this.measure() === 'pieces' ? 'open' : this.measure() === 'volume' ? 'blend' : 'dry',
  );
  protected readonly chosen = computed(
    () => KINDS.find((k) => k.kind === this.kind()) ?? (KINDS[0] as (typeof KINDS)[number]),
  );
  protected readonly jars = computed(() =>
    (this.shelf.value() ?? []).filter(
      (j) =>
        j.free > 0 &&
        (this.kind() === 'compost' || (j.kind !== 'fibre' && (this.kind() === 'open') === (j.measure === 'pieces'))),
    ),
  );
  protected readonly parts = linkedSignal<readonly Part[]>(() => [{ jarId: this.jar() ?? '', written: '' }]);
  protected readonly out = signal('');
  protected readonly into = signal('');
  protected readonly newName = signal('');
  protected readonly place = signal('');
  protected readonly container = signal('');
  protected readonly bestBefore = signal('');
  protected readonly tag = signal('');
  protected readonly note = signal('');
  protected readonly amount = formatAmount;

  private readonly inputs = computed(() =>
    this.parts().flatMap((p) => {
      const jar = this.shelf.value()?.find((j) => j.id === p.jarId);
      const density = this.materials.value()?.find((m) => m.id === jar?.materialId)?.bulkDensityGPerMl;
      const reading = jar ? readAmount(p.written, jar.measure, this.house.measuring(density)) : undefined;
      return jar && reading?.ok
        ? [{ stockLotId: jar.id, tag: jar.tag, weightG: reading.amount / 1000, strengthPercent: jar.strengthPercent }]
        : [];
    }),
  );
  private readonly outAmount = computed(() => {
    const reading = readAmount(
      this.out(),
      this.kind() === 'dissolve' ? 'volume' : 'weight',
      this.house.measuring(undefined),
    );
    return reading.ok ? reading.amount / 1000 : undefined;
  });
  protected readonly resultWords = computed(
    () =>
      (
        ({ dry: 'Fresh to dried', dissolve: 'Concentration', blend: 'Strength' }) as Partial<
          Record<ConversionKind, string>
        >
      )[this.kind()] ?? '',
  );
  protected readonly result = computed((): Figure | null => {
    const inG = this.inputs().reduce((sum, i) => sum + i.weightG, 0);
    const out = this.outAmount();
    if (inG <= 0 || out === undefined) return null;
    if (this.kind() === 'dry') return out <= inG ? freshToDried(inG, out) : null;
    if (this.kind() === 'dissolve') return stockConcentration(inG, out);
    return this.kind() === 'blend' ? blendStrength(this.inputs()) : null;
  });
  protected readonly loss = computed(() => {
    const inG = this.inputs().reduce((sum, i) => sum + i.weightG, 0);
    const out = this.outAmount();
    if (inG <= 0 || out === undefined || ['dissolve', 'compost', 'open'].includes(this.kind())) return '';
    const lossMg = Math.round((inG - out) * 1000);
    return lossMg < 0
      ? 'More would come out than went in: weigh again.'
      : `${formatAmount(lossMg, 'weight')} goes off as loss; the rest is accounted for.`;
  });

  protected set(at: number, change: Partial<Part>): void {
    this.parts.update((parts) => parts.map((p, i) => (i === at ? { ...p, ...change } : p)));
  }

  protected add(): void {
    this.parts.update((parts) => [...parts, { jarId: '', written: '' }]);
  }

  protected convert(): void {
    const kind = this.kind();
    const into = this.into();
    const output =
      kind === 'compost'
        ? null
        : {
            movementId: newId(),
            stockLotId: newId(),
            materialId: into === '' || into === 'new' ? null : into,
            newMaterial: into === 'new' ? this.newName() : '',
            tag: this.tag(),
            written: this.out(),
            place: this.place(),
            bestBefore: this.bestBefore() || null,
            container: this.container(),
            tareWritten: '',
          };
    const inputs = this.parts()
      .filter((p) => p.jarId !== '')
      .map((p) => ({ movementId: newId(), stockLotId: p.jarId, written: p.written }));
    this.action.run(
      this.api.post('/api/conversions', { id: newId(), kind, inputs, output, note: this.note() }),
      ({ id }) => void this.router.navigate(kind === 'compost' ? ['/stores'] : ['/stores', id]),
    );
  }
}

import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { Figure, LiquorKind } from '@vestigia/core';
import { LIQUOR_KINDS, LIQUOR_WORDS, leftAfterUse, readWeight } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

const HINTS: Readonly<Record<LiquorKind, string>> = {
  dyeBath: 'Cold and covered, days. Look for cloud, growth and smell before it is used again.',
  secondExtraction: 'Weaker than the first: a strip tells how much.',
  mordantBath: 'Weeks, covered. Say what went in and what share of it the fibre took; what is left is worked out.',
  ironLiquor:
    'Its strength is unknown until a strip is compared with weighed crystals. Locked away from children and animals.',
  ashLye: 'Caustic: gloves and goggles. Measure its pH each time.',
  stockSolution: 'For one made from a jar here, use “Change a form”: the crystals then leave their jar.',
};
const DAYS: Readonly<Partial<Record<LiquorKind, number>>> = { dyeBath: 5, secondExtraction: 5, mordantBath: 60 };
const USUAL_UPTAKE = 60;

/** Keeps a liquor as stock: leftover baths, second extractions, saved mordant baths, iron and ash liquors. */
@Component({
  selector: 'vs-keep-liquor',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote],
  template: ` <div class="head"><h1>Keep a liquor</h1></div>
    <form (ngSubmit)="keep()">
      <fieldset>
        <legend>It is a</legend>
        @for (k of kinds; track k) {
          <label class="tick"
            ><input type="radio" name="what" [value]="k" [ngModel]="what()" (ngModelChange)="choose(k)" />
            {{ words[k] }}</label
          >
        }
      </fieldset>
      <p>{{ hints[what()] }}</p>
      <div class="fields">
        <mat-form-field
          ><mat-label>Kept as</mat-label
          ><select matNativeControl name="material" [(ngModel)]="materialId">
            <option value="">a new material …</option>
            @for (m of liquids(); track m.id) {
              <option [value]="m.id">{{ m.name }}</option>
            }
          </select></mat-form-field
        >
        @if (materialId() === '') {
          <mat-form-field
            ><mat-label>Its name</mat-label
            ><input matInput name="name" [(ngModel)]="name" placeholder="e.g. Alum bath, saved"
          /></mat-form-field>
        }
        <mat-form-field
          ><mat-label>Volume</mat-label><input matInput name="volume" [(ngModel)]="volume" placeholder="e.g. 12 l"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Vessel</mat-label
          ><input matInput name="vessel" [(ngModel)]="vessel" placeholder="e.g. lidded bucket"
        /></mat-form-field>
        <mat-form-field><mat-label>Place</mat-label><input matInput name="place" [(ngModel)]="place" /></mat-form-field>
        <mat-form-field
          ><mat-label>Keeps until, by your guess</mat-label
          ><input matInput type="date" name="keeps" [(ngModel)]="keeps"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>From the lot</mat-label
          ><select matNativeControl name="lot" [(ngModel)]="lotId">
            <option value="">none</option>
            @for (l of lots.value(); track l.id) {
              <option [value]="l.id">{{ l.tag }} · {{ l.colourway.name }}</option>
            }
          </select></mat-form-field
        >
      </div>
      <h2>What is in it</h2>
      <p class="small soft">
        What went in, and what the fibre took: by an assumed share. Leave it at “not known” if that is so.
      </p>
      <div class="fields">
        <mat-form-field
          ><mat-label>Of what</mat-label
          ><select matNativeControl name="inside" [(ngModel)]="inside">
            <option value="">not known</option>
            @for (m of dissolved(); track m.id) {
              <option [value]="m.id">{{ m.name }}</option>
            }
          </select></mat-form-field
        >
        @if (inside() !== '') {
          <mat-form-field
            ><mat-label>Went in</mat-label><input matInput name="went" [(ngModel)]="went" placeholder="e.g. 180 g"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Taken up by the fibre, %</mat-label
            ><input matInput type="number" min="0" max="100" name="uptake" [(ngModel)]="uptake"
          /></mat-form-field>
        }
        <mat-form-field class="wide"
          ><mat-label>Note</mat-label><textarea matInput name="note" rows="2" [(ngModel)]="note"></textarea>
        </mat-form-field>
      </div>
      @if (left(); as f) {
        <p>Left in it: <vs-figure [figure]="f" name="Left in the bath" /></p>
      }
      <vs-refusal [problem]="action.problem()" />
      <div class="actions">
        <button class="act main" type="submit" [disabled]="action.busy() || volume().trim() === ''">Keep it</button
        ><a routerLink="/stores">Back to Stores</a>
      </div>
    </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepLiquorPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly kinds = LIQUOR_KINDS;
  protected readonly words = LIQUOR_WORDS;
  protected readonly hints = HINTS;
  protected readonly action = doing();
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly lots = live(['lots'], () => this.api.get('/api/lots'));
  protected readonly liquids = computed(() => (this.materials.value() ?? []).filter((m) => m.measure === 'volume'));
  protected readonly dissolved = computed(() =>
    (this.materials.value() ?? []).filter((m) => m.measure === 'weight' && m.kind !== 'fibre'),
  );
  protected readonly what = signal<LiquorKind>('mordantBath');
  protected readonly materialId = signal('');
  protected readonly name = signal('');
  protected readonly volume = signal('');
  protected readonly vessel = signal('');
  protected readonly place = signal('');
  protected readonly keeps = signal(inDays(DAYS.mordantBath ?? 0));
  protected readonly lotId = signal('');
  protected readonly inside = signal('');
  protected readonly went = signal('');
  protected readonly uptake = signal(USUAL_UPTAKE);
  protected readonly note = signal('');

  protected readonly left = computed((): Figure | undefined => {
    const went = readWeight(this.went());
    return this.inside() !== '' && went.ok
      ? leftAfterUse(went.weightG, { uptakeShare: Math.min(1, Math.max(0, this.uptake() / 100)) })
      : undefined;
  });

  /** As the bench hands a leftover bath over: which lot and pot, how much of it, and what went into it. */
  readonly fromLot = input<string>();
  readonly litres = input<string>();
  readonly pot = input<string>();
  readonly kind = input<LiquorKind>();
  readonly named = input<string>();
  readonly of = input<string>();
  readonly dosed = input<string>();

  constructor() {
    effect(() => {
      const kind = this.kind();
      if (kind) this.choose(kind);
      this.lotId.set(this.fromLot() ?? '');
      if (this.litres()) this.volume.set(`${this.litres()} l`);
      this.vessel.set(this.pot() ?? '');
      this.name.set(this.named() ?? '');
      this.inside.set(this.of() ?? '');
      this.went.set(this.dosed() ?? '');
    });
  }

  protected choose(kind: LiquorKind): void {
    this.what.set(kind);
    this.keeps.set(DAYS[kind] === undefined ? '' : inDays(DAYS[kind]));
  }

  protected keep(): void {
    const left = this.left();
    const material = this.dissolved().find((m) => m.id === this.inside());
    this.action.run(
      this.api.post('/api/liquors', {
        id: newId(),
        movementId: newId(),
        what: this.what(),
        materialId: this.materialId() || null,
        newMaterial: this.name(),
        tag: '',
        written: this.volume(),
        contents: material ? [{ materialId: material.id, name: material.name, grams: left?.value ?? 0 }] : [],
        working: left ?? null,
        fromLotId: this.lotId() || null,
        vessel: this.vessel(),
        place: this.place(),
        bestBefore: this.keeps() || null,
        note: this.note(),
      }),
      ({ id }) => void this.router.navigate(['/stores', id]),
    );
  }
}

function inDays(days: number): string {
  return new Date(Date.now() + days * 86_400_000).toLocaleDateString('en-CA');
}

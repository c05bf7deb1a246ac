import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { Material } from '@vestigia/contract';
import type { CatalogueEntry, FibreKind, Hazard } from '@vestigia/core';
import {
  CATALOGUE,
  FIBRE_KINDS,
  HAZARDS,
  HAZARD_WORDS,
  MATERIAL_KINDS,
  MATERIAL_KIND_WORDS,
  NOT_OFFERED,
  readWeight,
  refusedSalt,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { StoresNav } from './stores-nav';

const SHOWN = 7;

/** Says what a material is: taken from the catalogue, or written anew. Jars of it are booked in afterwards. */
@Component({
  selector: 'vs-new-material',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, StoresNav],
  template: ` <div class="head"><h1>A new material</h1></div>
    <vs-stores-nav />
    <h2>From the catalogue</h2>
    <p class="small soft">
      {{ catalogue.length }} dyestuffs, mordants and the rest, with what is widely agreed of them. Take one and change
      it as you know better.
    </p>
    <mat-form-field class="words" subscriptSizing="dynamic"
      ><mat-label>Look for</mat-label
      ><input matInput name="look" [(ngModel)]="look" placeholder="e.g. weld, mordant, Rubia"
    /></mat-form-field>
    @if (notOffered(); as sentence) {
      <p class="refusal">{{ sentence }}</p>
    }
    <table class="ledger">
      <tbody>
        @for (e of found(); track e.key) {
          <tr>
            <td>
              <button class="plain" type="button" (click)="take(e)">
                <strong>{{ e.name }}</strong>
              </button>
            </td>
            <td>{{ kindWords[e.kind] }}</td>
            <td>
              <em>{{ e.botanicalName }}</em>
            </td>
            <td class="small">
              {{ e.note }}
              @if (e.hazards.includes('copperSalt')) {
                <strong> Hazardous: consider doing without.</strong>
              }
            </td>
            <td class="small soft">{{ isHere(e) ? 'here already' : '' }}</td>
          </tr>
        } @empty {
          <tr>
            <td>Nothing by that name. Write it below.</td>
          </tr>
        }
      </tbody>
    </table>
    @if (more() > 0) {
      <p class="small soft">{{ more() }} more: look for a name, a kind or a plant.</p>
    }

    <h2>{{ taken() ? 'Taken from the catalogue: ' + taken()?.name : 'Or write it' }}</h2>
    <form (ngSubmit)="add()">
      <div class="fields">
        <mat-form-field class="wide"
          ><mat-label>Name</mat-label><input matInput name="name" [(ngModel)]="name"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Kind</mat-label
          ><select matNativeControl name="kind" [(ngModel)]="kind">
            @for (k of kinds; track k) {
              <option [value]="k">{{ k === 'fibre' ? 'fibre, a base to dye' : kindWords[k] }}</option>
            }
          </select></mat-form-field
        >
        @if (kind() !== 'fibre') {
          <mat-form-field
            ><mat-label>Kept by</mat-label
            ><select matNativeControl name="measure" [(ngModel)]="measure">
              <option value="weight">weight</option>
              <option value="volume">volume</option>
              <option value="pieces">whole pieces or packets</option>
            </select></mat-form-field
          >
        }
        @if (kind() === 'fibre') {
          <mat-form-field
            ><mat-label>Fibre</mat-label
            ><select matNativeControl name="fibre" [(ngModel)]="fibre">
              @for (f of fibres; track f) {
                <option [value]="f">{{ f }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>One piece is called a …</mat-label><input matInput name="pieceWord" [(ngModel)]="pieceWord"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>and usually weighs, dry</mat-label
            ><input matInput name="pieceWeight" [(ngModel)]="pieceWeight" placeholder="e.g. 100 g"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Undyed L*</mat-label><input matInput type="number" step="0.01" name="L" [(ngModel)]="L"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Undyed a*</mat-label><input matInput type="number" step="0.01" name="a" [(ngModel)]="a"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Undyed b*</mat-label><input matInput type="number" step="0.01" name="b" [(ngModel)]="b"
          /></mat-form-field>
        }
        <mat-form-field class="wide"
          ><mat-label>Note</mat-label><textarea matInput rows="2" name="note" [(ngModel)]="note"></textarea>
        </mat-form-field>
      </div>
      <fieldset>
        <legend>What it can do to people</legend>
        <p class="small soft">As the supplier’s safety data sheet says. Shown wherever it is handled.</p>
        @for (h of hazards; track h) {
          <label class="tick"
            ><input type="checkbox" [checked]="chosen().includes(h)" (change)="toggle(h)" /> {{ hazardWords[h] }}</label
          >
        }
      </fieldset>
      <vs-refusal [problem]="weightProblem() ?? action.problem()" />
      <div class="actions">
        <button class="act main" type="submit" [disabled]="action.busy()">Add the material</button>
      </div>
    </form>`,
  styles: `
    .words {
      max-width: 24rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewMaterialPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = doing();
  protected readonly catalogue = CATALOGUE;
  protected readonly kinds = MATERIAL_KINDS;
  protected readonly kindWords = MATERIAL_KIND_WORDS;
  protected readonly fibres = FIBRE_KINDS;
  protected readonly hazards = HAZARDS;
  protected readonly hazardWords = HAZARD_WORDS;
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly look = signal('');
  protected readonly taken = signal<CatalogueEntry | undefined>(undefined);
  protected readonly name = signal('');
  protected readonly kind = signal<Material['kind']>('dyestuff');
  protected readonly measure = signal<Material['measure']>('weight');
  protected readonly note = signal('');
  protected readonly chosen = signal<readonly Hazard[]>([]);
  protected readonly fibre = signal<FibreKind>('wool');
  protected readonly pieceWord = signal('hank');
  protected readonly pieceWeight = signal('100 g');
  protected readonly L = signal(85);
  protected readonly a = signal(0);
  protected readonly b = signal(10);
  protected readonly weightProblem = signal<{ detail: string } | undefined>(undefined);
  private readonly id = newId();

  private readonly matching = computed(() => {
    const words = this.look().trim().toLowerCase();
    return CATALOGUE.filter((e) =>
      `${e.name} ${e.kind} ${e.botanicalName} ${e.plantPart}`.toLowerCase().includes(words),
    );
  });
  protected readonly found = computed(() => this.matching().slice(0, SHOWN));
  protected readonly more = computed(() => this.matching().length - this.found().length);
  protected readonly notOffered = computed(() =>
    refusedSalt(this.look()) || refusedSalt(this.name()) ? NOT_OFFERED : undefined,
  );
  protected readonly isHere = (entry: CatalogueEntry): boolean =>
    (this.materials.value() ?? []).some((m) => m.name.toLowerCase() === entry.name.toLowerCase());

  protected take(entry: CatalogueEntry): void {
    this.taken.set(entry);
    this.name.set(entry.name);
    this.kind.set(entry.kind);
    this.measure.set(entry.measure);
    this.note.set(entry.note);
    this.chosen.set(entry.hazards);
  }

  protected toggle(hazard: Hazard): void {
    this.chosen.update((now) => (now.includes(hazard) ? now.filter((h) => h !== hazard) : [...now, hazard]));
  }

  protected add(): void {
    const isFibre = this.kind() === 'fibre';
    const weight = readWeight(this.pieceWeight());
    this.weightProblem.set(isFibre && !weight.ok ? { detail: weight.sentence } : undefined);
    if (isFibre && !weight.ok) return;
    const base =
      isFibre && weight.ok
        ? {
            fibre: this.fibre(),
            pieceWord: this.pieceWord(),
            usualPieceWeightG: weight.weightG,
            undyed: { L: this.L(), a: this.a(), b: this.b(), illuminant: 'D65' as const, observer: '10' as const },
          }
        : null;
    const body = {
      id: this.id,
      name: this.name(),
      kind: this.kind(),
      measure: isFibre ? ('weight' as const) : this.measure(),
      hazards: [...this.chosen()],
      note: this.note(),
      base,
      ...(isFibre ? {} : this.factsTaken()),
    };
    this.action.run(
      this.api.post('/api/materials', body),
      () => void this.router.navigate(['/stores/delivery'], { queryParams: { material: this.id } }),
    );
  }

  private factsTaken() {
    const entry = this.taken();
    if (!entry) return {};
    const {
      botanicalName,
      plantPart,
      forms,
      fibreGroups,
      ceilingC,
      water,
      phLow,
      phHigh,
      light,
      wash,
      bringsTannin,
      season,
    } = entry;
    return {
      facts: {
        botanicalName,
        plantPart,
        forms: [...forms],
        fibreGroups: [...fibreGroups],
        ceilingC,
        water,
        phLow,
        phHigh,
        light,
        wash,
        bringsTannin,
        season,
      },
    };
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { describeColour, describeDifference } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { LotLedger } from '../../ui/lot-ledger';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';

/** One colourway: the promise, and every lot that kept or broke it. */
@Component({
  selector: 'vs-colourway',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, LotLedger, RefusalNote, Swatch],
  template: ` <vs-refusal [problem]="page.problem()" />
    @if (page.value(); as p) {
      <div class="head">
        <div>
          <h1>{{ p.colourway.name }}</h1>
          <p class="soft">{{ p.colourway.note }}</p>
        </div>
        <div class="actions">
          <a class="act main" routerLink="/lots/new" [queryParams]="{ colourway: p.colourway.id }">Dye a lot</a>
        </div>
      </div>
      <div class="mounts">
        <figure>
          <vs-swatch [lab]="p.colourway.base.undyed" [width]="7" label="undyed base" />
          <figcaption>{{ p.colourway.base.name }}, undyed</figcaption>
        </figure>
        <figure>
          <vs-swatch [lab]="p.colourway.master" [width]="9" label="master" />
          <figcaption>
            Master<br />{{ words(p.colourway.master) }}<br />L* {{ p.colourway.master.L }} a*
            {{ p.colourway.master.a }} b* {{ p.colourway.master.b }}<br />{{ p.colourway.master.illuminant }}/{{
              p.colourway.master.observer
            }}°
          </figcaption>
        </figure>
        @for (l of lately(); track l.lot.id) {
          <figure>
            <vs-swatch [lab]="l.lab" [width]="7" [label]="l.lot.tag" />
            <figcaption>{{ l.lot.tag }}<br />{{ l.words }}</figcaption>
          </figure>
        }
      </div>
      <dl class="facts">
        <dt>Recipe</dt>
        <dd>
          <a [routerLink]="['/recipes', p.colourway.recipe.versionId]"
            >{{ p.colourway.recipe.name }}, version {{ p.colourway.recipe.number }}</a
          >
          ({{ p.colourway.recipe.standing }})
        </dd>
        <dt>Base</dt>
        <dd>{{ p.colourway.base.name }}</dd>
        <dt>Tolerance</dt>
        <dd>ΔE00 {{ p.colourway.toleranceDeltaE }}</dd>
      </dl>
      <h2>Its lots so far</h2>
      @if (p.lots.length === 0) {
        <div class="empty">
          <p>None yet.</p>
          <a class="act main" routerLink="/lots/new" [queryParams]="{ colourway: p.colourway.id }">Dye the first</a>
        </div>
      } @else {
        <vs-lot-ledger [lots]="p.lots" [withColourway]="false" />
      }
      <h2>Change the promise</h2>
      <form (ngSubmit)="save()">
        <div class="fields">
          <mat-form-field
            ><mat-label>Recipe version</mat-label
            ><select matNativeControl name="recipe" [(ngModel)]="recipeVersionId">
              @for (v of versions(); track v.id) {
                <option [value]="v.id">{{ v.words }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>Tolerance, ΔE00</mat-label
            ><input matInput type="number" step="0.1" name="tolerance" [(ngModel)]="tolerance"
          /></mat-form-field>
          <mat-form-field class="wide"
            ><mat-label>Note</mat-label><textarea matInput rows="2" name="note" [(ngModel)]="note"></textarea>
          </mat-form-field>
        </div>
        <vs-refusal [problem]="action.problem()" />
        @if (theirs(); as t) {
          <p>
            Now standing: tolerance {{ t.toleranceDeltaE }}, note “{{ t.note }}”.
            <button class="plain" type="button" (click)="page.reload(); action.clear()">Take theirs</button>
          </p>
        }
        <button class="act" type="submit" [disabled]="action.busy()">Keep the change</button>
      </form>
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourwayPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly action = doing();
  protected readonly page = live(
    ['colourways', 'lots'],
    () => this.api.get('/api/colourways/{id}', { id: this.id() }),
    () => this.id(),
  );
  private readonly recipes = live(['recipes'], () => this.api.get('/api/recipes'));
  protected readonly versions = computed(() =>
    (this.recipes.value() ?? []).flatMap((r) =>
      r.versions
        .filter((v) => v.standing !== 'retired' || v.id === this.recipeVersionId())
        .map((v) => ({ id: v.id, words: `${r.name}, version ${v.number} (${v.standing})` })),
    ),
  );
  protected readonly recipeVersionId = linkedSignal(() => this.page.value()?.colourway.recipe.versionId ?? '');
  protected readonly tolerance = linkedSignal(() => this.page.value()?.colourway.toleranceDeltaE ?? 2);
  protected readonly note = linkedSignal(() => this.page.value()?.colourway.note ?? '');
  protected readonly theirs = computed(() =>
    this.action.problem()?.code === 'stale'
      ? (this.action.problem()?.theirs as { toleranceDeltaE: number; note: string })
      : undefined,
  );
  protected readonly words = describeColour;

  /** The latest read lots, in words beside the master. */
  protected readonly lately = computed(() => {
    const p = this.page.value();
    return (p?.lots ?? [])
      .flatMap((lot) =>
        lot.result && p
          ? [{ lot, lab: lot.result, words: describeDifference(p.colourway.master, lot.result).summary }]
          : [],
      )
      .slice(0, 3);
  });

  protected save(): void {
    const c = this.page.value()?.colourway;
    if (!c) return;
    this.action.run(
      this.api.put(
        '/api/colourways/{id}',
        {
          version: c.version,
          recipeVersionId: this.recipeVersionId(),
          toleranceDeltaE: this.tolerance(),
          note: this.note(),
        },
        this.id(),
      ),
      () => this.page.reload(),
    );
  }
}

import { ChangeDetectionStrategy, Component, computed, effect, inject, input, linkedSignal, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { Proposal, ProposalAsk } from '@vestigia/contract';
import { formatAmount, formatWeight } from '@vestigia/core';
import { catchError, debounceTime, merge, of, switchMap } from 'rxjs';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { LiveChanges, live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { ThenAndNow } from '../../ui/then-and-now';

const TYPING_MS = 250;

/** From a colourway and a size to a lot: what to weigh, in which pots, from which jars. Agreed to, the stock is promised. */
@Component({
  selector: 'vs-new-lot',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote, Swatch, ThenAndNow],
  template: `
    <div class="head"><h1>{{ again() ? 'Dye again' : 'A new lot' }}@if (proposal()?.then; as then) { <span class="soft"> · after {{ then.tag }}</span> }</h1></div>
    @if (colourways.value(); as all) {
      @if (all.length === 0) { <div class="empty"><p>A lot is dyed in a colourway, and none has been named yet.</p><a class="act main" routerLink="/colourways/new">Name a colourway</a></div> }
      <form (ngSubmit)="agree()">
        <div class="fields ask">
          <mat-form-field><mat-label>Colourway</mat-label><select matNativeControl name="colourway" [(ngModel)]="colourwayId" [disabled]="!!again()"><option value=""></option>@for (c of all; track c.id) { <option [value]="c.id">{{ c.name }}</option> }</select></mat-form-field>
          <mat-form-field><mat-label>How many, of what dry weight</mat-label><input matInput name="written" [(ngModel)]="written" autocomplete="off" placeholder="12 hanks of 8 oz, or 2.4 kg"></mat-form-field>
          <mat-form-field><mat-label>Water</mat-label><select matNativeControl name="water" [(ngModel)]="waterId"><option value="">not said</option>@for (w of studio.value()?.waters; track w.id) { <option [value]="w.id">{{ w.name }}{{ w.ph === null ? '' : ', pH ' + w.ph }}</option> }</select></mat-form-field>
          @if (versionChoice(); as choice) {
            <mat-form-field><mat-label>Recipe version</mat-label><select matNativeControl name="version" [(ngModel)]="recipeVersionId"><option [value]="choice.now.id">as now, version {{ choice.now.number }}</option><option [value]="choice.then.id">as then, version {{ choice.then.number }}</option></select></mat-form-field>
          }
        </div>
        @if (studio.value(); as s) {
          <details><summary>Pots that may be used: {{ s.vessels.length - without().length }} of {{ s.vessels.length }}</summary>
            @for (v of s.vessels; track v.id) { <label class="tick"><input type="checkbox" [checked]="!without().includes(v.id)" (change)="toggleVessel(v.id)"> {{ v.name }}, {{ v.metal }}, {{ v.workingMl / 1000 }} l</label> }
          </details>
        }
        <vs-refusal [problem]="refusal()" />
        @if (proposal(); as p) {
          <p class="echo"><strong>{{ p.understoodAs }}</strong> · <a [routerLink]="['/recipes', p.recipe.versionId]">{{ p.recipe.name }}, version {{ p.recipe.number }}</a> <span class="state" [class.strong]="p.recipe.standing === 'proven'">{{ p.recipe.standing }}</span> @if (chosen(); as c) { <vs-swatch [lab]="c.master" [width]="2.6" label="master" /> }</p>
          @if (p.factors.length > 0) {
            <h2>Then and now</h2>
            <p>{{ differing(p) }}</p>
            <vs-then-and-now [factors]="p.factors" />
          }
          <h2>In the pots</h2>
          <table class="ledger"><thead><tr><th>Batch</th><th>Vessel</th><th class="number">Pieces</th><th class="number">Dry weight</th><th class="number">Liquor, 1:{{ p.plan.liquorRatio }}</th><th class="number">Fill</th></tr></thead><tbody>
            @for (b of p.plan.batches; track b.number) {
              <tr><td>{{ b.number }}</td><td>{{ b.vesselName }} <span class="soft small">{{ b.metal }}</span></td><td class="number">{{ b.pieces }}</td>
                <td class="number"><vs-figure [figure]="b.wof" [name]="'dry weight, batch ' + b.number" /></td><td class="number"><vs-figure [figure]="b.liquor" [name]="'liquor, batch ' + b.number" /></td><td class="number"><vs-figure [figure]="b.fill" [name]="'fill of ' + b.vesselName" /></td></tr>
            }
          </tbody></table>
          <h2>To weigh out</h2>
          <div class="scroller"><table class="ledger"><thead><tr><th>Material</th><th class="number">All</th>@for (b of p.plan.batches; track b.number) { <th class="number">Batch {{ b.number }}</th> }<th>From</th></tr></thead><tbody>
            @for (m of p.plan.materials; track m.materialId) {
              <tr [class.mark]="m.shortMg > 0"><td>{{ m.name }}</td><td class="number"><strong><vs-figure [figure]="m.total" [name]="m.name" /></strong></td>
                @for (b of p.plan.batches; track b.number) { <td class="number">@for (w of weighingsOf(p, m.materialId, b.number); track $index) { <vs-figure [figure]="w.target" [name]="m.name + ', batch ' + b.number" /> }</td> }
                <td>@for (pick of m.picks; track pick.stockLotId) { <span class="jar"><strong>{{ tagOf(p, pick.stockLotId) }}</strong> {{ amount(pick.amountMg) }}</span> }@if (m.shortMg > 0) { <span class="jar short">short {{ amount(m.shortMg) }}</span> }</td></tr>
            }
          </tbody></table></div>
          @if (short(p); as words) { <label class="tick"><input type="checkbox" name="short" [(ngModel)]="acceptShortages"> Go on with the shortage: {{ words }}. It is bought or gathered before it is weighed out.</label> }
          <mat-form-field><mat-label>Note: for whom, by when</mat-label><input matInput name="note" [(ngModel)]="note"></mat-form-field>
          <vs-refusal [problem]="action.problem()" />
          <div class="actions"><button class="act main" type="submit" [disabled]="action.busy() || (short(p) !== '' && !acceptShortages())">Agree, and promise the stock</button></div>
        } @else if (!refusal()) { <p class="soft">Choose a colourway and write how much: what to weigh, in which pots and from which jars is worked out here.</p> }
      </form>
    }`,
  styles: `form { max-width: none; } .ask { max-width: 60rem; } summary { min-height: 44px; line-height: 44px; cursor: pointer; } .echo { font-size: 1.1rem; max-width: none; } .jar { white-space: nowrap; margin-right: 0.9rem; } .short { font-weight: 700; text-decoration: underline wavy; }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewLotPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly margin = inject(Margin);
  private readonly changes = inject(LiveChanges);
  /** The colourway come from. */
  readonly colourway = input<string | undefined>(undefined);
  /** The released lot to dye again. */
  readonly again = input<string | undefined>(undefined);

  protected readonly action = doing();
  protected readonly colourways = live(['colourways', 'recipes'], () => this.api.get('/api/colourways'));
  protected readonly studio = live(['studio'], () => this.api.get('/api/studio'));
  private readonly earlier = live([], () => { const id = this.again(); return id ? this.api.get('/api/lots/{id}', { id }) : of(undefined); }, () => this.again());

  protected readonly colourwayId = linkedSignal(() => this.earlier.value()?.summary.colourway.id ?? this.colourway() ?? '');
  protected readonly written = linkedSignal(() => { const s = this.earlier.value()?.summary; return s ? `${s.pieces} x ${formatWeight(s.pieceWeightG)}` : ''; });
  protected readonly waterId = linkedSignal(() => this.earlier.value()?.water?.id ?? this.chosen()?.lastWaterId ?? '');
  protected readonly without = signal<readonly string[]>([]);
  protected readonly chosen = computed(() => this.colourways.value()?.find((c) => c.id === this.colourwayId()));
  protected readonly recipeVersionId = linkedSignal(() => this.chosen()?.recipe.versionId ?? '');
  protected readonly acceptShortages = signal(false);
  protected readonly note = signal('');
  protected readonly proposal = signal<Proposal | undefined>(undefined);
  protected readonly refusal = signal<ShownProblem | undefined>(undefined);
  private lotId = newId();

  private readonly ask = computed<ProposalAsk | undefined>(() => {
    const studio = this.studio.value();
    if (this.colourwayId() === '' || this.written().trim() === '' || !studio || (this.again() && !this.earlier.value())) return undefined;
    const vesselIds = this.without().length === 0 ? undefined : studio.vessels.map((v) => v.id).filter((id) => !this.without().includes(id));
    return { colourwayId: this.colourwayId(), written: this.written(), waterId: this.waterId() || null, reorderOfId: this.again() ?? null, ...(vesselIds ? { vesselIds } : {}), ...(this.recipeVersionId() ? { recipeVersionId: this.recipeVersionId() } : {}) };
  });

  constructor() {
    merge(toObservable(this.ask), this.changes.listen(['stores', 'studio', 'colourways'])).pipe(
      debounceTime(TYPING_MS),
      switchMap(() => this.propose()),
      takeUntilDestroyed(),
    ).subscribe((p) => this.proposal.set(p));
    effect(() => {
      const p = this.proposal();
      this.margin.notes.set(p && p.plan.cautions.length > 0 ? [{ title: 'Before you agree', lines: p.plan.cautions }] : []);
    });
  }

  private propose() {
    const ask = this.ask();
    this.refusal.set(undefined);
    if (!ask) return of(undefined);
    return this.api.post('/api/lots/proposal', ask).pipe(catchError((p: ShownProblem) => {
      this.refusal.set(p);
      return of(undefined);
    }));
  }

  protected readonly versionChoice = computed(() => {
    const then = this.proposal()?.then ?? null;
    const now = this.chosen()?.recipe;
    return then && now && then.recipeVersionId !== now.versionId ? { then: { id: then.recipeVersionId, number: then.recipeNumber }, now: { id: now.versionId, number: now.number } } : undefined;
  });

  protected toggleVessel(id: string): void {
    this.without.update((now) => (now.includes(id) ? now.filter((v) => v !== id) : [...now, id]));
  }

  protected agree(): void {
    const p = this.proposal();
    const ask = this.ask();
    if (!p || !ask) return;
    this.action.run(this.api.post('/api/lots', { id: this.lotId, ask, digest: p.digest, acceptShortages: this.acceptShortages(), note: this.note() }), ({ id }) => void this.router.navigate(['/lots', id]));
  }

  protected readonly amount = (mg: number): string => formatAmount(mg, 'weight');
  protected readonly tagOf = (p: Proposal, id: string | null): string => p.jars.find((j) => j.id === id)?.tag ?? '';
  protected readonly weighingsOf = (p: Proposal, materialId: string, batch: number) => p.plan.steps.flatMap((s) => s.weighings).filter((w) => w.materialId === materialId && w.batch === batch);
  protected readonly short = (p: Proposal): string => p.plan.materials.filter((m) => m.shortMg > 0).map((m) => `${formatAmount(m.shortMg, 'weight')} of ${m.name}`).join(', ');
  protected readonly differing = (p: Proposal): string => {
    const names = p.factors.filter((f) => !f.same).map((f) => f.name.toLowerCase());
    return names.length === 0 ? 'Everything is as it was then.' : `Not as it was then: ${names.join(', ')}.`;
  };
}

import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { LotExtras, Proposal, ProposalAsk, Studio } from '@vestigia/contract';
import { INTAKE_FLAG_WORDS, formatAmount, formatWeight, sayCourse, sayMinutes } from '@vestigia/core';
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
import { StepBaths } from '../../ui/step-baths';
import { ThenAndNow } from '../../ui/then-and-now';
import { LotChecks, mayGoOn } from './lot-checks';
import { LotExtrasForm } from './lot-extras';
import { LotWeighings } from './lot-weighings';

const TYPING_MS = 250;
const NOTHING_MORE: LotExtras = { also: [], intake: { flags: [], syntheticPercent: null }, schools: [] };

/** From a colourway and a size to a lot: what to weigh, in which pots, from which jars. Agreed to, the stock is promised. */
@Component({
  selector: 'vs-new-lot',
  imports: [
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FigureValue,
    LotChecks,
    LotExtrasForm,
    LotWeighings,
    RefusalNote,
    StepBaths,
    Swatch,
    ThenAndNow,
  ],
  template: ` <div class="head">
      <h1>
        {{ again() ? 'Dye again' : 'A new lot' }}
        @if (proposal()?.then; as then) {
          <span class="soft"> · after {{ then.tag }}</span>
        }
      </h1>
    </div>
    @if (colourways.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p>A lot is dyed in a colourway, and none has been named yet.</p>
          <a class="act main" routerLink="/colourways/new">Name a colourway</a>
        </div>
      }
      <form (ngSubmit)="agree()">
        <div class="fields ask">
          <mat-form-field
            ><mat-label>Colourway</mat-label
            ><select matNativeControl name="colourway" [(ngModel)]="colourwayId" [disabled]="!!again()">
              <option value=""></option>
              @for (c of all; track c.id) {
                <option [value]="c.id">{{ c.name }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>How many, of what dry weight</mat-label
            ><input
              matInput
              name="written"
              [(ngModel)]="written"
              autocomplete="off"
              placeholder="12 hanks of 8 oz, or 2.4 kg"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Water</mat-label
            ><select matNativeControl name="water" [(ngModel)]="waterId">
              <option value="">not said</option>
              @for (w of studio.value()?.waters; track w.id) {
                <option [value]="w.id">{{ w.name }}{{ w.ph === null ? '' : ', pH ' + w.ph }}</option>
              }
            </select></mat-form-field
          >
          @if (versionChoice(); as choice) {
            <mat-form-field
              ><mat-label>Recipe version</mat-label
              ><select matNativeControl name="version" [(ngModel)]="recipeVersionId">
                <option [value]="choice.now.id">as now, version {{ choice.now.number }}</option>
                <option [value]="choice.then.id">as then, version {{ choice.then.number }}</option>
              </select></mat-form-field
            >
          }
        </div>
        @if (studio.value(); as s) {
          <details class="more">
            <summary>{{ moreWords(s) }}</summary>
            <fieldset>
              <legend>Pots that may be used</legend>
              @for (v of s.vessels; track v.id) {
                <label class="tick"
                  ><input type="checkbox" [checked]="!without().includes(v.id)" (change)="toggleVessel(v.id)" />
                  {{ v.name }}, {{ v.metal }}, {{ v.workingMl / 1000 }} l</label
                >
              }
            </fieldset>
            <vs-lot-extras [(extras)]="extras" [bases]="bases()" />
          </details>
        }
        <vs-refusal [problem]="refusal()" />
        @if (ways().length > 0) {
          <p>Ways out:</p>
          <ul class="ways">
            @for (w of ways(); track w.code) {
              <li>
                {{ w.sentence }}
                @if (w.liquorRatio) {
                  <button class="act" type="button" (click)="takeWay(w)">Plan it at 1:{{ w.liquorRatio }}</button>
                } @else if (w.runs) {
                  <button class="act" type="button" (click)="takeWay(w)">Plan two runs</button>
                }
              </li>
            }
          </ul>
        }
        @if (extras().liquorRatio || extras().runs) {
          <p>
            <strong
              >{{ extras().liquorRatio ? 'Planned at 1:' + extras().liquorRatio : 'Planned in two runs' }}.</strong
            >
            <button class="plain" type="button" (click)="takeWay({})">Plan it as the recipe says</button>
          </p>
        }
        @if (proposal(); as p) {
          <p class="echo">
            <strong>{{ p.understoodAs }}</strong> ·
            <a [routerLink]="['/recipes', p.recipe.versionId]">{{ p.recipe.name }}, version {{ p.recipe.number }}</a>
            <span class="state" [class.strong]="p.recipe.standing === 'proven'">{{ p.recipe.standing }}</span>
            @if (chosen(); as c) {
              <vs-swatch [lab]="c.master" [width]="2.6" label="master" />
            }
          </p>
          @if (p.factors.length > 0) {
            <h2>Then and now</h2>
            <p>{{ differing(p) }}</p>
            <vs-then-and-now [factors]="p.factors" />
          }
          @if (p.shades.length > 1) {
            <div class="mounts">
              @for (s of p.shades; track s.baseMaterialId) {
                <figure>
                  <vs-swatch [lab]="s" [width]="5" [label]="'expected on ' + s.base" />
                  <figcaption>expected on {{ s.base }}</figcaption>
                </figure>
              }
            </div>
          }
          @if (p.schools.length > 0) {
            <p class="small">Otherwise than the house: {{ p.schools.join(' ') }}</p>
          }
          <h2>In the pots</h2>
          <table class="ledger pots">
            <thead>
              <tr>
                <th>Batch</th>
                <th>Vessel</th>
                <th>Pieces</th>
                <th class="number">Dry weight</th>
                <th class="number">Liquor, 1:{{ p.plan.liquorRatio }}</th>
                <th class="number">Fill</th>
              </tr>
            </thead>
            <tbody>
              @for (b of p.plan.batches; track b.number) {
                <tr>
                  <td>{{ b.number }}</td>
                  <td>
                    {{ b.vesselName }}
                    <span class="soft small"
                      >{{ b.metal }}
                      @if (b.run > 1) {
                        , second run
                      }
                    </span>
                  </td>
                  <td>{{ piecesIn(p, b) }}</td>
                  <td class="number"><vs-figure [figure]="b.wof" [name]="'dry weight, batch ' + b.number" /></td>
                  <td class="number"><vs-figure [figure]="b.liquor" [name]="'liquor, batch ' + b.number" /></td>
                  <td class="number"><vs-figure [figure]="b.fill" [name]="'fill of ' + b.vesselName" /></td>
                </tr>
              }
            </tbody>
          </table>
          <h2>To measure out</h2>
          <vs-lot-weighings [proposal]="p" />
          <details>
            <summary>Each bath: vessel, heat and weight</summary>
            @for (b of bathsOf(p); track b.title) {
              <h3>
                {{ b.title }}
                @if (b.forWhom) {
                  <span class="soft">, {{ b.forWhom }}</span>
                }
              </h3>
              <p class="small">{{ b.course }}</p>
              <vs-step-baths [baths]="b.baths" [currency]="studio.value()?.currency ?? ''" />
            }
          </details>
          @if (p.checks.length > 0) {
            <h2>Before it may start</h2>
            <vs-lot-checks [checks]="p.checks" [(reasons)]="reasons" />
          }
          @if (short(p); as words) {
            <label class="tick"
              ><input type="checkbox" name="short" [(ngModel)]="acceptShortages" /> Go on with the shortage:
              {{ words }}. It is bought or gathered before it is weighed out.</label
            >
          }
          <mat-form-field
            ><mat-label>Note: for whom, by when</mat-label><input matInput name="note" [(ngModel)]="note"
          /></mat-form-field>
          <vs-refusal [problem]="action.problem()" />
          <div class="actions">
            <button
              class="act main"
              type="submit"
              [disabled]="action.busy() || (short(p) !== '' && !acceptShortages()) || !goesOn(p)"
            >
              Agree, and promise the stock
            </button>
          </div>
        } @else if (!refusal()) {
          <p class="soft">
            Choose a colourway and write how much: what to weigh, in which pots and from which jars is worked out here.
          </p>
        }
      </form>
    }`,
  styles: `
    form {
      max-width: none;
    }
    .ask {
      max-width: 60rem;
    }
    .echo {
      font-size: 1.1rem;
      max-width: none;
    }
    .ways li {
      margin: 0.4rem 0;
    }
    .pots {
      max-width: 60rem;
    }
  `,
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
  private readonly earlier = live(
    [],
    () => {
      const id = this.again();
      return id ? this.api.get('/api/lots/{id}', { id }) : of(undefined);
    },
    () => this.again(),
  );

  protected readonly colourwayId = linkedSignal(
    () => this.earlier.value()?.summary.colourway.id ?? this.colourway() ?? '',
  );
  protected readonly written = linkedSignal(() => {
    const s = this.earlier.value()?.summary;
    return s ? `${s.pieces} x ${formatWeight(s.pieceWeightG)}` : '';
  });
  protected readonly waterId = linkedSignal(() => this.earlier.value()?.water?.id ?? this.chosen()?.lastWaterId ?? '');
  protected readonly without = signal<readonly string[]>([]);
  protected readonly chosen = computed(() => this.colourways.value()?.find((c) => c.id === this.colourwayId()));
  protected readonly recipeVersionId = linkedSignal(() => this.chosen()?.recipe.versionId ?? '');
  protected readonly acceptShortages = signal(false);
  protected readonly note = signal('');
  protected readonly extras = signal<LotExtras>(NOTHING_MORE);
  /** Why each caution is gone past, by its key. */
  protected readonly reasons = signal<Readonly<Record<string, string>>>({});
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly bases = computed(() =>
    (this.materials.value() ?? []).filter((m) => m.kind === 'fibre' && m.id !== this.chosen()?.base.id),
  );
  protected readonly ways = computed(() => this.refusal()?.ways ?? []);
  protected readonly proposal = signal<Proposal | undefined>(undefined);
  protected readonly refusal = signal<ShownProblem | undefined>(undefined);
  private lotId = newId();

  private readonly ask = computed<ProposalAsk | undefined>(() => {
    const studio = this.studio.value();
    if (this.colourwayId() === '' || this.written().trim() === '' || !studio || (this.again() && !this.earlier.value()))
      return undefined;
    const vesselIds =
      this.without().length === 0
        ? undefined
        : studio.vessels.map((v) => v.id).filter((id) => !this.without().includes(id));
    const { also, ...extras } = this.extras();
    return {
      colourwayId: this.colourwayId(),
      written: this.written(),
      waterId: this.waterId() || null,
      reorderOfId: this.again() ?? null,
      ...extras,
      also: also.filter((a) => a.baseId !== '' && a.written.trim() !== ''),
      ...(vesselIds ? { vesselIds } : {}),
      ...(this.recipeVersionId() ? { recipeVersionId: this.recipeVersionId() } : {}),
    };
  });

  constructor() {
    merge(toObservable(this.ask), this.changes.listen(['stores', 'studio', 'colourways']))
      .pipe(
        debounceTime(TYPING_MS),
        switchMap(() => this.propose()),
        takeUntilDestroyed(),
      )
      .subscribe((p) => this.proposal.set(p));
    effect(() => {
      const p = this.proposal();
      this.margin.notes.set(
        p && p.plan.cautions.length > 0 ? [{ title: 'Before you agree', lines: p.plan.cautions }] : [],
      );
    });
  }

  private propose() {
    const ask = this.ask();
    this.refusal.set(undefined);
    if (!ask) return of(undefined);
    return this.api.post('/api/lots/proposal', ask).pipe(
      catchError((p: ShownProblem) => {
        this.refusal.set(p);
        return of(undefined);
      }),
    );
  }

  protected readonly versionChoice = computed(() => {
    const then = this.proposal()?.then ?? null;
    const now = this.chosen()?.recipe;
    return then && now && then.recipeVersionId !== now.versionId
      ? {
          then: { id: then.recipeVersionId, number: then.recipeNumber },
          now: { id: now.versionId, number: now.number },
        }
      : undefined;
  });

  /** Everything that may be said beside, in one line. */
  protected moreWords(s: Studio): string {
    const { intake, also, schools } = this.extras();
    return [
      `Pots that may be used: ${s.vessels.length - this.without().length} of ${s.vessels.length}`,
      `at intake: ${intake.flags.length === 0 ? 'nothing to note' : intake.flags.map((f) => INTAKE_FLAG_WORDS[f]).join(', ')}`,
      also.length === 0 ? 'no other base' : `other bases: ${also.length}`,
      schools.length === 0 ? 'as proven' : `other schools: ${schools.length}`,
    ].join(' · ');
  }

  protected toggleVessel(id: string): void {
    this.without.update((now) => (now.includes(id) ? now.filter((v) => v !== id) : [...now, id]));
  }

  protected agree(): void {
    const p = this.proposal();
    const ask = this.ask();
    if (!p || !ask) return;
    this.action.run(
      this.api.post('/api/lots', {
        id: this.lotId,
        ask,
        digest: p.digest,
        acceptShortages: this.acceptShortages(),
        note: this.note(),
        acknowledged: p.checks.map((c) => ({ key: c.key, reason: this.reasons()[c.key] ?? '' })),
      }),
      ({ id }) => void this.router.navigate(['/lots', id]),
    );
  }

  protected takeWay(way: { liquorRatio?: number; runs?: number }): void {
    const { liquorRatio: _ratio, runs: _runs, ...rest } = this.extras();
    this.extras.set({
      ...rest,
      ...(way.liquorRatio ? { liquorRatio: way.liquorRatio } : {}),
      ...(way.runs ? { runs: way.runs } : {}),
    });
  }

  protected readonly goesOn = (p: Proposal): boolean => mayGoOn(p.checks, this.reasons());
  /** Steps that share a bath stand together: it is filled once. */
  protected readonly bathsOf = (p: Proposal) => {
    const filled = new Map<
      string,
      { titles: string[]; forWhom: string; course: string; baths: Proposal['plan']['steps'][number]['baths'] }
    >();
    for (const s of p.plan.steps.filter((o) => o.baths.length > 0)) {
      const key = JSON.stringify(s.baths);
      const said = `${s.title}: ${sayCourse(s) || sayMinutes(s.durationMin)}`;
      const before = filled.get(key);
      filled.set(key, {
        titles: [...(before?.titles ?? []), s.title],
        forWhom: s.forWhom,
        baths: s.baths,
        course: before ? `${before.course} · ${said}` : said,
      });
    }
    return [...filled.values()].map((b) => ({ ...b, title: b.titles.join(' → ') }));
  };
  protected readonly piecesIn = (p: Proposal, b: Proposal['plan']['batches'][number]): string => {
    if (p.plan.groups.length < 2) return String(b.pieces);
    return b.groups
      .map((part) => {
        const g = p.plan.groups.find((o) => o.key === part.key);
        return `${part.pieces} ${g?.baseName ?? ''}${g?.partName ? `, ${g.partName}` : ''}`;
      })
      .join(' · ');
  };
  protected readonly short = (p: Proposal): string =>
    p.plan.materials
      .filter((m) => m.short > 0)
      .map((m) => `${formatAmount(m.short, m.measure)} of ${m.name}`)
      .join(', ');
  protected readonly differing = (p: Proposal): string => {
    const names = p.factors.filter((f) => !f.same).map((f) => f.name.toLowerCase());
    return names.length === 0 ? 'Everything is as it was then.' : `Not as it was then: ${names.join(', ')}.`;
  };
}

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
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { RecipeVersionDetail } from '@vestigia/contract';
import type { LaidZone, Standing } from '@vestigia/core';
import {
  PRACTICE,
  STEP_PURPOSES,
  STRAIN_WORDS,
  ZONE_WORDS,
  followsWords,
  layOutPlaced,
  practiceChoice,
  sayCourse,
  sayDose,
  sayMinutes,
  stepMinutes,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import { PlacedPicture } from '../../ui/placed-picture';

type Step = RecipeVersionDetail['body']['steps'][number];

/** One recipe version, to read. It never changes; a new version is written instead. */
@Component({
  selector: 'vs-recipe',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, PlacedPicture, RefusalNote, Swatch, When],
  template: ` <vs-refusal [problem]="version.problem()" />
    @if (version.value(); as v) {
      <div class="head">
        <div>
          <h1>
            {{ v.recipe.name }} <span class="soft">version {{ v.number }}</span>
          </h1>
          <p class="soft">
            Written {{ v.at | when }} by {{ v.by.name }} ·
            <span class="state" [class.strong]="v.standing === 'proven'" [class.open]="v.standing === 'trial'">{{
              v.standing
            }}</span>
          </p>
        </div>
        <div class="actions">
          <a class="act" routerLink="/recipes/write" [queryParams]="{ from: v.id }">Write the next version</a>
        </div>
      </div>
      <p class="refs">
        <a [routerLink]="['/recipes', v.id, 'sheet']">A sheet to print</a
        ><a [href]="'/api/recipe-versions/' + v.id + '/file'" download>As a file</a
        ><a routerLink="/recipes/strips/new" [queryParams]="{ version: v.id }">Try strips with it</a>
        @if (earlier(); as e) {
          <a [routerLink]="['/recipes', v.id, 'compare']" [queryParams]="{ with: e.id }"
            >What changed since version {{ e.number }}</a
          >
        }
      </p>
      @if (v.recipe.versions.length > 1) {
        <p>
          Versions:
          @for (o of v.recipe.versions; track o.id) {
            <a [routerLink]="['/recipes', o.id]" [attr.aria-current]="o.id === v.id ? 'page' : null"
              >{{ o.number }} ({{ o.standing }})</a
            >&ngsp;
          }
        </p>
      }
      <dl class="facts">
        <dt>For</dt>
        <dd>{{ v.body.fibres.join(', ') }}</dd>
        <dt>Liquor ratio</dt>
        <dd>
          1:{{ v.body.liquorRatio }} (ml per g of fibre)
          @if (v.body.liquorRatioLeast) {
            , no shorter than 1:{{ v.body.liquorRatioLeast }}
          }
        </dd>
        <dt>Weighed within</dt>
        <dd>{{ v.body.weighWithinPercent }} % of each dose, or the balance’s step where that is more</dd>
        <dt>Pots of</dt>
        <dd>{{ v.body.allowedMetals.join(' or ') }}</dd>
        <dt>Water</dt>
        <dd>
          {{ v.body.water.asks }}
          @if (v.body.water.hardnessDh !== null) {
            , {{ v.body.water.hardnessDh }} °dH
          }
        </dd>
        @if (v.body.parts.length > 0) {
          <dt>Pieces part</dt>
          <dd>
            @for (p of v.body.parts; track p.key) {
              {{ p.name }} {{ p.sharePercent }} %&ngsp;
            }
          </dd>
        }
        @if (schools(v); as s) {
          <dt>School</dt>
          <dd>{{ s }}</dd>
        }
        @if (v.body.note) {
          <dt>Note</dt>
          <dd>{{ v.body.note }}</dd>
        }
      </dl>
      @for (d of v.differsFromHouse; track d) {
        <p class="small">Otherwise than the house. {{ d }}</p>
      }
      @if (v.body.expectedShades.length > 0) {
        <h2>What each base comes out as</h2>
        <div class="mounts">
          @for (e of v.body.expectedShades; track e.baseMaterialId) {
            <figure>
              <vs-swatch [lab]="e" [width]="6" [label]="nameOf(e.baseMaterialId)" />
              <figcaption>
                {{ nameOf(e.baseMaterialId) }}
                @if (e.note) {
                  <br />{{ e.note }}
                }
              </figcaption>
            </figure>
          }
        </div>
      }
      <h2>What goes in</h2>
      <table class="ledger doses">
        <tbody>
          @for (d of doses(); track $index) {
            <tr>
              <td>{{ d.name }}</td>
              <td>
                <strong>{{ d.words }}</strong>
              </td>
              <td class="small soft">{{ d.where }}</td>
            </tr>
          }
        </tbody>
      </table>
      <h2>What is done</h2>
      <ol class="steps">
        @for (s of v.body.steps; track $index; let i = $index) {
          <li>
            <h3>
              {{ s.title }} <span class="soft">{{ aside(v, s, i) }}</span>
            </h3>
            <p class="soft small">{{ purposes[s.kind] }}</p>
            <p class="when">
              @if (s.temperatureC !== undefined) {
                <strong>{{ s.temperatureC }} °C</strong>
              }
              @if (s.ceilingC !== undefined) {
                <span class="soft">never above {{ s.ceilingC }} °C</span>
              }
              <strong>{{ minutes(total(s)) }}</strong>
              <span class="soft"
                >{{ s.attended ? 'hands all the time' : 'waiting'
                }}{{
                  s.finishedBy === 'clock'
                    ? ''
                    : s.finishedBy === 'eye'
                      ? ', done by the eye'
                      : ', done by clock and eye'
                }}</span
              >
            </p>
            @if (course(s); as c) {
              <p>{{ c }}</p>
            }
            <p>{{ s.instruction }}</p>
            @if (s.doses.length > 0) {
              <p>
                @for (d of s.doses; track $index) {
                  <span class="dose">{{ nameOf(d.materialId) }} {{ doseWords(d) }}</span>
                }
              </p>
            }
            @if (s.lookFor) {
              <p class="soft">Look for: {{ s.lookFor }}</p>
            }
            @for (c of s.cautions; track c) {
              <p><strong>Take care:</strong> {{ c }}</p>
            }
          </li>
        }
      </ol>
      @if (v.body.placed; as p) {
        <h2>Where the colour goes</h2>
        <vs-placed-picture [plan]="p" />
        <table class="ledger">
          <thead>
            <tr>
              <th>Turn</th>
              <th>Zone</th>
              <th>How</th>
              <th class="number">From</th>
              <th class="number">To</th>
              <th class="number">a piece</th>
              <th class="number">Begins after</th>
              <th class="number">Takes</th>
            </tr>
          </thead>
          <tbody>
            @for (z of placedZones(); track $index) {
              <tr>
                <td>{{ z.order }}</td>
                <td>{{ z.title }}</td>
                <td>{{ howWords(z) }}</td>
                <td class="number">{{ z.fromCm }} cm</td>
                <td class="number">{{ z.toCm }} cm</td>
                <td class="number">{{ eachOf(z) }}</td>
                <td class="number">{{ minutes(z.startsMin) }}</td>
                <td class="number">{{ minutes(z.minutes + z.waitMin) }}</td>
              </tr>
            }
          </tbody>
        </table>
        <p><a class="act" [routerLink]="['/recipes', v.id, 'placed']">Lay it out at true scale</a></p>
      }
      <h2>What speaks for it</h2>
      <p>
        {{ v.evidence.lotsInTolerance }} lots and {{ v.evidence.proofsInTolerance }} proofs judged within tolerance;
        proven here wants {{ v.evidence.needed }}.
      </p>
      @if (v.lots.length + v.proofs.length > 0) {
        <table class="ledger short">
          <tbody>
            @for (l of v.lots; track l.id) {
              <tr>
                <td>
                  <a [routerLink]="['/lots', l.id]">{{ l.tag }}</a>
                </td>
                <td>{{ l.colourway }}</td>
                <td>{{ l.state }}</td>
                <td class="number">{{ l.deltaE === null ? '–' : 'ΔE00 ' + l.deltaE.toFixed(2) }}</td>
              </tr>
            }
            @for (p of v.proofs; track p.id) {
              <tr>
                <td>proof of {{ p.wofG }} g</td>
                <td>
                  {{ p.at | when }}, {{ p.by.name }}
                  @if (p.note) {
                    : {{ p.note }}
                  }
                </td>
                <td>{{ p.deltaE <= p.toleranceDeltaE ? 'within' : 'outside' }} {{ p.toleranceDeltaE }}</td>
                <td class="number">ΔE00 {{ p.deltaE.toFixed(2) }}</td>
              </tr>
            }
          </tbody>
        </table>
        @if (v.lots.length >= 12) {
          <p class="small">The newest twelve lots. <a routerLink="/lots">All lots</a></p>
        }
      }
      <details>
        <summary>Record a proof</summary>
        <form (ngSubmit)="prove()">
          <div class="fields">
            <mat-form-field
              ><mat-label>Dry weight of the proof, g</mat-label
              ><input matInput type="number" step="any" name="pw" [(ngModel)]="proof().wofG"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Read: L*</mat-label
              ><input matInput type="number" step="any" name="pL" [(ngModel)]="proof().L" /></mat-form-field
            ><mat-form-field
              ><mat-label>Read: a*</mat-label
              ><input matInput type="number" step="any" name="pa" [(ngModel)]="proof().a" /></mat-form-field
            ><mat-form-field
              ><mat-label>Read: b*</mat-label
              ><input matInput type="number" step="any" name="pb" [(ngModel)]="proof().b"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Wanted: L*</mat-label
              ><input matInput type="number" step="any" name="wL" [(ngModel)]="proof().wL" /></mat-form-field
            ><mat-form-field
              ><mat-label>Wanted: a*</mat-label
              ><input matInput type="number" step="any" name="wa" [(ngModel)]="proof().wa" /></mat-form-field
            ><mat-form-field
              ><mat-label>Wanted: b*</mat-label
              ><input matInput type="number" step="any" name="wb" [(ngModel)]="proof().wb"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Tolerance, ΔE00</mat-label
              ><input matInput type="number" step="any" name="pt" [(ngModel)]="proof().tolerance"
            /></mat-form-field>
            <mat-form-field class="wide"
              ><mat-label>Note on the proof</mat-label><input matInput name="pn" [(ngModel)]="proof().note"
            /></mat-form-field>
          </div>
          <vs-refusal [problem]="proving.problem()" /><button class="act" type="submit" [disabled]="proving.busy()">
            Write the proof down
          </button>
        </form>
      </details>
      @if (v.colourways.length > 0) {
        <h2>Colourways dyed with it</h2>
        <p class="refs">
          @for (c of v.colourways; track c.id) {
            <a [routerLink]="['/colourways', c.id]">{{ c.name }}</a>
          }
        </p>
      }
      <h2>Where it stands</h2>
      <form (ngSubmit)="stand()" class="fields">
        <mat-form-field
          ><mat-label>Standing</mat-label
          ><select matNativeControl name="standing" [(ngModel)]="standing">
            <option value="trial">trial</option>
            <option value="proof">proof</option>
            <option value="proven">proven</option>
            <option value="retired">retired</option>
          </select></mat-form-field
        >
        <mat-form-field><mat-label>Why</mat-label><input matInput name="reason" [(ngModel)]="reason" /></mat-form-field>
        <div><button class="act" type="submit" [disabled]="action.busy()">Say so</button></div>
      </form>
      <vs-refusal [problem]="action.problem()" />
    }`,
  styles: `
    .doses,
    .short {
      max-width: 46rem;
    }
    .steps {
      padding-left: 1.5rem;
    }
    .steps li {
      border-top: 1px solid var(--line);
      padding: 0.25rem 0 0.5rem 0.5rem;
    }
    .steps li::marker {
      font-weight: 800;
    }
    .steps p {
      margin: 0.15rem 0;
    }
    .when > * {
      margin-right: 0.75rem;
    }
    .dose {
      border: 1px solid var(--ink-soft);
      padding: 0.1rem 0.5rem;
      margin-right: 0.5rem;
    }
    .fields {
      align-items: start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipePage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  protected readonly version = live(
    ['recipes', 'colourways', 'lots'],
    () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly action = doing();
  protected readonly proving = doing();
  protected readonly standing = signal<Standing>('proof');
  protected readonly reason = signal('');
  protected readonly minutes = sayMinutes;
  protected readonly total = stepMinutes;
  protected readonly course = sayCourse;
  protected readonly purposes = STEP_PURPOSES;
  protected readonly doseWords = sayDose;
  protected readonly earlier = computed(() => {
    const v = this.version.value();
    return v?.recipe.versions.filter((o) => o.number < v.number).at(-1);
  });
  protected readonly placedZones = computed(() => {
    const p = this.version.value()?.body.placed;
    return p ? layOutPlaced(p, 1).zones : [];
  });
  /** Begins at the shade the version promises, where it says one. */
  protected readonly proof = linkedSignal(() => {
    const wanted = this.version.value()?.body.expectedShades[0];
    return {
      wofG: 20,
      L: null as number | null,
      a: null as number | null,
      b: null as number | null,
      wL: wanted?.L ?? null,
      wa: wanted?.a ?? null,
      wb: wanted?.b ?? null,
      tolerance: 2,
      note: '',
    };
  });

  protected readonly doses = computed(() =>
    (this.version.value()?.body.steps ?? []).flatMap((s) =>
      s.doses.map((d) => ({ name: this.nameOf(d.materialId), words: sayDose(d), where: `in “${s.title}”` })),
    ),
  );

  constructor() {
    effect(() => {
      const v = this.version.value();
      this.margin.notes.set(
        v
          ? [
              {
                title: 'History',
                lines: v.standings.map(
                  (s) =>
                    `${new Date(s.at).toLocaleDateString('en-GB')}: ${s.standing}, said ${s.by.name}${s.reason ? `. ${s.reason}` : ''}`,
                ),
              },
            ]
          : [],
      );
    });
  }

  protected readonly eachOf = (z: LaidZone): string =>
    [z.mlPerPiece === null ? '' : `${z.mlPerPiece} ml`, z.gPerPiece ? `${z.gPerPiece} g` : '']
      .filter((w) => w !== '')
      .join(', ') || '–';

  protected howWords(z: LaidZone): string {
    const points =
      z.pointsCm.length === 0
        ? ''
        : `${z.pointsCm.length} of them${z.spacingCm ? `, about every ${z.spacingCm} cm` : ''}`;
    return [ZONE_WORDS[z.way], points, z.materialId ? this.nameOf(z.materialId) : '']
      .filter((w) => w !== '')
      .join(', ');
  }

  protected nameOf(id: string): string {
    return this.version.value()?.materials.find((m) => m.id === id)?.name ?? '';
  }

  protected aside(v: RecipeVersionDetail, s: Step, index: number): string {
    const parts = s.parts.map((key) => v.body.parts.find((p) => p.key === key)?.name ?? key);
    return [
      [...s.fibres, ...parts].join(', '),
      followsWords(v.body.steps, index),
      s.bath === '' ? '' : `bath: ${s.bath}`,
      s.repeats > 1 ? `${s.repeats} times` : '',
      s.strain ? STRAIN_WORDS[s.strain] : '',
      s.targetPh ? `pH ${s.targetPh.low} to ${s.targetPh.high}` : '',
      s.wait
        ? `then waits ${sayMinutes(s.wait.leastMin)}${s.wait.mostMin === null ? ' or longer' : ` to ${sayMinutes(s.wait.mostMin)}`}`
        : '',
    ]
      .filter((w) => w !== '')
      .join(' · ');
  }

  protected readonly schools = (v: RecipeVersionDetail): string =>
    PRACTICE.flatMap((q) => practiceChoice(q.key, v.body.practice[q.key])?.words ?? []).join(' · ');

  protected stand(): void {
    this.action.run(
      this.api.post(
        '/api/recipe-versions/{id}/standings',
        { id: newId(), standing: this.standing(), reason: this.reason() },
        this.id(),
      ),
      () => this.version.reload(),
    );
  }

  protected prove(): void {
    const p = this.proof();
    const lab = (L: number | null, a: number | null, b: number | null) => ({
      L: L as number,
      a: a as number,
      b: b as number,
    });
    const body = {
      id: newId(),
      wofG: p.wofG,
      illuminant: 'D65' as const,
      observer: '10' as const,
      lab: lab(p.L, p.a, p.b),
      wanted: lab(p.wL, p.wa, p.wb),
      toleranceDeltaE: p.tolerance,
      note: p.note,
    };
    this.proving.run(this.api.post('/api/recipe-versions/{id}/proofs', body, this.id()), () => this.version.reload());
  }
}

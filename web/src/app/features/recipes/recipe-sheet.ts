import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  STEP_KIND_WORDS,
  STRAIN_WORDS,
  followsWords,
  sayCourse,
  sayDose,
  sayMinutes,
  stepMinutes,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { PlacedPicture } from '../../ui/placed-picture';

/** A recipe version as a sheet to print and hang by the pot. */
@Component({
  selector: 'vs-recipe-sheet',
  imports: [RouterLink, PlacedPicture, RefusalNote, When],
  template: ` <vs-refusal [problem]="version.problem()" />
    @if (version.value(); as v) {
      <div class="noprint actions">
        <button class="act main" type="button" (click)="print()">Print it</button
        ><a class="act" [routerLink]="['/recipes', v.id]">Back to the recipe</a>
      </div>
      <article>
        <h1>{{ v.recipe.name }} · version {{ v.number }}</h1>
        <p>
          {{ v.standing }} · written {{ v.at | when }} by {{ v.by.name }} · for {{ v.body.fibres.join(', ') }} · 1:{{
            v.body.liquorRatio
          }}
          · pots of {{ v.body.allowedMetals.join(' or ') }} · water: {{ v.body.water.asks }}
        </p>
        @if (v.body.note) {
          <p>{{ v.body.note }}</p>
        }
        <table class="ledger">
          <thead>
            <tr>
              <th></th>
              <th>Step</th>
              <th>Goes in</th>
              <th>Heat and time</th>
              <th>Look for</th>
            </tr>
          </thead>
          <tbody>
            @for (s of steps(); track $index) {
              <tr>
                <td>{{ $index + 1 }}</td>
                <td>
                  <strong>{{ s.title }}</strong>
                  <span class="soft small"
                    >{{ s.kind }}
                    @if (s.aside) {
                      · {{ s.aside }}
                    }</span
                  ><br />{{ s.instruction }}
                </td>
                <td>
                  @for (d of s.doses; track d) {
                    {{ d }}<br />
                  }
                </td>
                <td>{{ s.heat }}</td>
                <td>
                  {{ s.lookFor }}
                  @for (c of s.cautions; track c) {
                    <br /><strong>{{ c }}</strong>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
        @if (v.body.placed; as p) {
          <h2>Where the colour goes</h2>
          <vs-placed-picture [plan]="p" />
        }
        <p class="small">
          Gloves and mask with powders; the supplier’s safety data sheet and local rules decide. Pots and spoons never
          for food again.
        </p>
      </article>
    }`,
  styles: `
    article {
      background: var(--raised);
      padding: 1rem 1.25rem;
    }
    td {
      min-width: 2rem;
    }
    @media print {
      article {
        padding: 0;
      }
      tr {
        break-inside: avoid;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipeSheetPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly version = live(
    ['recipes'],
    () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly steps = computed(() => {
    const v = this.version.value();
    return (v?.body.steps ?? []).map((s, i) => ({
      title: s.title,
      kind: STEP_KIND_WORDS[s.kind],
      instruction: s.instruction,
      lookFor: s.lookFor,
      cautions: s.cautions,
      aside: [
        [...s.fibres, ...s.parts.map((k) => v?.body.parts.find((p) => p.key === k)?.name ?? k)].join(', '),
        followsWords(v?.body.steps ?? [], i),
        s.strain ? STRAIN_WORDS[s.strain] : '',
      ]
        .filter((w) => w !== '')
        .join(' · '),
      doses: s.doses.map((d) => `${v?.materials.find((m) => m.id === d.materialId)?.name ?? ''} ${sayDose(d)}`),
      heat: [
        sayCourse(s) ||
          [s.temperatureC === undefined ? '' : `${s.temperatureC} °C`, sayMinutes(stepMinutes(s))]
            .filter((w) => w !== '')
            .join(', '),
        s.ceilingC === undefined ? '' : `never above ${s.ceilingC} °C`,
      ]
        .filter((w) => w !== '')
        .join('; '),
    }));
  });

  protected print(): void {
    window.print();
  }
}

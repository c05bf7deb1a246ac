import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  formatTemperature,
  STEP_KIND_LABELS,
  STRAIN_LABELS,
  followsLabel,
  sayCourse,
  sayDose,
  sayMinutes,
  stepMinutes,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { PlacedPicture } from '../../ui/placed-picture';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { ActBar } from '../../ui/act-bar';
import { Said } from '../../ui/said';

/** A recipe version as a sheet to print and hang by the pot. */
@Component({
  selector: 'vs-recipe-sheet',
  imports: [Said, ActBar, ScrollRegion, RouterLink, PlacedPicture, RefusalNote, When],
  templateUrl: './recipe-sheet.html',
  styles: `
    article {
      background: var(--raised);
      padding: 1rem 1.25rem;
    }
    tbody tr > * {
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
  /** What its template says by what holds. */
  protected readonly says = {
    or: $localize` or `,
  };

  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly version = liveQuery(
    ['recipes'],
    () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly steps = computed(() => {
    const v = this.version.value();
    return (v?.body.steps ?? []).map((s, i) => ({
      title: s.title,
      kind: STEP_KIND_LABELS[s.kind],
      instruction: s.instruction,
      lookFor: s.lookFor,
      cautions: s.cautions,
      aside: [
        [...s.fibres, ...s.parts.map((k) => v?.body.parts.find((p) => p.key === k)?.name ?? k)].join(', '),
        followsLabel(v?.body.steps ?? [], i),
        s.strain ? STRAIN_LABELS[s.strain] : '',
      ]
        .filter((w) => w !== '')
        .join(' · '),
      doses: s.doses.map((d) => `${v?.materials.find((m) => m.id === d.materialId)?.name ?? ''} ${sayDose(d)}`),
      heat: [
        sayCourse(s) ||
          [s.temperatureC === undefined ? '' : `${formatTemperature(s.temperatureC)}`, sayMinutes(stepMinutes(s))]
            .filter((w) => w !== '')
            .join(', '),
        s.ceilingC === undefined ? '' : $localize`never above ${formatTemperature(s.ceilingC)}`,
      ]
        .filter((w) => w !== '')
        .join('; '),
    }));
  });

  constructor() {
    namesPage(() => {
      const v = this.version.value();
      return v && $localize`${v.recipe.name} · version ${v.number}`;
    });
  }

  protected print(): void {
    window.print();
  }
}

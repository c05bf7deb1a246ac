import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { KnownColour } from '@vestigia/contract';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { Swatch } from './swatch';

/** Where each colour is told. */
export const linkToColour = ({ kind, id }: Pick<KnownColour, 'kind' | 'id'>): readonly string[] =>
  ({
    lot: ['/lots', id],
    colourway: ['/colourways', id],
    swatch: ['/judge/book'],
    strip: ['/recipes/strips', id],
  })[kind];

const SHOWN = 24;

/** What something gave: lots, snippets and strips of a material, a base, a jar or a recipe, newest first. */
@Component({
  selector: 'vs-colours-given',
  imports: [RouterLink, Swatch],
  template: `@if (shown().length > 0) {
    <h2>{{ heading() }}</h2>
    <div class="mounts">
      @for (c of shown(); track $index) {
        <figure>
          <vs-swatch [lab]="c.lab" [width]="4" [label]="c.title + ', ' + c.detail" />
          <figcaption>
            <a [routerLink]="link(c)" [queryParams]="c.kind === 'swatch' ? { find: c.title } : {}">{{
              c.title
            }}</a><br />{{ c.detail }}
          </figcaption>
        </figure>
      }
    </div>
    @if (more() > 0) {
      <p i18n class="small">And {{ more() }} more.</p>
    }
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColoursGiven {
  private readonly api = inject(ApiClient);
  readonly of = input.required<{ materialId: string } | { stockLotId: string } | { recipeVersionId: string }>();
  readonly heading = input($localize`What it gave`);
  protected readonly link = linkToColour;
  private readonly colours = liveQuery(
    ['lots', 'swatches'],
    () => this.api.get('/api/colours', { query: { ...this.of() } }),
    () => Object.values(this.of()).join(' '),
  );
  protected readonly shown = computed(() => (this.colours.value() ?? []).slice(0, SHOWN));
  protected readonly more = computed(() => Math.max(0, (this.colours.value() ?? []).length - SHOWN));
}

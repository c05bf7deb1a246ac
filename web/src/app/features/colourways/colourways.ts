import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';

/** Every colourway beside its master swatch. */
@Component({
  selector: 'vs-colourways',
  imports: [RouterLink, RefusalNote, Swatch],
  template: ` <div class="head">
      <h1>Colourways</h1>
      <div class="actions"><a class="act" routerLink="/colourways/new">Name a colourway</a></div>
    </div>
    <vs-refusal [problem]="colourways.problem()" />
    @if (colourways.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p>
            A result worth repeating gets a name: which recipe version, on which base, how it must look and how far it
            may stray.
          </p>
          <a class="act main" routerLink="/colourways/new">Name a colourway</a>
        </div>
      } @else {
        <div class="scroller">
          <table class="ledger">
            <thead>
              <tr>
                <th>Master</th>
                <th>Colourway</th>
                <th>Base</th>
                <th>Recipe</th>
                <th class="number">Tolerance ΔE<sub>00</sub></th>
                <th class="number">Lots</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              @for (c of all; track c.id) {
                <tr>
                  <td><vs-swatch [lab]="c.master" [width]="3.4" [label]="c.name" /></td>
                  <td>
                    <a [routerLink]="['/colourways', c.id]"
                      ><strong>{{ c.name }}</strong></a
                    ><br /><span class="small soft">{{ c.note }}</span>
                  </td>
                  <td>{{ c.base.name }}</td>
                  <td>
                    <a [routerLink]="['/recipes', c.recipe.versionId]">{{ c.recipe.name }}</a
                    >, version {{ c.recipe.number }}
                    <span class="state" [class.strong]="c.recipe.standing === 'proven'">{{ c.recipe.standing }}</span>
                  </td>
                  <td class="number">{{ c.toleranceDeltaE }}</td>
                  <td class="number">
                    {{ c.lots }}<br /><span class="small soft">{{ c.released }} released</span>
                  </td>
                  <td><a class="act" routerLink="/lots/new" [queryParams]="{ colourway: c.id }">Dye a lot</a></td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourwaysPage {
  private readonly api = inject(ApiClient);
  protected readonly colourways = live(['colourways', 'lots'], () => this.api.get('/api/colourways'));
}

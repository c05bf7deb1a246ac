import { ChangeDetectionStrategy, Component, effect, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { HAZARD_WORDS, formatMoney } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { House } from '../../api/house';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { Amount } from '../../ui/amount';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { JarCount } from './jar-count';
import { JarLabel } from './jar-label';
import { JarLedger } from './jar-ledger';
import { JarLiquor } from './jar-liquor';
import { JarTake } from './jar-take';
import { TracePicture } from './trace-picture';

/** One jar: what is in it, how it got there, where it went. */
@Component({
  selector: 'vs-jar',
  imports: [RouterLink, Amount, RefusalNote, When, JarCount, JarTake, JarLabel, JarLedger, JarLiquor, TracePicture],
  providers: [House],
  template: ` <vs-refusal [problem]="jar.problem()" />
    @if (jar.value(); as j) {
      <div class="head">
        <div>
          <h1>{{ j.row.tag }} · {{ j.row.material }}</h1>
          <p class="soft">
            {{ j.row.kind }}{{ j.row.form ? ', ' + j.row.form : '' }}, {{ j.row.source || 'source not noted' }}, since
            {{ j.row.receivedOn | when }}
          </p>
        </div>
        <div class="actions">
          <a class="act" [routerLink]="['/stores', j.row.id, 'label']">Label</a
          ><a class="act" [routerLink]="['/stores/materials', j.row.materialId]">Material</a
          ><a class="act" routerLink="/stores/convert" [queryParams]="{ jar: j.row.id }">Change its form</a>
        </div>
      </div>
      <dl class="sums">
        <div>
          <dt>On hand</dt>
          <dd>{{ j.row.onHand | amount: j.row.measure }}</dd>
        </div>
        <div>
          <dt>Promised</dt>
          <dd>{{ j.row.promised | amount: j.row.measure }}</dd>
        </div>
        <div>
          <dt>Free</dt>
          <dd>{{ j.row.free | amount: j.row.measure }}</dd>
        </div>
        @if (!j.liquor) {
          <div class="small">
            <dt>Strength</dt>
            <dd>
              {{
                j.facts.reference
                  ? 'the reference'
                  : j.facts.strengthPercent === null
                    ? 'unknown until tested'
                    : j.facts.strengthPercent + ' %'
              }}
            </dd>
          </div>
        }
        <div class="small">
          <dt>Cost</dt>
          <dd>{{ j.costMinor === null ? 'none noted' : money(j.costMinor, j.currency) }}</dd>
        </div>
      </dl>
      @if (j.row.free < 0) {
        <p class="refusal">Promised more than there is. Book in a delivery before those lots are weighed out.</p>
      }
      @if (j.facts.gathering; as g) {
        <p class="small">
          Gathered by leave of {{ g.permission }}. {{ g.sharePercent }} % of the stand taken{{
            g.note ? '. ' + g.note : ''
          }}
        </p>
      }

      @if (j.liquor) {
        <vs-jar-liquor [jar]="j" (changed)="jar.reload()" />
      }
      <vs-jar-count [jar]="j" (changed)="jar.reload()" />
      <vs-jar-take [jar]="j" (changed)="jar.reload()" />
      <h2>Where it came from and went</h2>
      <vs-trace-picture [jar]="j" />
      <vs-jar-ledger [jar]="j" (changed)="jar.reload()" />
      @if (j.promises.length > 0) {
        <h2>Promised to</h2>
        <table class="ledger">
          <tbody>
            @for (p of j.promises; track p.lot.id) {
              <tr>
                <td>
                  <a [routerLink]="['/lots', p.lot.id]"
                    ><strong>{{ p.lot.tag }}</strong></a
                  >
                </td>
                <td class="number">{{ p.amount | amount: j.row.measure }}</td>
              </tr>
            }
          </tbody>
        </table>
      }
      <vs-jar-label [jar]="j" (changed)="jar.reload()" />
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JarPage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  protected readonly jar = live(
    ['stores'],
    () => this.api.get('/api/stock-lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly money = formatMoney;

  constructor() {
    effect(() => {
      const hazards = this.jar.value()?.row.hazards ?? [];
      this.margin.notes.set(
        hazards.length === 0
          ? []
          : [
              {
                title: 'Handle with care',
                lines: [
                  ...hazards.map((h) => `${HAZARD_WORDS[h]}.`),
                  'The supplier’s safety data sheet says what protection it needs; it is kept with the material.',
                ],
              },
            ],
      );
    });
  }
}

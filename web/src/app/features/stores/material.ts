import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { MaterialPage } from '@vestigia/contract';
import { HAZARD_WORDS, MATERIAL_KIND_WORDS, formatMoney } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { Amount } from '../../ui/amount';
import { Chart } from '../../ui/chart';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { MaterialFactsForm } from './material-facts-form';
import { onHandPicture } from './on-hand-picture';
import { sayRunOut } from './run-out-words';
import { TeachSpoon } from './teach-spoon';

const SEASON = new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' });
const monthName = (month: number): string => SEASON.format(new Date(Date.UTC(2000, month - 1, 1)));

/** One material: what it is, how much there is and for how long, its spoons, its safety sheet, its worth. */
@Component({
  selector: 'vs-material-page',
  imports: [RouterLink, Amount, Chart, FigureValue, MaterialFactsForm, RefusalNote, TeachSpoon, When],
  template: ` <vs-refusal [problem]="page.problem()" />
    @if (page.value(); as p) {
      <div class="head">
        <div>
          <h1>{{ p.material.name }}</h1>
          <p class="soft">
            {{ kinds[p.material.kind] }}{{ p.material.facts.botanicalName ? ', ' : ''
            }}<em>{{ p.material.facts.botanicalName }}</em
            >{{ p.material.facts.plantPart ? ', ' + p.material.facts.plantPart : '' }}
          </p>
        </div>
        <div class="actions">
          <a class="act main" routerLink="/stores/delivery" [queryParams]="{ material: p.material.id }">Book in</a>
        </div>
      </div>
      <dl class="sums">
        <div>
          <dt>On hand</dt>
          <dd>{{ p.ahead.onHand | amount: p.material.measure }}</dd>
        </div>
        <div>
          <dt>Promised</dt>
          <dd>{{ p.ahead.promised | amount: p.material.measure }}</dd>
        </div>
        <div>
          <dt>Free</dt>
          <dd>{{ p.ahead.free | amount: p.material.measure }}</dd>
        </div>
        <div class="small">
          <dt>Runs out</dt>
          <dd>{{ runsOut(p) }}</dd>
        </div>
        <div class="small">
          <dt>Worth, first in first out · average</dt>
          <dd>{{ money(p.fifo.onHandMinor, p.currency) }} · {{ money(p.average.onHandMinor, p.currency) }}</dd>
        </div>
      </dl>
      @if (p.ahead.act !== 'none') {
        <p>
          <strong>{{ p.ahead.act === 'gather' ? 'Gather.' : 'Order.' }}</strong> {{ p.ahead.why }}
        </p>
      }
      <p class="facts-line">{{ factsOf(p) }}</p>

      @if (p.days.length > 0) {
        <h2>On hand, the last year and ahead</h2>
        <vs-chart
          [option]="picture()"
          [label]="
            'On hand of ' + p.material.name + ' over the last year; ahead of today, promises taken out, ' + runsOut(p)
          "
        />
        <p class="small soft">
          Line: what was on hand. Step at today: what is promised goes out. Grey: where use may take it, eight times in
          ten.
        </p>
      }
      <h2>Jars</h2>
      @if (p.jars.length === 0) {
        <p class="soft">None yet.</p>
      } @else {
        <table class="ledger">
          <tbody>
            @for (j of p.jars; track j.id) {
              <tr>
                <td>
                  <a [routerLink]="['/stores', j.id]"
                    ><strong>{{ j.tag }}</strong></a
                  >
                </td>
                <td>{{ j.form ?? '' }}</td>
                <td>{{ j.place }}</td>
                <td class="number">{{ j.onHand | amount: j.measure }}</td>
                <td class="small">since {{ j.receivedOn | when }}</td>
              </tr>
            }
          </tbody>
        </table>
      }
      @if (p.dryings.length > 0) {
        <h2>Fresh to dried, as found here</h2>
        <p class="refs">
          @for (d of p.dryings; track d.at) {
            <span>{{ d.at | when }}: <vs-figure [figure]="d.factor" name="Fresh to dried" /></span>
          }
        </p>
      }
      @if (p.material.measure === 'weight' && p.material.kind !== 'fibre') {
        <vs-teach-spoon [page]="p" (changed)="page.reload()" />
      }

      <h2>The supplier’s safety data sheet</h2>
      @for (a of p.attachments; track a.id) {
        <p>
          <a [href]="'/api/attachments/' + a.id" target="_blank" rel="noopener">{{ a.name }}</a>
          <span class="soft small">{{ kilobytes(a.bytes) }}, {{ a.at | when }}, {{ a.by.name }}</span>
        </p>
      } @empty {
        <p class="soft">None is kept here. Ask the supplier for it, and keep it with the material.</p>
      }
      <label class="tick">Attach a PDF <input type="file" accept="application/pdf" (change)="attach($event)" /></label>
      <vs-refusal [problem]="attaching.problem()" />

      <h2>What is known of it</h2>
      <vs-material-facts-form [material]="p.material" (saved)="page.reload()" />
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialPageView {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  protected readonly kinds = MATERIAL_KIND_WORDS;
  protected readonly money = formatMoney;
  protected readonly page = live(
    ['stores', 'lots'],
    () => this.api.get('/api/materials/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly attaching = doing();
  protected readonly runsOut = (p: MaterialPage): string => sayRunOut(p.ahead.runOut);
  protected readonly picture = computed(() =>
    onHandPicture(this.page.value() as MaterialPage, new Date().toLocaleDateString('en-CA')),
  );

  constructor() {
    effect(() => {
      const hazards = this.page.value()?.material.hazards ?? [];
      this.margin.notes.set(
        hazards.length === 0
          ? []
          : [
              {
                title: 'Handle with care',
                lines: [
                  ...hazards.map((h) => `${HAZARD_WORDS[h]}.`),
                  'The supplier’s safety data sheet says what protection it needs. Local rules say how it is stored and thrown away.',
                ],
              },
            ],
      );
    });
  }

  protected factsOf({ material: { facts: f, note } }: MaterialPage): string {
    return [
      f.forms.length > 0 ? `Comes ${f.forms.join(', ')}` : '',
      f.fibreGroups.length > 0 ? `for ${f.fibreGroups.join(' and ')}` : '',
      f.ceilingC === null ? '' : `not above ${f.ceilingC} °C`,
      f.water === 'any' ? '' : `likes ${f.water} water`,
      f.phLow === null && f.phHigh === null ? '' : `pH ${f.phLow ?? ''} to ${f.phHigh ?? ''}`,
      f.light === null ? '' : `fastness to light ${f.light}`,
      f.wash === null ? '' : `to washing ${f.wash}`,
      f.bringsTannin ? 'brings its own tannin' : '',
      f.season === null ? '' : `gathered ${monthName(f.season.fromMonth)} to ${monthName(f.season.toMonth)}`,
      note,
    ]
      .filter(Boolean)
      .join(' · ');
  }

  protected readonly kilobytes = (bytes: number): string => `${Math.max(1, Math.round(bytes / 1000))} kB`;

  protected attach(event: Event): void {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    // Emptied at once, so that the same file can be chosen again after a refusal.
    field.value = '';
    if (!file) return;
    this.attaching.run(
      this.api.upload('/api/materials/{id}/attachments', file, 'application/pdf', {
        id: this.id(),
        query: { id: newId(), name: file.name.slice(0, 200) },
      }),
      () => {
        this.page.reload();
      },
    );
  }
}

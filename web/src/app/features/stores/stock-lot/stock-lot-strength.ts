import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { StockLot } from '@vestigia/contract';
import type { JarStrength, ReviewAsk } from '@vestigia/core';
import { decimals, countLabel } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { askMatch } from '../../../services/ask-match';
import { MatchAtWork } from '../../../ui/match-at-work';
import { MatchRecordReader } from '../../../services/match-record';
import { RefusalNote } from '../../../ui/refusal';
import { withFacts } from './with-facts';
import { Decimals } from '../../../ui/decimals';

/** So much fibre makes a strip that can be weighed for and read, g. */
const STRIP_G = 10;
/** From the least to the most it may be, as a ratio: from here on a test is worth its while. */
const WORTH_A_TEST = 1.3;

/** How strong a jar is by everything that was dyed with it, how sure that is, and how to test it. */
@Component({
  selector: 'vs-stock-lot-strength',
  imports: [Decimals, MatchAtWork, RefusalNote, RouterLink],
  providers: [MatchRecordReader],
  template: `<h2 i18n>Strength</h2>
    @if (strength(); as s) {
      <p i18n>
        {{ opening() }} it is {{ s.percent | decimals: 0 }} % of the reference; nine times in ten it lies between
        {{ s.fromPercent | decimals: 0 }} and {{ s.toPercent | decimals: 0 }} %.
        @if (stands(); as said) {
          {{ said }}
        }
      </p>
      @if (mayBeTaken()) {
        <button i18n class="act" type="button" [disabled]="taking.busy()" (click)="take(s)">
          Dose by {{ s.percent | decimals: 0 }} % from now on
        </button>
      }
      <vs-refusal [problem]="taking.problem()" />
      @if (isUnsure() && reference(); as ref) {
        <details>
          <summary i18n>Test it against the reference</summary>
          <p i18n>
            Strips alike but for the jar: one out of <strong>{{ ref.tag }}</strong>, the reference, one out of
            <strong>{{ stockLot().row.tag }}</strong>, 10 g of the same lot of fibre each, at half the usual dose, where
            a difference shows most{{ dose() }}. The same mordant bath, water, pot and time for both; one knot in the
            first, two in the second. Read both dry: this page then says how strong it is.
          </p>
          <a i18n class="act" routerLink="/recipes/strips/new" [queryParams]="trial()">Lay out that trial</a>
        </details>
      }
    } @else if (tooFew()) {
      <p class="small soft">{{ tooFew() }}</p>
    } @else if (isUntold()) {
      <p i18n class="off" role="alert">That could not be worked out here. Load the page anew to try again.</p>
    } @else if (record.value()) {
      <vs-match-at-work [asked]="asked" what="Looking through what was dyed with it …" i18n-what />
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotStrength {
  private readonly api = inject(ApiClient);
  protected readonly record = inject(MatchRecordReader);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly taking = pageAction();

  private readonly ask = computed((): ReviewAsk | undefined => {
    const [r, { row }] = [this.record.value(), this.stockLot()];
    return r && { readings: this.record.readings(), strengths: r.strengths, stockLotIds: [row.id] };
  });
  protected readonly asked = askMatch('strengths', this.ask);
  protected readonly isUntold = this.asked.isUntold;
  protected readonly tooFew = computed(() =>
    this.asked.answer() === null
      ? $localize`How strong it is can be worked out once three lots or strips were dyed and read dry.`
      : '',
  );
  protected readonly strength = computed(() => this.asked.answer()?.[0]);
  protected readonly opening = computed(() => {
    const s = this.strength();
    if (!s || s.readings === 0)
      return this.isTold()
        ? $localize`By what was written on it`
        : $localize`Before anything is dyed with it, as harvests differ,`;
    return $localize`By ${countLabel(s.readings, 'reading')} of what was dyed with it`;
  });
  /** Somebody tested it, or was told. */
  private readonly isTold = computed(() => {
    const { facts } = this.stockLot();
    return facts.reference || (facts.strengthPercent !== null && !facts.strengthLearnt);
  });
  protected readonly stands = computed(() => {
    const { strengthPercent, strengthLearnt } = this.stockLot().facts;
    if (strengthPercent === null) return $localize`Doses take it as the reference until that is said otherwise.`;
    return strengthLearnt ? $localize`Doses go by ${strengthPercent} %, worked out like this.` : '';
  });
  /** Only what lots and strips say, and says something else than doses go by already. */
  protected readonly mayBeTaken = computed(() => {
    const [s, { facts }] = [this.strength(), this.stockLot()];
    return (
      s !== undefined &&
      s.readings > 0 &&
      !facts.reference &&
      (facts.strengthPercent === null || facts.strengthLearnt) &&
      Math.round(s.percent) !== facts.strengthPercent
    );
  });
  protected readonly isUnsure = computed(() => {
    const s = this.strength();
    return s !== undefined && !this.stockLot().facts.reference && s.toPercent / s.fromPercent > WORTH_A_TEST;
  });
  /** The jar that every other of its material is told against; else the oldest one. */
  protected readonly reference = computed(() => {
    const { row } = this.stockLot();
    const jars = (this.record.value()?.jars ?? []).filter((j) => j.materialId === row.materialId && j.id !== row.id);
    return jars.find((j) => j.isReference) ?? jars.find((j) => j.free > 0);
  });
  protected readonly dose = computed(() => {
    const usual = this.record.shelf().find((m) => m.materialId === this.stockLot().row.materialId)?.usualPercent;
    if (usual === undefined) return '';
    const percent = usual / 2;
    return $localize`:doses of a strip test, after what they are for:: ${decimals(percent, 1)} % of the fibre, ${decimals((percent / 100) * STRIP_G, 2)} g out of each jar`;
  });
  protected readonly trial = computed(() => ({
    varies: 'source',
    material: this.stockLot().row.materialId,
    jars: [this.reference()?.id ?? '', this.stockLot().row.id].join(' '),
    fibre: `${2 * STRIP_G} g`,
  }));

  protected take({ percent, fromPercent, toPercent, readings }: JarStrength): void {
    const body = withFacts(this.stockLot(), {
      strengthPercent: Math.round(percent),
      strengthBasis: $localize`${countLabel(readings, 'reading')} of what was dyed with it, ${decimals(fromPercent, 0)} to ${decimals(toPercent, 0)} %`,
      strengthLearnt: true,
    });
    this.taking.run(this.api.put('/api/stock-lots/{id}', body, this.stockLot().row.id), () => this.changed.emit());
  }
}

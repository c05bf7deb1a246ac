import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import { formatVolume } from '@vestigia/core';
import { offered } from '../../../services/offered';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { newId } from '../../../api/new-id';
import { pageAction } from '../../../api/page-action';
import { StudioCalendar } from '../../../services/studio-calendar';
import { NumberField } from '../../../ui/number-field';
import { RefusalNote } from '../../../ui/refusal';
import { namesPage } from '../../../services/page-title';
import { ActBar } from '../../../ui/act-bar';
import { DraftOf } from '../../../ui/draft';
import { InDegrees } from '../../../ui/degrees';
import { toChoose } from '../../../ui/put-away-too';

const USUAL_DIP_MIN = 5;
const USUAL_AIRING_MIN = 20;
const USUAL_BATH_MIN = 60;

/** Other pieces into a liquor that stands: what they are and how long; what comes out is seen then. */
@Component({
  selector: 'vs-dye-in-liquor',
  imports: [
    InDegrees,
    DraftOf,
    ActBar,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    RefusalNote,
    RouterLink,
  ],
  templateUrl: './dye-in-liquor.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DyeInLiquorPage {
  /** What its template says by what holds. */
  protected readonly says = {
    minutesEachDip: $localize`Minutes in it, each dip`,
    minutesInIt: $localize`Minutes in it`,
    howHot: $localize`How hot, if it is warmed`,
    baseMissing: $localize`Say what goes in.`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly calendar = inject(StudioCalendar);
  readonly id = input.required<string>();
  protected readonly action = pageAction();
  protected readonly stockLot = liveQuery(
    ['stores'],
    () => this.api.get('/api/stock-lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly bases = computed(() => toChoose(this.materials.value()).filter((m) => m.kind === 'fibre'));
  protected readonly isVat = computed(() => Boolean(this.stockLot.value()?.liquor?.vat));
  protected readonly baseId = signal('');
  protected readonly quantity = signal('');
  protected readonly temperatureC = signal<number | null>(null);
  protected readonly minutes = linkedSignal<number | null>(() => (this.isVat() ? USUAL_DIP_MIN : USUAL_BATH_MIN));
  protected readonly dips = signal<number | null>(3);
  protected readonly airMinutes = signal<number | null>(USUAL_AIRING_MIN);
  /** Named after what it is, until somebody names it otherwise. */
  protected readonly name = offered(() => {
    const base = this.bases().find((b) => b.id === this.baseId())?.name ?? '';
    const tag = this.stockLot.value()?.row.tag ?? '';
    return base === '' ? '' : $localize`${base} in ${tag}, ${this.calendar.formatDay(this.calendar.today())}`;
  });
  protected readonly volume = computed(() => formatVolume((this.stockLot.value()?.row.free ?? 0) / 1000));
  private readonly ids = { id: newId(), recipeId: newId(), versionId: newId() };

  constructor() {
    namesPage(() => {
      const j = this.stockLot.value()?.row;
      return j && $localize`Dye in ${j.tag}`;
    });
  }

  protected dye(): void {
    const body = {
      ...this.ids,
      name: this.name(),
      baseMaterialId: this.baseId(),
      temperatureC: this.temperatureC(),
      minutes: this.minutes() ?? NaN,
      dips: this.isVat() ? (this.dips() ?? 1) : 1,
      airMinutes: this.airMinutes() ?? NaN,
    };
    this.action.run(
      this.api.post('/api/stock-lots/{id}/dye-in', body, this.id()),
      ({ id }) =>
        void this.router.navigate(['/lots/new'], { queryParams: { colourway: id, size: this.quantity() || null } }),
    );
  }
}

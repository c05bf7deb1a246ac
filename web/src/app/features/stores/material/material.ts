import { said } from '@vestigia/core';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { MaterialPage } from '@vestigia/contract';
import {
  countLabel,
  formatTemperature,
  monthName,
  HAZARD_LABELS,
  MATERIAL_KIND_LABELS,
  formatMoney,
  sayPh,
  sayPhBetween,
} from '@vestigia/core';
import { StudioCalendar } from '../../../services/studio-calendar';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { liveQuery } from '../../../api/live-query';
import { ContextPanel } from '../../../services/context-panel';
import { Amount } from '../../../format/amount';
import { sizeOf } from '../../../format/file-size';
import { Chart } from '../../../ui/chart';
import { FigureValue } from '../../../ui/figure-value';
import { newId } from '../../../api/new-id';
import { ColoursGiven } from '../../../ui/colours-given';
import { Notes } from '../../../ui/notes';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { MaterialGround } from './material-ground';
import { MaterialFactsForm } from './material-facts-form';
import { onHandPicture } from '../shelf/on-hand-picture';
import { sayRunOut } from '../shelf/run-out-label';
import { TeachSpoon } from './teach-spoon';
import { DeedsOf } from '../../../ui/deeds-of';
import { ScrollRegion } from '../../../ui/scroll-region';
import { namesPage } from '../../../services/page-title';
import { ActBar } from '../../../ui/act-bar';
import { Kept } from '../../../ui/kept';
import { May } from '../../../ui/may';
import { PutAway } from '../../../ui/put-away';
import { AtHand } from '../../../ui/at-hand';
import { Said } from '../../../ui/said';

/** One material: what it is, how much there is and for how long, its spoons, its safety sheet, its worth. */
@Component({
  selector: 'vs-material-page',
  imports: [
    Said,
    AtHand,
    PutAway,
    Kept,
    May,
    ActBar,
    ScrollRegion,
    DeedsOf,
    RouterLink,
    Amount,
    Chart,
    FigureValue,
    MaterialFactsForm,
    MaterialGround,
    ColoursGiven,
    Notes,
    RefusalNote,
    TeachSpoon,
    When,
  ],
  templateUrl: './material.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialPageView {
  /** What its template says by what holds. */
  protected readonly says = {
    gather: $localize`Gather.`,
    order: $localize`Order.`,
    onHandOfOver: (name: string | number, p: string | number): string =>
      $localize`On hand of ${name} over the last year; ahead of today, promises taken out, ${p}`,
  };

  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  private readonly contextPanel = inject(ContextPanel);
  readonly id = input.required<string>();
  protected readonly kinds = MATERIAL_KIND_LABELS;
  protected readonly money = formatMoney;
  protected readonly page = liveQuery(
    ['stores', 'lots'],
    () => this.api.get('/api/materials/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly attaching = pageAction();
  protected readonly runsOut = (p: MaterialPage): string => sayRunOut(p.forecast.runOut);
  protected readonly picture = computed(() => onHandPicture(this.page.value() as MaterialPage, this.calendar.today()));

  constructor() {
    namesPage(() => this.page.value()?.material.name);
    effect(() => {
      const hazards = this.page.value()?.material.hazards ?? [];
      this.contextPanel.notes.set(
        hazards.length === 0
          ? []
          : [
              {
                title: $localize`Handle with care`,
                lines: [
                  ...hazards.map((h) => `${HAZARD_LABELS[h]}.`),
                  $localize`The supplier’s safety data sheet says what protection it needs. Local rules say how it is stored and thrown away.`,
                ],
              },
            ],
      );
    });
  }

  /** Put away, a material with jars leaves them on the shelf. */
  protected stays({ stockLots }: MaterialPage): string {
    const full = stockLots.filter((j) => j.onHand > 0);
    return full.length === 0 ? '' : $localize`${countLabel(full.length, 'jar')}:jars: of it stay on the shelf.`;
  }

  protected factsOf({ material: { facts: f, note } }: MaterialPage): string {
    return [
      f.forms.length > 0 ? $localize`Comes ${f.forms.map(said).join(', ')}` : '',
      f.fibreGroups.length > 0 ? $localize`for ${f.fibreGroups.map(said).join($localize` and `)}:fibres:` : '',
      f.ceilingC === null ? '' : $localize`not above ${formatTemperature(f.ceilingC)}`,
      f.water === 'any' ? '' : $localize`likes ${said(f.water)} water`,
      sayPhWanted(f.phLow, f.phHigh),
      f.light === null ? '' : $localize`fastness to light ${said(f.light)}`,
      f.wash === null ? '' : $localize`to washing ${said(f.wash)}`,
      f.bringsTannin ? $localize`brings its own tannin` : '',
      f.season === null ? '' : $localize`gathered ${monthName(f.season.fromMonth)} to ${monthName(f.season.toMonth)}`,
      note,
    ]
      .filter(Boolean)
      .join(' · ');
  }

  protected readonly size = sizeOf;

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

function sayPhWanted(low: number | null, high: number | null): string {
  if (low !== null && high !== null) return sayPhBetween({ low, high });
  return low !== null ? $localize`${sayPh(low)} or more` : high !== null ? $localize`${sayPh(high)} or less` : '';
}

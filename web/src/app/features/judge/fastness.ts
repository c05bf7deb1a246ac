import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { FastnessTest } from '@vestigia/contract';
import type { FastnessKind, FastnessPlace } from '@vestigia/core';
import { FASTNESS_PLACE_LABELS, currentEntries, sayGreyGrade } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { StudioCalendar } from '../../services/studio-calendar';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { fastnessFamilies } from './fastness-cards';
import { FadingChart } from './fading-chart';
import { FastnessReading } from './fastness-reading';
import { JudgeNav } from './judge-nav';
import { ScrollRegion } from '../../ui/scroll-region';
import { DraftOf } from '../../ui/draft';
import { Kept } from '../../ui/kept';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { Decimals } from '../../ui/decimals';

/** Washing and light tried on what was dyed: cards on their way, what they showed, and when they are due. */
@Component({
  selector: 'vs-fastness',
  imports: [
    Decimals,
    DayField,
    DayPicker,
    Kept,
    DraftOf,
    ScrollRegion,
    FadingChart,
    FastnessReading,
    FormsModule,
    JudgeNav,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    RouterLink,
    When,
  ],
  templateUrl: './fastness.html',
  styles: `
    article {
      border-top: 3px solid var(--line);
      padding: 0.5rem 0 1rem;
    }
    .more summary {
      min-height: 44px;
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FastnessPage {
  /** What its template says by what holds. */
  protected readonly says = {
    hangTheCard: $localize`Hang the card`,
    beginTheWashTest: $localize`Begin the wash test`,
    on: (fibres: string | number): string => $localize` on ${fibres}`,
    whiteStained: (cloth: string | number): string => $localize`white ${cloth}, stained`,
    theOpenHalf: $localize`the open half`,
    itself: $localize`itself`,
    byEye: $localize`, by eye`,
  };

  private readonly api = inject(ApiClient);
  protected readonly tests = liveQuery(['fastness'], () => this.api.get('/api/fastness'));
  protected readonly lots = liveQuery(['lots'], () => this.api.get('/api/lots'));
  protected readonly places = Object.entries(FASTNESS_PLACE_LABELS) as [FastnessPlace, string][];
  protected readonly placeLabel = FASTNESS_PLACE_LABELS;
  protected readonly grade = sayGreyGrade;
  /** Today by the studio’s own days, and the server’s clock. */
  protected readonly today = inject(StudioCalendar).today();
  protected readonly families = computed(() => fastnessFamilies(this.tests.value() ?? []));
  protected readonly shown = computed(() =>
    (this.tests.value() ?? []).map((test) => ({
      test,
      isDue: test.dueOn !== null && test.dueOn <= this.today,
      readings: currentEntries(test.readings),
      shows: (test.curve?.shows ?? []).map(
        (s) =>
          `ΔE00 ${s.deltaE00} ${FASTNESS_PLACE_LABELS[s.place]}: ${s.days === null ? $localize`not in sight` : this.inDays(s.days)}`,
      ),
    })),
  );

  protected readonly kind = signal<FastnessKind>('light');
  protected readonly place = signal<FastnessPlace>('window');
  protected readonly name = signal('');
  protected readonly lotId = signal<string | null>(null);
  protected readonly cloths = signal($localize`wool, cotton`);
  protected readonly startedOn = signal(this.today);
  protected readonly note = signal('');
  protected readonly action = pageAction();
  private testId = newId();

  private inDays(days: number): string {
    if (days < 1) return $localize`within a day`;
    return days < 60 ? $localize`after ${Math.round(days)} days` : $localize`after ${Math.round(days / 30.4)} months`;
  }

  protected begin(): void {
    const isWash = this.kind() === 'wash';
    const body = {
      id: this.testId,
      kind: this.kind(),
      place: isWash ? null : this.place(),
      name: this.name(),
      lotId: this.lotId(),
      cloths: isWash
        ? this.cloths()
            .split(',')
            .map((c) => c.trim())
            .filter((c) => c !== '')
        : [],
      startedOn: this.startedOn(),
      note: this.note(),
    };
    this.action.run(this.api.post('/api/fastness', body), () => {
      this.testId = newId();
      for (const field of [this.name, this.note]) field.set('');
      this.tests.reload();
    });
  }

  protected readonly what = (test: FastnessTest): string =>
    test.kind === 'wash'
      ? $localize`washed with ${test.cloths.length === 0 ? $localize`no white cloth` : $localize`white ${test.cloths.join(', ')}`}`
      : $localize`half covered, ${test.place ? FASTNESS_PLACE_LABELS[test.place] : ''}`;
}

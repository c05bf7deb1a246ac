import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import type { LotDetail, RunEntryResult } from '@vestigia/contract';
import { foldRun, formatAmount, isOver, readToldTime, smallestIn } from '@vestigia/core';
import { StudioCalendar } from '../../services/studio-calendar';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import type { KeyedStep } from './card-entries';
import { entriesOf } from './card-entries';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { InDegrees } from '../../ui/degrees';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';

/**
 * The bench card: printed to write on by hand where tablets keep away from steam, and keyed in afterwards with the
 * times as written.
 */
@Component({
  selector: 'vs-card-page',
  imports: [DayField, DayPicker, InDegrees, DraftOf, ActBar, ScrollRegion, FormsModule, RouterLink, RefusalNote],
  templateUrl: './card-page.html',
  styleUrl: './card-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CardPage {
  /** What its template says by what holds. */
  protected readonly says = {
    hottest: $localize`Hottest`,
    day: (title: string | number): string => $localize`Day, ${title}`,
    begun: (title: string | number): string => $localize`Begun, ${title}`,
    finished: (title: string | number): string => $localize`Finished, ${title}`,
    hottestOf: (title: string | number): string => $localize`Hottest, ${title}`,
    ph: (title: string | number): string => $localize`pH, ${title}`,
    batch: (batch: string | number): string => $localize`, batch ${batch}`,
    weighed: (name: string | number): string => $localize`Weighed, ${name}`,
    jarOf: (name: string | number): string => $localize`Jar of ${name}`,
    note: (title: string | number): string => $localize`Note, ${title}`,
  };

  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  readonly id = input.required<string>();
  protected readonly action = pageAction();
  protected readonly lot = liveQuery(
    ['lots'],
    () => this.api.get('/api/lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  /** Of the first line; a lot told afterwards begins on the day it was told of. */
  protected readonly day = linkedSignal(() => {
    const begun = this.begunAt();
    return begun === undefined ? this.calendar.today() : this.calendar.dayOf(Date.parse(begun));
  });
  protected readonly refused = signal<readonly RunEntryResult[]>([]);
  protected readonly kept = signal('');
  private readonly begunAt = computed(() => {
    const summary = this.lot.value()?.summary;
    return summary?.recordedAt ? summary.at : undefined;
  });
  private readonly whole = computed(() => {
    const l = this.lot.value();
    return l ? `${l.summary.id} ${l.entries.length}` : '';
  });
  protected readonly keyed = linkedSignal({
    source: this.whole,
    computation: (): KeyedStep[] => {
      const l = this.lot.value();
      if (!l) return [];
      const records = foldRun(l.entries, l.plan.steps.length);
      return l.plan.steps.map((step) => ({
        step,
        open: !isOver(records[step.index]),
        day: '',
        begun: '',
        finished: '',
        hottest: '',
        ph: '',
        note: '',
        weighings: step.weighings.map((w) => ({
          batch: w.batch,
          materialId: w.materialId,
          name: w.materialName,
          planned: formatAmount(Math.round(w.target.value * smallestIn(w.measure)), w.measure),
          quantityText: '',
          stockLotId: w.picks[0]?.stockLotId ?? this.stockLotsOf(l, w.materialId)[0]?.id ?? '',
        })),
      }));
    },
  });

  constructor() {
    namesPage(() => {
      const l = this.lot.value()?.summary;
      return l && $localize`Bench card of ${l.tag} · ${l.colourway.name}`;
    });
  }

  protected print(paper: 'A4' | 'Letter'): void {
    const open = window.open('', '_blank');
    // The lot gets its code first, so that scanning the card leads back to it.
    this.action.run(this.api.post('/api/tags', { id: newId(), tags: [{ kind: 'lot', lotId: this.id() }] }), () => {
      if (open) open.location.href = `/api/lots/${this.id()}/card.pdf?paper=${paper}`;
    });
  }

  protected keep(lot: LotDetail): void {
    this.kept.set('');
    const unread = this.keyed()
      .flatMap((k) => [k.begun, k.finished])
      .find((t) => t.trim() !== '' && readToldTime(t) === undefined);
    if (unread !== undefined) {
      this.refused.set([
        {
          id: '',
          ok: false,
          reason: '',
          message: $localize`“${unread}” is no time. Write it like 9:40, about 10, overnight, or as a length: 40 min, an hour or so.`,
        },
      ]);
      return;
    }
    const entries = entriesOf(this.keyed(), lot, this.day(), (day, clock) => this.calendar.instantOf(day, clock));
    if (entries.length === 0) {
      this.refused.set([
        { id: '', ok: false, reason: '', message: $localize`Nothing was filled in. Copy what stands on the card.` },
      ]);
      return;
    }
    this.action.run(
      this.api.post('/api/bench/run-entries', {
        drafts: entries.map((entry) => ({ lotId: lot.summary.id, ageMs: 0, entry })),
      }),
      ({ results }) => {
        this.refused.set(results.filter((r) => !r.ok));
        const taken = results.filter((r) => r.ok).length;
        this.kept.set(taken === 0 ? '' : $localize`${taken} lines keyed in.`);
      },
    );
  }

  protected readonly stockLotsOf = (l: LotDetail, materialId: string) =>
    l.stockLots.filter((j) => j.materialId === materialId);
}

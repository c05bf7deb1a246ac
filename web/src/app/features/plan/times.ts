import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { HouseTimesEdit, SignedIn } from '@vestigia/contract';
import {
  HAZARD_LABELS,
  HAZARDS,
  TIMES_AT_FIRST,
  explainClock,
  explainWeek,
  readClock,
  readClosedDays,
  readWeek,
  sayClosedFault,
  sayWeek,
} from '@vestigia/core';
import type { Hazard, HouseRoom } from '@vestigia/core';
import { forkJoin, map } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { openedOn, readAnewWhenStale } from '../../api/opened-on';
import { pageAction } from '../../api/page-action';
import { ActBar } from '../../ui/act-bar';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { DraftOf } from '../../ui/draft';
import { Fold } from '../../ui/fold';
import { Meanwhile } from '../../ui/meanwhile';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';

/** Days away as they are being written. */
interface AwayDraft {
  readonly from: string;
  readonly to: string;
  readonly why: string;
}

interface PersonDraft {
  readonly personId: string;
  readonly name: string;
  readonly week: string;
  readonly eveningsUntil: string;
  readonly away: readonly AwayDraft[];
  readonly leaves: readonly Hazard[];
}

interface HeatDraft {
  readonly heatSourceId: string;
  readonly name: string;
  readonly potsAtOnce: number | null;
  readonly outUntil: string;
}

interface PotDraft {
  readonly vesselId: string;
  readonly name: string;
  readonly outUntil: string;
}

/** What there may be too little room for, and what each is called. */
const ROOM = ['dryingPieces', 'coldPots', 'balances'] as const;

/** When the house is open, who works when and leaves what to others, which burners work: what the plan goes by. */
@Component({
  selector: 'vs-plan-times',
  imports: [
    ActBar,
    DayField,
    DayPicker,
    DraftOf,
    Fold,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Meanwhile,
    NgTemplateOutlet,
    NumberField,
    RefusalNote,
    RouterLink,
  ],
  templateUrl: './times.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanTimesPage {
  private readonly api = inject(ApiClient);
  protected readonly keeping = pageAction();
  protected readonly page = liveQuery(['plan', 'studio'], () =>
    forkJoin([this.api.get('/api/plan/times'), this.api.get('/api/studio')]).pipe(
      map(([times, studio]) => ({ times, studio })),
    ),
  );
  protected readonly hazards = HAZARDS;
  protected readonly hazardLabels = HAZARD_LABELS;
  protected readonly says = {
    leaves: (name: string): string => $localize`What ${name} leaves to others`,
  };

  protected readonly week = signal('');
  protected readonly closed = signal<readonly AwayDraft[]>([]);
  protected readonly people = signal<readonly PersonDraft[]>([]);
  protected readonly heat = signal<readonly HeatDraft[]>([]);
  protected readonly pots = signal<readonly PotDraft[]>([]);
  protected readonly room = signal<HouseRoom>(TIMES_AT_FIRST.room);
  protected readonly roomKinds = ROOM;
  protected readonly roomLabels: Readonly<Record<(typeof ROOM)[number], string>> = {
    dryingPieces: $localize`Pieces on the drying line`,
    coldPots: $localize`Pots standing cold`,
    balances: $localize`Balances`,
  };

  /** What the form stands on: it doesn't follow others while somebody writes. */
  protected readonly opened = openedOn(() => this.page.value(), {
    key: () => 'house',
    version: ({ times }) => times.version,
    say: ({ times, studio }) => ({
      [$localize`Open`]: sayWeek(times.week),
      [$localize`Days off`]: sayAway(times.closed),
      ...Object.fromEntries(
        times.people.map((own) => [
          studio.people.find((p) => p.id === own.personId)?.name ?? '',
          [
            own.week ? sayWeek(own.week) : '',
            own.eveningsUntil ?? '',
            sayAway(own.away),
            ...own.leaves.map((h) => HAZARD_LABELS[h]),
          ]
            .filter((w) => w !== '')
            .join('; '),
        ]),
      ),
      ...Object.fromEntries(
        times.heat.map((own) => [
          studio.heatSources.find((h) => h.id === own.heatSourceId)?.name ?? '',
          [own.potsAtOnce, own.outUntil ?? ''].join(' '),
        ]),
      ),
      ...Object.fromEntries(
        times.pots.map((own) => [studio.vessels.find((v) => v.id === own.vesselId)?.name ?? '', own.outUntil]),
      ),
      ...Object.fromEntries(ROOM.map((kind) => [this.roomLabels[kind], String(times.room[kind] ?? '')])),
    }),
  });

  constructor() {
    readAnewWhenStale(this.keeping, () => this.page.reload());
    effect(() => {
      const page = this.opened.value();
      if (page) untracked(() => this.show(page.times, page.studio));
    });
  }

  private show(
    times: HouseTimesEdit,
    studio: {
      readonly people: readonly SignedIn[];
      readonly heatSources: readonly { readonly id: string; readonly name: string }[];
      readonly vessels: readonly { readonly id: string; readonly name: string }[];
    },
  ): void {
    this.week.set(sayWeek(times.week));
    this.closed.set(times.closed);
    this.people.set(
      // Who only looks on has no hands in it.
      studio.people
        .filter((p) => p.role !== 'guest')
        .map(({ id, name }) => {
          const own = times.people.find((p) => p.personId === id);
          return {
            personId: id,
            name,
            week: own?.week ? sayWeek(own.week) : '',
            eveningsUntil: own?.eveningsUntil ?? '',
            away: own?.away ?? [],
            leaves: own?.leaves ?? [],
          };
        }),
    );
    this.heat.set(
      studio.heatSources.map(({ id, name }) => {
        const own = times.heat.find((h) => h.heatSourceId === id);
        return { heatSourceId: id, name, potsAtOnce: own?.potsAtOnce ?? 1, outUntil: own?.outUntil ?? '' };
      }),
    );
    this.pots.set(
      studio.vessels.map(({ id, name }) => ({
        vesselId: id,
        name,
        outUntil: times.pots.find((p) => p.vesselId === id)?.outUntil ?? '',
      })),
    );
    this.room.set(times.room);
  }

  protected readonly missing = computed(() => {
    const wrong = [this.week(), ...this.people().map((p) => p.week)].find((text) => readWeek(text) === undefined);
    if (wrong !== undefined) return explainWeek(wrong);
    const late = this.people().find((p) => p.eveningsUntil.trim() !== '' && readClock(p.eveningsUntil) === undefined);
    if (late) return explainClock(late.eveningsUntil);
    const away = [...this.closed(), ...this.people().flatMap((p) => p.away)];
    return away.some((a) => a.from === '' || a.to === '') ? $localize`Days away want a first and a last day.` : '';
  });

  /** What was written, as it is understood. */
  protected understood(text: string): string {
    const week = readWeek(text);
    return week ? sayWeek(week) : '';
  }

  protected person(at: number, change: Partial<PersonDraft>): void {
    this.opened.touch();
    this.people.update((all) => all.map((p, i) => (i === at ? { ...p, ...change } : p)));
  }

  /** What became of the last calendar file. */
  protected readonly fileSaid = signal('');

  /** Adds the whole days of a calendar file to the days the house is closed; those that stand there already stay once. */
  protected async takeFile(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    input.value = '';
    if (!file) return;
    const read = readClosedDays(await file.text());
    if (!read.ok) {
      this.fileSaid.set(sayClosedFault(read.reason));
      return;
    }
    const known = new Set(this.closed().map((d) => `${d.from} ${d.to}`));
    const added = read.days.filter((d) => !known.has(`${d.from} ${d.to}`));
    this.opened.touch();
    this.closed.update((all) => [...all, ...added]);
    this.fileSaid.set(
      $localize`Days off added: ${added.length}. Left, because they have a time of day or repeat: ${read.left}. Keep hours and equipment, and they hold.`,
    );
  }

  protected readonly setClosed = (all: readonly AwayDraft[]): void => {
    this.opened.touch();
    this.closed.set(all);
  };

  protected setAway(at: number): (all: readonly AwayDraft[]) => void {
    return (away) => this.person(at, { away });
  }

  protected leave(at: number, hazard: Hazard, leaves: boolean): void {
    const now = this.people()[at]?.leaves ?? [];
    this.person(at, { leaves: leaves ? [...now, hazard] : now.filter((h) => h !== hazard) });
  }

  protected burner(at: number, change: Partial<HeatDraft>): void {
    this.opened.touch();
    this.heat.update((all) => all.map((h, i) => (i === at ? { ...h, ...change } : h)));
  }

  protected pot(at: number, outUntil: string): void {
    this.opened.touch();
    this.pots.update((all) => all.map((p, i) => (i === at ? { ...p, outUntil } : p)));
  }

  protected setRoom(kind: (typeof ROOM)[number], value: number | null): void {
    this.opened.touch();
    this.room.update((room) => ({ ...room, [kind]: value }));
  }

  protected changeAway(all: readonly AwayDraft[], at: number, change: Partial<AwayDraft>): readonly AwayDraft[] {
    return all.map((a, i) => (i === at ? { ...a, ...change } : a));
  }

  protected withoutAway(all: readonly AwayDraft[], at: number): readonly AwayDraft[] {
    return all.filter((_, i) => i !== at);
  }

  protected withAway(all: readonly AwayDraft[]): readonly AwayDraft[] {
    return [...all, { from: '', to: '', why: '' }];
  }

  protected keep(): void {
    const away = (all: readonly AwayDraft[]): AwayDraft[] => all.map(({ from, to, why }) => ({ from, to, why }));
    const week = (text: string): HouseTimesEdit['week'] =>
      (readWeek(text) ?? []).map((day) => day.map(([from, to]) => [from, to]));
    const body: HouseTimesEdit = {
      version: this.opened.version(),
      week: week(this.week()),
      closed: away(this.closed()),
      people: this.people().map((p) => ({
        personId: p.personId,
        week: p.week.trim() === '' ? null : week(p.week),
        eveningsUntil: readClock(p.eveningsUntil) ?? null,
        away: away(p.away),
        leaves: [...p.leaves],
      })),
      heat: this.heat().map((h) => ({
        heatSourceId: h.heatSourceId,
        potsAtOnce: h.potsAtOnce ?? 1,
        outUntil: h.outUntil === '' ? null : h.outUntil,
      })),
      pots: this.pots().flatMap(({ vesselId, outUntil }) => (outUntil === '' ? [] : [{ vesselId, outUntil }])),
      room: { ...this.room() },
    };
    this.keeping.run(this.api.put('/api/plan/times', body), () => {
      this.opened.take();
      this.page.reload();
    });
  }
}

const sayAway = (away: readonly AwayDraft[]): string =>
  away.map((d) => [d.from, d.to, d.why].join(' ').trim()).join(', ');

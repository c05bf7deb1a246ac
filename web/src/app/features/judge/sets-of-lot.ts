import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LabUnder, LotDetail } from '@vestigia/contract';
import { countLabel, currentEntries, formatWeight, isSettled, joinList, sameConditions } from '@vestigia/core';
import { catchError, of, switchMap } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { saveFile } from '../../api/save-file';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { SetSorter } from './set-sorter';
import { Decimals } from '../../ui/decimals';

/** A piece that was read by itself. */
interface ReadPiece {
  readonly mark: string;
  readonly under: LabUnder;
}

interface Sorted {
  /** What was sorted: when pieces are read anew, it is old. */
  readonly of: readonly ReadPiece[];
  readonly sets: readonly (readonly ReadPiece[])[];
  readonly leftOver: readonly ReadPiece[];
  readonly worst: number;
}

const toggled = (all: ReadonlySet<string>, one: string): ReadonlySet<string> =>
  all.has(one) ? new Set([...all].filter((x) => x !== one)) : new Set([...all, one]);

/** The pieces of a lot that were read one by one, and those of other lots on the shelf, sorted into sets that match. */
@Component({
  selector: 'vs-sets-of-lot',
  imports: [Decimals, FormsModule, MatFormFieldModule, MatInputModule, NumberField, RefusalNote, Swatch],
  providers: [SetSorter],
  template: `
    @if (others().length > 0) {
      <fieldset>
        <legend i18n>With pieces of other lots that stand on the shelf</legend>
        @for (o of others(); track o.lotId) {
          <label class="tick"
            ><input
              type="checkbox"
              [name]="'with-' + o.lotId"
              [checked]="withLots().has(o.lotId)"
              (change)="take(o.lotId)"
            />
            <ng-container i18n
              >{{ o.tag }}: {{ count(o.pieces.length, 'piece') }} read, {{ weight(o.onShelfG) }} on the
              shelf</ng-container
            ></label
          >
        }
        @if (withLots().size > 0) {
          <p i18n class="small soft">Single pieces aren’t followed once they are kept: leave out what was sold.</p>
        }
      </fieldset>
    }
    @if (withLots().size > 0) {
      <div class="mounts" role="group" aria-label="pieces to sort" i18n-aria-label>
        @for (p of offered(); track p.mark) {
          <label class="tick small"
            ><input
              type="checkbox"
              [name]="'piece-' + p.mark"
              [checked]="!leftOut().has(p.mark)"
              (change)="leave(p.mark)"
            />
            {{ p.mark }}</label
          >
        }
      </div>
    }
    @if (pieces().length < 2) {
      <p i18n class="soft">
        Read single pieces, each by its mark, and they can be sorted into sets that match. So far
        {{ count(pieces().length, says.pieceIs, says.piecesAre) }} read by
        {{ pieces().length === 1 ? says.itself : says.themselves }}.
      </p>
    } @else {
      <form (ngSubmit)="sort()">
        <div class="fields lab">
          <mat-form-field
            ><mat-label i18n>Pieces in a set</mat-label
            ><input matInput vsNumber name="setSize" inputmode="numeric" [(ngModel)]="size"
          /></mat-form-field>
        </div>
        <div class="actions">
          <button class="act" type="submit" [disabled]="busy() || whyNot() !== ''">
            {{ busy() ? says.sorting : says.sortIntoSets(count(pieces().length, 'piece')) }}
          </button>
          @if (whyNot(); as why) {
            <span class="soft">{{ why }}</span>
          }
        </div>
      </form>
      @if (problem()) {
        <p class="off" role="alert">{{ problem() }}</p>
      }
    }
    @if (sorted(); as s) {
      <p i18n role="status">
        {{ count(s.sets.length, 'set') }}; the worst pair in any lies ΔE00 {{ s.worst | decimals: 2 }} apart.
        @if (s.of !== pieces()) {
          Pieces were read since: sort again.
        }
      </p>
      @for (set of s.sets; track $index) {
        <div class="mounts" role="group" [attr.aria-label]="says.set($index + 1)">
          @for (p of set; track p.mark) {
            <figure>
              <vs-swatch [lab]="p.under" [width]="4" [label]="says.piece(p.mark)" />
              <figcaption>{{ p.mark }}</figcaption>
            </figure>
          }
        </div>
      }
      <vs-refusal [problem]="printing.problem()" />
      <button i18n class="act" type="button" [disabled]="printing.busy()" (click)="print(s)">
        Print a tag for each set
      </button>
      @if (s.leftOver.length > 0) {
        <p i18n>Left over: {{ namesOf(s.leftOver) }}.</p>
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SetsOfLot {
  /** What its template says by what holds. */
  protected readonly says = {
    pieceIs: $localize`piece is`,
    piecesAre: $localize`pieces are`,
    itself: $localize`itself`,
    themselves: $localize`themselves`,
    sorting: $localize`Sorting …`,
    sortIntoSets: (piece: string | number): string => $localize`Sort ${piece} into sets`,
    set: (value: string | number): string => $localize`set ${value}`,
    piece: (mark: string | number): string => $localize`piece ${mark}`,
  };

  private readonly api = inject(ApiClient);
  private readonly sorter = inject(SetSorter);
  readonly lot = input.required<LotDetail>();
  protected readonly count = countLabel;
  protected readonly size = signal<number | null>(3);
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly sorted = signal<Sorted | undefined>(undefined);

  /** The newest dry reading of each piece by itself, all under the light of the newest. */
  private readonly own = computed((): readonly ReadPiece[] => {
    const read = currentEntries(this.lot().readings).filter((r) => r.piece !== null && isSettled(r.state));
    const last = read.at(-1);
    const newest = new Map(read.filter((r) => last && sameConditions(r, last)).map((r) => [r.piece ?? '', r]));
    return [...newest].map(([mark, { lab, illuminant, observer }]) => ({
      mark,
      under: { ...lab, illuminant, observer },
    }));
  });
  private readonly known = liveQuery(
    ['lots', 'stores'],
    () => this.api.get('/api/colourways/{id}/pieces', { id: this.lot().summary.colourway.id }),
    () => this.lot().summary.colourway.id,
  );
  /** Lots of the same colourway of which finished pieces are left. */
  protected readonly others = computed(() =>
    (this.known.value() ?? []).filter((l) => l.lotId !== this.lot().summary.id && l.onShelfG > 0),
  );
  protected readonly withLots = signal<ReadonlySet<string>>(new Set());
  protected readonly leftOut = signal<ReadonlySet<string>>(new Set());
  /** What could be sorted: this lot’s pieces, and those of the lots chosen that were read in the same light. */
  protected readonly offered = computed((): readonly ReadPiece[] => {
    const chosen = this.others().filter((o) => this.withLots().has(o.lotId));
    if (chosen.length === 0) return this.own();
    const { tag } = this.lot().summary;
    const all = [
      ...this.own().map((p) => ({ ...p, mark: `${tag} · ${p.mark}` })),
      ...chosen.flatMap((o) => o.pieces.map((p) => ({ mark: `${o.tag} · ${p.mark}`, under: p.lab }))),
    ];
    const light = all[0]?.under;
    return all.filter((p) => light && sameConditions(p.under, light));
  });
  protected readonly pieces = computed(() => {
    const out = this.leftOut();
    const offered = this.offered();
    return out.size === 0 ? offered : offered.filter((p) => !out.has(p.mark));
  });

  protected take(lotId: string): void {
    this.withLots.update((all) => toggled(all, lotId));
    this.leftOut.set(new Set());
  }

  protected leave(mark: string): void {
    this.leftOut.update((all) => toggled(all, mark));
  }

  protected readonly weight = formatWeight;
  protected readonly whyNot = computed(() => {
    const size = this.size();
    if (size === null || !Number.isInteger(size) || size < 2) return $localize`A set has two pieces or more.`;
    return size > this.pieces().length ? $localize`Only ${this.pieces().length} are read: fewer than a set has.` : '';
  });
  protected readonly namesOf = (pieces: readonly ReadPiece[]): string =>
    joinList(pieces.map((p) => $localize`piece ${p.mark}`));

  protected readonly printing = pageAction();

  /** A tag for each set, with what is printed with the goods. */
  protected print({ sets }: Sorted): void {
    const { id, tag, colourway } = this.lot().summary;
    const known = this.api.get('/api/fastness/of', { query: { subject: 'lot', id } });
    const tags = known.pipe(
      // What is kept from whoever prints is not on the tags either.
      catchError(() => of({ care: [] as string[] })),
      switchMap(({ care }) =>
        this.api.postForFile('/api/set-tags.pdf', {
          lotTag: this.withLots().size === 0 ? tag : $localize`${tag} and others`,
          colourway: colourway.name,
          sets: sets.map((set) => set.map((p) => p.mark)),
          care: [...care],
        }),
      ),
    );
    this.printing.run(tags, (file) => saveFile(file, 'sets.pdf'));
  }

  protected async sort(): Promise<void> {
    const [of, size] = [this.pieces(), this.size()];
    if (size === null || this.whyNot() !== '') return;
    this.busy.set(true);
    this.problem.set('');
    try {
      const found = await this.sorter.sort({ labs: of.map((p) => p.under), size });
      const named = (positions: readonly number[]): ReadPiece[] => positions.flatMap((i) => of[i] ?? []);
      this.sorted.set({ of, sets: found.sets.map(named), leftOver: named(found.leftOver), worst: found.worst });
    } catch {
      this.problem.set($localize`They could not be sorted here. Try again, with fewer pieces.`);
    } finally {
      this.busy.set(false);
    }
  }
}

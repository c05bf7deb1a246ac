import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { NearColour, Swatch as Snippet } from '@vestigia/contract';
import { SLOTS_A_PAGE, describeColour, sayMadeWith } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { linkToColour } from '../../ui/colours-given';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { JudgeNav } from './judge-nav';
import { May } from '../../ui/may';
import { DraftOf } from '../../ui/draft';
import { Kept } from '../../ui/kept';
import { Decimals } from '../../ui/decimals';

/** Everything a snippet can be found by, in one line of small letters. */
const wordsOf = (s: Snippet): string =>
  [
    s.name,
    s.lot ? `${s.lot.tag} ${s.lot.colourway}` : '',
    sayMadeWith(s.madeWith),
    s.madeWith.fibre,
    s.lab ? describeColour(s.lab) : '',
    s.note,
  ]
    .join(' ')
    .toLowerCase();

/** The book of snippets: leafed through page by page, searched by words and by colour. */
@Component({
  selector: 'vs-swatch-book',
  imports: [
    Decimals,
    Kept,
    DraftOf,
    May,
    FormsModule,
    JudgeNav,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    RefusalNote,
    RouterLink,
    Swatch,
  ],
  templateUrl: './swatch-book.html',
  styleUrl: './swatch-book.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SwatchBookPage {
  /** What its template says by what holds. */
  protected readonly says = {
    nothingInTheBook: $localize`Nothing in the book fits`,
    inTheBook: $localize`In the book`,
  };

  private readonly api = inject(ApiClient);
  /** The page that is open, of the address. */
  readonly page = input<string>();
  /** What is looked for, of the address. */
  readonly find = input<string>();
  protected readonly label = describeColour;
  protected readonly sayMade = sayMadeWith;
  protected readonly linkTo = linkToColour;
  protected readonly swatches = liveQuery(['swatches', 'lots'], () => this.api.get('/api/swatches'));
  protected readonly asked = linkedSignal(() => this.find() ?? '');
  protected readonly open = linkedSignal(() => Math.max(1, Math.floor(Number(this.page() ?? 1)) || 1));
  protected readonly last = computed(() => Math.max(1, ...(this.swatches.value() ?? []).map((s) => s.page)));
  protected readonly slots = computed(() =>
    Array.from({ length: SLOTS_A_PAGE }, (_, i) => ({
      slot: i + 1,
      snippet: (this.swatches.value() ?? []).find((s) => s.page === this.open() && s.slot === i + 1),
    })),
  );
  /** What fits every word that is asked for. */
  protected readonly found = computed(() => {
    const words = this.asked()
      .toLowerCase()
      .split(/\s+/)
      .filter((w) => w !== '');
    return words.length === 0
      ? []
      : (this.swatches.value() ?? []).filter((s) => words.every((w) => wordsOf(s).includes(w)));
  });

  protected readonly L = signal<number | null>(null);
  protected readonly a = signal<number | null>(null);
  protected readonly b = signal<number | null>(null);
  protected readonly near = signal<readonly NearColour[] | undefined>(undefined);
  protected readonly searching = pageAction();

  protected nearest(lab?: { L: number; a: number; b: number }): void {
    if (lab) {
      this.L.set(lab.L);
      this.a.set(lab.a);
      this.b.set(lab.b);
    }
    const query = { L: String(this.L() ?? ''), a: String(this.a() ?? ''), b: String(this.b() ?? ''), count: '12' };
    this.searching.run(this.api.get('/api/colours/nearest', { query }), (found) => this.near.set(found));
  }

  /** The snippet whose place or note is being changed. */
  protected readonly moving = signal<Snippet | undefined>(undefined);
  protected readonly toPage = signal<number | null>(null);
  protected readonly toSlot = signal<number | null>(null);
  protected readonly note = signal('');
  protected readonly action = pageAction();

  protected move(snippet: Snippet): void {
    this.moving.set(snippet);
    this.toPage.set(snippet.page);
    this.toSlot.set(snippet.slot);
    this.note.set(snippet.note);
    this.action.clear();
  }

  protected keep(): void {
    const snippet = this.moving();
    if (!snippet) return;
    const body = {
      version: snippet.version,
      page: this.toPage() ?? NaN,
      slot: this.toSlot() ?? NaN,
      note: this.note(),
    };
    this.action.run(this.api.put('/api/swatches/{id}', body, snippet.id), () => {
      this.open.set(body.page);
      this.moving.set(undefined);
      this.swatches.reload();
    });
  }

  protected takeOut(snippet: Snippet): void {
    this.action.run(this.api.post('/api/swatches/{id}/taken-out', { id: newId() }, snippet.id), () => {
      this.moving.set(undefined);
      this.swatches.reload();
    });
  }

  /** A snippet that no lot here gave. */
  protected readonly name = signal('');
  protected readonly base = signal('');
  protected readonly dyestuffs = signal('');
  protected readonly mordants = signal('');
  protected readonly strayNote = signal('');
  protected readonly adding = pageAction();
  private strayId = newId();

  protected addStray(): void {
    const [L, a, b] = [this.L(), this.a(), this.b()];
    const body = {
      id: this.strayId,
      name: this.name(),
      lotId: null,
      lab:
        L === null || a === null || b === null
          ? null
          : { L, a, b, illuminant: 'D65' as const, observer: '10' as const },
      base: this.base(),
      dyestuffs: this.dyestuffs(),
      mordants: this.mordants(),
      place: null,
      note: this.strayNote(),
    };
    this.adding.run(this.api.post('/api/swatches', body), ({ page }) => {
      this.strayId = newId();
      for (const field of [this.name, this.base, this.dyestuffs, this.mordants, this.strayNote]) field.set('');
      this.open.set(page);
      this.swatches.reload();
    });
  }
}

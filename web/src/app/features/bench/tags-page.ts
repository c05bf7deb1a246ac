import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { Tag, TagOf } from '@vestigia/contract';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { inAddress } from '../../services/in-address';
import { RefusalNote } from '../../ui/refusal';
import { Count } from '../../ui/count';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';

type What = 'chosen' | 'stockLots' | 'pots' | 'lot';

/** Tags for jars, pots, lots, pieces and baths: given out, printed, and found again by scanning or typing. */
@Component({
  selector: 'vs-tags-page',
  imports: [RouterLink, ActBar, ScrollRegion, Count, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  templateUrl: './tags-page.html',
  styles: `
    .act[aria-pressed='true'] {
      box-shadow: inset 0 -6px 0 var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TagsPage {
  /** What its template says by what holds. */
  protected readonly says = {
    lotsChosen: $localize`The lots chosen`,
    jarsChosen: $localize`The jars chosen`,
    chooseWhatWantsA: $localize`Choose what wants a code.`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = pageAction();
  protected readonly finding = pageAction();
  protected readonly code = signal('');
  /** Of the address: jars chosen on the shelf or lots chosen in their list, their ids with commas between. */
  private readonly chosenJars = idsOf(inAddress('jars')());
  private readonly chosenLots = idsOf(inAddress('lots')());
  protected readonly anyLotsChosen = this.chosenLots.size > 0;
  protected readonly anyChosen = this.chosenJars.size > 0 || this.anyLotsChosen;
  protected readonly what = signal<What>(this.anyChosen ? 'chosen' : 'stockLots');
  /** Of lots chosen, a tag for each of their pieces as well. */
  protected readonly ofPieces = signal(false);
  protected readonly lotId = signal('');
  protected readonly given = signal<readonly Tag[]>([]);
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  private readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  protected readonly lots = liveQuery(['lots'], () => this.api.get('/api/lots'));
  private readonly lot = liveQuery(
    ['lots'],
    () => (this.lotId() === '' ? of(undefined) : this.api.get('/api/lots/{id}', { id: this.lotId() })),
    () => this.lotId(),
  );
  protected readonly wanted = computed((): TagOf[] => {
    if (this.what() === 'chosen' && this.anyLotsChosen)
      return (this.lots.value() ?? [])
        .filter((l) => this.chosenLots.has(l.id))
        .flatMap((l) => [{ kind: 'lot', lotId: l.id }, ...(this.ofPieces() ? piecesOf(l.id, l.pieces) : [])]);
    if (this.what() === 'chosen' || this.what() === 'stockLots')
      return (this.shelf.value() ?? [])
        .filter((j) => (this.what() === 'chosen' ? this.chosenJars.has(j.id) : j.onHand > 0))
        .map((j) => ({ kind: 'stockLot', stockLotId: j.id }));
    if (this.what() === 'pots')
      return (this.studio.value()?.vessels ?? []).map((v) => ({ kind: 'vessel', vesselId: v.id }));
    const lot = this.lot.value();
    if (!lot) return [];
    const { id: lotId } = lot.summary;
    const baths = lot.plan.steps.flatMap((s) =>
      s.baths.map((b): TagOf => ({ kind: 'bath', lotId, stepIndex: s.index, number: b.batches[0] ?? 1 })),
    );
    return [{ kind: 'lot', lotId }, ...baths, ...piecesOf(lotId, lot.plan.pieces)];
  });

  protected choose(what: What): void {
    this.what.set(what);
    this.given.set([]);
  }

  protected give(): void {
    this.action.run(this.api.post('/api/tags', { id: newId(), tags: this.wanted().slice(0, 400) }), (tags) =>
      this.given.set(tags),
    );
  }

  protected find(): void {
    this.finding.run(
      this.api.get('/api/tags', { query: { code: this.code() } }),
      (tag) => void this.router.navigateByUrl(tag.path),
    );
  }

  protected pdf(size: 'label' | 'sheet'): string {
    return `/api/tags.pdf?size=${size}&codes=${encodeURIComponent(
      this.given()
        .map((t) => t.code)
        .join(','),
    )}`;
  }
}

const idsOf = (inWords: string): ReadonlySet<string> => new Set(inWords.split(',').filter(Boolean));
const piecesOf = (lotId: string, pieces: number): TagOf[] =>
  Array.from({ length: pieces }, (_, i) => ({ kind: 'piece', lotId, number: i + 1 }));

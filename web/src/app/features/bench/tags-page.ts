import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { Tag, TagOf } from '@vestigia/contract';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

type What = 'jars' | 'pots' | 'lot';

/** Tags for jars, pots, lots, pieces and baths: given out, printed, and found again by scanning or typing. */
@Component({
  selector: 'vs-tags-page',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: ` <div class="head"><h1>Tags</h1></div>
    <form (ngSubmit)="find()">
      <div class="fields">
        <mat-form-field
          ><mat-label>Scan or type a tag</mat-label
          ><input matInput name="code" [(ngModel)]="code" autocomplete="off" /></mat-form-field
        ><button class="act" type="submit">Find it</button>
      </div>
      <vs-refusal [problem]="finding.problem()" />
    </form>
    <h2>Print tags for</h2>
    <div class="actions">
      <button class="act" type="button" (click)="choose('jars')" [attr.aria-pressed]="what() === 'jars'">
        Jars on the shelf
      </button>
      <button class="act" type="button" (click)="choose('pots')" [attr.aria-pressed]="what() === 'pots'">Pots</button>
      <button class="act" type="button" (click)="choose('lot')" [attr.aria-pressed]="what() === 'lot'">
        A lot: itself, its pieces and baths
      </button>
    </div>
    @if (what() === 'lot') {
      <div class="fields">
        <mat-form-field
          ><mat-label>Lot</mat-label
          ><select matNativeControl name="lot" [(ngModel)]="lotId">
            <option value="">choose</option>
            @for (l of lots.value(); track l.id) {
              <option [value]="l.id">{{ l.tag }} · {{ l.colourway.name }} · {{ l.pieces }} pieces</option>
            }
          </select></mat-form-field
        >
      </div>
    }
    <p>{{ wanted().length }} tags. Waterproof labels of 62 × 29 mm, or a sheet of A4 to cut.</p>
    <vs-refusal [problem]="action.problem()" />
    <div class="actions">
      <button class="act main" type="button" [disabled]="action.busy() || wanted().length === 0" (click)="give()">
        Give them their codes
      </button>
    </div>
    @if (given().length > 0) {
      <p>
        <a class="act" [href]="pdf('label')" target="_blank" rel="noopener">Labels to print</a>
        <a class="act" [href]="pdf('sheet')" target="_blank" rel="noopener">A sheet to cut</a>
      </p>
      <table class="ledger">
        <thead>
          <tr>
            <th>Code</th>
            <th>For</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (t of given(); track t.code) {
            <tr>
              <td>
                <strong>{{ t.code }}</strong>
              </td>
              <td>{{ t.title }}</td>
              <td class="soft">{{ t.detail }}</td>
            </tr>
          }
        </tbody>
      </table>
    }`,
  styles: `
    .act[aria-pressed='true'] {
      box-shadow: inset 0 -6px 0 var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TagsPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = doing();
  protected readonly finding = doing();
  protected readonly code = signal('');
  protected readonly what = signal<What>('jars');
  protected readonly lotId = signal('');
  protected readonly given = signal<readonly Tag[]>([]);
  private readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  private readonly studio = live(['studio'], () => this.api.get('/api/studio'));
  protected readonly lots = live(['lots'], () => this.api.get('/api/lots'));
  private readonly lot = live(
    ['lots'],
    () => (this.lotId() === '' ? of(undefined) : this.api.get('/api/lots/{id}', { id: this.lotId() })),
    () => this.lotId(),
  );
  protected readonly wanted = computed((): TagOf[] => {
    if (this.what() === 'jars')
      return (this.shelf.value() ?? []).filter((j) => j.onHand > 0).map((j) => ({ kind: 'jar', jarId: j.id }));
    if (this.what() === 'pots')
      return (this.studio.value()?.vessels ?? []).map((v) => ({ kind: 'vessel', vesselId: v.id }));
    const lot = this.lot.value();
    if (!lot) return [];
    const { id: lotId } = lot.summary;
    const baths = lot.plan.steps.flatMap((s) =>
      s.baths.map((b): TagOf => ({ kind: 'bath', lotId, stepIndex: s.index, number: b.batches[0] ?? 1 })),
    );
    return [
      { kind: 'lot', lotId },
      ...baths,
      ...Array.from({ length: lot.plan.pieces }, (_, i): TagOf => ({ kind: 'piece', lotId, number: i + 1 })),
    ];
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

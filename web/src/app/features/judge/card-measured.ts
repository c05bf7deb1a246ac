import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Lab } from '@vestigia/core';
import { CARD_PATCHES, labOfSpectrum, readColourFile, sayColourFileRefusal } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';

const UNDER = { illuminant: 'D65', observer: '2' } as const;
const numbersOf = (line: string): number[] =>
  line
    .trim()
    .split(/[\s;/]+/)
    .map((w) => Number(w.replace(',', '.')));

/** The printed card, measured once: from then on a photograph’s light is told by what it really is. */
@Component({
  selector: 'vs-card-measured',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, Swatch, When],
  template: `<h2 i18n>The printed card</h2>
    <p i18n>
      Laid beside pieces in a photograph it is found by itself.
      @if (card.value(); as c) {
        Measured {{ c.at | when }} by {{ c.by.name }}.
      } @else {
        Nobody has measured it yet: until then it counts as the printer made it.
      }
    </p>
    @if (card.value(); as c) {
      <div class="mounts">
        @for (lab of c.labs; track $index) {
          <vs-swatch [lab]="under(lab)" [width]="3" [label]="says.patch($index + 1)" />
        }
      </div>
    }
    <div class="actions">
      <a i18n class="act" href="/api/patch-card.pdf" target="_blank" rel="noopener">Print the card</a>
    </div>
    <details>
      <summary i18n>Write down what a reader says of it</summary>
      <form (ngSubmit)="keep()">
        <mat-form-field class="wide"
          ><mat-label i18n>L* a* b*, a patch a line</mat-label
          ><textarea matInput rows="6" name="cardLabs" [(ngModel)]="lines" placeholder="92.1 0.2 -0.4"></textarea>
        </mat-form-field>
        <label class="tick"
          ><ng-container i18n>Or out of a reader’s file</ng-container>
          <input type="file" accept=".txt,.cgats,.csv,.tsv,text/plain,text/csv" (change)="fromFile($event)"
        /></label>
        <p i18n class="small soft">
          Row by row, under D65 and 2°, the picture’s own white. Out of spectra that is worked out here.
          {{ read() }} of {{ count }} patches are written.
        </p>
        <vs-refusal [problem]="problem() ?? action.problem()" />
        <button i18n class="act" type="submit" [disabled]="action.busy()">Keep the card as measured</button>
      </form>
    </details>`,
  styles: `
    summary {
      min-height: 44px;
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CardMeasured {
  /** What its template says by what holds. */
  protected readonly says = {
    patch: (value: string | number): string => $localize`patch ${value}`,
  };

  private readonly api = inject(ApiClient);
  protected readonly count = CARD_PATCHES.length;
  protected readonly card = liveQuery(['studio'], () => this.api.get('/api/patch-card'));
  protected readonly under = (lab: Lab): Lab & typeof UNDER => ({ ...lab, ...UNDER });
  protected readonly lines = signal('');
  protected readonly problem = signal<{ readonly detail: string } | undefined>(undefined);
  protected readonly action = pageAction();
  private readonly labs = computed(() =>
    this.lines()
      .split('\n')
      .filter((line) => line.trim() !== '')
      .map(numbersOf),
  );
  protected readonly read = computed(
    () => this.labs().filter((n) => n.length === 3 && n.every(Number.isFinite)).length,
  );

  protected async fromFile(event: Event): Promise<void> {
    const file = (event.target as HTMLInputElement).files?.[0];
    if (!file) return;
    const found = readColourFile(await file.text());
    this.problem.set(found.ok ? undefined : { detail: sayColourFileRefusal(found.refusal) });
    if (!found.ok) return;
    const labs = found.swatches.map((s) => (s.spectrum ? labOfSpectrum(s.spectrum, UNDER) : s.lab));
    this.lines.set(labs.map(({ L, a, b }) => [L, a, b].map((v) => v.toFixed(2)).join(' ')).join('\n'));
  }

  protected keep(): void {
    const labs = this.labs();
    const wrong = labs.findIndex((n) => n.length !== 3 || !n.every(Number.isFinite));
    if (wrong !== -1 || labs.length !== this.count) {
      this.problem.set({
        detail:
          wrong === -1
            ? $localize`The card has ${this.count} patches, and ${labs.length} are written. Read them all, in order.`
            : $localize`Line ${wrong + 1} is not L*, a* and b*. Write three numbers.`,
      });
      return;
    }
    this.problem.set(undefined);
    const body = { id: newId(), labs: labs.map(([L = 0, a = 0, b = 0]) => ({ L, a, b })), note: '' };
    this.action.run(this.api.post('/api/patch-card', body), () => {
      this.lines.set('');
      this.card.reload();
    });
  }
}

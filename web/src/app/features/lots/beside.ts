import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { LotSummary, LotsBeside } from '@vestigia/contract';
import type { NamedShade } from '@vestigia/core';
import { decimals, describeDifference, pairShades, sayEye } from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { ThenAndNow } from '../../ui/then-and-now';
import { ScrollRegion } from '../../ui/scroll-region';

const shadesOf = ({ family, result }: LotSummary): NamedShade[] =>
  family.length > 1 ? family : [{ label: '', lab: result }];

/** Two lots side by side: how their shades differ, in a dyer’s words, and what was otherwise in the dyeing. */
@Component({
  selector: 'vs-beside',
  imports: [ScrollRegion, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, RouterLink, Swatch, ThenAndNow],
  templateUrl: './beside.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BesidePage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  readonly id = input.required<string>();
  /** The lot it lies beside. */
  readonly with = input<string | undefined>(undefined);
  private readonly all = liveQuery(['lots'], () => this.api.get('/api/lots'));
  protected readonly lot = computed(() => this.all.value()?.find((l) => l.id === this.id()));
  /** Lots that may lie beside it: those of its colourway first, then the newest. */
  protected readonly others = computed(() => {
    const own = this.lot()?.colourway.id;
    const rest = (this.all.value() ?? []).filter((l) => l.id !== this.id() && l.state !== 'cancelled');
    return [...rest.filter((l) => l.colourway.id === own), ...rest.filter((l) => l.colourway.id !== own)];
  });
  protected readonly beside = liveQuery<LotsBeside | undefined>(
    ['lots'],
    () => {
      const other = this.with();
      return other === undefined || other === ''
        ? of(undefined)
        : this.api.get('/api/lots/{id}/beside', { id: this.id(), query: { other } });
    },
    () => `${this.id()} ${this.with() ?? ''}`,
  );
  protected readonly pair = computed(() => {
    const b = this.beside.value();
    const [first, second] = b?.lots ?? [];
    if (!b || !first || !second) return undefined;
    return {
      first,
      second,
      names: [first.tag, second.tag] as const,
      factors: b.factors,
      shades: pairShades(shadesOf(first), shadesOf(second)).map((s) => {
        const difference = s.first && s.second ? describeDifference(s.first, s.second) : undefined;
        return {
          ...s,
          said: difference
            ? `${second.tag}: ${difference.summary}, ΔE00 ${decimals(difference.deltaE, 2)}`
            : $localize`${s.first ? second.tag : s.second ? first.tag : $localize`neither`} not read`,
        };
      }),
      lines: [first, second].map((l, i) => ({
        tag: l.tag,
        id: l.id,
        name: l.colourway.name,
        seen: l.seen ? sayEye(l.seen) : '',
        otherwise: b.otherwise[i] ?? [],
      })),
    };
  });

  protected choose(other: string): void {
    void this.router.navigate([], { queryParams: { with: other || null }, replaceUrl: true });
  }
}

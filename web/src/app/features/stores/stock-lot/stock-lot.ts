import { ChangeDetectionStrategy, Component, computed, effect, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MATERIAL_KIND_LABELS, HAZARD_LABELS, LIGHT_PLACE_LABELS, formatMoney } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { StudioSettings } from '../../../api/studio-settings';
import { liveQuery } from '../../../api/live-query';
import { ContextPanel } from '../../../services/context-panel';
import { Amount } from '../../../format/amount';
import { ColoursGiven } from '../../../ui/colours-given';
import { FastnessKnown } from '../../../ui/fastness-known';
import { Notes } from '../../../ui/notes';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { StockLotCount } from './stock-lot-count';
import { StockLotPickings } from './stock-lot-pickings';
import { Swatch } from '../../../ui/swatch';
import { StockLotGround } from './stock-lot-ground';
import { StockLotLabel } from './stock-lot-label';
import { StockLotStrength } from './stock-lot-strength';
import { StockLotLedger } from './stock-lot-ledger';
import { StockLotLiquor } from './stock-lot-liquor';
import { StockLotTake } from './stock-lot-take';
import { TracePicture } from './trace-picture';
import { DeedsOf } from '../../../ui/deeds-of';
import { ScrollRegion } from '../../../ui/scroll-region';
import { namesPage } from '../../../services/page-title';
import { ActBar } from '../../../ui/act-bar';
import { TermTip } from '../../../ui/term-tip';
import { AtHand } from '../../../ui/at-hand';
import { Said } from '../../../ui/said';

/** One jar: what is in it, how it got there, where it went. */
@Component({
  selector: 'vs-stock-lot',
  imports: [
    Said,
    AtHand,
    TermTip,
    ActBar,
    ScrollRegion,
    DeedsOf,
    RouterLink,
    Amount,
    ColoursGiven,
    FastnessKnown,
    Notes,
    RefusalNote,
    When,
    StockLotCount,
    StockLotPickings,
    Swatch,
    StockLotTake,
    StockLotGround,
    StockLotLabel,
    StockLotStrength,
    StockLotLedger,
    StockLotLiquor,
    TracePicture,
  ],
  providers: [StudioSettings],
  templateUrl: './stock-lot.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotPage {
  protected readonly kindLabel = MATERIAL_KIND_LABELS;
  /** What its template says by what holds. */
  protected readonly says = {
    sourceNotNoted: $localize`source not noted`,
    theReference: $localize`the reference`,
    unknownUntilTested: $localize`unknown until tested`,
    noneNoted: $localize`none noted`,
    fastToLight: (light: string | number): string => $localize`Lies ${light}.`,
    onOwnGround: $localize`Gathered on our own ground`,
    byLeaveOf: (permission: string | number): string => $localize`Gathered by leave of ${permission}`,
    shareTaken: (sharePercent: string | number): string => $localize`${sharePercent} % of the stand taken.`,
  };

  private readonly api = inject(ApiClient);
  private readonly contextPanel = inject(ContextPanel);
  readonly id = input.required<string>();
  protected readonly stockLot = liveQuery(
    ['stores'],
    () => this.api.get('/api/stock-lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  /** What a strength says something of. */
  protected readonly isDye = computed(
    () => this.stockLot.value()?.row.kind === 'dyestuff' && !this.stockLot.value()?.liquor,
  );
  /** Fibre that can be dyed: what it looks like now is where a shade begins. */
  protected readonly isGround = computed(() => {
    const s = this.stockLot.value();
    return s?.row.kind === 'fibre' && s.facts.treatment !== 'finished';
  });
  protected readonly light = LIGHT_PLACE_LABELS;
  protected readonly money = formatMoney;

  constructor() {
    namesPage(() => {
      const j = this.stockLot.value()?.row;
      return j && `${j.tag} · ${j.material}`;
    });
    effect(() => {
      const hazards = this.stockLot.value()?.row.hazards ?? [];
      this.contextPanel.notes.set(
        hazards.length === 0
          ? []
          : [
              {
                title: $localize`Handle with care`,
                lines: [
                  ...hazards.map((h) => `${HAZARD_LABELS[h]}.`),
                  $localize`The supplier’s safety data sheet says what protection it needs; it is kept with the material.`,
                ],
              },
            ],
      );
    });
  }
}

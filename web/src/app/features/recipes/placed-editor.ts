import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, model, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial } from '@vestigia/contract';
import type { PlacedPlan, PlacedZone } from '@vestigia/core';
import {
  ZONE_WAYS,
  ZONE_LABELS,
  findPlacedFault,
  layOutPlaced,
  sayPlacedCaution,
  sayPlacedFault,
} from '@vestigia/core';
import { PlacedPicture } from '../../ui/placed-picture';
import { moveEdge } from './zone-edges';
import { NumberField } from '../../ui/number-field';

const NEW_ZONE: PlacedZone = {
  title: '',
  way: 'dip',
  fromPercent: 0,
  toPercent: 25,
  order: 1,
  minutes: 30,
  waitMin: 0,
  mlPerPiece: null,
  gPerPiece: null,
  materialId: null,
  spacingCm: null,
};

/** Placed colour on one piece: zones drawn along it. Their edges are dragged, moved by the arrow keys, or typed. */
@Component({
  selector: 'vs-placed-editor',
  imports: [NumberField, FormsModule, MatFormFieldModule, MatInputModule, PlacedPicture],
  templateUrl: './placed-editor.html',
  styleUrl: './placed-editor.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacedEditor {
  /** What its template says by what holds. */
  protected readonly says = {
    zone: (i: string | number): string => $localize`Zone ${i}`,
  };

  readonly plan = model.required<PlacedPlan | null>();
  readonly materials = input.required<readonly ListedMaterial[]>();
  private readonly strip = viewChild<ElementRef<HTMLElement>>('strip');
  protected readonly ways = ZONE_WAYS;
  protected readonly label = ZONE_LABELS;
  protected readonly fault = computed(() => {
    const p = this.plan();
    const fault = p ? findPlacedFault(p) : undefined;
    return fault && sayPlacedFault(fault);
  });
  protected readonly cautions = computed(() => {
    const p = this.plan();
    return p && this.fault() === undefined ? layOutPlaced(p, 1).cautions.map(sayPlacedCaution) : [];
  });
  /** Handles over the picture: its sides have a margin of 6 of 1012. */
  protected readonly edges = computed(() => {
    const zones = this.plan()?.zones ?? [];
    const turns = [...new Set(zones.map((z) => z.order))].sort((a, b) => a - b);
    const rowPx = ((this.strip()?.nativeElement.clientWidth ?? 700) / 1012) * 46;
    return zones.flatMap((z, i) =>
      (['fromPercent', 'toPercent'] as const).map((side) => ({
        id: `${i} ${side}`,
        zone: i,
        side,
        percent: z[side],
        left: ((6 + z[side] * 10) / 1012) * 100,
        top: turns.indexOf(z.order) * rowPx,
        label: $localize`${z.title || $localize`zone ${i + 1}`}, ${side === 'fromPercent' ? $localize`lower` : $localize`upper`} edge`,
      })),
    );
  });

  protected begin(): void {
    this.plan.set({
      lengthCm: 75,
      piece: 'skein',
      bleedPercent: 4,
      zones: [{ ...NEW_ZONE, title: $localize`First dip` }],
    });
  }

  protected change(part: Partial<PlacedPlan>): void {
    const p = this.plan();
    if (p) this.plan.set({ ...p, ...part });
  }

  protected zone(index: number, part: Partial<PlacedZone>): void {
    const p = this.plan();
    if (p) this.change({ zones: p.zones.map((z, i) => (i === index ? { ...z, ...part } : z)) });
  }

  protected add(): void {
    const zones = this.plan()?.zones ?? [];
    const from = Math.min(95, Math.max(0, ...zones.map((z) => z.toPercent)));
    this.change({
      zones: [
        ...zones,
        {
          ...NEW_ZONE,
          title: $localize`Zone ${zones.length + 1}`,
          fromPercent: from,
          toPercent: Math.min(100, from + 20),
        },
      ],
    });
  }

  protected drop(index: number): void {
    this.change({ zones: (this.plan()?.zones ?? []).filter((_, i) => i !== index) });
  }

  protected grab(event: PointerEvent, zone: number, side: 'fromPercent' | 'toPercent'): void {
    const handle = event.currentTarget as HTMLElement;
    const box = this.strip()?.nativeElement.getBoundingClientRect();
    if (!box) return;
    event.preventDefault();
    handle.focus();
    const move = (e: PointerEvent): void =>
      this.moveTo(zone, side, (((e.clientX - box.left) / box.width) * 1012 - 6) / 10);
    const stop = (): void => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', stop);
      window.removeEventListener('pointercancel', stop);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', stop);
    window.addEventListener('pointercancel', stop);
  }

  protected nudge(event: KeyboardEvent, zone: number, side: 'fromPercent' | 'toPercent'): void {
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageDown: -10, PageUp: 10 }[event.key];
    const z = this.plan()?.zones[zone];
    if (by === undefined || !z) return;
    event.preventDefault();
    this.moveTo(zone, side, z[side] + by);
  }

  private moveTo(zone: number, side: 'fromPercent' | 'toPercent', percent: number): void {
    const p = this.plan();
    if (p) this.change({ zones: moveEdge(p.zones, zone, side, percent) });
  }
}

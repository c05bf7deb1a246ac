import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { KnownColour } from '@vestigia/contract';
import type { PaletteOrder } from '@vestigia/core';
import { TOO_NEAR_DELTA_E00, describeColour, layPalette, nearPairs } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { saveFile } from '../../api/save-file';
import { paletteSvg } from '../../format/palette-svg';
import { linkToColour } from '../../ui/colours-given';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { JudgeNav } from './judge-nav';
import { Decimals } from '../../ui/decimals';

const SHELF = 'vestigia-palette';
const OFFERED = 40;
const ORDER_LABELS: Readonly<Record<PaletteOrder, string>> = {
  hand: $localize`as laid by hand`,
  lightness: $localize`from pale to deep`,
  hue: $localize`round the hues`,
};
/** A colour of the record by a name of its own: several may be of one lot. */
const keyOf = (c: KnownColour): string => `${c.kind} ${c.id} ${c.title} ${c.detail}`;

interface Kept {
  readonly title: string;
  readonly order: PaletteOrder;
  readonly keys: readonly string[];
}

function kept(): Kept {
  try {
    const { title, order, keys } = JSON.parse(localStorage.getItem(SHELF) ?? '') as Kept;
    if (Array.isArray(keys) && order in ORDER_LABELS) return { title: String(title), order, keys: keys.map(String) };
  } catch {
    // Nothing kept on this tablet yet, or another program wrote there.
  }
  return { title: '', order: 'hand', keys: [] };
}

/** Chosen colours side by side on grey: reordered, warned of where two sit too near, printed and written as files. */
@Component({
  selector: 'vs-palette',
  imports: [Decimals, FormsModule, JudgeNav, MatFormFieldModule, MatInputModule, RefusalNote, RouterLink, Swatch],
  templateUrl: './palette.html',
  styles: `
    .lay {
      padding: 2rem;
      gap: 2px 0;
    }
    .lay figure {
      margin: 0 0 1rem;
    }
    .lay figcaption button {
      min-height: 44px;
    }
    .offer figcaption button {
      text-align: left;
      padding: 0;
      min-height: 44px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PalettePage {
  /** What its template says by what holds. */
  protected readonly says = {
    onePlaceEarlier: (title: string | number): string => $localize`${title}, one place earlier`,
    onePlaceLater: (title: string | number): string => $localize`${title}, one place later`,
    leaveOut: (title: string | number): string => $localize`Leave ${title} out`,
  };

  private readonly api = inject(ApiClient);
  private readonly start = kept();
  protected readonly orders = Object.entries(ORDER_LABELS) as [PaletteOrder, string][];
  protected readonly tooNear = TOO_NEAR_DELTA_E00;
  protected readonly label = describeColour;
  protected readonly linkTo = linkToColour;
  protected readonly title = signal(this.start.title);
  protected readonly order = signal<PaletteOrder>(this.start.order);
  protected readonly keys = signal<readonly string[]>(this.start.keys);
  protected readonly asked = signal('');
  protected readonly colours = liveQuery(['lots', 'colourways', 'swatches'], () => this.api.get('/api/colours'));
  private readonly named = computed(() => new Map((this.colours.value() ?? []).map((c) => [keyOf(c), c])));
  protected readonly laid = computed(() => {
    const named = this.named();
    const chosen = this.keys().flatMap((key) => {
      const c = named.get(key);
      return c ? [{ ...c, key, id: key, of: c }] : [];
    });
    return layPalette(chosen, this.order());
  });
  protected readonly near = computed(() => {
    const titles = new Map(this.laid().map((c) => [c.key, c.title]));
    return nearPairs(this.laid()).map((p) => ({
      ...p,
      names: [titles.get(p.first), titles.get(p.second)].join($localize` and `),
    }));
  });
  protected readonly offered = computed(() => {
    const words = this.asked()
      .toLowerCase()
      .split(/\s+/)
      .filter((w) => w !== '');
    const chosen = new Set(this.keys());
    return (this.colours.value() ?? [])
      .filter((c) => !chosen.has(keyOf(c)))
      .filter((c) => {
        const all = `${c.kind} ${c.title} ${c.detail} ${describeColour(c.lab)}`.toLowerCase();
        return words.every((w) => all.includes(w));
      })
      .slice(0, OFFERED);
  });
  protected readonly printing = pageAction();

  constructor() {
    effect(() => {
      const shelf: Kept = { title: this.title(), order: this.order(), keys: this.keys() };
      try {
        localStorage.setItem(SHELF, JSON.stringify(shelf));
      } catch {
        // A tablet that keeps nothing has the palette for as long as the page is open.
      }
    });
  }

  protected add(colour: KnownColour): void {
    this.keys.update((keys) => [...keys, keyOf(colour)]);
  }

  protected leaveOut(key: string): void {
    this.keys.update((keys) => keys.filter((k) => k !== key));
  }

  /** One place towards the beginning, or the end; from then on it lies as the hand laid it. */
  protected shift(key: string, by: -1 | 1): void {
    const keys = this.laid().map((c) => c.key);
    const at = keys.indexOf(key);
    const other = keys[at + by];
    if (at === -1 || other === undefined) return;
    keys[at + by] = key;
    keys[at] = other;
    this.order.set('hand');
    this.keys.set(keys);
  }

  private sheet(): { title: string; colours: { name: string; detail: string; lab: KnownColour['lab'] }[] } {
    return {
      title: this.title().trim() || $localize`Palette`,
      colours: this.laid().map(({ title, detail, lab }) => ({ name: title, detail, lab })),
    };
  }

  protected asSvg(): void {
    const sheet = this.sheet();
    saveFile(new Blob([paletteSvg(sheet.title, sheet.colours)], { type: 'image/svg+xml' }), 'palette.svg');
  }

  protected asPdf(): void {
    this.printing.run(this.api.postForFile('/api/palette.pdf', this.sheet()), (file) => saveFile(file, 'palette.pdf'));
  }
}

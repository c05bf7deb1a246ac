import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LabUnder } from '@vestigia/contract';
import type { ReadingState } from '@vestigia/core';
import { describeColour, screenColour } from '@vestigia/core';

const PINKS = 8;

/**
 * A dyed colour, always drawn alike: a rectangle with a pinked lower edge on neutral grey. Wet ones carry a drop,
 * unshowable ones a cut corner; where no colour is known yet, only its dashed outline stands.
 */
@Component({
  selector: 'vs-swatch',
  template: ` <svg
    [attr.viewBox]="'0 0 100 ' + height()"
    [style.width.rem]="width()"
    role="img"
    [attr.aria-label]="description()"
  >
    <title>{{ description() }}</title>
    @if (shown(); as s) {
      <path [attr.d]="outline()" [attr.fill]="s.css" />
    } @else {
      <path [attr.d]="outline()" fill="none" stroke="#1c1c1c" stroke-width="2" stroke-dasharray="6 5" />
    }
    @if (state() === 'wet') {
      <path d="M88 8c5 8 7 11 7 15a7 7 0 0 1-14 0c0-4 2-7 7-15z" fill="#fff" stroke="#000" stroke-width="1.5" />
    }
  </svg>`,
  styles: `
    :host {
      display: inline-block;
      line-height: 0;
      background: var(--mount);
      padding: 0.3rem;
      vertical-align: middle;
      max-width: 100%;
      box-sizing: border-box;
    }
    svg {
      max-width: 100%;
    }
    :host-context(.mounts) {
      padding: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Swatch {
  /** `null` where nobody knows it yet. */
  readonly lab = input.required<LabUnder | null>();
  readonly state = input<ReadingState | undefined>(undefined);
  readonly width = input(3);
  readonly height = input(70);
  readonly label = input('');

  protected readonly shown = computed(() => {
    const lab = this.lab();
    return lab && screenColour(lab, lab);
  });
  protected readonly description = computed(() => {
    const lab = this.lab();
    const outOfGamut = this.shown()?.outOfGamut === true;
    return [
      this.label(),
      lab ? describeColour(lab) : $localize`not known yet`,
      this.state() === 'wet' ? 'wet' : '',
      outOfGamut ? $localize`stronger than this screen can show` : '',
    ]
      .filter((w) => w !== '')
      .join(', ');
  });
  protected readonly outline = computed(() => {
    const h = this.height();
    const step = 100 / PINKS;
    const edge = Array.from(
      { length: PINKS },
      (_, i) => `L${100 - (i + 0.5) * step} ${h} L${100 - (i + 1) * step} ${h - 7}`,
    ).join(' ');
    const top = this.shown()?.outOfGamut ? 'M22 0 L100 0' : 'M0 0 L100 0';
    const close = this.shown()?.outOfGamut ? 'L0 22 Z' : 'Z';
    return `${top} L100 ${h - 7} ${edge} ${close}`;
  });
}

import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { sayKnotTag } from '@vestigia/core';

const KNOT = 9;
const GAP = 26;

/** A knot tag drawn as it is tied: loop at the left, groups of knots a thumb's width apart. */
@Component({
  selector: 'vs-knot-mark',
  template: `<svg
    [attr.viewBox]="'0 0 ' + width() + ' 24'"
    [style.width.px]="width()"
    role="img"
    [attr.aria-label]="label()"
  >
    <title>{{ label() }}</title>
    <circle cx="9" cy="12" r="7" />
    <path [attr.d]="'M16 12H' + width()" />
    @for (x of knots(); track $index) {
      <ellipse [attr.cx]="x" cy="12" rx="4" ry="6" class="knot" />
    }
  </svg>`,
  styles: `
    svg {
      display: block;
      max-width: 100%;
    }
    circle,
    path {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
    }
    .knot {
      fill: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KnotMark {
  readonly groups = input.required<readonly number[]>();
  protected readonly label = computed(() => sayKnotTag(this.groups()));
  protected readonly knots = computed(() => {
    const xs: number[] = [];
    let x = 34;
    for (const n of this.groups()) {
      for (let i = 0; i < n; i += 1, x += KNOT) xs.push(x);
      x += GAP;
    }
    return xs;
  });
  protected readonly width = computed(() => (this.knots().at(-1) ?? 34) + 16);
}

import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { LabUnder, Station } from '@vestigia/contract';
import { describeColour, screenColour } from '@vestigia/core';
import { layThread } from './thread-geometry';

const CROWDED_FROM = 13;
const STATE_WORDS: Readonly<Record<Station['state'], string>> = {
  waiting: 'to come',
  running: 'now',
  paused: 'paused',
  done: 'done',
  skipped: 'skipped',
};

/** A lot as one strand through its stations, in its real colours: solid where done, open where planned, knotted where someone deviated. */
@Component({
  selector: 'vs-thread',
  template: ` <div
    class="strip"
    [class.large]="large()"
    [class.scroller]="crowded()"
    [class.crowded]="crowded()"
    [attr.tabindex]="crowded() ? 0 : null"
  >
    <div [style.min-width.rem]="crowded() ? stations().length * 2.9 : null">
      <svg
        [attr.viewBox]="'0 0 ' + drawing().width + ' ' + drawing().height"
        preserveAspectRatio="none"
        role="img"
        [attr.aria-label]="words()"
      >
        @for (part of drawing().parts; track $index) {
          @if (!part.solid) {
            <path [attr.d]="part.path" stroke="#1c1c1c" [attr.stroke-width]="part.width" fill="none" />
          }
        }
        @for (part of drawing().parts; track $index) {
          <path
            [attr.d]="part.path"
            [attr.stroke]="part.solid ? colour(part.dyed) : 'var(--mount)'"
            [attr.stroke-width]="part.solid ? part.width : part.width - 2"
            fill="none"
          />
        }
        @for (mark of drawing().marks; track mark.index) {
          @if (mark.station.knotted) {
            <g fill="none" stroke="#111" stroke-width="2">
              <ellipse
                [attr.cx]="mark.x"
                [attr.cy]="mark.y"
                [attr.rx]="drawing().strandWidth * 0.75"
                [attr.ry]="drawing().strandWidth * 0.95"
                [attr.fill]="colour(dyedAt(mark.index))"
              />
              <path
                [attr.d]="
                  'M' +
                  (mark.x - drawing().strandWidth * 0.6) +
                  ' ' +
                  (mark.y - 3) +
                  ' L' +
                  (mark.x + drawing().strandWidth * 0.6) +
                  ' ' +
                  (mark.y + 3)
                "
              />
            </g>
          }
        }
      </svg>
      @if (large()) {
        <ol>
          @for (mark of drawing().marks; track mark.index) {
            <li [class.now]="mark.station.state === 'running'" [class.here]="selected() === mark.index">
              <button
                type="button"
                (click)="picked.emit(mark.index)"
                [attr.aria-pressed]="selected() === mark.index"
                [attr.aria-label]="mark.station.title + ', ' + stateWords(mark.station)"
              >
                <span
                  class="mark"
                  [class.done]="mark.station.state === 'done'"
                  [class.skipped]="mark.station.state === 'skipped'"
                  aria-hidden="true"
                ></span
                ><span class="words">{{ mark.station.title }}</span>
              </button>
            </li>
          }
        </ol>
      }
    </div>
  </div>`,
  styles: `
    :host {
      display: block;
    }
    .strip {
      background: var(--mount);
      padding: 0.25rem 0;
    }
    svg {
      display: block;
      width: 100%;
      height: 1.6rem;
    }
    .large {
      padding: 0.75rem 0 0.25rem;
    }
    .large svg {
      height: 4.2rem;
    }
    ol {
      display: flex;
      list-style: none;
      margin: 0.25rem 0 0;
      padding: 0;
    }
    li {
      flex: 1 1 0;
      min-width: 0;
    }
    button {
      all: unset;
      display: flex;
      flex-direction: column;
      align-items: center;
      justify-content: flex-start;
      box-sizing: border-box;
      width: 100%;
      min-height: 44px;
      padding: 0.2rem 0.15rem;
      cursor: pointer;
      text-align: center;
      font-size: 0.78rem;
      line-height: 1.15;
      color: var(--mount-ink);
      font-weight: 600;
      overflow-wrap: anywhere;
      hyphens: auto;
    }
    button:focus-visible {
      outline: 3px solid #000;
      outline-offset: -3px;
    }
    /* Many stations: every other one says its name a line lower, so that each has the room of two. */
    .crowded ol {
      padding: 0 1.2rem;
    }
    .crowded .words {
      width: 185%;
    }
    .crowded li:nth-child(even) .words {
      padding-top: 2.5em;
    }
    .here button {
      box-shadow: inset 0 -4px 0 #000;
    }
    .now button {
      font-weight: 800;
      text-decoration: underline;
    }
    .mark {
      display: block;
      width: 8px;
      height: 8px;
      border: 2px solid #000;
      margin: 0 0 0.2rem;
      flex: none;
      box-sizing: content-box;
    }
    .mark.done {
      background: #000;
    }
    .mark.skipped {
      border-style: dotted;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Thread {
  readonly stations = input.required<readonly Station[]>();
  readonly undyed = input.required<LabUnder>();
  readonly master = input.required<LabUnder>();
  readonly result = input<LabUnder | null>(null);
  readonly batches = input(1);
  readonly large = input(false);
  readonly selected = input<number | undefined>(undefined);
  readonly picked = output<number>();
  protected readonly crowded = computed(() => this.large() && this.stations().length > CROWDED_FROM);

  protected readonly drawing = computed(() =>
    layThread(
      this.stations(),
      this.batches(),
      this.large() ? { width: 1000, height: 70, strandWidth: 12 } : { width: 300, height: 28, strandWidth: 7 },
    ),
  );
  private readonly dyedColour = computed(() => this.result() ?? this.master());
  private readonly firstDyed = computed(() => this.drawing().parts.findIndex((p) => p.dyed));

  protected colour(dyed: boolean): string {
    const lab = dyed ? this.dyedColour() : this.undyed();
    return screenColour(lab, lab).css;
  }

  protected dyedAt(index: number): boolean {
    return this.firstDyed() >= 0 && index >= this.stations().findIndex((s) => s.kind === 'dye' || s.kind === 'tannin');
  }

  protected stateWords(station: Station): string {
    return `${STATE_WORDS[station.state]}${station.knotted ? ', with a deviation' : ''}`;
  }

  protected readonly words = computed(() => {
    const done = this.stations().filter((s) => s.state === 'done' || s.state === 'skipped').length;
    const knots = this.stations().filter((s) => s.knotted).length;
    return `${done} of ${this.stations().length} stations done${knots > 0 ? `, ${knots} with a deviation` : ''}; ${this.result() ? 'read as' : 'wanted'} ${describeColour(this.dyedColour())}`;
  });
}

import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { NewStripLook, StripTrialDetail } from '@vestigia/contract';
import {
  EYE_EVENNESS,
  EYE_EVENNESS_LABELS,
  EYE_LIGHTS,
  EYE_LIGHT_LABELS,
  STRIP_WARMTHS,
  STRIP_WARMTH_LABELS,
  currentEntries,
  rankByEye,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';
import { Session } from '../../api/session';

type SeenStrip = NewStripLook['seen'][number];

/** Strips laid side by side and placed by eye: deepest first, warm or cool, even or not, wet and again dry. */
@Component({
  selector: 'vs-strip-looks',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  templateUrl: './strip-looks.html',
  styles: `
    .strip p {
      margin: 0.75rem 0 0.35rem;
    }
    .strip .fields {
      grid-template-columns: repeat(auto-fit, minmax(min(9rem, 100%), 1fr));
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StripLooks {
  /** What its template says by what holds. */
  protected readonly says = {
    goodFor: (uses: string | number): string => $localize`. Good for ${uses}`,
    strip: (number: string | number): string => $localize`strip ${number}`,
    replaceIt: $localize`Write it down in place of what I said`,
    writeItDown: $localize`Write down how I place them`,
  };

  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  readonly trial = input.required<StripTrialDetail>();
  readonly changed = output();
  protected readonly action = pageAction();
  protected readonly warmths = STRIP_WARMTHS;
  protected readonly warmthLabel = STRIP_WARMTH_LABELS;
  protected readonly evennesses = EYE_EVENNESS;
  protected readonly evennessLabel = EYE_EVENNESS_LABELS;
  protected readonly lights = EYE_LIGHTS;
  protected readonly lightLabel = EYE_LIGHT_LABELS;
  protected readonly state = signal<NewStripLook['state']>('dry');
  protected readonly light = signal<NewStripLook['light']>('daylight');
  /** What was chosen so far, by strip; places as they are typed. */
  private readonly written = signal<ReadonlyMap<number, Partial<SeenStrip> & { readonly placeText?: string }>>(
    new Map(),
  );
  private id = newId();

  protected readonly standing = computed(() => currentEntries(this.trial().looks));
  protected readonly ranked = computed(() => {
    const { layout } = this.trial();
    return rankByEye(this.standing().map((look) => ({ ...look, byId: look.by.id }))).map((s) => ({
      ...s,
      label: layout[s.number - 1]?.label ?? '',
      said: [
        this.warmthLabel[s.warmth],
        this.evennessLabel[s.evenness],
        s.rose === null || s.rose === 0
          ? ''
          : s.rose > 0
            ? $localize`deeper dry than wet`
            : $localize`paler dry than wet`,
        s.state === 'wet' ? $localize`seen only wet` : '',
        s.people > 1 ? $localize`by ${s.people} people` : '',
      ]
        .filter((w) => w !== '')
        .join(', '),
    }));
  });
  /** What this person said before in this state: saying it again corrects it. */
  protected readonly before = computed(() =>
    this.standing()
      .filter((l) => l.state === this.state() && l.by.id === this.session.person()?.id)
      .at(-1),
  );
  protected readonly rows = computed(() => {
    const [written, before] = [this.written(), this.before()];
    return this.trial().layout.map(({ number, label }) => {
      const said = before?.seen.find((s) => s.number === number);
      const { placeText, ...now } = written.get(number) ?? {};
      return {
        number,
        label,
        place: placeText ?? (said ? String(said.place) : ''),
        warmth: now.warmth ?? said?.warmth ?? 'between',
        evenness: now.evenness ?? said?.evenness ?? 'even',
        goodFor: now.goodFor ?? said?.goodFor ?? '',
      };
    });
  });

  protected set(number: number, change: Partial<SeenStrip> & { readonly placeText?: string }): void {
    this.written.update((all) => new Map([...all, [number, { ...all.get(number), ...change }]]));
  }

  protected look(): void {
    const seen = this.rows()
      .filter((row) => row.place.trim() !== '')
      .map(({ label: _label, place, ...row }) => ({ ...row, place: Number(place.trim()) }));
    const body = {
      id: this.id,
      state: this.state(),
      light: this.light(),
      seen,
      replacesId: this.before()?.id ?? null,
    };
    this.action.run(this.api.post('/api/strip-trials/{id}/looks', body, this.trial().summary.id), () => {
      this.id = newId();
      this.written.set(new Map());
      this.changed.emit();
    });
  }
}

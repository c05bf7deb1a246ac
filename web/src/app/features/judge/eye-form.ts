import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { EyeReadingView, LotDetail } from '@vestigia/contract';
import type { EyeSeen, ReadingState } from '@vestigia/core';
import {
  WHOLE,
  EYE_AGAINST,
  EYE_AGAINST_LABELS,
  EYE_EVENNESS,
  EYE_EVENNESS_LABELS,
  EYE_HUES,
  EYE_LIGHT_LABELS,
  EYE_LIGHTS,
  READING_STATES,
  currentEntries,
  sayEye,
  sayShade,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { ShadeChoice } from '../../ui/shade-choice';
import { PictureSizer } from '../../services/picture-sizer';
import { KeepOriginals } from '../../ui/keep-originals';
import { from, switchMap } from 'rxjs';
import { ScrollRegion } from '../../ui/scroll-region';
import { DraftOf } from '../../ui/draft';
import { Kept } from '../../ui/kept';
import { Said } from '../../ui/said';

const DEPTHS = [
  { depth: -2, label: $localize`much paler` },
  { depth: -1, label: $localize`paler` },
  { depth: 0, label: $localize`the same` },
  { depth: 1, label: $localize`deeper` },
  { depth: 2, label: $localize`much deeper` },
];
const CLARITIES = [
  { clarity: -1, label: $localize`duller` },
  { clarity: 0, label: $localize`as clear` },
  { clarity: 1, label: $localize`clearer` },
];
const AS_WANTED: EyeSeen = {
  against: 'master',
  depth: 0,
  hue: null,
  clarity: 0,
  evenness: 'even',
  where: '',
  light: 'daylight',
};

/** What an eye says of a lot: against what, which way, how even, in what light; and what eyes said before. */
@Component({
  selector: 'vs-eye-form',
  imports: [
    Said,
    Kept,
    DraftOf,
    ScrollRegion,
    KeepOriginals,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    ShadeChoice,
    When,
  ],
  templateUrl: './eye-form.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EyeForm {
  /** What its template says by what holds. */
  protected readonly says = {
    whatShouldStandInstead: $localize`What should stand instead`,
    whatYouSee: $localize`What you see`,
  };

  private readonly api = inject(ApiClient);
  readonly lot = input.required<LotDetail>();
  readonly changed = output();
  protected readonly action = pageAction();
  protected readonly depths = DEPTHS;
  protected readonly clarities = CLARITIES;
  protected readonly hues = EYE_HUES;
  protected readonly evennesses = EYE_EVENNESS;
  protected readonly evennessLabel = EYE_EVENNESS_LABELS;
  protected readonly lights = EYE_LIGHTS;
  protected readonly lightLabel = EYE_LIGHT_LABELS;
  protected readonly states = READING_STATES;
  protected readonly againstLabel = EYE_AGAINST_LABELS;
  /** Nobody holds a piece against a master that there is not. */
  protected readonly against = computed(() => EYE_AGAINST.filter((a) => a !== 'master' || this.lot().summary.master));
  protected readonly seen = signal<EyeSeen>(AS_WANTED);
  protected readonly shade = signal(WHOLE);
  protected readonly state = signal<ReadingState>('dry');
  protected readonly replaces = signal<EyeReadingView | undefined>(undefined);
  protected readonly said = computed(() => sayEye(this.shownSeen()));
  private id = newId();

  /** As it would be written down: held against nothing where there is no master yet. */
  private readonly shownSeen = computed((): EyeSeen => {
    const seen = this.seen();
    return seen.against === 'master' && !this.lot().summary.master ? { ...seen, against: 'nothing' } : seen;
  });
  protected readonly chosenAgainst = computed(() => this.shownSeen().against);
  protected readonly all = computed(() => {
    const { eyes, plan } = this.lot();
    const standing = new Set(currentEntries(eyes));
    return eyes.map((e) => ({
      ...e,
      struck: !standing.has(e),
      of: [$localize`Batch ${e.batch}`, sayShade(plan, e), e.state].filter((w) => w !== '').join(', '),
      said: sayEye(e.seen),
    }));
  });

  protected set(change: Partial<EyeSeen>): void {
    this.seen.update((seen) => ({ ...seen, ...change }));
  }

  protected correct(eye: EyeReadingView): void {
    this.replaces.set(eye);
    this.seen.set(eye.seen);
    this.state.set(eye.state);
    this.shade.set({ batch: eye.batch, group: eye.group, zone: eye.zone, piece: eye.piece, dip: eye.dip });
  }

  /** Of what was seen, in the light it was seen in; no reading is taken from it. */
  protected readonly photo = signal<File | undefined>(undefined);
  protected readonly attaching = pageAction();
  private readonly sizer = inject(PictureSizer);

  protected choosePhoto(event: Event): void {
    this.photo.set((event.target as HTMLInputElement).files?.[0]);
  }

  private attach(eye: string, photo: File): void {
    this.attaching.run(
      from(this.sizer.toSend(photo)).pipe(
        switchMap((sent) =>
          this.api.upload('/api/lots/{id}/eye-photos', sent, sent.type, {
            id: this.lot().summary.id,
            query: { id: newId(), eye, name: sent.name },
          }),
        ),
      ),
      () => {
        this.photo.set(undefined);
        this.changed.emit();
      },
    );
  }

  protected look(): void {
    const body = {
      id: this.id,
      ...this.shade(),
      state: this.state(),
      seen: this.shownSeen(),
      note: '',
      replacesId: this.replaces()?.id ?? null,
    };
    const photo = this.photo();
    this.action.run(this.api.post('/api/lots/{id}/eyes', body, this.lot().summary.id), ({ id }) => {
      if (photo) this.attach(id, photo);
      this.id = newId();
      this.replaces.set(undefined);
      this.seen.set(AS_WANTED);
      this.changed.emit();
    });
  }
}

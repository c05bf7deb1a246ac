import { Injectable, computed, inject, signal } from '@angular/core';
import type { KnownArea, Lab, MeasuredArea, Rect } from '@vestigia/core';
import {
  CARD_PATCHES,
  MEASURED_CARD_DELTA_E00,
  UNMEASURED_CARD_DELTA_E00,
  joinList,
  sayPhotoRefusal,
} from '@vestigia/core';
import { newId } from '../../api/new-id';
import { PhotoMeasurer } from './photo-measurer';
import { readTakenAt } from './photo-taken-at';

/** A part of a picture that somebody marked: the grey card, or a piece. */
export interface Marked {
  readonly id: string;
  readonly kind: 'card' | 'piece';
  readonly rect: Rect;
}

/** One photograph on the desk. */
export interface Photo {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** As much of it as the page shows. */
  readonly preview: ImageBitmap;
  /** When its camera says it was taken; nothing else that it says is believed. */
  readonly takenAt: Date | undefined;
  readonly marked: readonly Marked[];
  /** Patches of the printed card, where it was found. */
  readonly card: readonly Rect[];
  /** What is wrong with the card, where it lies on the slant. */
  readonly isSlanted: boolean;
}

/** What was measured, and in which photograph. */
export interface MeasuredPiece {
  readonly area: MeasuredArea;
  readonly photo: Photo;
}

type Problem = { readonly detail: string } | undefined;
/** L* of the usual grey card, which throws back 18 % of the light. */
const GREY_CARD_L = 49.5;
const letter = (n: number): string =>
  n < 26 ? String.fromCharCode(65 + n) : `${letter(Math.floor(n / 26) - 1)}${letter(n % 26)}`;

/** Photographs laid out to be measured together: a row of hanks in one, or many, each with its card. */
@Injectable()
export class PhotoDesk {
  private readonly measurer = inject(PhotoMeasurer);
  readonly photos = signal<readonly Photo[]>([]);
  private readonly openId = signal('');
  readonly open = computed(() => this.photos().find((p) => p.id === this.openId()) ?? this.photos()[0]);
  readonly marking = signal<Marked['kind']>('card');
  readonly cardL = signal<number | null>(GREY_CARD_L);
  /** The printed card as it was measured; `null` while it never was. */
  readonly cardLabs = signal<readonly Lab[] | null>(null);
  readonly busy = signal(false);
  readonly problem = signal<Problem>(undefined);
  readonly measured = signal<readonly MeasuredPiece[]>([]);

  /** Pieces are counted through all photographs, so that each has a name of its own. */
  readonly names = computed(() => {
    let pieces = 0;
    return new Map(
      this.photos().flatMap((p) =>
        p.marked.map(
          (m) => [m.id, m.kind === 'card' ? $localize`grey card` : $localize`piece ${letter(pieces++)}`] as const,
        ),
      ),
    );
  });
  readonly whyNot = computed(() => {
    const photos = this.photos();
    if (photos.length === 0) return $localize`Take or choose a photograph.`;
    const many = photos.length > 1;
    const cardless = photos.filter((p) => p.card.length === 0 && !p.marked.some((m) => m.kind === 'card'));
    if (cardless.length > 0)
      return many
        ? $localize`Mark the grey card in ${joinList(cardless.map((p) => p.name))}:name:: drag across it.`
        : $localize`Mark the grey card first: drag across it.`;
    const empty = photos.filter((p) => !p.marked.some((m) => m.kind === 'piece'));
    if (empty.length > 0)
      return many
        ? $localize`Mark a piece in ${joinList(empty.map((p) => p.name))}:name:: drag across a plain part of it.`
        : $localize`Mark a piece: drag across a plain part of it.`;
    return this.cardL() === null ? $localize`Write how light the card is.` : '';
  });
  readonly hasPrintedCard = computed(() => this.photos().some((p) => p.card.length > 0));

  choose(id: string): void {
    this.openId.set(id);
    const photo = this.open();
    this.marking.set(!photo || photo.card.length > 0 || photo.marked.some((m) => m.kind === 'card') ? 'piece' : 'card');
  }

  /** Lays photographs out in place of those that lay there, and looks for the printed card in each. */
  async layOut(files: readonly File[]): Promise<void> {
    this.problem.set(undefined);
    this.measured.set([]);
    this.photos.set([]);
    this.measurer.forget();
    const unopened: string[] = [];
    for (const file of files) {
      const photo = await this.opened(file);
      if (photo) this.photos.update((all) => [...all, photo]);
      else unopened.push(file.name);
    }
    const [first] = this.photos();
    if (first) this.choose(first.id);
    if (unopened.length > 0)
      this.problem.set({
        detail:
          files.length === 1
            ? $localize`The picture can’t be opened. Save it as JPEG or PNG, or take it again.`
            : $localize`${joinList(unopened)} can’t be opened. Save them as JPEG or PNG, or take them again.`,
      });
  }

  private async opened(file: File): Promise<Photo | undefined> {
    try {
      const id = newId();
      const { width, height, preview, card } = await this.measurer.open(id, file);
      return {
        id,
        name: file.name,
        width,
        height,
        preview,
        takenAt: await readTakenAt(file),
        marked: [],
        card: card.ok ? card.patches : [],
        isSlanted: !card.ok && card.reason === 'slanted',
      };
    } catch {
      return undefined;
    }
  }

  mark(rect: Rect): void {
    const [photo, kind] = [this.open(), this.marking()];
    if (!photo) return;
    this.change(photo.id, (marked) => [
      ...marked.filter((m) => kind === 'piece' || m.kind === 'piece'),
      { id: newId(), kind, rect },
    ]);
    this.marking.set('piece');
  }

  move(id: string, edge: keyof Rect, value: number | null): void {
    const photo = this.open();
    if (value === null || !photo) return;
    this.change(photo.id, (marked) =>
      marked.map((m) => (m.id === id ? { ...m, rect: { ...m.rect, [edge]: value } } : m)),
    );
  }

  drop(id: string): void {
    const photo = this.open();
    if (photo) this.change(photo.id, (marked) => marked.filter((m) => m.id !== id));
  }

  private change(photoId: string, how: (marked: readonly Marked[]) => readonly Marked[]): void {
    this.photos.update((all) => all.map((p) => (p.id === photoId ? { ...p, marked: how(p.marked) } : p)));
    this.measured.set([]);
  }

  /** Measures all that is marked, photograph by photograph; what one can’t tell doesn’t keep the others from it. */
  async measure(): Promise<void> {
    const L = this.cardL();
    if (L === null || this.whyNot() !== '') return;
    this.busy.set(true);
    this.problem.set(undefined);
    this.measured.set([]);
    const refused: string[] = [];
    const many = this.photos().length > 1;
    try {
      for (const photo of this.photos()) {
        const answer = await this.measurer.measure({
          id: photo.id,
          known: this.knownIn(photo, L),
          wanted: photo.marked
            .filter((m) => m.kind === 'piece')
            .map(({ id, rect }) => ({ rect, name: this.names().get(id) ?? '' })),
          knownWithin:
            photo.card.length === 0 ? 0 : this.cardLabs() ? MEASURED_CARD_DELTA_E00 : UNMEASURED_CARD_DELTA_E00,
        });
        if (answer.ok) this.measured.update((all) => [...all, ...answer.areas.map((area) => ({ area, photo }))]);
        else refused.push(`${many ? `${photo.name}: ` : ''}${sayPhotoRefusal(answer.refusal)}`);
      }
      if (refused.length > 0) this.problem.set({ detail: refused.join(' ') });
    } catch {
      this.problem.set({
        detail: $localize`The picture could not be measured here. Take a smaller one, and try again.`,
      });
    } finally {
      this.busy.set(false);
    }
  }

  /** The printed card where it was found, and the grey one that was marked beside. */
  private knownIn(photo: Photo, L: number): KnownArea[] {
    const labs = this.cardLabs();
    const printed = photo.card.flatMap((rect, i) => {
      const lab = labs?.[i] ?? CARD_PATCHES[i]?.lab;
      return lab ? [{ rect, lab }] : [];
    });
    const grey = photo.marked.filter((m) => m.kind === 'card').map(({ rect }) => ({ rect, lab: { L, a: 0, b: 0 } }));
    return [...printed, ...grey];
  }
}

import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import { readTagCode } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { TagFinder } from '../../services/tag-finder';
import { RefusalNote } from '../../ui/refusal';

const LOOK_AGAIN_MS = 120;

/** A tag held before the camera, photographed or typed, and the jar, pot, lot, piece or bath it stands for. */
@Component({
  selector: 'vs-scan',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  providers: [TagFinder],
  template: `<div class="head"><h1 i18n>Scan a tag</h1></div>
    @if (sees()) {
      <p i18n>Hold the tag before the camera. What it stands for opens by itself.</p>
    }
    <video #video muted playsinline [hidden]="!sees()" aria-label="What the camera sees" i18n-aria-label></video>
    @if (finder.broken()) {
      <p i18n role="status">The reader of codes could not be loaded. Type the code.</p>
    } @else if (why()) {
      <p role="status">{{ why() }}</p>
    }
    <label class="act"
      ><ng-container i18n>Photograph it</ng-container
      ><input class="unseen" type="file" accept="image/*" capture="environment" (change)="photograph($event)"
    /></label>
    <form (ngSubmit)="open(typed())">
      <mat-form-field
        ><mat-label i18n>Or type its code</mat-label
        ><input matInput name="code" autocomplete="off" autocapitalize="characters" [(ngModel)]="typed"
      /></mat-form-field>
      <button i18n class="act main" type="submit" [disabled]="finding.busy() || typed().trim() === ''">Open it</button>
    </form>
    <vs-refusal [problem]="finding.problem()" />`,
  styles: `
    video {
      display: block;
      width: min(100%, 34rem);
      max-height: 55dvh;
      background: var(--mount);
      border: 2px solid var(--line-strong);
    }
    video[hidden] {
      display: none;
    }
    .act:focus-within {
      outline: 3px solid var(--ink);
      outline-offset: 2px;
    }
    label.act {
      position: relative;
      margin-block: 0.75rem;
    }
    form {
      max-width: 30rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScanPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly finder = inject(TagFinder);
  private readonly video = viewChild.required<ElementRef<HTMLVideoElement>>('video');
  protected readonly finding = pageAction();
  protected readonly typed = signal('');
  protected readonly sees = signal(false);
  protected readonly why = signal('');
  private stream: MediaStream | undefined;
  private ended = false;

  constructor() {
    afterNextRender(() => void this.look());
    inject(DestroyRef).onDestroy(() => {
      this.ended = true;
      this.letGo();
    });
  }

  /** Opens what a code stands for. */
  protected open(text: string): void {
    const code = readTagCode(text);
    if (!code.ok) return this.why.set(code.message);
    this.why.set('');
    this.finding.run(
      this.api.get('/api/tags', { query: { code: code.code } }),
      (tag) => void this.router.navigateByUrl(tag.path),
    );
  }

  protected async photograph(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const [file] = field.files ?? [];
    field.value = '';
    if (!file) return;
    const picture = await createImageBitmap(file).catch(() => undefined);
    const text = picture ? await this.finder.find(picture) : null;
    picture?.close();
    if (this.ended) return;
    if (text === null)
      this.why.set($localize`No code is to be seen in that picture. Go nearer, hold it still, or type the code.`);
    else this.open(text);
  }

  /** Browsers give a camera only to pages of this machine or over HTTPS. */
  private async look(): Promise<void> {
    // Where the page is not trusted there is no such thing, whatever its type says.
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    try {
      if (!devices) throw new Error('no camera here');
      this.stream = await devices.getUserMedia({ video: { facingMode: 'environment' } });
    } catch {
      this.why.set(
        $localize`This browser gives no picture from its camera here. Photograph the tag, or type its code.`,
      );
      return;
    }
    if (this.ended) return this.letGo();
    const video = this.video().nativeElement;
    video.srcObject = this.stream;
    await video.play().catch(() => undefined);
    this.sees.set(true);
    void this.watch(video);
  }

  private async watch(video: HTMLVideoElement): Promise<void> {
    let last = '';
    while (!this.ended) {
      const text = document.hidden ? null : await this.finder.find(video);
      if (this.ended) return;
      // The same tag, still held there, was answered already.
      if (text !== null && text !== last && !this.finding.busy()) this.open((last = text));
      await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
    }
  }

  private letGo(): void {
    for (const track of this.stream?.getTracks() ?? []) track.stop();
  }
}

import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { PageLink } from '../services/page-link';

/** Copies the address of the page it stands on. */
@Component({
  selector: 'vs-copy-link',
  template: `<button i18n class="plain noprint" type="button" (click)="copied.set(link.copy())" (blur)="copied.set('')">
      Copy link
    </button>
    <span class="small soft" role="status">{{ copied() }}</span>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CopyLink {
  protected readonly link = inject(PageLink);
  /** Said until the hand goes on. */
  protected readonly copied = signal('');
}

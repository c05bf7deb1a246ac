import { Clipboard } from '@angular/cdk/clipboard';
import { Location } from '@angular/common';
import { DOCUMENT, Injectable, inject } from '@angular/core';

/** The address of the page as it is narrowed and sorted, to be sent to somebody. */
@Injectable({ providedIn: 'root' })
export class PageLink {
  private readonly clipboard = inject(Clipboard);
  private readonly location = inject(Location);
  private readonly document = inject(DOCUMENT);

  /** Copies it, and says so; where the browser doesn’t let it, what it is. */
  copy(): string {
    const address = this.document.location.origin + this.location.prepareExternalUrl(this.location.path());
    return this.clipboard.copy(address)
      ? $localize`Link copied.`
      : $localize`This browser doesn’t let it be copied. It is ${address}:address:`;
  }
}

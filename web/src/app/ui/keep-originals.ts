import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { PictureSizer } from '../services/picture-sizer';

/** Whether photographs of this tablet are sent as they were taken. */
@Component({
  selector: 'vs-keep-originals',
  template: `<label class="tick small"
    ><input
      type="checkbox"
      [checked]="sizer.keepsOriginals()"
      (change)="sizer.keepOriginals($any($event.target).checked)"
    />
    <ng-container i18n>send it as it was taken; else a large one is made smaller first</ng-container></label
  >`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepOriginals {
  protected readonly sizer = inject(PictureSizer);
}

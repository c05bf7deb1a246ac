import { ChangeDetectionStrategy, Component } from '@angular/core';
import { PagesNav } from '../../ui/pages-nav';

/** The pages of Judge. */
@Component({
  selector: 'vs-judge-nav',
  imports: [PagesNav],
  template: `<vs-pages-nav place="Judge" [pages]="pages" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgeNav {
  protected readonly pages = [
    { path: '/judge', name: $localize`Lots` },
    { path: '/judge/book', name: $localize`Swatch book` },
    { path: '/judge/palette', name: $localize`Palette` },
    { path: '/judge/fastness', name: $localize`Fastness` },
    { path: '/judge/reach', name: $localize`Reach` },
    { path: '/judge/foretold', name: $localize`Foretold` },
    { path: '/judge/readers', name: $localize`Readers and files` },
  ];
}

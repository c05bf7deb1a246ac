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
    { path: '/judge', name: 'Lots' },
    { path: '/judge/book', name: 'Swatch book' },
    { path: '/judge/palette', name: 'Palette' },
    { path: '/judge/fastness', name: 'Fastness' },
    { path: '/judge/reach', name: 'Reach' },
    { path: '/judge/foretold', name: 'Foretold' },
    { path: '/judge/readers', name: 'Readers and files' },
  ];
}

import { Directive, TemplateRef, ViewContainerRef, effect, inject, input } from '@angular/core';
import type { Role } from '@vestigia/core';
import { Session } from '../api/session';

/** Shows what it stands on to whoever may do it: nobody is offered what would be refused. */
@Directive({ selector: '[vsMay]' })
export class May {
  readonly vsMay = input.required<Role>();
  private readonly session = inject(Session);
  private readonly template = inject(TemplateRef);
  private readonly place = inject(ViewContainerRef);
  private isShown = false;

  constructor() {
    effect(() => {
      const may = this.session.may(this.vsMay());
      if (may === this.isShown) return;
      this.isShown = may;
      if (may) this.place.createEmbeddedView(this.template);
      else this.place.clear();
    });
  }
}

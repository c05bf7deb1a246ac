import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';
import type { Lab } from '@vestigia/core';
import { sayLab } from '@vestigia/core';

/** A reading as people write one: `L* 51.2, a* 7.6, b* -9.8`. */
@Pipe({ name: 'lab' })
export class LabFigures implements PipeTransform {
  transform(lab: Pick<Lab, 'L' | 'a' | 'b'>, places?: number): string {
    return sayLab(lab, places);
  }
}

import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';
import { decimals } from '@vestigia/core';

/** A number with so many figures after the studio’s decimal mark; nothing where there is none. */
@Pipe({ name: 'decimals' })
export class Decimals implements PipeTransform {
  transform(value: number | null | undefined, places: number): string {
    return value === null || value === undefined ? '' : decimals(value, places);
  }
}

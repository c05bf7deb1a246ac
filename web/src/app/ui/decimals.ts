import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';
import { decimals, trimZeros } from '@vestigia/core';

const MOST = 3;

/**
 * A number with so many figures after the studio’s decimal mark, or with as many as it has, up to three; nothing where
 * there is none.
 */
@Pipe({ name: 'decimals' })
export class Decimals implements PipeTransform {
  transform(value: number | null | undefined, places?: number): string {
    if (value === null || value === undefined) return '';
    return places === undefined ? trimZeros(value, MOST) : decimals(value, places);
  }
}

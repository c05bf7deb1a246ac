import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';
import { said } from '@vestigia/core';

/** What a person reads for a word out of a record, or for several: fibres, metals, forms, marks. */
@Pipe({ name: 'said' })
export class Said implements PipeTransform {
  transform(words: string | readonly string[] | null | undefined, between = ', '): string {
    if (words === null || words === undefined) return '';
    return typeof words === 'string' ? said(words) : words.map(said).join(between);
  }
}

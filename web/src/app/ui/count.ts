import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';
import { countLabel } from '@vestigia/core';

/** “1 piece”, “12 pieces”, “2 batches”: a number with its word in the form that goes with it. */
@Pipe({ name: 'count' })
export class Count implements PipeTransform {
  transform(n: number, one: string, many?: string): string {
    return countLabel(n, one, many);
  }
}

import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';
import type { StockMeasure } from '@vestigia/core';
import { formatAmount } from '@vestigia/core';

/** A ledger amount (mg or µl) in the studio's units; `signed` for movements. */
@Pipe({ name: 'amount' })
export class Amount implements PipeTransform {
  transform(amount: number, measure: StockMeasure = 'weight', signed = false): string {
    const text = formatAmount(Math.abs(amount), measure);
    return amount < 0 ? `−${text}` : signed ? `+${text}` : text;
  }
}

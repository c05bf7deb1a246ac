import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';
import { degreeMark, formatTemperature } from '@vestigia/core';

/** A temperature in the scale the studio reads: “82 °C”, “180 °F”. */
@Pipe({ name: 'degrees' })
export class Degrees implements PipeTransform {
  transform(temperatureC: number | null | undefined): string {
    return temperatureC === null || temperatureC === undefined ? '' : formatTemperature(temperatureC);
  }
}

/** The name of a field that takes a temperature, with the scale a bare number is read in: “Temperature, °F”. */
@Pipe({ name: 'inDegrees' })
export class InDegrees implements PipeTransform {
  transform(name: string): string {
    return `${name}, ${degreeMark()}`;
  }
}

import type { Station } from '@vestigia/contract';
import { figure } from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import { figureText, quantityText } from '../format/figure-text';
import type { StrandPart } from './thread-geometry';
import { layThread } from './thread-geometry';

const station = (kind: Station['kind'], state: Station['state'], hasDeviation = false): Station => ({
  kind,
  title: kind,
  state,
  hasDeviation,
});
const size = { width: 300, height: 28, strandWidth: 7 };
const run = [
  station('fibre', 'done'),
  station('mordant', 'done'),
  station('dye', 'running', true),
  station('rinse', 'waiting'),
  station('cure', 'waiting'),
];

const lengthsOf = ({ path }: StrandPart): number => path.split('M').length - 1;

describe('layThread', () => {
  it('draws one strand through its stations, dyed from the bath on, open where planned', () => {
    const drawing = layThread(run, 1, size);
    expect(drawing.parts.map((p) => [p.dyed, p.solid, lengthsOf(p)])).toEqual([
      [false, true, 2],
      [true, true, 1],
      [true, false, 3],
    ]);
    expect(drawing.marks.map((m) => m.x)).toEqual([11.2, 80.6, 150, 219.4, 288.8]);
  });
  it('parts into as many strands as vessels and rejoins at the rinse', () => {
    const parts = layThread(run, 3, size).parts;
    expect(parts.map((p) => [p.width, lengthsOf(p)])).toEqual([
      [7, 1],
      [3.9, 3],
      [3.9, 3],
      [3.9, 3],
      [7, 2],
    ]);
  });
  it('draws no more strands than can be told apart, and stays inside its box', () => {
    for (const part of layThread(run, 9, size).parts) {
      const ys = [...part.path.matchAll(/[-\d.]+ ([-\d.]+)/g)].map((m) => Number(m[1]));
      expect(Math.min(...ys) - part.width / 2).toBeGreaterThanOrEqual(0);
      expect(Math.max(...ys) + part.width / 2).toBeLessThanOrEqual(28);
    }
  });
  it('draws a single station and none', () => {
    expect(layThread([station('fibre', 'waiting')], 1, size).marks).toHaveLength(1);
    expect(layThread([], 1, size).parts).toEqual([]);
  });
});

describe('figureText', () => {
  it.each<[number | string, string, string]>([
    [1234.6, 'g', '1.235 kg'],
    [180, 'g', '180 g'],
    [40_850, 'ml', '40.85 l'],
    [87, '%', '87 %'],
    [30, 'ml per g', '30 ml per g'],
    [12, '', '12'],
    ['tap', '', 'tap'],
  ])('%s %s reads %s', (value, unit, text) => expect(quantityText(value, unit)).toBe(text));
  it('reads a figure', () => expect(figureText(figure(0.1, 'g', '', []))).toBe('0.1 g'));
});

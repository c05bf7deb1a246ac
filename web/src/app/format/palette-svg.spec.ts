import { describe, expect, it } from 'vitest';
import { paletteSvg } from './palette-svg';

describe('a palette as a drawing', () => {
  const lab = { L: 50, a: 0, b: 0, illuminant: 'D65', observer: '10' } as const;
  it('has a cell a colour, its name and its numbers, and no sign that would break it', () => {
    const svg = paletteSvg('Shore & <sea>', [
      { name: 'One "grey"', detail: 'on wool', lab },
      { name: 'Two', detail: '', lab: { ...lab, L: 80 } },
    ]);
    expect(svg.match(/<g /g)).toHaveLength(2);
    expect(svg).toContain('Shore &#38; &#60;sea&#62;');
    expect(svg).toContain('One &#34;grey&#34;');
    expect(svg).toContain('L* 50.0  a* 0.0  b* 0.0  D65/10°');
  });
});

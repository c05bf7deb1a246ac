import type { LabUnder } from '@vestigia/contract';
import { describeColour, screenColour } from '@vestigia/core';

const ACROSS = 4;
const CELL = { width: 220, height: 230 };
const MOUNT = '#bdbdbd';

const plain = (text: string): string => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** A palette as a drawing: its colours side by side on grey, each with its name and its L*a*b*. */
export function paletteSvg(
  title: string,
  colours: readonly { readonly name: string; readonly detail: string; readonly lab: LabUnder }[],
): string {
  const rows = Math.ceil(colours.length / ACROSS);
  const [width, height] = [Math.min(ACROSS, Math.max(1, colours.length)) * CELL.width, rows * CELL.height + 50];
  const cells = colours.map(({ name, detail, lab }, i) => {
    const [x, y] = [(i % ACROSS) * CELL.width, 50 + Math.floor(i / ACROSS) * CELL.height];
    const numbers = `L* ${lab.L.toFixed(1)}  a* ${lab.a.toFixed(1)}  b* ${lab.b.toFixed(1)}  ${lab.illuminant}/${lab.observer}°`;
    return `<g transform="translate(${x} ${y})"><title>${plain(`${name}, ${describeColour(lab)}`)}</title>
<rect width="${CELL.width}" height="150" fill="${MOUNT}"/>
<rect x="12" y="12" width="${CELL.width - 24}" height="126" fill="${screenColour(lab, lab).css}"/>
<text x="2" y="172" font-weight="700">${plain(name)}</text>
<text x="2" y="192" font-size="13">${plain(detail)}</text>
<text x="2" y="210" font-size="12">${numbers}</text></g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif" font-size="15">
<rect width="100%" height="100%" fill="#ffffff"/>
<text x="2" y="28" font-size="22" font-weight="700">${plain(title)}</text>
${cells.join('\n')}
</svg>
`;
}

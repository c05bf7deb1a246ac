import type { LotDetail, RunEntryView } from '@vestigia/contract';
import { BATH_MOVE_WORDS, formatAmount, sayMinutes } from '@vestigia/core';

const READ_BY = {
  hand: '',
  instrument: ', by the instrument',
  simulated: ', by a simulated instrument',
  strip: ', by strip',
  card: ', from the bench card',
} as const;
const by = (entry: RunEntryView): string => READ_BY[entry.detail?.readBy ?? 'hand'];

/** One bench entry as a dyer would read it back. */
export function entryWords(entry: RunEntryView, lot: Pick<LotDetail, 'jars' | 'plan'>): string {
  const said = entry.text ? `: ${entry.text}` : '';
  switch (entry.kind) {
    case 'start':
      return `begun${entry.detail?.outOfOrder ? ' out of order' : ''}${entry.detail?.vessels ? ` in ${entry.detail.vessels.map((v) => v.vesselName).join(' and ')}` : ''}${said}`;
    case 'finish':
      return `finished${said}`;
    case 'skip':
      return `skipped${said}`;
    case 'cancel':
      return `lot called off${said}`;
    case 'note':
      return `${entry.detail?.deviation ? 'otherwise than planned: ' : ''}${entry.text ?? ''}`;
    case 'pause':
      return `paused${said}`;
    case 'resume':
      return 'gone on with';
    case 'redo':
      return `to be done over${said}`;
    case 'ph':
      return `pH ${entry.detail?.ph ?? ''}${entry.detail?.totalDose ? ` with ${entry.detail.totalDose} ${entry.detail.unit ?? 'ml'} in` : ''}${by(entry)}`;
    case 'sample':
      return `${entry.detail?.sampleOf ?? 'piece'} at ${Math.round((entry.detail?.depth ?? 0) * 100)} % of the depth wanted${by(entry)}`;
    case 'bath':
      return entry.detail?.bath
        ? `${BATH_MOVE_WORDS[entry.detail.bath.kind]}: ${formatAmount(Math.round(entry.detail.bath.ml * 1000), 'volume')}`
        : 'bath';
    case 'pulls':
      return `${entry.detail?.pullMinutes?.length ?? 0} pulls planned, at ${(entry.detail?.pullMinutes ?? []).join(', ')} min`;
    case 'pull':
      return `piece ${entry.detail?.piece ?? ''} pulled`;
    case 'rescale':
      return `doses rescaled${said}`;
    case 'hand':
      return `handed over to ${entry.detail?.toPerson?.name ?? 'somebody'}`;
    case 'temperature':
      return `${entry.temperatureC} °C${said}${entry.detail?.heldMin === undefined ? '' : `, held ${sayMinutes(entry.detail.heldMin)}`}${by(entry)}`;
    case 'weigh': {
      const { weighing } = entry;
      if (!weighing) return 'weighed';
      const material = lot.plan.materials.find((m) => m.materialId === weighing.materialId);
      const tag = lot.jars.find((j) => j.id === weighing.stockLotId)?.tag ?? '';
      return `${formatAmount(weighing.amount, material?.measure ?? 'weight')} ${material?.name ?? ''} from ${tag}, batch ${weighing.batch}${entry.detail?.more ? ', a portion' : ''}${by(entry)}`;
    }
  }
}

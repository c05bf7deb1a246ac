import type { LotDetail, RunEntryView } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';

/** One bench entry as a dyer would read it back. */
export function entryWords(entry: RunEntryView, lot: Pick<LotDetail, 'jars' | 'plan'>): string {
  const said = entry.text ? `: ${entry.text}` : '';
  switch (entry.kind) {
    case 'start': return 'begun';
    case 'finish': return `finished${said}`;
    case 'skip': return `skipped${said}`;
    case 'cancel': return `lot called off${said}`;
    case 'note': return entry.text ?? '';
    case 'temperature': return `${entry.temperatureC} °C`;
    case 'weigh': {
      const { weighing } = entry;
      if (!weighing) return 'weighed';
      const material = lot.plan.materials.find((m) => m.materialId === weighing.materialId);
      const tag = lot.jars.find((j) => j.id === weighing.stockLotId)?.tag ?? '';
      return `${formatAmount(weighing.amount, material?.measure ?? 'weight')} ${material?.name ?? ''} from ${tag}, batch ${weighing.batch}`;
    }
  }
}

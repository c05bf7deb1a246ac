import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { stop, caution } from './finding';

/** What was seen at intake and what it means for this recipe. */
export function intakeChecks({ intake: { flags, syntheticPercent }, recipe }: CheckInput): Found[] {
  const cites = 'what was seen at intake';
  const found: Found[] = [];
  if (flags.includes('notWeighed'))
    found.push(
      stop(
        'notWeighed',
        'The fibre was not weighed dry.',
        'The weight of fibre drives every dose: a guess spoils all of them. Weigh it, and write the weight.',
        cites,
      ),
    );
  if (flags.includes('unevenWeights'))
    found.push(
      caution(
        'unevenWeights',
        'The pieces differ in weight.',
        'Batches are made of whole pieces of one weight; weigh each batch at the bench and go by that.',
        cites,
      ),
    );
  if (flags.includes('syntheticShare')) {
    const share = syntheticPercent ?? 0;
    found.push(
      share >= 50
        ? stop(
            'synthetic',
            `${share} % of it is synthetic.`,
            'Synthetic takes nothing from these baths: most of the piece would stay as it is.',
            cites,
          )
        : caution(
            'synthetic',
            `${share > 0 ? `${share} % of it` : 'A share of it'} is synthetic.`,
            'Synthetic takes nothing: expect it paler, in a heather.',
            cites,
          ),
    );
  }
  if (flags.includes('blend'))
    found.push(
      caution(
        'blend',
        'Protein and cellulose are in one piece.',
        'Each takes the dye otherwise: expect a heather, and a mordant that suits only one of them.',
        cites,
      ),
    );
  if (flags.includes('stain'))
    found.push(
      caution('stain', 'There are stains.', 'A stained piece stays stained, and remover takes dye in patches.', cites),
    );
  if (flags.includes('deposit'))
    found.push(
      caution(
        'deposit',
        'There are under-arm deposits.',
        'Aluminium salts there mordant by themselves, in patches.',
        cites,
      ),
    );
  if (flags.includes('dyed'))
    found.push(
      caution('dyed', 'It was dyed before.', 'The old colour shows through, and may come off into the bath.', cites),
    );
  if (flags.includes('machineWash'))
    found.push(
      caution(
        'machineWash',
        'It has a machine-washable finish.',
        'It drinks dye faster than other wool: begin cooler, raise slower.',
        cites,
      ),
    );
  if (flags.includes('mordanted') && recipe.steps.some((s) => s.kind === 'mordant'))
    found.push(
      caution(
        'mordantedTwice',
        'It is mordanted already, and the recipe mordants it again.',
        'Twice the salt shifts the shade and roughens wool: skip that step, or say why not.',
        cites,
      ),
    );
  return found;
}

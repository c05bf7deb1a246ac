import { worded } from '../words/worded';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, stop } from './finding';
import type { IntakeFlag } from './intake-flag';

/** What was seen and means something; that it is scoured already is good news. */
type SeenFlag = Exclude<IntakeFlag, 'scoured' | 'syntheticShare' | 'mordanted'>;
type IntakeFinding =
  | { readonly code: SeenFlag }
  | { readonly code: 'syntheticShare'; readonly percent: number }
  | { readonly code: 'mordantedTwice' };

const MOSTLY_PERCENT = 50;

const SAID: Readonly<Record<SeenFlag, readonly ['stop' | 'caution', string, string]>> = worded(() => ({
  notWeighed: [
    'stop',
    $localize`The fibre was not weighed dry.`,
    $localize`The weight of fibre drives every dose: a guess spoils all of them. Weigh it, and write the weight.`,
  ],
  unevenWeights: [
    'caution',
    $localize`The pieces differ in weight.`,
    $localize`Batches are made of whole pieces of one weight; weigh each batch at the bench and go by that.`,
  ],
  blend: [
    'caution',
    $localize`Protein and cellulose are in one piece.`,
    $localize`Each takes the dye otherwise: expect a heather, and a mordant that suits only one of them.`,
  ],
  stain: [
    'caution',
    $localize`There are stains.`,
    $localize`A stained piece stays stained, and remover takes dye in patches.`,
  ],
  deposit: [
    'caution',
    $localize`There are under-arm deposits.`,
    $localize`Aluminium salts there mordant by themselves, in patches.`,
  ],
  dyed: [
    'caution',
    $localize`It was dyed before.`,
    $localize`The old colour shows through, and may come off into the bath.`,
  ],
  machineWash: [
    'caution',
    $localize`It has a machine-washable finish.`,
    $localize`It drinks dye faster than other wool: begin cooler, raise slower.`,
  ],
}));
/** What an intake may say that needs no figure with it. */
const seenFlags = (): SeenFlag[] => Object.keys(SAID) as SeenFlag[];

const findIntake = ({ intake: { flags, syntheticPercent }, recipe }: CheckInput): IntakeFinding[] => [
  ...seenFlags()
    .filter((flag) => flags.includes(flag))
    .map((code) => ({ code })),
  ...(flags.includes('syntheticShare') ? [{ code: 'syntheticShare' as const, percent: syntheticPercent ?? 0 }] : []),
  ...(flags.includes('mordanted') && recipe.steps.some((s) => s.kind === 'mordant')
    ? [{ code: 'mordantedTwice' as const }]
    : []),
];

function sayIntake(finding: IntakeFinding): CheckText {
  const cites = $localize`what was seen at intake`;
  switch (finding.code) {
    case 'syntheticShare':
      return finding.percent >= MOSTLY_PERCENT
        ? stop(
            $localize`${finding.percent} % of it is synthetic.`,
            $localize`Synthetic takes nothing from these baths: most of the piece would stay as it is.`,
            cites,
          )
        : caution(
            $localize`${finding.percent > 0 ? $localize`${finding.percent} % of it` : $localize`A share of it`} is synthetic.`,
            $localize`Synthetic takes nothing: expect it paler, in a heather.`,
            cites,
          );
    case 'mordantedTwice':
      return caution(
        $localize`It is mordanted already, and the recipe mordants it again.`,
        $localize`Twice the salt shifts the shade and roughens wool: skip that step, or say why not.`,
        cites,
      );
    default: {
      const [severity, message, why] = SAID[finding.code];
      return { severity, protection: false, message, why, cites };
    }
  }
}

/** What was seen at intake and what it means for this recipe. */
export const intakeChecks = checkFamily(findIntake, sayIntake);

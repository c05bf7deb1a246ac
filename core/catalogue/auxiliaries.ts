import type { StockMeasure } from '../quantity/amount';
import type { Hazard } from '../safety/hazards';
import type { MaterialForm, MaterialKind } from '../stock/material-facts';
import type { CatalogueEntry, FibreGroup } from './catalogue-entry';

const BOTH: readonly FibreGroup[] = ['protein', 'cellulose'];

const auxiliary = (kind: MaterialKind, name: string, form: MaterialForm, fibreGroups: readonly FibreGroup[], hazards: readonly Hazard[], note: string, given: Partial<CatalogueEntry> & { measure?: StockMeasure } = {}): CatalogueEntry => ({
  key: name.toLowerCase().replace(/[^a-z]+/g, '-').replace(/-$/, ''), name, kind, measure: 'weight', botanicalName: '', plantPart: '', forms: [form], fibreGroups,
  ceilingC: null, water: 'any', phLow: null, phHigh: null, light: null, wash: null, bringsTannin: false, hazards, season: null, note, ...given,
});
const plant = (botanicalName: string, plantPart: string): Partial<CatalogueEntry> => ({ botanicalName, plantPart, bringsTannin: true });
const byVolume = { measure: 'volume' } as const;

export const AUXILIARIES: readonly CatalogueEntry[] = [
  auxiliary('mordant', 'Potassium alum', 'crystals', BOTH, ['dust'], 'Potassium aluminium sulphate. The usual mordant on protein fibre.'),
  auxiliary('mordant', 'Ammonium alum', 'crystals', BOTH, ['dust'], 'Ammonium aluminium sulphate.'),
  auxiliary('mordant', 'Aluminium sulphate', 'crystals', BOTH, ['dust', 'irritant'], 'Stronger per gram than alum and more acid.'),
  auxiliary('mordant', 'Aluminium acetate', 'ground', ['cellulose'], ['dust', 'irritant'], 'For cellulose; chalk or bran after it.'),
  auxiliary('mordant', 'Aluminium triformate', 'crystals', BOTH, ['dust', 'irritant'], 'Mordants at room temperature.'),
  auxiliary('mordant', 'Aluminium lactate', 'ground', BOTH, ['dust', 'irritant'], 'For silk and cellulose, also cold.'),
  auxiliary('mordant', 'Symplocos leaves', 'ground', BOTH, ['dust'], 'Leaves of a plant that gathers aluminium: a mordant without a mined salt.', { botanicalName: 'Symplocos cochinchinensis', plantPart: 'fallen leaves' }),
  auxiliary('mordant', 'Soy milk', 'liquor', ['cellulose'], [], 'A protein binder, not a metal mordant. Spoils within days: keep cold.', byVolume),
  auxiliary('modifier', 'Iron sulphate', 'crystals', BOTH, ['ironSalt', 'dust'], 'Ferrous sulphate. Saddens at once; too much makes fibre brittle.'),
  auxiliary('modifier', 'Copper sulphate', 'crystals', BOTH, ['copperSalt', 'poisonous', 'irritant'], 'Greens and browns. Hazardous, and harmful to water life: think whether iron will do.'),
  auxiliary('tannin', 'Oak galls', 'ground', BOTH, ['dust'], 'Gallotannin: nearly colourless; black with iron.', plant('Quercus infectoria', 'galls')),
  auxiliary('tannin', 'Tannic acid', 'ground', BOTH, ['dust', 'irritant'], 'Purified gallotannin.', { bringsTannin: true }),
  auxiliary('tannin', 'Myrobalan', 'ground', BOTH, ['dust'], 'Yellowish tannin.', plant('Terminalia chebula', 'fruit')),
  auxiliary('tannin', 'Sumac leaves', 'dried', BOTH, [], 'Pale gallotannin. Other sumacs are poisonous to touch: be sure of the species.', plant('Rhus coriaria', 'leaves')),
  auxiliary('tannin', 'Tara', 'ground', BOTH, ['dust'], 'Pale gallotannin.', plant('Tara spinosa', 'pods')),
  auxiliary('tannin', 'Acorns', 'dried', BOTH, [], 'Tan to grey-brown tannin.', { ...plant('Quercus spp.', 'acorns and cups'), season: { fromMonth: 9, toMonth: 11 } }),
  auxiliary('assistant', 'Cream of tartar', 'ground', ['protein'], ['dust'], 'Potassium hydrogen tartrate, with alum on wool.'),
  auxiliary('assistant', 'Soda ash', 'ground', BOTH, ['caustic', 'carbonate', 'dust'], 'Sodium carbonate. Scours cellulose; harms wool and silk.', { fibreGroups: ['cellulose'] }),
  auxiliary('assistant', 'Chalk', 'ground', BOTH, ['carbonate', 'dust'], 'Calcium carbonate. Hardens water; fixes aluminium on cellulose.'),
  auxiliary('assistant', 'Bicarbonate of soda', 'ground', BOTH, ['carbonate', 'dust'], 'Sodium hydrogen carbonate: a mild alkali.'),
  auxiliary('assistant', 'Wheat bran', 'dried', ['cellulose'], [], 'A bath of it clears loose aluminium from cellulose.'),
  auxiliary('assistant', 'Glauber’s salt', 'crystals', BOTH, [], 'Sodium sulphate: helps some dyes go on evenly.'),
  auxiliary('assistant', 'Common salt', 'crystals', BOTH, [], 'Sodium chloride.'),
  auxiliary('assistant', 'Hydrated lime', 'ground', BOTH, ['caustic', 'dust', 'irritant'], 'Calcium hydroxide: alkali for vats. Burns eyes.'),
  auxiliary('assistant', 'Sodium dithionite', 'ground', BOTH, ['flammable', 'irritant', 'dust'], 'Reducing agent for vats. Heats and may catch fire when damp; never with acid.'),
  auxiliary('assistant', 'Fructose', 'crystals', BOTH, [], 'Reducing sugar for vats.'),
  auxiliary('modifier', 'White vinegar', 'liquor', BOTH, ['acid'], 'Dilute acetic acid.', byVolume),
  auxiliary('modifier', 'Citric acid', 'crystals', BOTH, ['acid', 'irritant'], 'Lowers pH; brightens some reds.'),
  auxiliary('modifier', 'Household ammonia', 'liquor', BOTH, ['ammonia', 'irritant'], 'Alkali that leaves with the air.', byVolume),
  auxiliary('modifier', 'Wood ash lye', 'liquor', BOTH, ['caustic'], 'Alkali of unknown strength: measure its pH each time.', byVolume),
  auxiliary('modifier', 'Iron liquor', 'liquor', BOTH, ['ironSalt', 'acid'], 'Rusty iron in vinegar: strength unknown until compared with weighed crystals.', byVolume),
  auxiliary('detergent', 'Neutral soap', 'liquor', BOTH, [], 'pH near 7, without bleach or brightener.'),
  auxiliary('detergent', 'Chlorine bleach', 'liquor', ['cellulose'], ['chlorineBleach', 'caustic', 'irritant'], 'Sodium hypochlorite, for cleaning pots only. Destroys wool and silk. Kept away from every acid.', byVolume),
];

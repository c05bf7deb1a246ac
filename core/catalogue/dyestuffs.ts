import type { Hazard } from '../safety/hazards';
import type { MaterialForm } from '../stock/material-facts';
import type { CatalogueEntry } from './catalogue-entry';

type Given = Partial<Omit<CatalogueEntry, 'key' | 'name' | 'botanicalName' | 'plantPart' | 'forms'>>;

const dyestuff = (name: string, botanicalName: string, plantPart: string, forms: readonly MaterialForm[], note: string, given: Given = {}): CatalogueEntry => ({
  key: name.toLowerCase().replace(/[^a-z]+/g, '-').replace(/-$/, ''), name, kind: 'dyestuff', measure: 'weight', botanicalName, plantPart, forms, fibreGroups: ['protein', 'cellulose'],
  ceilingC: null, water: 'any', phLow: null, phHigh: null, light: null, wash: null, bringsTannin: false, hazards: [], season: null, note, ...given,
});
const months = (fromMonth: number, toMonth: number): { season: CatalogueEntry['season'] } => ({ season: { fromMonth, toMonth } });
const hazards = (...of: Hazard[]): { hazards: readonly Hazard[] } => ({ hazards: of });
const lasting = { light: 'good', wash: 'good' } as const;
const tannin = { bringsTannin: true } as const;
const protein = { fibreGroups: ['protein'] } as const;

/** Seasons are those of the temperate north; a studio sets its own. */
export const DYESTUFFS: readonly CatalogueEntry[] = [
  dyestuff('Weld', 'Reseda luteola', 'tops in flower', ['fresh', 'dried', 'extract'], 'Clear yellow on alum; luteolin. Chalk or hard water brightens it; dull if boiled.', { ...lasting, ceilingC: 80, water: 'hard', ...months(6, 8) }),
  dyestuff('Dyer’s broom', 'Genista tinctoria', 'flowering tops', ['fresh', 'dried'], 'Yellow on alum; luteolin and genistein.', { ceilingC: 85, light: 'good', ...hazards('poisonous'), ...months(6, 8) }),
  dyestuff('Sawwort', 'Serratula tinctoria', 'tops', ['fresh', 'dried'], 'Yellow on alum, a flavone dye like weld.', { ceilingC: 85, light: 'good', ...months(7, 9) }),
  dyestuff('Tansy', 'Tanacetum vulgare', 'flower heads', ['fresh', 'dried'], 'Mustard yellow on alum.', { ceilingC: 85, ...hazards('irritant', 'poisonous'), ...months(7, 9) }),
  dyestuff('Goldenrod', 'Solidago spp.', 'flowering tops', ['fresh', 'dried', 'frozen'], 'Yellow on alum; better before the flowers are over.', { ceilingC: 85, light: 'fair', ...months(8, 9) }),
  dyestuff('Dyer’s chamomile', 'Cota tinctoria', 'flower heads', ['fresh', 'dried'], 'Warm yellow on alum.', { ceilingC: 85, light: 'fair', ...months(6, 9) }),
  dyestuff('Marigold', 'Tagetes spp.', 'flower heads', ['fresh', 'dried', 'frozen', 'extract'], 'Gold to orange-yellow on alum; quercetagetin. Keep stems out.', { ceilingC: 85, light: 'fair', ...months(7, 10) }),
  dyestuff('Dyer’s coreopsis', 'Coreopsis tinctoria', 'flower heads', ['fresh', 'dried', 'frozen'], 'Orange to rust; shifts red with alkali.', { ceilingC: 85, ...months(7, 9) }),
  dyestuff('Orange cosmos', 'Cosmos sulphureus', 'flower heads', ['fresh', 'dried', 'frozen'], 'Orange on alum; shifts red with alkali.', { ceilingC: 85, ...months(7, 10) }),
  dyestuff('Onion skins', 'Allium cepa', 'dry outer skins', ['dried'], 'Gold to copper on alum; quercetin.', { ceilingC: 90, light: 'poor', wash: 'good' }),
  dyestuff('Heather', 'Calluna vulgaris', 'flowering tips', ['fresh', 'dried'], 'Olive yellow on alum; quercetin.', { ceilingC: 90, ...months(7, 9) }),
  dyestuff('Birch leaves', 'Betula spp.', 'leaves', ['fresh', 'dried'], 'Soft yellow on alum.', { ceilingC: 90, ...months(5, 7) }),
  dyestuff('Nettle', 'Urtica dioica', 'tops', ['fresh', 'dried'], 'Pale greenish yellow; grey-green with iron.', { ceilingC: 90, ...hazards('irritant'), ...months(4, 7) }),
  dyestuff('Old fustic', 'Maclura tinctoria', 'heartwood', ['chips', 'ground', 'extract'], 'Golden yellow on alum; morin.', { light: 'fair', wash: 'good' }),
  dyestuff('Osage orange', 'Maclura pomifera', 'heartwood', ['chips', 'ground', 'extract'], 'Strong yellow on alum; morin.', { light: 'fair', wash: 'good' }),
  dyestuff('Black oak bark', 'Quercus velutina', 'inner bark', ['chips', 'ground', 'extract'], 'Bright yellow on alum; quercitrin. Boiling brings out tannin and browns it.', { ceilingC: 80, light: 'fair', wash: 'good', ...tannin }),
  dyestuff('Buckthorn berries', 'Rhamnus spp.', 'unripe berries', ['fresh', 'dried'], 'Yellow to gold on alum.', { ceilingC: 85, light: 'fair', ...hazards('poisonous'), ...months(7, 9) }),
  dyestuff('Saffron', 'Crocus sativus', 'stigmas', ['dried'], 'Golden yellow without mordant; fades.', { light: 'poor' }),
  dyestuff('Turmeric', 'Curcuma longa', 'rhizome', ['fresh', 'ground'], 'Bright yellow without mordant; turns red with alkali and fades quickly in light.', { light: 'poor', wash: 'fair', ...hazards('dust') }),
  dyestuff('Pomegranate rind', 'Punica granatum', 'rind', ['dried', 'ground', 'extract'], 'Greenish yellow on alum, grey with iron.', { light: 'good', wash: 'good', ...tannin }),
  dyestuff('Madder', 'Rubia tinctorum', 'root', ['fresh', 'dried', 'ground', 'extract'], 'Red on alum; alizarin and its kin. Browner when hotter than about 70 °C; hard water or chalk wanted.', { light: 'very good', wash: 'very good', ceilingC: 70, water: 'hard' }),
  dyestuff('Indian madder', 'Rubia cordifolia', 'root', ['dried', 'ground'], 'Orange-red on alum; munjistin and purpurin.', { ...lasting, ceilingC: 80 }),
  dyestuff('Bedstraw root', 'Galium verum', 'root', ['fresh', 'dried'], 'Brick red on alum, as madder but thin-rooted. Digging it destroys the plant: grow it.', { ...lasting, ceilingC: 75 }),
  dyestuff('Cochineal', 'Dactylopius coccus', 'dried insects', ['dried', 'ground', 'extract'], 'Crimson on alum, scarlet with acid; carminic acid. Soft water for clear shades; iron greys it at once.', { light: 'good', wash: 'good', water: 'soft', ...hazards('dust') }),
  dyestuff('Lac', 'Kerria lacca', 'resinous secretion', ['ground', 'extract'], 'Crimson to burgundy on alum; laccaic acids.', { light: 'good', wash: 'good', ...hazards('dust') }),
  dyestuff('Safflower', 'Carthamus tinctorius', 'petals', ['dried'], 'Yellow washes out first; red (carthamin) then comes out with alkali and is fixed with acid, cold.', { light: 'poor', wash: 'fair', ceilingC: 40 }),
  dyestuff('Sappanwood', 'Biancaea sappan', 'heartwood', ['chips', 'ground', 'extract'], 'Red to pink on alum; brazilein. Shifts with acid and alkali.', { light: 'poor', wash: 'fair' }),
  dyestuff('Alkanet', 'Alkanna tinctoria', 'root', ['dried', 'ground'], 'Greyed purple; its dye dissolves in alcohol and oil, little in water.', { light: 'poor' }),
  dyestuff('Logwood', 'Haematoxylum campechianum', 'heartwood', ['chips', 'ground', 'extract'], 'Purple on alum, black with iron; haematein. Very sensitive to pH and to metals.', { light: 'fair', wash: 'fair', ...hazards('irritant', 'dust') }),
  dyestuff('Orchil lichens', 'Roccella and Ochrolechia spp.', 'whole lichen', ['dried', 'liquor'], 'Purple after long steeping in ammonia. Slow-growing and often protected: never gathered wild without leave.', { ...protein, light: 'poor', wash: 'good', ...hazards('ammonia') }),
  dyestuff('Indigo', 'Indigofera tinctoria', 'leaves', ['ground', 'extract'], 'Blue by reduction in an alkaline vat, without mordant; heat and boiling do not help.', { light: 'very good', wash: 'very good', ceilingC: 55, phLow: 9, phHigh: 11.5, ...hazards('dust') }),
  dyestuff('Woad', 'Isatis tinctoria', 'leaves of the first year', ['fresh', 'ground', 'extract'], 'Blue by reduction in an alkaline vat; the same dye as indigo, less of it.', { light: 'very good', wash: 'very good', ceilingC: 50, phLow: 9, phHigh: 10.5, ...months(7, 10) }),
  dyestuff('Japanese indigo', 'Persicaria tinctoria', 'leaves', ['fresh', 'dried', 'ground'], 'Blue by vat, or turquoise from fresh leaves cold on silk.', { light: 'very good', wash: 'very good', ceilingC: 55, phLow: 9, phHigh: 11.5, ...months(7, 10) }),
  dyestuff('Walnut hulls', 'Juglans regia, J. nigra', 'green hulls', ['fresh', 'dried', 'ground'], 'Brown without mordant; juglone. Stains skin.', { light: 'good', wash: 'good', ...tannin, ...hazards('irritant'), ...months(9, 11) }),
  dyestuff('Cutch', 'Senegalia catechu', 'heartwood', ['extract', 'ground'], 'Red-brown without mordant; catechins.', { light: 'very good', wash: 'very good', ...tannin, ...hazards('dust') }),
  dyestuff('Alder bark', 'Alnus glutinosa', 'bark', ['fresh', 'dried', 'chips'], 'Red-brown; grey to black with iron.', { light: 'good', ...tannin, ...months(3, 5) }),
  dyestuff('Alder cones', 'Alnus glutinosa', 'ripe cones', ['dried'], 'Brown; dark grey with iron.', { light: 'good', ...tannin, ...months(10, 2) }),
  dyestuff('Oak bark', 'Quercus robur', 'bark', ['dried', 'chips', 'ground'], 'Tan to brown; grey with iron.', { light: 'good', wash: 'good', ...tannin }),
  dyestuff('Black tea', 'Camellia sinensis', 'fermented leaves', ['dried'], 'Beige to brown without mordant; grey with iron.', { light: 'good', ...tannin }),
  dyestuff('Avocado stones and skins', 'Persea americana', 'stones and skins', ['fresh', 'frozen', 'dried'], 'Dusky pink; browner if boiled or if flesh is left on.', { ceilingC: 85, ...tannin }),
  dyestuff('Eucalyptus leaves', 'Eucalyptus spp.', 'leaves', ['fresh', 'dried'], 'Yellow to rust-orange without mordant on protein, by species; long heat.', { ...protein, light: 'good', wash: 'good', ...tannin }),
  dyestuff('Rhubarb root', 'Rheum spp.', 'root', ['dried', 'ground'], 'Yellow; pink with alkali. Leaves hold oxalic acid and are poisonous.', { wash: 'good', ...hazards('irritant') }),
  dyestuff('Henna', 'Lawsonia inermis', 'leaves', ['ground'], 'Orange-brown on protein; lawsone.', { light: 'good', wash: 'good', ...hazards('dust') }),
  dyestuff('Annatto', 'Bixa orellana', 'seed coat', ['dried', 'extract'], 'Orange, drawn out with alkali; fades.', { light: 'poor' }),
  dyestuff('Elderberries', 'Sambucus nigra', 'ripe berries', ['fresh', 'frozen'], 'Violet-grey at first; an anthocyanin that fades and shifts with pH.', { light: 'poor', wash: 'poor', ...hazards('poisonous'), ...months(8, 10) }),
  dyestuff('Black hollyhock', 'Alcea rosea', 'dark petals', ['fresh', 'dried'], 'Violet to grey-blue on alum; an anthocyanin that fades and shifts with pH.', { ceilingC: 60, light: 'poor', wash: 'poor', ...months(7, 9) }),
];

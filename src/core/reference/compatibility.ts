import type { AlloyKey } from './alloys';
import type { FluidKey } from './fluids';
import { sourced, type Sourced } from './provenance';

/**
 * What fuel and the other fluids do to what they touch: one table for every
 * stage. A gap is a gap: where no rating could be given, it says unknown.
 */
export const CONTACT_FLUIDS = [
  'petrol',
  'alcohol-blend',
  'diesel',
  'biodiesel',
  'coolant',
  'oil',
  'urea',
  'water',
] as const;
export type ContactFluid = (typeof CONTACT_FLUIDS)[number];

export const CONTACT_FLUID_NAMES: Readonly<Record<ContactFluid, string>> = {
  petrol: 'petrol, no alcohol',
  'alcohol-blend': 'petrol with alcohol (E10 to E85)',
  diesel: 'diesel',
  biodiesel: 'biodiesel (B20 to B100)',
  coolant: 'coolant (glycol and water)',
  oil: 'engine oil',
  urea: 'urea solution (32.5 %)',
  water: 'water',
};

export const RATINGS = ['good', 'limited', 'bad', 'unknown'] as const;
export type Rating = (typeof RATINGS)[number];

export const MATERIAL_GROUPS = [
  'metal',
  'plastic',
  'gasket',
  'sealant',
  'adhesive',
  'liner',
  'foam',
  'hose',
  'tie',
] as const;
export type MaterialGroup = (typeof MATERIAL_GROUPS)[number];

export type CompatibilityRow = Sourced & {
  readonly key: string;
  readonly group: MaterialGroup;
  readonly name: string;
  readonly ratings: Readonly<Record<ContactFluid, Rating>>;
  /** What to know beside the ratings. */
  readonly note: string;
};

const LETTERS: Readonly<Record<string, Rating>> = { g: 'good', l: 'limited', b: 'bad', '?': 'unknown' };

/** Ratings in the order of CONTACT_FLUIDS, a letter each. */
function row(
  group: MaterialGroup,
  key: string,
  name: string,
  letters: string,
  note: string,
  source: string,
): CompatibilityRow {
  const ratings = Object.fromEntries(CONTACT_FLUIDS.map((fluid, i) => [fluid, LETTERS[letters[i]!]!])) as Record<
    ContactFluid,
    Rating
  >;
  return { group, key, name, ratings, note, ...sourced('from memory', source) };
}

const GENERAL = 'general chemical resistance tables for engineering materials; immersion near room temperature';
const ELASTOMER = 'elastomer resistance guides for O-rings and gaskets; immersion near room temperature';
const HOSE = 'scope of the hose standard named';

/** Letters: petrol, alcohol blend, diesel, biodiesel, coolant, oil, urea, water. */
export const COMPATIBILITY: readonly CompatibilityRow[] = [
  row(
    'metal',
    'aluminium',
    'aluminium',
    'glgglgll',
    'Alcohol that carries water pits it; coolant needs its inhibitor.',
    GENERAL,
  ),
  row(
    'metal',
    'mild-steel',
    'mild steel, bare',
    'lllllgbb',
    'Rusts wherever water settles: line it, or keep it full and drained of water.',
    GENERAL,
  ),
  row(
    'metal',
    'galvanized',
    'galvanized or zinc-plated steel',
    'lbbbblbb',
    'Zinc soaps form in diesel and plug filters and injectors: keep it out of the fuel.',
    GENERAL,
  ),
  row(
    'metal',
    'stainless',
    'stainless steel',
    'gggggggg',
    'The safest with alcohol; 316 where salt water reaches it.',
    GENERAL,
  ),
  row(
    'metal',
    'brass',
    'brass',
    'glllggbg',
    'Copper in it ages diesel and biodiesel; a fitting or two is usual, a whole line is not.',
    GENERAL,
  ),
  row(
    'metal',
    'unknown-metal',
    'metal of which nobody knows what it is',
    '????????',
    'Find out before fuel goes in.',
    'nothing can be said',
  ),
  row('metal', 'copper', 'copper', 'llbbggbg', 'Speeds up gum in fuel; vibration hardens and cracks it.', GENERAL),
  row(
    'plastic',
    'hdpe',
    'polyethylene (HDPE)',
    'lllggggg',
    'Fuel creeps through slowly and swells it a little; listed tanks are treated or layered against that.',
    GENERAL,
  ),
  row(
    'plastic',
    'nylon',
    'nylon (PA 11, PA 12)',
    'glggl?ll',
    'The usual rigid fuel line; takes up water and softens.',
    GENERAL,
  ),
  row(
    'plastic',
    'pp',
    'polypropylene',
    'bbllgggg',
    'Swells in petrol and in what is thinned with it; good for water and urea.',
    GENERAL,
  ),
  row('plastic', 'abs', 'ABS', 'bbbb?lgg', 'Cracks under stress in fuel, and aromatics dissolve it.', GENERAL),
  row('plastic', 'acetal', 'acetal (POM)', 'gggggggg', 'Valves, module bodies and fittings.', GENERAL),
  row(
    'plastic',
    'pvc',
    'PVC pipe and its cement',
    'bbblglgg',
    'Swells and cracks in petrol, and its joints let go; not a listed fuel-tank material, though done for diesel heaters.',
    GENERAL,
  ),
  row(
    'plastic',
    'acrylic',
    'acrylic or polycarbonate sight glass',
    'bblbllgg',
    'Crazes and bursts; use borosilicate glass or nylon.',
    GENERAL,
  ),
  row('plastic', 'ptfe', 'PTFE', 'gggggggg', 'Stands everything here; creeps under steady clamping.', GENERAL),
  row(
    'gasket',
    'nbr',
    'nitrile rubber (NBR)',
    'glglgg?g',
    'Standard for petrol and diesel; hardens in alcohol blends and biodiesel.',
    ELASTOMER,
  ),
  row(
    'gasket',
    'fkm',
    'fluorocarbon rubber (FKM)',
    'gggglg?l',
    'The choice for alcohol blends; some grades dislike steam and hot glycol.',
    ELASTOMER,
  ),
  row(
    'gasket',
    'epdm',
    'EPDM rubber',
    'bbbbgbgg',
    'For coolant and urea only: fuel and oil swell it to ruin.',
    ELASTOMER,
  ),
  row('gasket', 'neoprene', 'neoprene (CR)', 'lbllglgg', 'A cover, not a seal, around fuel.', ELASTOMER),
  row(
    'gasket',
    'silicone',
    'silicone rubber',
    'bbllglgg',
    'Swells in fuel; fluorosilicone is another thing and holds.',
    ELASTOMER,
  ),
  row(
    'gasket',
    'cork-nitrile',
    'cork bound with nitrile',
    'glglggll',
    'Takes up unevenness of a lid; dries out and shrinks when it stands empty.',
    ELASTOMER,
  ),
  row(
    'gasket',
    'fibre',
    'fibre sheet bound with nitrile',
    'glglgglg',
    'Needs an even clamp on a flat flange.',
    ELASTOMER,
  ),
  row(
    'sealant',
    'anaerobic',
    'anaerobic thread sealant',
    'gggggg?g',
    'Metal threads only; attacks some plastics; cures out of air.',
    GENERAL,
  ),
  row(
    'sealant',
    'ptfe-tape',
    'PTFE tape',
    'gggggggg',
    'Stands the fuel; a torn end in the line blocks a jet or a valve. Never on flares or O-rings.',
    GENERAL,
  ),
  row(
    'sealant',
    'ptfe-paste',
    'thread paste with PTFE, fuel-rated',
    'gggg?g?g',
    'Only where the tube says fuel.',
    GENERAL,
  ),
  row(
    'sealant',
    'rtv-silicone',
    'silicone gasket maker',
    'bblbggg?',
    'Fuel lifts it; strings of it block pickups.',
    GENERAL,
  ),
  row(
    'sealant',
    'polysulfide',
    'polysulfide tank sealant',
    'glgl?g?g',
    'Two parts, slow to cure; brushed over seams of riveted tanks.',
    GENERAL,
  ),
  row('adhesive', 'epoxy', 'epoxy, room-cured', 'llgll???', 'Softens in alcohol; a repair, not a seam.', GENERAL),
  row(
    'adhesive',
    'polyurethane',
    'polyurethane adhesive sealant',
    'bbll?l??',
    'For bedding pads outside; lifts where fuel reaches it.',
    GENERAL,
  ),
  row(
    'liner',
    'epoxy-novolac',
    'epoxy novolac liner, baked or two-part',
    'gggl?g??',
    'Clean, etched, dry metal or it peels in sheets.',
    GENERAL,
  ),
  row(
    'liner',
    'solvent-sloshing',
    'brushing or sloshing liner, one-part',
    'lbl?????',
    'Older ones come off in alcohol and plug everything.',
    GENERAL,
  ),
  row(
    'foam',
    'pu-ester',
    'reticulated foam, polyester-based',
    'gll?b?bb',
    'Water and alcohol break it down; look at it once a year.',
    GENERAL,
  ),
  row(
    'foam',
    'pu-ether',
    'reticulated foam, polyether-based',
    'lgl?????',
    'Made for alcohol; swells more in petrol.',
    GENERAL,
  ),
  row(
    'hose',
    '30r7',
    'fuel hose SAE J30 R7',
    'glgl?l?l',
    'Outside the tank only: its cover does not stand fuel.',
    HOSE,
  ),
  row(
    'hose',
    '30r9',
    'injection hose SAE J30 R9',
    'ggggll?l',
    'Barrier inside; for pressure. Outside the tank only.',
    HOSE,
  ),
  row('hose', '30r10', 'submersible hose SAE J30 R10', 'ggggll??', 'The one that may lie in fuel.', HOSE),
  row(
    'hose',
    'iso7840',
    'fire-resistant marine hose ISO 7840',
    'ggg?????',
    'What boat rules ask for where an engine room is near.',
    HOSE,
  ),
  row(
    'hose',
    'clear-pvc',
    'clear PVC tube',
    'bbbb?lgg',
    'Goes stiff, yellow and shrinks off its barb: for pouring, not for fitting.',
    GENERAL,
  ),
  row('hose', 'heater-hose', 'heater or coolant hose (EPDM)', 'bbbbgblg', 'Swells shut in fuel.', ELASTOMER),
  row(
    'tie',
    'nylon-tie',
    'nylon cable tie',
    'llll?lll',
    'Goes brittle in fuel and in heat: not inside a tank, not to hold a line.',
    GENERAL,
  ),
  row('tie', 'stainless-clamp', 'stainless clamp or wire', 'gggggggg', 'Smooth band on fuel hose.', GENERAL),
];

/** Keys of all that can be named at a joint: what makes it tight. */
export const SEALING_KEYS = COMPATIBILITY.filter(({ group }) => ['gasket', 'sealant', 'adhesive'].includes(group)).map(
  ({ key }) => key,
);
/** Keys of all that can stand in the fuel. */
export const INSIDE_KEYS = COMPATIBILITY.map(({ key }) => key);

/** The row of the table for a tank's metal or plastic. */
export const MATERIAL_OF_ALLOY: Readonly<Record<AlloyKey, string>> = {
  'al-5052': 'aluminium',
  'al-3003': 'aluminium',
  'al-6061': 'aluminium',
  'mild-steel': 'mild-steel',
  'stainless-304': 'stainless',
  'stainless-316': 'stainless',
  'cast-aluminium': 'aluminium',
  'unknown-metal': 'unknown-metal',
  hdpe: 'hdpe',
  pp: 'pp',
  pvc: 'pvc',
  abs: 'abs',
};

/** What a system's fluid is in this table. */
export const CONTACT_OF_FLUID: Readonly<Record<FluidKey, ContactFluid>> = {
  petrol: 'petrol',
  e10: 'alcohol-blend',
  e85: 'alcohol-blend',
  methanol: 'alcohol-blend',
  'two-stroke': 'petrol',
  diesel: 'diesel',
  b20: 'biodiesel',
  b100: 'biodiesel',
  'heating-oil': 'diesel',
  kerosene: 'diesel',
  water: 'water',
  'engine-oil': 'oil',
  coolant: 'coolant',
  urea: 'urea',
};

/**
 * The row of a material.
 * @throws where the table has none
 */
export const compatibilityOf = (material: string): CompatibilityRow => {
  const found = COMPATIBILITY.find(({ key }) => key === material);
  if (!found) throw new Error(`no compatibility row for ${material}`);
  return found;
};

import { LOSS_METHODS } from '../reference/losses';
import { known } from '../schema/known';
import { closed, flag, id, name, oneOf, optionalList } from '../schema/tools';

/** What it is for, what is asked of it, and how it is to be built. */
export const VEHICLES = ['boat', 'road', 'snow', 'competition', 'trailer', 'bench'] as const;
export const RULEBOOKS = ['none', 'road-truck-tank', 'petrol-boat', 'small-craft', 'vehicle-heater'] as const;
export const vehicle = closed({
  kind: oneOf(VEHICLES),
  speed_mPerS: known(0, 150, 'speed', 'roadSpeed').optional(),
  /** What was burned at each speed or load that was timed. */
  cruise: optionalList(
    closed({
      id: id(),
      name: name(),
      burn_m3PerS: known(1e-10, 0.1, 'consumption', 'burn'),
      speed_mPerS: known(0, 150, 'speed', 'roadSpeed').optional(),
    }),
    12,
  ),
});
export const rulebook = oneOf(RULEBOOKS);
export const constraints = closed({
  nothingCut: flag(),
  noHoleBelowLiquid: flag(),
  partsOnHand: flag(),
  noHotWork: flag(),
});
export const practice = closed({
  vent: oneOf(['vent-line', 'vented-cap'] as const),
  outlet: oneOf(['top-tube', 'bottom-outlet'] as const),
  fill: oneOf(['95-percent', 'click-off'] as const),
  pickup: oneOf(['off-floor', 'on-floor'] as const),
  strainer: oneOf(['outside', 'inside'] as const),
  heaterPickup: oneOf(['higher', 'deep'] as const),
  ports: oneOf(['new', 'existing'] as const),
  sender: oneOf(['new', 'salvaged'] as const),
  returnOutlet: oneOf(['low', 'high'] as const),
  transferBy: oneOf(['pump', 'gravity', 'vacuum', 'selector'] as const),
  lineFor: oneOf(['today', 'later'] as const),
  meter: oneOf(['after-filter', 'before-filter'] as const),
  losses: oneOf(LOSS_METHODS),
  // What nobody has chosen is as most have it.
  surge: oneOf(['baffles', 'foam', 'trap-door'] as const).optional(),
  catchTank: oneOf(['full', 'small'] as const).optional(),
  expelledPlace: oneOf(['clear', 'ballast'] as const).optional(),
  lining: oneOf(['bare', 'lined'] as const).optional(),
  welds: oneOf(['proud', 'dressed'] as const).optional(),
  flats: oneOf(['thick', 'beads'] as const).optional(),
});
/** The builder's own limits: most that may surge freely in one compartment; what vents are made for. */
export const limits = closed({
  surgeCompartment_m3: known(0.001, 20, 'most that may surge in one compartment', 'tankVolume'),
  fill_m3PerS: known(1e-6, 0.02, 'fastest that it is filled', 'transfer').optional(),
  over_Pa: known(20, 200_000, 'most pressure over the liquid', 'pressure').optional(),
  under_Pa: known(20, 90_000, 'most vacuum over the liquid', 'pressure').optional(),
  hot_K: known(263.15, 363.15, 'hottest that what is in it gets', 'temperature').optional(),
});
export const wishes = closed({
  /** To be moved from tank to tank or into a can at one go. */ moves_m3: known(
    1e-4,
    20,
    'transfer per batch',
    'tankVolume',
  ).optional(),
  holds_m3: known(0, 20, 'wanted volume', 'tankVolume').optional(),
  endurance_s: known(0, 3e6, 'wanted running time', 'duration').optional(),
  reserve_ratio: known(0, 0.9, 'reserve', 'share'),
});
export const envelope = closed({
  noseUp_deg: known(0, 60, 'nose up', 'slope'),
  noseDown_deg: known(0, 60, 'nose down', 'slope'),
  portDown_deg: known(0, 60, 'port side down', 'slope'),
  starboardDown_deg: known(0, 60, 'starboard side down', 'slope'),
  /** The hardest that it brakes, pulls away and corners. */
  braking_mPerS2: known(0, 50, 'hardest braking', 'acceleration'),
  driving_mPerS2: known(0, 50, 'hardest pulling away', 'acceleration'),
  cornering_mPerS2: known(0, 50, 'hardest cornering', 'acceleration'),
});

import { bounded, known } from '../schema/known';
import { PORT_PARTS } from '../reference/portParts';
import { closed, id, name, oneOf, TANK_M } from '../schema/tools';

/** Sight tubes, dipsticks and calibrations, as a document holds them; senders have a folder of their own. */

/** A clear tube beside the tank, between two bosses in one side. */
export const sightTube = closed({
  id: id(),
  name: name(),
  face: oneOf(['fore', 'aft', 'port', 'starboard'] as const),
  along_m: known(-TANK_M, TANK_M, 'place along its side', 'tape'),
  lower_m: known(-TANK_M, TANK_M, 'lower boss', 'tape'),
  upper_m: known(-TANK_M, TANK_M, 'upper boss', 'tape'),
  markEvery_m3: known(1e-5, 1, 'volume from mark to mark', 'tankVolume'),
  /** What its two bosses are, by the key in the table of port parts; nothing is said of them where left out. */
  boss: oneOf(PORT_PARTS.map(({ key }) => key)).optional(),
  /** A tee in its lower line that a transfer line is joined to. */ tee: id().optional(),
});
/** A stick with marks that stands on the floor under a port. */
export const dipstick = closed({
  id: id(),
  name: name(),
  port: id(),
  markEvery_m3: known(1e-5, 1, 'volume from mark to mark', 'tankVolume'),
});

/** A calibration of one sender, sight tube or dipstick by pours; the pours themselves are records. */
export const calibration = closed({
  id: id(),
  name: name(),
  of: id(),
  /** In the tank before the first pour, and how it stood. */
  start_m3: bounded(0, 20),
  startSpread_m3: bounded(0, 20),
  pitch_deg: bounded(-30, 30),
  roll_deg: bounded(-30, 30),
});

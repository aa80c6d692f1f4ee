import { MOST_NOTE, MOST_POURS, MOST_TIME, POUR_STATES, POUR_WAYS } from '../formats';
import { bounded, known } from './known';
import { byKind, closed, flag, id, kindIs, listOf, name, oneOf, text } from './schemaTools';

/** Senders, gauges, sight tubes, dipsticks and calibrations, as a document holds them. */
const ANGLE = 90;
const TANK_M = 20;
export const SWINGS = ['fore', 'aft', 'port', 'starboard'] as const;

/** What a sender gives, or a gauge wants, at empty and at full. */
const scaleOf = () =>
  byKind({
    resistance: closed({ kind: kindIs('resistance'), empty_ohm: known(0, 1e5), full_ohm: known(0, 1e5) }),
    voltage: closed({ kind: kindIs('voltage'), empty_V: known(-60, 60), full_V: known(-60, 60) }),
  });

/** Half-width of the needle's own error as a share of full scale; and where its low-level lamp lights. */
const needle = () => ({ tolerance_ratio: known(0, 0.5), lamp_ratio: known(0, 0.5).optional() });
const gauge = byKind({
  linear: closed({ kind: kindIs('linear'), scale: scaleOf(), ...needle() }),
  'cross-coil': closed({
    kind: kindIs('cross-coil'),
    empty_ohm: known(0, 1e5),
    half_ohm: known(0, 1e5),
    full_ohm: known(0, 1e5),
    ...needle(),
  }),
  calibrated: closed({
    kind: kindIs('calibrated'),
    /**
     * What the gauge was taught: what the sender gives, and what should be shown. Straight between them. None: it is
     * taught as planned.
     */
    points: byKind({
      resistance: closed({
        kind: kindIs('resistance'),
        at: listOf(closed({ reading_ohm: bounded(0, 1e5), shown_ratio: bounded(0, 1) }), 64),
      }),
      voltage: closed({
        kind: kindIs('voltage'),
        at: listOf(closed({ reading_V: bounded(-60, 60), shown_ratio: bounded(0, 1) }), 64),
      }),
    }),
    /** How many points it takes. */
    mostPoints: bounded(2, 64).integer('must be a whole number'),
    ...needle(),
  }),
});

const sent = () => ({
  id: id(),
  name: name(),
  port: id(),
  output: scaleOf(),
  gauge,
  /** Half-width of what the sender gives wrongly, as a share of its span. */
  tolerance_ratio: known(0, 0.5),
});
export const SENDER_KINDS = ['swing-arm', 'tube', 'capacitive'] as const;
const floats = () => ({
  floatDiameter_m: known(0.005, 0.3),
  /** Of the float's height, under the surface. */ immersion_ratio: known(0, 1),
});
/** What a straight probe measures over: its length under the sheet, less what is dead at either end. */
const probe = () => ({ length_m: known(0.02, 5), lowDead_m: known(0, 1), highDead_m: known(0, 1) });
export const sender = byKind({
  'swing-arm': closed({
    ...sent(),
    kind: kindIs('swing-arm'),
    swing: oneOf(SWINGS),
    ...floats(),
    pivotDepth_m: known(0, 5),
    /** From pivot to middle of the float, along the wire. */
    armLength_m: known(0.01, 3),
    /** A bend in the arm: so far from the pivot, turned upward by so much. Straight where left out. */
    bend: closed({ at_m: known(0, 3), angle_deg: known(-ANGLE, ANGLE) }).optional(),
    lowStop_deg: known(-ANGLE, ANGLE),
    highStop_deg: known(-ANGLE, ANGLE),
  }),
  tube: closed({
    ...sent(),
    kind: kindIs('tube'),
    ...probe(),
    ...floats(),
    /** Between its contacts; 0 where it is continuous. */ step_m: known(0, 0.2),
    tubeDiameter_m: known(0.004, 0.1),
  }),
  capacitive: closed({ ...sent(), kind: kindIs('capacitive'), ...probe(), tubeDiameter_m: known(0.004, 0.1) }),
});

/** A clear tube beside the tank, between two bosses in one side. */
export const sightTube = closed({
  id: id(),
  name: name(),
  face: oneOf(['fore', 'aft', 'port', 'starboard'] as const),
  along_m: known(-TANK_M, TANK_M),
  lower_m: known(-TANK_M, TANK_M),
  upper_m: known(-TANK_M, TANK_M),
  markEvery_m3: known(1e-5, 1),
  /** A tee in its lower line that a transfer line is joined to. */ tee: id().optional(),
});
/** A stick with marks that stands on the floor under a port. */
export const dipstick = closed({ id: id(), name: name(), port: id(), markEvery_m3: known(1e-5, 1) });

/**
 * What was read after a pour; and what was poured, with its half-width. The log is what happened, so nothing of it is
 * assumed.
 */
const pour = closed({
  id: id(),
  at: text(MOST_TIME).defined('is missing'),
  way: oneOf(POUR_WAYS),
  added_m3: bounded(-20, 20),
  spread_m3: bounded(0, 20),
  reading: byKind({
    resistance: closed({ kind: kindIs('resistance'), reading_ohm: bounded(0, 1e6) }),
    voltage: closed({ kind: kindIs('voltage'), reading_V: bounded(-60, 60) }),
    needle: closed({ kind: kindIs('needle'), shown_ratio: bounded(-0.5, 1.5) }),
    height: closed({ kind: kindIs('height'), height_m: bounded(-1, 20) }),
    none: closed({ kind: kindIs('none') }),
  }),
  note: text(MOST_NOTE).defined('is missing'),
  state: oneOf(POUR_STATES),
  /** Came from the simulated rig, not from a real tank. */
  simulated: flag(),
});
/** A calibration of one sender, sight tube or dipstick by pours. */
export const calibration = closed({
  id: id(),
  name: name(),
  of: id(),
  /** In the tank before the first pour, and how it stood. */
  start_m3: bounded(0, 20),
  startSpread_m3: bounded(0, 20),
  pitch_deg: bounded(-30, 30),
  roll_deg: bounded(-30, 30),
  pours: listOf(pour, MOST_POURS),
});

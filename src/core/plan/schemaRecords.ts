import { MOST_NOTE, MOST_TIME, POUR_STATES, POUR_WAYS } from '../formats';
import { bounded } from '../schema/known';
import { byKind, closed, flag, id, kindIs, oneOf, text } from '../schema/tools';

/**
 * Records: what happened to what was built, apart from what is planned. They
 * are only ever added to. What was written down wrongly is corrected by another
 * record that names it; undo, forks and restored saves leave them alone.
 */

/** Records that a system takes. */
export const MOST_RECORDS = 5000;

const common = () => ({
  id: id(),
  /** When it was written down. */
  recorded: text(MOST_TIME).defined('is missing'),
  /** The record that this one stands for from now on. */
  corrects: id().optional(),
});

/**
 * What was read after a pour; and what was poured, with its half-width. It is what happened, so nothing of it is
 * assumed.
 */
const pour = closed({
  ...common(),
  kind: kindIs('pour'),
  /** The calibration that it is a line of; it stays when that is taken out of the plan. */
  of: id(),
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

export const record = byKind({ pour });

import type { InferType } from 'yup';
import { bentArm } from '../gauge';
import { OUTWARD } from '../geometry';
import { FLOAT_IMMERSION, SENDER_MAKE } from '../reference/senders';
import { assumed, fromPart, known } from '../schema/known';
import { ANGLE, closed, kindIs, oneOf } from '../schema/tools';
import { radians } from '../units';
import { floats, riseOf, sent, type SenderKindOf } from './sender';

export const SWINGS = ['fore', 'aft', 'port', 'starboard'] as const;

const schema = closed({
  ...sent(),
  kind: kindIs('swing-arm'),
  swing: oneOf(SWINGS),
  ...floats(),
  pivotDepth_m: known(0, 5, 'pivot below the lid', 'tape'),
  /** From pivot to middle of the float, along the wire. */
  armLength_m: known(0.01, 3, 'arm length', 'tape'),
  /** A bend in the arm: so far from the pivot, turned upward by so much. Straight where left out. */
  bend: closed({
    at_m: known(0, 3, 'bend from the pivot', 'tape'),
    angle_deg: known(-ANGLE, ANGLE, 'bend of the arm', 'slope'),
  }).optional(),
  lowStop_deg: known(-ANGLE, ANGLE, 'low stop', 'slope'),
  highStop_deg: known(-ANGLE, ANGLE, 'high stop', 'slope'),
});
export type SwingArmDocument = InferType<typeof schema>;

export const swingArm: SenderKindOf<SwingArmDocument> & { readonly schema: typeof schema } = {
  schema,
  word: 'float on a swinging arm',
  start: (depth_m) => ({
    swing: 'fore',
    pivotDepth_m: assumed(Math.round(depth_m * 500) / 1000, 0.005),
    armLength_m: assumed(Math.max(0.05, Math.round(depth_m * 600) / 1000), 0.005),
    floatDiameter_m: fromPart(0.03),
    immersion_ratio: assumed(FLOAT_IMMERSION.ratio, FLOAT_IMMERSION.spread),
    lowStop_deg: fromPart(-40, 2),
    highStop_deg: fromPart(40, 2),
  }),
  compile: (document, port_m) => {
    const { bend, armLength_m, floatDiameter_m } = document;
    const bent =
      bend && bend.at_m.value < armLength_m.value
        ? bentArm(armLength_m.value, bend.at_m.value, radians(bend.angle_deg.value))
        : { length_m: armLength_m.value, lead_rad: 0 };
    return {
      kind: 'swing-arm',
      pivot_m: [port_m[0], port_m[1], port_m[2] - document.pivotDepth_m.value],
      reach: OUTWARD[document.swing],
      armLength_m: bent.length_m,
      floatRadius_m: floatDiameter_m.value / 2,
      floatRise_m: riseOf(document),
      wireRadius_m: SENDER_MAKE.armDiameter / 2,
      // The stops are those of the hub, which the float leads.
      lowStop_rad: radians(document.lowStop_deg.value) + bent.lead_rad,
      highStop_rad: radians(document.highStop_deg.value) + bent.lead_rad,
      ...(bent.lead_rad === 0 ? {} : { elbow: { at_m: bend!.at_m.value, from_rad: -bent.lead_rad } }),
    };
  },
  sizes: ['pivotDepth_m', 'armLength_m'],
  lowerBy: 'armLength_m',
  higherBy: 'pivotDepth_m',
  handle: { word: 'pivot', depth: 'pivotDepth_m' },
};

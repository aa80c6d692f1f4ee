import { rangeOf, surroundOf } from '../../model/compileSender';
import { compileTank, standingUp } from '../../model/compileTank';
import { radians } from '../../units';
import { OUTWARD } from '../../model/axes';
import { SWINGS, type SwingArmDocument, type Plan } from '../../plan/schema';
import {
  designArm,
  refitArm,
  type ArmPlan,
  type DesignSite,
  type Gauge,
  type Refit,
  type SenderDesign,
} from '../../gauge';
import type { Vec3 } from '../../geometry';
import { failure, success, type Outcome } from '../../outcome';
import { SENDER_MAKE } from '../../reference/senders';

type Swing = SwingArmDocument['swing'];
const WAYS = SWINGS.map((swing) => [swing, OUTWARD[swing]] as const);
const swingOf = (reach: Vec3): Swing => WAYS.find(([, way]) => way[0] === reach[0] && way[1] === reach[1])![0];

export type DesignedSender = Omit<SenderDesign, 'arm' | 'reach'> & { readonly swing: Swing };
export type RefittedSender = {
  readonly asItIs: DesignedSender | undefined;
  readonly best: (DesignedSender & { readonly wire_m: number; readonly bend_deg: number }) | undefined;
};

const plain = ({ arm: _arm, reach, ...design }: SenderDesign): DesignedSender => ({ ...design, swing: swingOf(reach) });

type Site = {
  readonly site: DesignSite;
  readonly plan: ArmPlan;
  readonly instrument: Parameters<typeof designArm>[2];
  readonly directions: readonly Vec3[];
  readonly document: SwingArmDocument;
};

/** The tank about a sender's port, and what of the sender is given: its stops, float and range. */
function siteOf(
  system: Plan,
  t: number,
  s: number,
  turn: 'as-set' | 'any',
): Outcome<Site, 'not-an-arm' | 'bad-shape' | 'misplaced'> {
  const compiled = compileTank(system, system.tanks[t]!);
  if (!compiled.ok) return compiled;
  const document = system.tanks[t]!.senders[s];
  if (document?.kind !== 'swing-arm')
    return failure('not-an-arm', 'sender', 'Only a swing arm has a length and a pivot to choose.');
  const model = compiled.value.senders.find((one) => one.document.id === document.id);
  if (!model || model.sender.kind !== 'swing-arm')
    return failure('misplaced', document.name, `The port of ${document.name} misses the tank.`);
  const { sender } = model;
  const output = rangeOf(document.output);
  // A gauge in proportion to the sender shows the sender's own error; one that is taught would hide it.
  const gauge: Gauge = { kind: 'linear', ...output, tolerance_ratio: document.gauge.tolerance_ratio.value };
  return success({
    document,
    instrument: {
      output,
      tolerance_ratio: document.tolerance_ratio.value,
      gauge:
        model.instrument.ok && model.instrument.value.gauge.kind === 'cross-coil'
          ? model.instrument.value.gauge
          : gauge,
    },
    site: {
      mesh: compiled.value.mesh,
      up: standingUp(compiled.value, 0, 0),
      holds_m3: compiled.value.gross_m3 * compiled.value.document.fillLimit_ratio.value,
      surround: surroundOf(compiled.value, model),
      top_m: model.port_m,
    },
    plan: {
      floatRadius_m: sender.floatRadius_m,
      floatRise_m: sender.floatRise_m,
      wireRadius_m: sender.wireRadius_m,
      lowStop_rad: radians(document.lowStop_deg.value),
      highStop_rad: radians(document.highStop_deg.value),
    },
    directions:
      turn === 'any'
        ? WAYS.map(([, way]) => way)
        : WAYS.filter(([name]) => name === document.swing).map(([, way]) => way),
  });
}

/** Pivot depth, arm length and direction for a sender's port, with its stops, float and range as they are. */
export function designedSender(system: Plan, t: number, s: number, turn: 'as-set' | 'any'): Outcome<DesignedSender> {
  const at = siteOf(system, t, s, turn);
  if (!at.ok) return at;
  const { site, plan, instrument, directions } = at.value;
  const { armStep, pivotStep, shortestArm, longestArm, keep } = SENDER_MAKE;
  const design = designArm(site, plan, instrument, directions, {
    armStep_m: armStep,
    pivotStep_m: pivotStep,
    shortestArm_m: shortestArm,
    longestArm_m: longestArm,
    keep_m: keep,
  });
  return design.ok ? success(plain(design.value)) : design;
}

/**
 * For a sender that was made for another tank: to what length to cut its wire, how to bend it, and what is left of the
 * error.
 */
export function refittedSender(system: Plan, t: number, s: number): Outcome<RefittedSender> {
  const at = siteOf(system, t, s, 'any');
  if (!at.ok) return at;
  const { site, plan, instrument, directions, document } = at.value;
  const { armStep, shortestArm, bendStep_deg, mostBend_deg, keep } = SENDER_MAKE;
  const own = WAYS.find(([name]) => name === document.swing)![1];
  const { asItIs, best } = refitArm(
    site,
    plan,
    instrument,
    {
      pivotDepth_m: document.pivotDepth_m.value,
      wire_m: document.armLength_m.value,
      directions: [own, ...directions.filter((way) => way !== own)],
    },
    {
      armStep_m: armStep,
      shortestArm_m: shortestArm,
      bendStep_rad: radians(bendStep_deg),
      mostBend_rad: radians(mostBend_deg),
      keep_m: keep,
    },
  );
  const refit = (one: Refit) => ({
    ...plain(one.design),
    wire_m: one.wire_m,
    bend_deg: Math.round((one.bend_rad * 180) / Math.PI),
  });
  return success({ asItIs: asItIs && plain(asItIs), best: best && refit(best) });
}

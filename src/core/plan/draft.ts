import { burnFromPower_m3PerS } from '../range';
import { FLUIDS } from '../reference/fluids';
import { FLOAT_IMMERSION } from '../reference/senders';
import { assumed, chosen, fromPart, measured } from '../schema/known';
import { emptySystem } from './jobs/emptySystem';
import { boreFor_m, boxTank, filterFor, lidPort, pickupIn, pumpFor, roundTo, sizesFor } from './jobs/kit';
import {
  DRIVING,
  G_PER_KWH,
  NEEDS,
  NOZZLE_NEED,
  PUMPED_OVER_NEED,
  REGULATED_OVER,
  RUNS_M,
  SPEEDS_M_PER_S,
  type Need,
} from './jobs/needs';
import type { CONSUMER_KINDS, ConsumerDocument, SystemDocument, TankDocument, VEHICLES } from './schema';

/** What a system with one tank and one consumer is drafted from. */
export type Answers = {
  readonly name: string;
  readonly vehicle: (typeof VEHICLES)[number];
  readonly consumer: (typeof CONSUMER_KINDS)[number];
  readonly power_W: number;
  readonly holds_m3: number;
  /** Inside sizes where the space is known already. */
  readonly length_m?: number | undefined;
  readonly width_m?: number | undefined;
  readonly height_m?: number | undefined;
  /** Length of line from tank to consumer. */
  readonly run_m?: number | undefined;
};

/**
 * A whole system from a few answers. What was not asked stands as a stated
 * assumption with its spread, so that everything computes at once.
 */
export function draftSystem(answers: Answers): SystemDocument {
  const need = NEEDS[answers.consumer];
  const consumer = draftConsumer(answers, need);
  const speed = DRIVING.has(answers.consumer) ? SPEEDS_M_PER_S[answers.vehicle] : undefined;
  const empty = emptySystem(answers.name, answers.vehicle, need.fluid);
  return {
    ...empty,
    vehicle: { ...empty.vehicle, ...(speed ? { speed_mPerS: assumed(speed, speed * 0.2) } : {}) },
    practice: { ...empty.practice, vent: ventedCap(answers) ? 'vented-cap' : 'vent-line' },
    wishes: { ...empty.wishes, holds_m3: chosen(answers.holds_m3) },
    conditions: { ...empty.conditions, fills: [{ tank: 'main', fill_ratio: 0.6 }] },
    tanks: [draftTank(answers)],
    components: draftComponents(consumer, need),
    lines: draftLines(answers, consumer, need, sizesFor(answers.holds_m3, answers).width.value),
    consumers: [consumer],
  };
}

/** What burns the fuel, by its power; what its kind asks for is assumed until its data sheet is at hand. */
export function draftConsumer(
  { consumer, power_W }: Pick<Answers, 'consumer' | 'power_W'>,
  need: Need,
): ConsumerDocument {
  const row = FLUIDS[need.fluid].density;
  const density = row.law === 'water-kell' ? 1000 : row.density15_kgPerM3;
  const burn = (gPerKWh: number): number => burnFromPower_m3PerS(power_W, gPerKWh * G_PER_KWH, density);
  const full = burn(need.specific_gPerKWh);
  const draw = consumer === 'nozzle' ? NOZZLE_NEED : full * need.drawOverBurn;
  return {
    id: 'consumer',
    name: need.name,
    kind: consumer,
    ends: [],
    neededFlow_m3PerS: assumed(draw, consumer === 'nozzle' ? NOZZLE_NEED * 0.2 : full * need.drawSpread),
    neededPressure_Pa: assumed(need.pressure_Pa, need.pressureSpread_Pa),
    burnIdle_m3PerS: assumed(full * need.idleShare, full * need.idleShare * 0.4),
    burnFull_m3PerS: assumed(full, burn(need.specificSpread)),
  };
}

/** A hole in the cap is enough on a bench that feeds no nozzle. */
const ventedCap = ({ vehicle, consumer }: Answers): boolean => vehicle === 'bench' && consumer !== 'nozzle';

/** The longest tube that the format takes [m]. */
const LONGEST_DROP_M = 5;
/** Where feed and return stand on the lid, as shares of its length and width. */
const FEED_AT = [0.25, 0.5] as const;
const RETURN_AT = [0.25, 0.2] as const;

function draftTank(answers: Answers): TankDocument {
  const sizes = sizesFor(answers.holds_m3, answers);
  const [l, h] = [sizes.length.value, sizes.height.value];
  const small = Math.min(l, sizes.width.value, h) < 0.12;
  const level = chosen(0);
  const capVented = ventedCap(answers);
  return boxTank({
    id: 'main',
    name: 'Main tank',
    fluid: 'fuel',
    sizes,
    ports: [
      lidPort(sizes, 'filler', 'Filler', 'filler', [0.85, 0.2], {
        bore_m: assumed(small ? 0.02 : 0.038, 0.002),
        length_m: assumed(capVented ? 0.02 : 0.3, 0.01),
      }),
      lidPort(sizes, 'vent', 'Vent', 'vent', [0.7, 0.5], {
        bore_m: assumed(capVented ? 0.003 : 0.014, 0.001),
        length_m: assumed(capVented ? 0.003 : 1, capVented ? 0.001 : 0.5),
      }),
      lidPort(sizes, 'feed', 'Feed', 'feed', FEED_AT, { bore_m: fromPart(0.01), length_m: level }),
      // What an injection pump gives too much comes back low, so that it does not whip air in.
      ...(answers.consumer === 'petrol-injection'
        ? [
            lidPort(sizes, 'return', 'Return', 'return', RETURN_AT, {
              bore_m: fromPart(0.008),
              length_m: level,
              drop_m: chosen(Math.min(LONGEST_DROP_M, roundTo(h * 0.8, 1e-3))),
            }),
          ]
        : []),
      lidPort(sizes, 'sender-port', 'Sender port', 'sender', [0.46, 0.5], { bore_m: fromPart(0.054), length_m: level }),
    ],
    pickups: [
      pickupIn(
        'feed',
        'pickup',
        'Feed pickup',
        'top-tube',
        Math.min(0.025, roundTo(h / 4, 1e-3)),
        answers.consumer === 'nozzle' ? 0.025 : 0.008,
      ),
    ],
    senders: [draftSender(l, Math.min(h, TALLEST_SENT_M))],
  });
}

const LEAST_ARM_M = 0.01;
/** A taller tank's arm swings in its upper part [m]. */
const TALLEST_SENT_M = 4;
/** Steepest swing that is still near linear, in degrees. */
const SENDER_SWING_DEG = 45;

function draftSender(length: number, height: number): TankDocument['senders'][number] {
  const diameter = roundTo(Math.min(0.04, height / 5, Math.max(0.005, length / 8)), 1e-3);
  const reach = height / 2 - diameter / 2 - 0.004;
  const arm = Math.max(
    LEAST_ARM_M,
    Math.min(reach / Math.sin((SENDER_SWING_DEG * Math.PI) / 180), length * 0.5 - diameter),
  );
  const stop = Math.min(80, Math.floor((Math.asin(Math.min(1, reach / arm)) * 180) / Math.PI));
  return {
    id: 'sender',
    name: 'Level sender',
    port: 'sender-port',
    kind: 'swing-arm',
    swing: 'fore',
    pivotDepth_m: assumed(roundTo(height / 2, 1e-3), 0.005),
    armLength_m: assumed(Math.max(LEAST_ARM_M, Math.floor(arm * 1000) / 1000), 0.005),
    floatDiameter_m: fromPart(diameter),
    lowStop_deg: fromPart(-stop, 2),
    highStop_deg: fromPart(stop, 2),
    immersion_ratio: assumed(FLOAT_IMMERSION.ratio, FLOAT_IMMERSION.spread),
    tolerance_ratio: fromPart(0.05),
    output: { kind: 'resistance', empty_ohm: fromPart(240, 12), full_ohm: fromPart(33, 2) },
    gauge: {
      kind: 'linear',
      scale: { kind: 'resistance', empty_ohm: fromPart(240), full_ohm: fromPart(33) },
      tolerance_ratio: fromPart(0.03),
    },
  };
}

function draftComponents(consumer: ConsumerDocument, need: Need): SystemDocument['components'] {
  const flow = consumer.neededFlow_m3PerS.value;
  const filtered = consumer.kind === 'petrol-injection' ? PUMPED_OVER_NEED * flow : flow;
  return [
    filterFor('filter', 'Filter', filtered, need.fluid),
    pumpFor('pump', 'Pump', flow, need.pumpShutOff_Pa, { selfPrimingLift_m: assumed(need.lift_m, need.lift_m * 0.3) }),
    ...(consumer.kind === 'petrol-injection'
      ? [
          {
            id: 'regulator',
            name: 'Pressure regulator',
            ends: [],
            kind: 'regulator' as const,
            style: 'bypass' as const,
            set_Pa: assumed(REGULATED_OVER * need.pressure_Pa, need.pressureSpread_Pa / 2),
            bore_m: fromPart(0.008),
          },
        ]
      : []),
  ];
}

function draftLines(
  answers: Answers,
  consumer: ConsumerDocument,
  need: Need,
  width_m: number,
): SystemDocument['lines'] {
  const run = answers.run_m ?? RUNS_M[answers.vehicle];
  const flow = consumer.neededFlow_m3PerS.value;
  // Where a regulator sends the rest back, all that the pump moves runs through the lines.
  const bore = boreFor_m(answers.consumer === 'petrol-injection' ? PUMPED_OVER_NEED * flow : flow, need.fluid);
  const known = answers.run_m !== undefined;
  const part = (
    id: string,
    name: string,
    from: string,
    to: string,
    share: number,
    rise: number,
    elbows: number,
    end: 'out' | 'side' = 'out',
  ): SystemDocument['lines'][number] => ({
    id,
    name,
    purpose: end === 'side' ? 'return' : 'feed',
    kind: 'hose',
    from: { item: from, end, adapters: [] },
    to: { item: to, end: 'in', adapters: [] },
    points: [],
    passes: [],
    bore_m: chosen(bore),
    length_m: known
      ? measured(roundTo(run * share, 1e-2), 0.1)
      : assumed(roundTo(run * share, 1e-2), roundTo(run * share * 0.3, 1e-2)),
    wall: 'hose',
    forward_m: chosen(0),
    toPort_m: chosen(0),
    rise_m: assumed(rise, 0.15),
    fittings: [
      { fitting: 'elbow-90', count: elbows },
      { fitting: 'barb-step', count: 2 },
    ],
  });
  return [
    part('line-1', 'Tank to filter', 'pickup', 'filter', 0.2, 0, 1),
    part('line-2', 'Filter to pump', 'filter', 'pump', 0.2, need.pumpRise_m, 0),
    ...(answers.consumer === 'petrol-injection'
      ? [
          part('line-3', 'Pump to regulator', 'pump', 'regulator', 0.55, 0.2, 2),
          part('line-4', 'Regulator to engine', 'regulator', consumer.id, 0.05, 0, 0),
          {
            ...part('return-line', 'Return to tank', 'regulator', 'return', 0.8, -0.2 - need.pumpRise_m, 2, 'side'),
            // It ends at its own hole, beside the one that the feed begins at.
            toPort_m: assumed(roundTo((RETURN_AT[1] - FEED_AT[1]) * width_m, 1e-3), 0.05),
          },
        ]
      : [part('line-3', 'Pump to consumer', 'pump', consumer.id, 0.6, answers.consumer === 'nozzle' ? 1 : 0.2, 2)]),
  ];
}

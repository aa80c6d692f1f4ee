import type { InferType } from 'yup';
import type { LinkElement, PumpPoint } from '../network';
import { COPPER, wireRow, WIRES, type WireRow } from '../reference/wires';
import { assumed, bounded, chosen, known, ORIGINS } from '../schema/known';
import { closed, flag, kindIs, oneOf } from '../schema/tools';
import { body, choice, common, curvePoints, straight, yesNo, type ComponentKindOf, type Hydraulics } from './component';

export const PUMP_TYPES = ['inline', 'in-tank', 'transfer', 'solenoid', 'pulse', 'hand', 'siphon'] as const;
const schema = closed({
  ...common(),
  kind: kindIs('pump'),
  type: oneOf(PUMP_TYPES),
  running: flag(),
  checkBuiltIn: flag(),
  ratedVoltage_V: known(1, 60, 'rated voltage', 'voltage'),
  selfPrimingLift_m: known(0, 10, 'self-priming lift', 'run'),
  /** What it really moves, as a share of its curve: timed into a known can. */
  output_ratio: known(0.05, 2, 'real output, as a share of its curve', 'share', 'Time it into a known can.'),
  /** At which it lets go round itself; it has no such valve where this is left out. */
  relief_Pa: known(100, 5e6, 'lets go round itself at', 'pressure').optional(),
  /** Of one that doses: what each stroke gives. */
  stroke_m3: known(1e-10, 1e-3, 'a stroke gives', 'dose').optional(),
  curveOrigin: oneOf(ORIGINS),
  curve: curvePoints(),
  /** What it takes when it moves freely and when nothing leaves it, and its wires from the battery. */
  wiring: closed({
    freeCurrent_A: known(0.01, 200, 'current when it moves freely', 'current'),
    shutOffCurrent_A: known(0.01, 300, 'current against a shut line', 'current'),
    wire: oneOf(WIRES.map(({ key }) => key)),
    /** From the battery to the pump, one way. */
    length_m: known(0, 60, 'length of its wires', 'run'),
    fuse_A: bounded(0.5, 200).optional(),
    relay: flag(),
    battery_Ah: known(0.5, 5000, 'battery', 'charge'),
  }).optional(),
});
export type PumpDocument = InferType<typeof schema>;

/** Pumps that the battery drives; a hand, an engine's pulses or a squeezed bulb do not care for its voltage. */
export const isElectric = ({ type }: Pick<PumpDocument, 'type'>): boolean =>
  type !== 'hand' && type !== 'pulse' && type !== 'siphon';

/** What drives a pump at its terminals as a share of its rated voltage; one without a motor has its curve as it is. */
export const driveRatio = (pump: PumpDocument, volts_V: number): number =>
  isElectric(pump) ? volts_V / pump.ratedVoltage_V.value : 1;

type Wiring = NonNullable<PumpDocument['wiring']>;

/** Wires in a bundle in a warm place [K]. */
const WIRE_K = 313.15;
const COLD_K = 293.15;

/**
 * Current of a pump at a rise of pressure [A]: from what it takes when it
 * moves freely to what it takes against a shut line, straight between, as
 * torque goes with pressure.
 */
export function pumpCurrent_A(pump: PumpDocument, rise_Pa: number): number {
  const { wiring, curve } = pump;
  if (!wiring || !isElectric(pump)) return 0;
  const most_Pa = Math.max(1e-9, ...curve.map((point) => point.rise_Pa));
  const share = Math.min(1, Math.max(0, rise_Pa / most_Pa));
  return wiring.freeCurrent_A.value + (wiring.shutOffCurrent_A.value - wiring.freeCurrent_A.value) * share;
}

/** Resistance of a pump's wires, there and back, warm [ohm]. */
export const wireResistance_ohm = ({ wire, length_m }: Pick<Wiring, 'wire' | 'length_m'>): number =>
  loopResistance_ohm(wireRow(wire), length_m.value);
/** Of so long a wire of a row, there and back, warm [ohm]. */
export const loopResistance_ohm = (row: WireRow, length_m: number): number =>
  2 * length_m * row.resistance_ohmPerM * (1 + COPPER.rise_perK * (WIRE_K - COLD_K));

/** Voltage left at a pump's terminals [V]; the conditions' voltage is the battery's where the pump has wires. */
export const voltsAtPump = (supply_V: number, pump: PumpDocument, rise_Pa: number): number =>
  pump.wiring ? Math.max(0, supply_V - pumpCurrent_A(pump, rise_Pa) * wireResistance_ohm(pump.wiring)) : supply_V;

/**
 * What drives a pump against no pressure and against its curve's largest, as shares of its rated voltage; the second
 * below zero where its wires would take more than there is.
 */
export function drivesOf(
  pump: PumpDocument,
  supply_V: number,
): { readonly voltageRatio: number; readonly shutOffVoltageRatio?: number } {
  if (!pump.wiring || !isElectric(pump)) return { voltageRatio: driveRatio(pump, supply_V) };
  const [free, shutOff] = [0, Infinity].map(
    (rise) => supply_V - pumpCurrent_A(pump, rise) * wireResistance_ohm(pump.wiring!),
  );
  return { voltageRatio: driveRatio(pump, free!), shutOffVoltageRatio: driveRatio(pump, shutOff!) };
}

/** A pump's curve as it really moves, at its rated voltage. */
export const pumpPoints = (pump: PumpDocument): PumpPoint[] =>
  pump.curve.map((point) => ({ flow_m3PerS: point.flow_m3PerS * pump.output_ratio.value, rise_Pa: point.rise_Pa }));

/** Common practice: the way round inside a small pump is some 6 mm wide. */
const RELIEF_BORE_M = 0.006;

/** What flow meets in a pump that runs, or stands still. */
function pumpElements(pump: PumpDocument, hydraulics: Hydraulics) {
  const through = pumpElement(pump, hydraulics);
  return pump.checkBuiltIn ? [through, { kind: 'check' } as const] : [through];
}

function pumpElement(pump: PumpDocument, { supply_V, viscosity_PaS }: Hydraulics): LinkElement {
  const curve = pumpPoints(pump);
  const drives = drivesOf(pump, supply_V);
  if (pump.running && drives.voltageRatio > 0) return { kind: 'pump', curve, ...drives };
  // A pump standing still is taken to cost at free flow what it would have given at shut-off.
  return {
    kind: 'filter',
    ratedFlow_m3PerS: Math.max(1e-9, ...curve.map((point) => point.flow_m3PerS)),
    ratedDrop_Pa: Math.max(0, ...curve.map((point) => point.rise_Pa)),
    ratedViscosity_PaS: viscosity_PaS,
    dirtFactor: 1,
  };
}

/** Common practice: dosing pumps stroke some five times a second at most. */
const MOST_STROKES_PER_S = 5;
/** Of one that moves so much at most [m³/s]. */
export const strokeOf = (free_m3PerS: number) => {
  const stroke = Math.min(1e-3, Math.max(1e-10, free_m3PerS / MOST_STROKES_PER_S));
  return assumed(Number(stroke.toPrecision(2)), Number((stroke * 0.2).toPrecision(2)));
};

export const pump: ComponentKindOf<PumpDocument> & { readonly schema: typeof schema } = {
  schema,
  word: 'pump',
  name: 'Pump',
  ends: { in: 'inlet', out: 'outlet' },
  start: ({ flow_m3PerS }) => ({
    type: 'inline',
    running: true,
    checkBuiltIn: false,
    ratedVoltage_V: chosen(12),
    selfPrimingLift_m: assumed(1, 0.3),
    output_ratio: assumed(0.85, 0.15),
    curveOrigin: 'assumed',
    curve: [
      [0, 1],
      [1, 0.85],
      [2, 0.55],
      [2.8, 0],
    ].map(([q, p]) => ({ flow_m3PerS: Number((flow_m3PerS * q!).toPrecision(3)), rise_Pa: Math.round(40e3 * p!) })),
  }),
  links: (part, hydraulics) => [
    ...straight(...pumpElements(part, hydraulics)),
    // What lets go goes round through the pump's own small passages.
    ...(part.relief_Pa
      ? [
          {
            suffix: 'relief',
            from: 'out' as const,
            to: 'in' as const,
            elements: [
              body(hydraulics, 'check-lift', RELIEF_BORE_M),
              { kind: 'check' as const, opens_Pa: part.relief_Pa.value },
            ],
          },
        ]
      : []),
  ],
  moved: { key: 'running', word: ({ running }) => (running ? 'runs' : 'stands still') },
  drains: ({ checkBuiltIn }, { towards }) => !(checkBuiltIn && towards === 'in'),
  choices: [
    choice('type', 'Kind', {
      inline: 'inline, electric',
      'in-tank': 'in the tank',
      transfer: 'transfer',
      solenoid: 'solenoid or dosing',
      pulse: 'by intake pulse',
      hand: 'by hand',
      siphon: 'siphon bulb',
    }),
    yesNo('running', 'It', 'runs', 'stands still'),
    yesNo('checkBuiltIn', 'Check valve built in', 'yes', 'no'),
  ],
  additions: [
    {
      key: 'stroke_m3',
      label: 'It doses by strokes',
      edit: 'volume of a stroke',
      start: ({ curve, output_ratio }) =>
        strokeOf(output_ratio.value * Math.max(...curve.map((point) => point.flow_m3PerS))),
    },
    {
      key: 'relief_Pa',
      label: 'It has a relief valve',
      edit: 'relief valve',
      start: ({ curve }) => assumed(Math.max(1000, 0.9 * Math.max(...curve.map(({ rise_Pa }) => rise_Pa))), 2000),
    },
  ],
};

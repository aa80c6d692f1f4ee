import { readFileSync } from 'node:fs';
import { chosen, parseSystem, parseSystemText, type SystemDocument } from '@/core/plan';
import { unwrap } from '@/core/outcome';
import { allSteps } from '@/core/steps';
import { documentAt } from '@/core/answers/at';
import { simulate, type Simulated } from '@/core/answers/time';
import { parseScenario } from '@/core/plan/parseScenario';
import { quiet, type Scenario } from '@/core/plan/schemaScenario';

type Tank = SystemDocument['tanks'][number];
type Port = Tank['ports'][number];
type Line = SystemDocument['lines'][number];

const boxBoat = (): SystemDocument => unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));

/** A box [m] that stands at a height, with a hole in its floor to draw by and others in its lid. */
export type RigTank = {
  readonly id: string;
  readonly box: readonly [length_m: number, width_m: number, height_m: number];
  readonly at_m?: readonly [number, number, number];
  /** Bore of its vent; none where left out. */ readonly vent_m?: number;
  readonly ventLength_m?: number;
  /** Bore of its outlet. */ readonly outlet_m?: number;
  /** Bore of what leads into it, and the tube that leads it down. */
  readonly inlet_m?: number;
  readonly drop_m?: number;
  readonly filler_m?: number;
  readonly neck_m?: number;
  /** Tube that leads what is filled in down. */ readonly tube_m?: number;
  readonly cap?: Port['cap'];
  readonly fill: number;
};
export type RigLine = {
  readonly id: string;
  readonly from: readonly [item: string, end: 'in' | 'out' | 'side'];
  readonly to: readonly [item: string, end: 'in' | 'out' | 'side'];
  readonly bore_m: number;
  readonly length_m: number;
  readonly rise_m?: number;
  readonly purpose?: Line['purpose'];
};

/** A system of boxes and lines, for checks against closed forms: nothing in it that was not asked for. */
export function rig(
  tanks: readonly RigTank[],
  lines: readonly RigLine[],
  components: SystemDocument['components'] = [],
  consumers: SystemDocument['consumers'] = [],
  changes: Partial<SystemDocument['conditions']> = {},
): SystemDocument {
  const base = boxBoat();
  const [shell] = base.tanks as [Tank];
  return unwrap(
    parseSystem({
      ...base,
      name: 'Rig',
      tanks: tanks.map((tank): Tank => rigTank(shell, tank)),
      lines: lines.map((line): Line => ({
        id: line.id,
        name: line.id,
        purpose: line.purpose ?? 'transfer',
        kind: 'pipe',
        from: { item: line.from[0], end: line.from[1], adapters: [] },
        to: { item: line.to[0], end: line.to[1], adapters: [] },
        bore_m: chosen(line.bore_m),
        length_m: chosen(line.length_m),
        wall: 'drawn-tube',
        forward_m: chosen(0),
        toPort_m: chosen(0),
        rise_m: chosen(line.rise_m ?? 0),
        fittings: [],
        points: [],
        passes: [],
      })),
      components,
      consumers,
      mounts: [],
      wishes: base.wishes,
      conditions: {
        ...base.conditions,
        ...changes,
        fills: tanks.map(({ id, fill }) => ({ tank: id, fill_ratio: fill })),
      },
    } satisfies SystemDocument),
  );
}

function rigTank(shell: Tank, tank: RigTank): Tank {
  const [length, width, height] = tank.box;
  const [x, y, z] = tank.at_m ?? [0, 0, 0];
  const port = (
    id: string,
    role: Port['role'],
    face: Port['face'],
    bore_m: number,
    more: Partial<Port> = {},
  ): Port => ({
    id: `${tank.id}-${id}`,
    name: `${tank.id} ${id}`,
    role,
    face,
    x_m: chosen(length / 2),
    y_m: chosen(width / 2),
    bore_m: chosen(bore_m),
    length_m: chosen(0),
    ...more,
  });
  return {
    ...shell,
    id: tank.id,
    name: tank.id,
    mounting: {
      x_m: chosen(x),
      y_m: chosen(y),
      z_m: chosen(z),
      yaw_deg: chosen(0),
      pitch_deg: chosen(0),
      roll_deg: chosen(0),
    },
    shape: { kind: 'box', length_m: chosen(length), width_m: chosen(width), height_m: chosen(height) },
    ports: [
      ...(tank.vent_m === undefined
        ? []
        : [port('vent', 'vent', 'lid', tank.vent_m, { length_m: chosen(tank.ventLength_m ?? 0.01) })]),
      ...(tank.outlet_m === undefined ? [] : [port('out', 'feed', 'floor', tank.outlet_m)]),
      ...(tank.inlet_m === undefined
        ? []
        : [
            port('in', 'return', 'lid', tank.inlet_m, {
              x_m: chosen(length / 4),
              ...(tank.drop_m === undefined ? {} : { drop_m: chosen(tank.drop_m) }),
            }),
          ]),
      ...(tank.filler_m === undefined
        ? []
        : [
            port('filler', 'filler', 'lid', tank.filler_m, {
              x_m: chosen((3 * length) / 4),
              length_m: chosen(tank.neck_m ?? 0),
              ...(tank.cap ? { cap: tank.cap } : {}),
              ...(tank.tube_m === undefined ? {} : { drop_m: chosen(tank.tube_m) }),
            }),
          ]),
    ],
    pickups:
      tank.outlet_m === undefined
        ? []
        : [
            {
              id: `${tank.id}-pickup`,
              name: `${tank.id} outlet`,
              port: `${tank.id}-out`,
              kind: 'bottom-outlet',
              strainer: 'none',
              heightOffFloor_m: chosen(0),
              bore_m: chosen(tank.outlet_m),
              submergence_m: chosen(0),
            },
          ],
    senders: [],
  };
}

/** A pump with its own check, whose rise falls evenly from shut to free flow. */
export const rigPump = (
  id: string,
  shut_Pa: number,
  free_m3PerS: number,
): Extract<SystemDocument['components'][number], { kind: 'pump' }> => ({
  id,
  name: id,
  kind: 'pump',
  type: 'inline',
  running: true,
  checkBuiltIn: true,
  ratedVoltage_V: chosen(13),
  selfPrimingLift_m: chosen(1),
  output_ratio: chosen(1),
  curveOrigin: 'part',
  curve: [
    { flow_m3PerS: 0, rise_Pa: shut_Pa },
    { flow_m3PerS: free_m3PerS, rise_Pa: 0 },
  ],
  ends: [],
});

/** An engine that burns all that it needs, always as much. */
export const rigEngine = (burns_m3PerS: number, needs_Pa: number): SystemDocument['consumers'][number] => ({
  id: 'engine',
  name: 'Engine',
  kind: 'diesel-engine',
  neededFlow_m3PerS: chosen(burns_m3PerS),
  neededPressure_Pa: chosen(needs_Pa),
  burnIdle_m3PerS: chosen(burns_m3PerS),
  burnFull_m3PerS: chosen(burns_m3PerS),
  ends: [],
});

/** Plays what is said of a scenario; all else of it is that nothing happens. */
export const played = (system: SystemDocument, duration_s: number, scenario: Partial<Scenario> = {}): Simulated => {
  const asked = unwrap(parseScenario({ ...quiet('Check', duration_s), ...scenario }, system));
  return unwrap(allSteps(simulate(unwrap(documentAt(system)), asked)));
};

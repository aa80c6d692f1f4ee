import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fluidState } from '../fluids';
import type { SwingArm } from '../gauge';
import { toTankFrame, type Vec3 } from '../geometry';
import { unwrap } from '../outcome';
import { ADAPTERS } from '../reference/joins';
import { chosen } from '../schema/known';
import { feedPath } from '../plan/circuits';
import { newPart } from '../plan/circuitEdits';
import { compileNetwork } from './compileNetwork';
import {
  feedLines,
  isStarved,
  partPositions,
  returned_m3PerS,
  surfaceHeight_m,
  type Draw,
  type FlowInputs,
  type TankLevel,
} from './networkParts';
import { compileTank, floorUnder_m, inVehicle, standingUp, type TankModel } from './compileTank';
import { portPoint } from './portSeat';
import { compile } from './model';
import { stateOf } from '../state';
import { toPath, withValue } from '../plan/edit';
import { parseSystemText } from '../plan/parse';
import type { ComponentDocument, SystemDocument } from '../plan/schema';

const parsed = parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8'));
if (!parsed.ok) throw new Error(parsed.error.detail);
const BOAT = withValue(parsed.value, toPath('tanks[0].mounting.pitch_deg'), chosen(0));
const changed = (path: string, value: unknown, system = BOAT): SystemDocument => withValue(system, toPath(path), value);
const tankOf = (system: SystemDocument): TankModel => unwrap(compileTank(system, system.tanks[0]!));

function inputsOf(system: SystemDocument, offset_m = 0.15): FlowInputs {
  const model = unwrap(compile(system));
  const state = { ...unwrap(stateOf(model, system.conditions)), ambientAbs_Pa: 101325 };
  const tank = tankOf(system);
  const up = toTankFrame(state.gravity.up, tank.mounting);
  const levels: TankLevel[] = [{ tank, volume_m3: tank.gross_m3 / 2, offset_m, up }];
  return { system: model.circuits, levels, state, fluid: unwrap(fluidState({ key: 'diesel' }, 285)) };
}

describe('a tank compiled', () => {
  it('puts each port on its face', () => {
    const { mesh } = tankOf(BOAT);
    const port = BOAT.tanks[0]!.ports[0]!;
    expect(portPoint(mesh, port)!.map((value) => Number(value.toFixed(9)))).toEqual([0.98, 0.46, 0.302]);
    expect(portPoint(mesh, { ...port, face: 'floor' })![2]).toBeCloseTo(0, 9);
    expect(
      portPoint(mesh, { ...port, face: 'aft', z_m: chosen(0.1) })!.map((value) => Number(Math.abs(value).toFixed(9))),
    ).toEqual([0, 0.46, 0.1]);
    expect(portPoint(mesh, { ...port, face: 'starboard', z_m: chosen(0.1) })![1]).toBeCloseTo(0, 9);
    expect(portPoint(mesh, { ...port, x_m: chosen(3) })).toBeUndefined();
  });

  it('hangs pickup and sender from their ports', () => {
    const tank = tankOf(BOAT);
    expect(tank.pickups[0]!.inlet.point_m.map((value) => Number(value.toFixed(9)))).toEqual([0.14, 0.28, 0.022]);
    expect(tank.pickups[0]!.tubeLength_m).toBeCloseTo(0.28, 9);
    expect((tank.senders[0]!.sender as SwingArm).pivot_m[2]).toBeCloseTo(0.152, 9);
    expect(floorUnder_m(tank.mesh, [0.5, 0.2, 0.2])).toBeCloseTo(0, 9);
  });

  it('names what misses the tank, with what hangs on it', () => {
    expect(tankOf(changed('tanks[0].ports[2].x_m', chosen(2))).misplaced).toEqual(['feed', 'pickup']);
  });

  it('turns with its mounting: nose up in the vehicle is nose up for the liquid', () => {
    const pitched = tankOf(changed('tanks[0].mounting.pitch_deg', chosen(10)));
    const [here, there] = [standingUp(pitched, 0, 0), standingUp(tankOf(BOAT), (10 * Math.PI) / 180, 0)];
    here.forEach((value, axis) => expect(value).toBeCloseTo(there[axis]!, 12));
    const turned = inVehicle(tankOf(changed('tanks[0].mounting.yaw_deg', chosen(90))), [1, 0, 0]);
    const { x_m, y_m } = BOAT.tanks[0]!.mounting;
    expect(turned[0]).toBeCloseTo(x_m.value, 9);
    expect(turned[1]).toBeCloseTo(y_m.value + 1, 9);
  });
});

describe('a feed compiled', () => {
  it('runs from the consumer back to the pickup', () => {
    expect(feedPath(BOAT, 'consumer')).toEqual(['consumer', 'line-3', 'pump', 'line-2', 'filter', 'line-1', 'pickup']);
    expect(feedPath({ ...BOAT, lines: [] }, 'consumer')).toEqual(['consumer']);
  });

  it('does not run for ever round a ring of lines', () => {
    const ring = changed('lines[0].from', { item: 'pump', end: 'out' });
    expect(feedPath(ring, 'consumer').length).toBeLessThan(10);
  });

  it('places parts along the lines, in vehicle axes', () => {
    const { levels } = inputsOf(BOAT);
    const positions = partPositions(BOAT, levels);
    const pickup = positions.get('pickup')!;
    const engine = positions.get('consumer')!;
    const run = BOAT.lines.reduce<Vec3>(
      (sum, line) => [sum[0] + line.forward_m.value, sum[1] + line.toPort_m.value, sum[2] + line.rise_m.value],
      [0, 0, 0],
    );
    engine.forEach((value, axis) => expect(value).toBeCloseTo(pickup[axis]! + run[axis]!, 12));
  });

  it('a return to a tank port is in the flow, a vent line is not, nor parts that no line touches', () => {
    const joined = (purpose: 'return' | 'vent'): SystemDocument => ({
      ...BOAT,
      lines: [
        ...BOAT.lines,
        {
          ...BOAT.lines[0]!,
          id: 'back',
          purpose,
          from: { item: 'consumer', end: 'out', adapters: [] },
          to: { item: 'spare', end: 'in', adapters: [] },
        },
      ],
    });
    expect(feedLines(joined('return'))).toHaveLength(BOAT.lines.length + 1);
    expect(feedLines(joined('vent'))).toHaveLength(BOAT.lines.length);
    const lonely = { ...BOAT, lines: BOAT.lines.slice(0, 1) };
    const ids = compileNetwork(inputsOf(lonely), []).nodes.map((node) => node.id);
    expect(ids).not.toContain('consumer:in');
    expect(ids).toContain('pickup:out');
  });

  it('shuts a pickup in air, a vent under liquid and a valve that is shut', () => {
    const closed = (inputs: FlowInputs): string[] =>
      compileNetwork(inputs, [])
        .links.filter((link) => link.elements.some((element) => element.kind === 'closed'))
        .map((link) => link.id);
    expect(closed(inputsOf(BOAT))).toEqual([]);
    expect(closed(inputsOf(BOAT, 0.02))).toEqual(['pickup:tube']);
    expect(closed(inputsOf(BOAT, 0.31))).toEqual(['vent']);
    expect(isStarved(inputsOf(BOAT, 0.0271).levels[0]!, tankOf(BOAT).pickups[0]!)).toBe(false);
    expect(isStarved(inputsOf(BOAT, 0.0269).levels[0]!, tankOf(BOAT).pickups[0]!)).toBe(true);
  });

  it('measures heights against effective gravity: braking makes what lies forward lower', () => {
    const braking = inputsOf(changed('conditions.accelerationForward_mPerS2', -5));
    const heights = (inputs: FlowInputs) =>
      new Map(compileNetwork(inputs, []).nodes.map((node) => [node.id, node.height_m]));
    const forward = BOAT.lines.reduce((sum, line) => sum + line.forward_m.value, 0);
    const up = BOAT.lines.reduce((sum, line) => sum + line.rise_m.value, 0);
    const rise = (map: Map<string, number>): number => map.get('consumer:in')! - map.get('pickup:out')!;
    expect(rise(heights(inputsOf(BOAT)))).toBeCloseTo(up, 12);
    expect(rise(heights(braking))).toBeCloseTo((9.80665 * up - 5 * forward) / Math.hypot(9.80665, 5), 12);
    expect(surfaceHeight_m(inputsOf(BOAT).levels[0]!, [0, 0, 1])).toBeCloseTo(
      BOAT.tanks[0]!.mounting.z_m.value + 0.15,
      12,
    );
  });

  it('a pump that stands still costs, and does not push', () => {
    const still = compileNetwork(inputsOf(changed('components[1].running', false)), []).links.find(
      (link) => link.id === 'pump',
    )!;
    expect(still.elements[0]!.kind).toBe('filter');
    const weak = compileNetwork(inputsOf(changed('components[1].output_ratio', chosen(0.5))), []).links.find(
      (link) => link.id === 'pump',
    )!;
    expect(weak.elements[0]).toMatchObject({
      kind: 'pump',
      curve: [{ flow_m3PerS: 0 }, { flow_m3PerS: expect.closeTo(0.5 * (30e-3 / 3600), 12) as number }, {}, {}, {}],
    });
  });

  it('an adapter narrows on its own bore: by Borda and Carnot half of what is cut off, and all of it squared behind', () => {
    const row = ADAPTERS.find(({ form, bore_m }) => form === 'straight' && bore_m < 0.006)!;
    const elements = compileNetwork(
      inputsOf(changed('lines[0].to.adapters', [row.key], changed('lines[0].bore_m', chosen(0.01)))),
      [],
    ).links.find((link) => link.id === 'line-1')!.elements;
    const share = (row.bore_m / 0.01) ** 2;
    expect(elements).toHaveLength(2);
    expect(elements[1]).toMatchObject({
      kind: 'line',
      bore_m: row.bore_m,
      length_m: 0,
      fittings: [{ kInfinity: expect.closeTo(0.5 * (1 - share) + (1 - share) ** 2, 12) as number, count: 1 }],
    });
    const turned = ADAPTERS.find(({ form }) => form === '90')!;
    const bent = compileNetwork(inputsOf(changed('lines[0].to.adapters', [turned.key])), []).links.find(
      (link) => link.id === 'line-1',
    )!.elements[1]!;
    expect(bent.kind === 'line' ? bent.fittings : []).toHaveLength(2);
  });

  it.each([
    ['in-out', [['in', 'out']]],
    ['side-out', [['side', 'out']]],
    ['in-side', [['in', 'side']]],
    [
      'all',
      [
        ['in', 'out'],
        ['side', 'out'],
        ['in', 'side'],
      ],
    ],
    ['shut', []],
  ] as const)('a selector turned to %s joins those ends and no others', (position, pairs) => {
    const selector = { ...newPart(BOAT, 'selector', 0.008), id: 'three', position } as ComponentDocument;
    const system = {
      ...BOAT,
      components: [...BOAT.components, selector],
      lines: [{ ...BOAT.lines[0]!, to: { item: 'three', end: 'in' as const, adapters: [] } }, ...BOAT.lines.slice(1)],
    };
    const links = compileNetwork(inputsOf(system), []).links.filter(({ id }) => id.startsWith('three'));
    expect(links.map(({ from, to }) => [from, to])).toEqual(pairs.map(([a, b]) => [`three:${a}`, `three:${b}`]));
  });

  it('what a consumer does not burn enters its return, as soon as a line leads back and something is drawn', () => {
    const back = {
      ...BOAT,
      lines: [
        ...BOAT.lines,
        {
          ...BOAT.lines[0]!,
          id: 'back',
          purpose: 'return' as const,
          from: { item: 'consumer', end: 'out' as const, adapters: [] },
          to: { item: 'spare', end: 'in' as const, adapters: [] },
        },
      ],
    };
    const outflow = (system: SystemDocument, draws: readonly Draw[]) =>
      compileNetwork(inputsOf(system), draws).nodes.find(({ id }) => id === 'consumer:out')?.outflow_m3PerS;
    const [consumer] = back.consumers;
    expect(returned_m3PerS(consumer!)).toBeCloseTo(
      consumer!.neededFlow_m3PerS.value - consumer!.burnFull_m3PerS.value,
      15,
    );
    expect(outflow(back, [{ consumer: 'consumer', hold_Pa: 0 }])).toBe(-returned_m3PerS(consumer!));
    expect(outflow(back, [])).toBe(0);
    expect(outflow(BOAT, [{ consumer: 'consumer', hold_Pa: 0 }])).toBeUndefined();
    expect(returned_m3PerS({ ...consumer!, burnFull_m3PerS: chosen(1) })).toBe(0);
  });
});

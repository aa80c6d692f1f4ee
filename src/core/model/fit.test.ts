import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { unwrap } from '../outcome';
import { AT_HOME, meshBounds, meshVolume, separation, treeOf } from '../geometry';
import { compileTankBody, outerMesh, portSeat, standsOn } from './compileFit';
import {
  chosen,
  CURRENT_VERSION,
  draftSystem,
  parseSystem,
  parseSystemText,
  parseWay,
  toPath,
  withValue,
} from '../plan';

const text = (name: string): string => readFileSync(name, 'utf8');
const TRAILER = unwrap(parseSystemText(text('demo/forest-trailer.json')));

const BOLT = {
  id: 'bolt',
  name: 'Bolt',
  kind: 'bolt',
  x_m: chosen(0),
  y_m: chosen(0),
  z_m: chosen(0),
  facing: { forward: 0, toPort: 0, up: 1 },
  acrossFlats_m: chosen(0.013),
};

describe('the space in a document', () => {
  it('version 2 comes in with nothing said of the space', () => {
    const old = unwrap(parseSystemText(text('tests/fixtures/box-boat-v2.json')));
    expect(old).toMatchObject({
      version: CURRENT_VERSION,
      fit: { bay: { kind: 'none' }, obstacles: [], removals: [], spots: [] },
      tanks: [{ built: [] }],
    });
  });

  it('version 3 comes in with no place named', () => {
    const old = unwrap(parseSystemText(text('tests/fixtures/box-boat-v3.json')));
    expect(old).toMatchObject({ version: CURRENT_VERSION, fit: { spots: [] } });
    expect(old).toEqual(unwrap(parseSystemText(text('tests/fixtures/box-boat.json'))));
  });

  it('version 4 comes in with its ohms where they are given and wanted, and nothing poured', () => {
    const raw = JSON.parse(text('tests/fixtures/box-boat-v4.json')) as {
      version: number;
      tanks: { senders: { emptyResistance_ohm: unknown; gauge: { fullResistance_ohm: unknown } }[] }[];
    };
    expect(raw.version).toBe(4);
    const old = unwrap(parseSystemText(JSON.stringify(raw)));
    expect(old).toEqual(unwrap(parseSystemText(text('tests/fixtures/box-boat.json'))));
    const [sender] = old.tanks[0]!.senders;
    expect(sender).toMatchObject({
      kind: 'swing-arm',
      output: { kind: 'resistance', empty_ohm: raw.tanks[0]!.senders[0]!.emptyResistance_ohm },
      gauge: { kind: 'linear', scale: { full_ohm: raw.tanks[0]!.senders[0]!.gauge.fullResistance_ohm } },
    });
    expect(old.tanks[0]).toMatchObject({ sightTubes: [], dipsticks: [], calibrations: [] });
    expect(old.practice).toMatchObject({ heaterPickup: 'higher', ports: 'new', sender: 'new' });
  });

  it('version 5 comes in with ends and ways unsaid, and the first schools of lines', () => {
    const raw = JSON.parse(text('tests/fixtures/box-boat-v5.json')) as { version: number };
    expect(raw.version).toBe(5);
    const old = unwrap(parseSystemText(JSON.stringify(raw)));
    expect(old).toEqual(unwrap(parseSystemText(text('tests/fixtures/box-boat.json'))));
    expect(old).toMatchObject({ prices: [], practice: { returnOutlet: 'low', losses: 'two-k' } });
    for (const line of old.lines)
      expect(line).toMatchObject({ points: [], passes: [], from: { adapters: [] }, to: { adapters: [] } });
    for (const part of old.components) expect(part.ends).toEqual([]);
    expect(old.components.find(({ kind }) => kind === 'pump')).toMatchObject({ type: 'inline' });
  });

  it('a port on a slope sits as high as the wall under its rim, and a drilled hole has nothing on it', () => {
    const drum = {
      ...TRAILER.tanks[0]!,
      shape: {
        kind: 'cylinder' as const,
        axis: 'x' as const,
        diameter_m: chosen(0.6),
        shell_m: chosen(1),
        nearEnd: 'flat' as const,
        farEnd: 'flat' as const,
      },
      dimensions: 'outside' as const,
    };
    const port = {
      ...drum.ports[0]!,
      face: 'lid' as const,
      x_m: chosen(0.5),
      y_m: chosen(0.42),
      stands: { height_m: chosen(0.05), diameter_m: chosen(0.06), turns: 'straight' as const, reach_m: chosen(0) },
    };
    const seat = portSeat(unwrap(outerMesh(drum)), port)!.seat_m;
    expectClose(seat[2], 0.3 + Math.sqrt(0.3 ** 2 - 0.09 ** 2), {
      abs: 1e-3,
      why: 'the circle 30 mm nearer to its crown',
    });
    expect(standsOn({ ...port, part: undefined, stands: undefined, bore_m: chosen(0.001) }).height_m).toBe(0);
  });

  it.each<[string, string, unknown, string]>([
    ['a station that is not there', 'fit.bay.measures[0].from.station', 'nowhere', 'fit.bay.measures[0].from.station'],
    ['a corner that is not there', 'fit.bay.measures[0].to.corner', 7, 'fit.bay.measures[0].to.corner'],
    [
      'a length from a corner to itself',
      'fit.bay.measures[0].to',
      { station: 'tail', corner: 0 },
      'fit.bay.measures[0].to',
    ],
    ['an outline with a corner too few', 'fit.bay.stations[1].corners', [], 'fit.bay.stations[1].corners'],
    ['a curve of no side', 'fit.bay.curves', [{ station: 'tail', side: 'roof', points: [] }], 'fit.bay.curves[0].side'],
    [
      'a motion that goes nowhere',
      'fit.obstacles[0].motions[0].way',
      { forward: 0, toPort: 0, up: 0 },
      'fit.obstacles[0].motions[0].way',
    ],
    [
      'a motion that leaves out its rest',
      'fit.obstacles[0].motions[0].from_m',
      chosen(0.02),
      'fit.obstacles[0].motions[0]',
    ],
    [
      'an obstacle of no size',
      'fit.obstacles[0].bodies[0].shape',
      { kind: 'box', length_m: chosen(0), width_m: chosen(0.1), height_m: chosen(0.1) },
      'fit.obstacles[0].bodies[0].shape.length_m.value',
    ],
    ['an obstacle of no body', 'fit.obstacles[0].bodies', [], 'fit.obstacles[0].bodies'],
    ['a place on no tank', 'fit.spots', [{ ...BOLT, tank: 'ghost' }], 'fit.spots[0].tank'],
    [
      'a place that faces nowhere',
      'fit.spots',
      [{ ...BOLT, facing: { forward: 0, toPort: 0, up: 0 } }],
      'fit.spots[0].facing',
    ],
    ['a bolt of no size', 'fit.spots', [{ ...BOLT, acrossFlats_m: undefined }], 'fit.spots[0].acrossFlats_m'],
    ['a way of no part', 'fit.removals', [{ part: 'ghost', steps: [] }], 'fit.removals[0].part'],
    [
      'a built size that was never planned',
      'tanks[0].built',
      [{ of: 'shape.depth_m', measured: chosen(1) }],
      'tanks[0].built[0].of',
    ],
  ])('%s is refused at its path', (_, path, value, at) => {
    const parsed = parseSystem(withValue(TRAILER as unknown, toPath(path), value));
    expect(parsed.ok).toBe(false);
    if (!parsed.ok)
      expect([
        parsed.error.at,
        ...('faults' in parsed.error ? (parsed.error.faults as readonly { path: string }[]) : []).map(
          (fault) => fault.path,
        ),
      ]).toContain(at);
  });

  it('the outside of a tank that is dimensioned inside is larger by its walls', () => {
    const box = {
      ...TRAILER.tanks[0]!,
      shape: { kind: 'box' as const, length_m: chosen(0.6), width_m: chosen(0.4), height_m: chosen(0.3) },
      parts: [],
      slices: [],
      plates: [],
    };
    const t = box.material.thickness_m.value;
    expectClose(meshVolume(unwrap(outerMesh(box))), (0.6 + 2 * t) * (0.4 + 2 * t) * (0.3 + 2 * t), {
      rel: 1e-9,
      why: 'a wall on every face',
    });
    expectClose(meshVolume(unwrap(outerMesh({ ...box, dimensions: 'outside' }))), 0.6 * 0.4 * 0.3, {
      rel: 1e-12,
      why: 'outside sizes',
    });
  });

  it('a hose end that turns aside and a strap stand on the tank as pieces of their own', () => {
    const tank = {
      ...TRAILER.tanks[0]!,
      shape: { kind: 'box' as const, length_m: chosen(0.6), width_m: chosen(0.4), height_m: chosen(0.3) },
      parts: [],
      slices: [],
      plates: [],
      ports: [
        {
          id: 'feed',
          name: 'Feed',
          role: 'feed' as const,
          face: 'lid' as const,
          x_m: chosen(0.2),
          y_m: chosen(0.2),
          bore_m: chosen(0.01),
          length_m: chosen(0),
          stands: { height_m: chosen(0.05), diameter_m: chosen(0.02), turns: 'fore' as const, reach_m: chosen(0.08) },
        },
      ],
    };
    const strap = {
      id: 'strap',
      name: 'Strap',
      kind: 'strap' as const,
      tank: tank.id,
      x_m: chosen(0.3),
      y_m: chosen(0),
      z_m: chosen(0),
    };
    const { pieces } = unwrap(compileTankBody({ ...TRAILER, mounts: [strap] }, tank));
    expect(pieces.map(({ id }) => id)).toEqual([tank.id, 'feed', 'feed:end', 'strap']);
    const bounds = pieces.map(({ surface }) => meshBounds(surface));
    expectClose(bounds[2]!.max[0], 0.2 + 0.08, { abs: 1e-9, why: 'reaches 80 mm forward' });
    const t = tank.material.thickness_m.value;
    expectClose(bounds[1]!.max[2], 0.3 + t + 0.05, { abs: 1e-9, why: 'stands 50 mm over the outside of the lid' });
    // 40 mm wide and 6 mm thick, all round the outside.
    expectClose(bounds[3]!.max[0] - bounds[3]!.min[0], 0.04, { abs: 1e-9, why: 'width of the strap' });
    expectClose(bounds[3]!.max[2], 0.3 + t + 0.006, { abs: 1e-6, why: 'over the lid' });
    expectClose(bounds[3]!.min[1], -t - 0.006, { abs: 1e-6, why: 'beside it' });
  });

  it.each([0.015, 0.04, 0.08, 0.3])('ports of a drafted tank of %d m³ leave each other room', (holds_m3) => {
    const system = draftSystem({ name: 'x', vehicle: 'road', consumer: 'diesel-engine', power_W: 30e3, holds_m3 });
    const [, ...standing] = unwrap(compileTankBody(system, system.tanks[0]!)).pieces;
    expect(standing).toHaveLength(4);
    standing.forEach((one, i) =>
      standing
        .slice(i + 1)
        .forEach((other) =>
          expect(
            separation(treeOf(one.surface), treeOf(other.surface), AT_HOME)!.distance_m,
            `${one.name} and ${other.name}`,
          ).toBeGreaterThan(0.01),
        ),
    );
  });

  it('what stands on a port is as usual for its role, or as it is said', () => {
    const [port] = TRAILER.tanks[0]!.ports;
    expect(standsOn({ ...port!, part: undefined, role: 'filler', bore_m: chosen(0.038) })).toEqual({
      height_m: 0.06,
      diameter_m: 0.054,
    });
    expect(standsOn({ ...port!, part: 'bung-npt-1-4', role: 'feed' })).toEqual({
      height_m: expect.closeTo(0.006 + 0.024, 9) as number,
      diameter_m: expect.closeTo(0.021, 9) as number,
    });
    expect(standsOn({ ...port!, part: 'bung-npt-1-4', role: 'spare' }).height_m).toBe(0.018);
    expect(
      standsOn({
        ...port!,
        stands: { height_m: chosen(0.1), diameter_m: chosen(0.03), turns: 'straight', reach_m: chosen(0) },
      }),
    ).toEqual({ height_m: 0.1, diameter_m: 0.03 });
  });
});

describe('a way as it is said', () => {
  const still = { forward_m: 0, toPort_m: 0, up_m: 0, noseUp_deg: 0, starboardDown_deg: 0, noseToPort_deg: 0 };

  it('in a metric reader’s words', () => {
    expect(parseWay('down 120, aft 200, nose down 15°, out', 'metric')).toEqual({
      ok: true,
      value: [
        { ...still, up_m: -0.12 },
        { ...still, forward_m: -0.2 },
        { ...still, noseUp_deg: expect.closeTo(-15, 9) as number },
        { ...still, forward_m: -2 },
      ],
    });
  });

  it('in inches, with units and with turns', () => {
    const way = unwrap(parseWay('up 4 3/4; to port 30 mm; starboard down 5', 'us'));
    expectClose(way[0]!.up_m, 4.75 * 0.0254, { rel: 1e-12, why: 'inches' });
    expectClose(way[1]!.toPort_m, 0.03, { rel: 1e-12, why: 'millimetres' });
    expectClose(way[2]!.starboardDown_deg, 5, { rel: 1e-9, why: 'degrees' });
  });

  it.each([
    ['', 'empty'],
    ['sideways 10', 'not-a-move'],
    ['down', 'not-a-move'],
    ['down a lot', 'not-a-size'],
    ['out', 'out-of-where'],
    [Array(61).fill('up 1').join(), 'too-many'],
  ])('“%s” is refused: %s', (said, code) => {
    expect(parseWay(said, 'metric')).toMatchObject({ ok: false, error: { code } });
  });
});

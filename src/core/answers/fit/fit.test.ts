import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { asBuilt } from '../../model';
import {
  assumed,
  chosen,
  measured,
  parseSystemText,
  toPath,
  valueAt,
  withValue,
  type MeasuredBayDocument,
  type SystemDocument,
} from '../../plan';
import { unwrap } from '../../outcome';
import {
  builtResult,
  changesOf,
  checkedWay,
  evaluateSystem,
  fitDrawing,
  fitOf,
  foundWay,
  largestTanks,
  orderOut,
  partChoices,
  stepOf,
  moveOf,
  withChange,
  withLargest,
} from '..';

const demo = (name: string): SystemDocument => {
  const parsed = parseSystemText(readFileSync(`demo/${name}.json`, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};
const TRAILER = demo('forest-trailer');
const SNOW = demo('snow-vehicle');
const AXLE = ['fit', 'obstacles', 0, 'motions', 0, 'to_m', 'value'];
const gap = (system: SystemDocument, to: string, t = 0) =>
  unwrap(fitOf(system)).tanks[t]!.gaps.find((other) => other.to === to)!;

describe('the fit of a system', () => {
  it('an axle with more bump comes nearer by as much, then fouls', () => {
    const before = gap(TRAILER, 'axle').distance_m;
    const bump =
      TRAILER.fit.obstacles[0]!.motions[0]!.kind === 'slide' ? TRAILER.fit.obstacles[0]!.motions[0]!.to_m.value : NaN;
    expectClose(gap(withValue(TRAILER, AXLE, bump + 0.01), 'axle').distance_m, before - 0.01, {
      abs: 3e-4,
      why: 'straight up under the tank',
    });
    expect(gap(withValue(TRAILER, AXLE, bump + 0.04), 'axle').distance_m).toBeLessThan(-0.01);
  });

  it('corners of a profile that are not known exactly are named as not counted in the chance', () => {
    const prism = withValue(TRAILER, ['tanks', 0, 'shape'], {
      kind: 'prism',
      axis: 'x',
      length_m: chosen(1),
      profile: [
        [0, 0],
        [0.4, 0],
        [0.4, 0.3],
        [0, 0.3],
      ].map(([u_m, v_m]) => ({ u_m: u_m!, v_m: v_m! })),
      profileOrigin: 'measured',
    });
    const told = (system: SystemDocument): string[] =>
      unwrap(fitOf(system)).tanks[0]!.unknown.map((path) => path.join('.'));
    expect(told(withValue(prism, ['tanks', 0, 'shape', 'profileSpread_m'], 0.004))).toEqual([
      'tanks.0.shape.profileSpread_m',
    ]);
    expect(told(prism)).toEqual([]);
  });

  it('spread and worst follow from what bears on the gap: a place ± s moves it by s', () => {
    const certain = withValue(
      withValue(TRAILER, ['fit', 'obstacles', 0, 'z_m'], measured(-0.19, 0)),
      ['tanks', 0, 'mounting', 'z_m'],
      measured(0, 0),
    );
    const doubtful = withValue(certain, ['fit', 'obstacles', 0, 'z_m'], measured(-0.19, 0.006));
    const [a, b] = [gap(certain, 'axle'), gap(doubtful, 'axle')];
    expectClose(b.spread_m ** 2 - a.spread_m ** 2, 0.006 ** 2, { rel: 0.02, why: 'independent doubts add as squares' });
    expectClose(a.worst_m - b.worst_m, 0.006, { rel: 0.02, why: 'the worst case adds them' });
  });

  it('the wider the doubt, the less certain the fit', () => {
    const chance = (spread: number) =>
      unwrap(fitOf(withValue(TRAILER, ['fit', 'obstacles', 0, 'z_m'], measured(-0.19, spread)))).tanks[0]!.chanceClear;
    expect(chance(0.002)).toBeGreaterThan(chance(0.02));
    expect(chance(0.02)).toBeGreaterThan(chance(0.06));
  });

  it.each<[string, (string | number)[], number, string]>([
    ['how far an axle bumps', ['fit', 'obstacles', 0, 'motions', 0, 'to_m'], 0.09, 'axle'],
    ['where the bay’s zero lies', ['fit', 'bay', 'y_m'], -0.07, 'port-rail'],
    ['where the tank is mounted', ['tanks', 0, 'mounting', 'y_m'], 0, 'starboard-rail'],
  ])('%s, ± 8 mm, moves its gap by as much', (_, path, value, to) => {
    const spread = (s: number): number => gap(withValue(TRAILER, path, measured(value, s)), to).spread_m;
    expectClose(spread(0.008) ** 2 - spread(0) ** 2, 0.008 ** 2, { rel: 0.03, why: 'squarely across the gap' });
  });

  it('how a side curves bears on the gap to it', () => {
    const curved = (s: number) =>
      gap(
        withValue(
          TRAILER,
          ['fit', 'bay', 'curves'],
          [
            {
              station: 'tail',
              side: 'port-rail',
              points: [{ along_m: measured(0.18, 0), behind_m: measured(-0.02, s) }],
            },
          ],
        ),
        'port-rail',
      ).spread_m;
    expect(curved(0.02)).toBeGreaterThan(curved(0) * 1.02);
  });

  it('a contradicted length leaves the gap to its wall in doubt until it is settled', () => {
    // The upper corners at the locker, taped twice.
    const top = (id: string, value: number) => ({
      id,
      from: { station: 'locker', corner: 3 },
      to: { station: 'locker', corner: 2 },
      how: 'straight',
      length_m: measured(value, 0.001),
    });
    const taken = (second: number) =>
      withValue(
        TRAILER,
        ['fit', 'bay', 'measures'],
        [...(TRAILER.fit.bay as MeasuredBayDocument).measures, top('once', 0.77), top('again', second)],
      );
    const [agreed, denied] = [taken(0.77), taken(0.82)];
    expect(unwrap(fitOf(agreed)).bay!.contradictions).toEqual([]);
    expect(
      unwrap(fitOf(denied))
        .bay!.contradictions[0]!.suspects.map(({ id }) => id)
        .sort(),
    ).toEqual(['again', 'once']);
    // A millimetre of a tape moves the rail, where the tank comes nearest, by tenths; a disagreement of 50 mm by
    // millimetres.
    const moves = (system: SystemDocument): number =>
      unwrap(fitOf(system)).tanks[0]!.doubts.find(({ path }) => path.join('.') === 'fit.bay.measures.7.length_m')
        ?.moves_m ?? 0;
    expect(moves(agreed)).toBeLessThan(5e-4);
    expect(moves(denied)).toBeGreaterThan(2e-3);
    expect(gap(denied, 'port-rail').spread_m).toBeGreaterThan(gap(agreed, 'port-rail').spread_m);
  });

  it('says what to measure first: what moves the tightest gap most', () => {
    const doubtful = withValue(TRAILER, ['fit', 'obstacles', 0, 'z_m'], assumed(-0.19, 0.02));
    const { doubts } = unwrap(fitOf(doubtful)).tanks[0]!;
    expect(doubts[0]).toMatchObject({ path: ['fit', 'obstacles', 0, 'z_m'], gap: 'Axle beam' });
    expectClose(doubts[0]!.moves_m, 0.02, { rel: 0.02, why: 'straight up under the tank' });
    for (const { path } of doubts) expect(valueAt(doubtful, path), path.join('.')).toHaveProperty('origin');
  });

  it('comes with the whole evaluation, is kept as long as the space stays, and can be left out', () => {
    const first = unwrap(evaluateSystem(SNOW, 'full')).fit;
    expect(first?.ok).toBe(true);
    expect(unwrap(evaluateSystem(withValue(SNOW, ['conditions', 'pitch_deg'], 3), 'full')).fit).toBe(first);
    expect(unwrap(evaluateSystem(withValue(SNOW, ['fit', 'clearance_m'], chosen(0.02)), 'full')).fit).not.toBe(first);
    expect(unwrap(evaluateSystem(SNOW, 'full', 'without-fit')).fit).toBeUndefined();
    expect(unwrap(evaluateSystem(SNOW, 'numbers')).fit).toBeUndefined();
  });

  it('draws three views, with a T for the T-shaped tank', () => {
    const { views } = unwrap(fitDrawing(SNOW, 1));
    const tee = views.side.find(({ id }) => id === 'aux')!;
    expect(tee.outline[0]).toHaveLength(8);
    expect(views.end.some(({ kind }) => kind === 'swept')).toBe(true);
  });
});

describe('changes of a tank', () => {
  const foul = withValue(TRAILER, AXLE, 0.13);

  it('offers what frees it, and each does', () => {
    const mends = changesOf(foul, 0, gap(foul, 'axle'));
    expect(mends.map(({ change }) => change.kind)).toEqual(['move', 'face', 'notch']);
    for (const { tank, change } of mends) {
      const mended = withValue(foul, ['tanks', 0], tank);
      expect(gap(mended, 'axle').distance_m, change.kind).toBeGreaterThan(0.0145);
    }
    expect(mends[0]!.volume_m3).toBe(0);
    expect(mends[1]!.volume_m3).toBeLessThan(mends[2]!.volume_m3);
  });

  it('a face of a box costs its area times the depth', () => {
    const plain = withValue(withValue(SNOW, ['tanks', 0, 'parts'], []), ['tanks', 0, 'plates'], []);
    const cost = (face: string) =>
      changesOf(plain, 0).find(({ change }) => change.kind === 'face' && change.face === face)!.volume_m3;
    expectClose(cost('lid'), -0.37 * 0.64 * 0.01, { rel: 1e-6, why: 'length times width' });
    expectClose(cost('fore'), -0.64 * 0.3 * 0.01, { rel: 1e-6, why: 'width times height' });
  });

  it('a cut corner costs half its legs’ product along the edge', () => {
    const plain = withValue(withValue(SNOW, ['tanks', 0, 'parts'], []), ['tanks', 0, 'plates'], []);
    const cut = changesOf(plain, 0).find(
      ({ change }) => change.kind === 'corner' && change.faces.join() === 'lid,fore',
    )!;
    expectClose(cut.volume_m3, ((-0.05 * 0.05) / 2) * 0.64, { rel: 1e-6, why: 'triangle times width' });
  });

  it('the largest tank found fits where it is put', () => {
    for (const largest of unwrap(largestTanks(SNOW))) {
      const bare = withValue(
        withValue(withLargest(SNOW, 0, largest), ['tanks', 0, 'ports'], []),
        ['tanks'],
        [{ ...withLargest(SNOW, 0, largest).tanks[0]!, ports: [], pickups: [], senders: [], plates: [] }],
      );
      const fit = unwrap(fitOf(bare)).tanks[0]!;
      expect(Math.min(...fit.gaps.map(({ distance_m, keep_m }) => distance_m - keep_m)), largest.kind).toBeGreaterThan(
        -1.5e-3,
      );
      expect(largest.volume_m3).toBeGreaterThan(0.2);
    }
    expect(largestTanks({ ...SNOW, fit: { ...SNOW.fit, bay: { kind: 'none' } } })).toMatchObject({
      ok: false,
      error: { code: 'no-bay' },
    });
  });

  it('as built: what was measured takes the place of what was planned', () => {
    const built = withValue(SNOW, ['tanks', 0, 'built'], [{ of: 'shape.height_m', measured: measured(0.29, 0.001) }]);
    expect(asBuilt(built.tanks[0]!).shape).toMatchObject({ height_m: { value: 0.29, origin: 'measured' } });
    const result = builtResult(built, 0);
    expectClose(result.planned_m3 - result.built_m3, 0.37 * 0.64 * 0.01, {
      rel: 0.2,
      why: 'a lower lid; baffles displace a little',
    });
  });

  it('a low face is cut, and the tank stays where it is mounted', () => {
    const bare = withValue(withValue(SNOW, ['tanks', 0, 'parts'], []), ['tanks', 0, 'mounting', 'yaw_deg'], chosen(90));
    const cut = withChange(bare, 0, { kind: 'face', face: 'aft', by_m: 0.02 });
    expect(cut.tanks[0]!.mounting).toEqual(bare.tanks[0]!.mounting);
    expect(cut.tanks[0]!.parts).toHaveLength(1);
    expect(withChange(bare, 0, { kind: 'face', face: 'fore', by_m: 0.02 }).tanks[0]!.parts).toHaveLength(0);
  });

  it('a recess for two motions takes in all that they sweep together', () => {
    const wheel = withValue(
      foul,
      ['fit', 'obstacles', 0, 'motions'],
      [
        ...foul.fit.obstacles[0]!.motions,
        {
          kind: 'slide',
          way: { forward: 1, toPort: 0, up: 0 },
          fromName: 'aft',
          toName: 'fore',
          from_m: chosen(-0.1),
          to_m: chosen(0.1),
        },
      ],
    );
    const recess = changesOf(wheel, 0, gap(wheel, 'axle')).find(({ change }) => change.kind === 'notch')!;
    expect(gap(withValue(wheel, ['tanks', 0], recess.tank), 'axle').distance_m).toBeGreaterThan(0.0145);
  });

  it('a move is in vehicle axes and costs nothing', () => {
    const moved = withChange(SNOW, 0, { kind: 'move', forward_m: 0.01, toPort_m: 0, up_m: -0.02 });
    expectClose(moved.tanks[0]!.mounting.x_m.value - SNOW.tanks[0]!.mounting.x_m.value, 0.01, {
      rel: 1e-6,
      why: 'forward',
    });
    expectClose(moved.tanks[0]!.mounting.z_m.value - SNOW.tanks[0]!.mounting.z_m.value, -0.02, {
      rel: 1e-6,
      why: 'down',
    });
  });
});

describe('ways in and out', () => {
  const SEARCH = { seed: 1, mostSamples: 4000 };

  it('the order of removal of the lower tank: cover, tray, upper tank, itself', () => {
    expect(unwrap(orderOut(SNOW, 'main', SEARCH)).map(({ name }) => name)).toEqual([
      'Deck cover',
      'Tool tray',
      'Auxiliary tank',
      'Main tank',
    ]);
  });

  it('a cover is reckoned by itself, not by the bay that it shares its corners with', () => {
    const [cover] = unwrap(orderOut(SNOW, 'tool-tray', SEARCH));
    expect(cover!.name).toBe('Deck cover');
    const lifted = cover!.way.moves.reduce((sum, { shift_m }) => sum + Math.hypot(...shift_m), 0);
    expect(lifted).toBeLessThan(0.25);
  });

  it('what cannot come out alone says what opens a way, if one thing does', () => {
    const tray = unwrap(foundWay(SNOW, 'tool-tray', SEARCH));
    expect(tray.way.ok).toBe(false);
    expect(tray.openings[0]).toMatchObject({ name: 'Deck cover', removable: true });
  });

  it('a sender goes through its own hole, or is refused by the walls round it', () => {
    const sender = SNOW.tanks[0]!.senders[0]!.id;
    const up = { forward_m: 0, toPort_m: 0, up_m: 0.6, noseUp_deg: 0, starboardDown_deg: 0, noseToPort_deg: 0 };
    // Straight up the arm hits the lid.
    expect(
      unwrap(
        checkedWay(
          { ...SNOW, tanks: [SNOW.tanks[0]!], fit: { ...SNOW.fit, obstacles: [], bay: { kind: 'none' } } },
          sender,
          [up],
        ),
      ).steps.at(-1)!.blocked,
    ).toMatchObject({ by: 'main' });
    expect(partChoices(SNOW).some(({ id }) => id === sender)).toBe(true);
    expect(checkedWay(SNOW, 'nothing', [up])).toMatchObject({ ok: false, error: { code: 'no-part' } });
  });

  it('a pickup tube comes straight up out of its port', () => {
    const { id } = SNOW.tanks[0]!.pickups[0]!;
    const alone = {
      ...SNOW,
      tanks: [withValue(SNOW, toPath('tanks[0].ports[2].bore_m'), chosen(0.02)).tanks[0]!],
      fit: { ...SNOW.fit, obstacles: [], bay: { kind: 'none' as const } },
    };
    expect(unwrap(foundWay(alone, id, SEARCH)).way.ok).toBe(true);
  });

  it('steps and moves are the same thing said two ways', () => {
    const step = {
      forward_m: 0.1,
      toPort_m: -0.2,
      up_m: 0.3,
      noseUp_deg: -15,
      starboardDown_deg: 4,
      noseToPort_deg: 90,
    };
    const back = stepOf(moveOf(step));
    for (const key of Object.keys(step) as (keyof typeof step)[])
      expectClose(back[key], step[key], { rel: 1e-12, abs: 1e-12, why: key });
  });

  it('nose up really lifts the nose', () => {
    const [, aboutY] = moveOf({
      forward_m: 0,
      toPort_m: 0,
      up_m: 0,
      noseUp_deg: 90,
      starboardDown_deg: 0,
      noseToPort_deg: 0,
    }).turn_rad;
    // A right-handed turn about y carries x to -z: nose up is the other way.
    expect(aboutY).toBeLessThan(0);
  });
});

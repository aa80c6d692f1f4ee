import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { applied, SOUND, T } from '../../../../tests/raisedSystems';
import { unwrap } from '../../outcome';
import { JOINS } from '../../reference/joins';
import { LOOK_ALIKES } from '../../reference/lookAlikes';
import { chosen, parseSystemText, type SystemDocument } from '../../plan';
import { jointsOf, mixUpsOf } from '.';

const mixUps = (system: SystemDocument) => mixUpsOf(system, jointsOf(system));
const of = (system: SystemDocument, kind: string) => mixUps(system).filter((each) => each.kind === kind);
const demo = (name: string): SystemDocument => unwrap(parseSystemText(readFileSync(`demo/${name}.json`, 'utf8')));

/** The sound system with an end of its filter and one of its pump made so. */
const joined = (one: readonly [string, string], other: readonly [string, string]): SystemDocument =>
  applied(
    SOUND,
    SOUND.components.slice(0, 2).map((_, c) => {
      const [system, size] = c === 0 ? one : other;
      return [`components[${c}].ends`, [{ end: 'in', system, size, side: 'female' }]] as const;
    }),
  );

describe('what could be mixed up', () => {
  it('threads that start in each other, whichever comes first, and none of unlike sizes', () => {
    for (const { systems, sizes } of LOOK_ALIKES) {
      const same = JOINS[systems[0]].sizes.find((size) => JOINS[systems[1]].sizes.includes(size))!;
      const [p, q] = sizes?.[0] ?? [same, same];
      for (const [one, other] of [
        [[systems[0], p] as const, [systems[1], q] as const],
        [[systems[1], q] as const, [systems[0], p] as const],
      ])
        expect(of(joined(one!, other!), 'threads').length, systems.join()).toBeGreaterThan(0);
    }
    expect(of(joined(['flare-37', '-6'], ['o-ring-boss', '-8']), 'threads')).toEqual([]);
    expect(of(joined(['npt', '1/4'], ['metric', 'M10 x 1']), 'threads')).toEqual([]);
  });

  it('fillers and lines of unlike liquids, and not of the same', () => {
    const tank = SOUND.tanks[0]!;
    const second: SystemDocument['tanks'][number] = {
      ...tank,
      id: 'second',
      name: 'Second',
      fluid: 'other',
      senders: [],
      ports: tank.ports.map((port) => ({ ...port, id: `${port.id}-2` })),
      pickups: tank.pickups.map((pickup) => ({ ...pickup, id: `${pickup.id}-2`, port: `${pickup.port}-2` })),
    };
    const two = (fluid: SystemDocument['fluids'][number]['fluid']): SystemDocument => ({
      ...SOUND,
      fluids: [...SOUND.fluids, { id: 'other', fluid }],
      tanks: [tank, second],
      components: [...SOUND.components, { id: 'end', name: 'End', ends: [], kind: 'outlet' }],
      lines: [
        ...SOUND.lines,
        {
          ...SOUND.lines[0]!,
          id: 'second-line',
          from: { item: second.pickups[0]!.id, end: 'out', adapters: [] },
          to: { item: 'end', end: 'in', adapters: [] },
        },
      ],
    });
    expect(of(two('petrol'), 'fillers')).toHaveLength(1);
    expect(of(two('petrol'), 'lines')).toHaveLength(1);
    expect(of(two('diesel'), 'fillers')).toEqual([]);
    expect(of(two('diesel'), 'lines')).toEqual([]);
    const wider = applied(two('petrol'), [['lines[3].bore_m', chosen(0.02)]]);
    expect(wider.lines[3]!.id).toBe('second-line');
    expect(of(wider, 'lines')).toEqual([]);
  });

  it('ports of one thread for unlike uses; spares and unsaid ones are left out', () => {
    const both = applied(SOUND, [
      [`${T}ports[0].part`, 'bung-npt-3-8'],
      [`${T}ports[2].part`, 'bung-npt-3-8'],
    ]);
    expect(both.tanks[0]!.ports[0]!.role).not.toBe(both.tanks[0]!.ports[2]!.role);
    expect(of(both, 'ports')).toHaveLength(1);
    expect(of(applied(both, [[`${T}ports[2].role`, 'spare']]), 'ports')).toEqual([]);
    expect(of(SOUND, 'ports')).toEqual([]);
  });

  it('of the demo car each is told with what tells it apart', () => {
    for (const { one, other, tells } of mixUps(demo('hill-climb-car'))) {
      expect(one).not.toBe(other);
      expect(tells.length).toBeGreaterThan(10);
    }
    expect(of(demo('hill-climb-car'), 'fillers').length).toBeGreaterThan(0);
  });
});

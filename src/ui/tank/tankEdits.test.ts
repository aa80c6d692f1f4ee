import { describe, expect, it } from 'vitest';
import {
  chosen,
  draftSystem,
  newPart,
  parseSystem,
  withSealedDivider,
  type ComponentDocument,
  type SystemDocument,
} from '@/core/plan';
import { tankBody } from '@/core/model';
import { evaluateSystem } from '@/core/answers';
import { unwrap } from '@/core/outcome';
import { withBaffle, withNotch, withPumpModule, withSlice, withSump, withTubeThrough } from './newParts';
import { fluidOf, withFluid, withoutTank, withTank } from './tankEdits';

const DRAFT = draftSystem({ name: 'Edits', vehicle: 'road', consumer: 'diesel-engine', power_W: 60e3, holds_m3: 0.08 });
const valid = (system: SystemDocument): SystemDocument => {
  const parsed = parseSystem(JSON.parse(JSON.stringify(system)));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
};
const KINDS = {
  sump: withSump,
  notch: withNotch,
  module: withPumpModule,
  tube: withTubeThrough,
  band: withSlice,
  baffle: withBaffle,
} as const;
const SHAPES: Readonly<Record<string, SystemDocument['tanks'][number]['shape']>> = {
  box: DRAFT.tanks[0]!.shape,
  drum: { kind: 'cylinder', axis: 'z', diameter_m: chosen(0.5), shell_m: chosen(0.6), nearEnd: 'flat', farEnd: 'flat' },
  'small box': { kind: 'box', length_m: chosen(0.1), width_m: chosen(0.08), height_m: chosen(0.06) },
};

it('a tank that another shares its wall with goes, and that other has walls of its own', () => {
  const divided = unwrap(withSealedDivider(DRAFT, 0, { axis: 'x', at_m: 0.2 }));
  const left = valid(withoutTank(divided, 0));
  expect(left.tanks.map(({ sharesWallWith }) => sharesWallWith)).toEqual([undefined]);
  expect(valid(withoutTank(divided, 1)).tanks).toHaveLength(1);
});

describe('what a button adds to a tank', () => {
  it.each(Object.keys(SHAPES).flatMap((shape) => Object.keys(KINDS).map((kind) => [kind, shape] as const)))(
    '%s on a %s: passes the validator, makes a tank in one piece and changes it',
    (kind, shape) => {
      const before: SystemDocument = { ...DRAFT, tanks: [{ ...DRAFT.tanks[0]!, shape: SHAPES[shape]! }] };
      const after = valid(KINDS[kind as keyof typeof KINDS](before, 0));
      const body = unwrap(tankBody(after.tanks[0]!));
      expect(body.pieces).toBe(1);
      expect(body.idle).toEqual([]);
      expect(before.tanks[0]!.parts).toEqual([]);
    },
  );

  it('twice has another id and another name', () => {
    const { parts } = valid(withSump(withSump(DRAFT, 0), 0)).tanks[0]!;
    expect(parts.map(({ name }) => name)).toEqual(['Sump', 'Sump 2']);
    expect(new Set(parts.map(({ id }) => id)).size).toBe(2);
  });

  it('baffles one after the other stand at different places and make one compartment more each', () => {
    const three = valid(withBaffle(withBaffle(withBaffle(DRAFT, 0), 0), 0));
    expect(unwrap(tankBody(three.tanks[0]!)).division.compartments).toHaveLength(4);
  });
});

describe('tanks', () => {
  it('one more has ports of its own, a fill, and computes; the numbers stay those of the first', () => {
    const two = valid(withTank(withTank(DRAFT)));
    expect(two.tanks.map(({ name }) => name)).toEqual(['Main tank', 'Tank 2', 'Tank 3']);
    expect(two.conditions.fills.map(({ tank }) => tank)).toEqual(two.tanks.map(({ id }) => id));
    const [alone, together] = [unwrap(evaluateSystem(DRAFT)), unwrap(evaluateSystem(two))];
    expect(together.usable).toEqual(alone.usable);
    expect(together.tanks).toHaveLength(3);
  });

  it('removed takes its lines, mounts and fill along, and undoing an addition leaves no trace', () => {
    const added = withTank(DRAFT);
    expect(withoutTank(added, 1)).toEqual(DRAFT);
    const without = withoutTank(
      {
        ...added,
        mounts: [{ id: 'm', name: 'M', kind: 'strap', tank: 'main', x_m: chosen(0), y_m: chosen(0), z_m: chosen(0) }],
        fit: {
          ...added.fit,
          removals: ['main', 'pickup', added.tanks[1]!.id].map((part) => ({ part, steps: [] })),
          spots: [
            {
              id: 'lug',
              name: 'Lug',
              kind: 'weld',
              tank: 'main',
              x_m: chosen(0),
              y_m: chosen(0),
              z_m: chosen(0),
              facing: { forward: 0, toPort: 0, up: 1 },
            },
          ],
        },
      },
      0,
    );
    expect(without.mounts).toEqual([]);
    expect(without.fit.removals.map(({ part }) => part)).toEqual([added.tanks[1]!.id]);
    expect(without.fit.spots).toEqual([]);
    expect(without.lines).toHaveLength(DRAFT.lines.length - 1);
    valid(without);
  });

  it('removed leaves a float valve that watched it to another tank', () => {
    const added = withTank(DRAFT);
    const valve = { ...newPart(added, 'float-valve', 0.01), tank: 'main' } as ComponentDocument;
    expect(withoutTank({ ...added, components: [...added.components, valve] }, 0).components.at(-1)).toMatchObject({
      kind: 'float-valve',
      tank: added.tanks[1]!.id,
    });
    expect(withoutTank({ ...added, components: [...added.components, valve] }, 1).components.at(-1)).toMatchObject({
      tank: 'main',
    });
  });
});

describe('fluids', () => {
  it('another in the only tank is changed in place', () => {
    const changed = withFluid(DRAFT, 0, 'petrol');
    expect(changed.fluids).toEqual([{ id: 'fuel', fluid: 'petrol' }]);
    expect(fluidOf(changed, 0)).toBe('petrol');
  });

  it('in one of two leaves the other its own, and one that is there is used again', () => {
    const two = withTank(DRAFT);
    const mixed = valid(withFluid(two, 1, 'coolant'));
    expect([fluidOf(mixed, 0), fluidOf(mixed, 1)]).toEqual(['diesel', 'coolant']);
    const back = withFluid(mixed, 1, 'diesel');
    expect(back.tanks[1]!.fluid).toBe(back.tanks[0]!.fluid);
  });
});

import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { ownSystems } from '../../../tests/independent/ownSystems';
import { askedNumbers, evaluationAt, numbersOf, workingOf, type At } from '../answers';
import { judge } from '../rules';
import { loadKernel } from '../geometry';
import { compile } from '../model';
import { unwrap } from '../outcome';
import {
  chosen,
  newPart,
  parseSystemText,
  withPartIn,
  type ComponentDocument,
  type Plan,
  type SystemDocument,
} from '../plan';
import { allSteps } from '../steps';
import { pumpsStopped, stateOf, withPositions, type Position, type Positions } from '.';

const DEMOS = readdirSync('demo').map((file): SystemDocument => {
  const parsed = parseSystemText(readFileSync(`demo/${file}`, 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  return parsed.value;
});
const at = (system: SystemDocument): At => {
  const model = unwrap(compile(system));
  return { model, state: unwrap(stateOf(model, system.conditions)) };
};
const answers = (plan: Plan, { model, state }: At) =>
  unwrap(allSteps(evaluationAt(plan, { model, state }, 'full', 'without-fit')));

beforeAll(loadKernel);

/** Every way in which a part can be moved away from how it is drawn. */
function moved(part: ComponentDocument): Position[] {
  switch (part.kind) {
    case 'valve':
      return [{ kind: 'valve', open: !part.open }];
    case 'coupler':
      return [{ kind: 'coupler', joined: !part.joined }];
    case 'pump':
      return [{ kind: 'pump', running: !part.running }];
    case 'selector':
      return (['in-out', 'side-out', 'in-side', 'all', 'shut'] as const)
        .filter((position) => position !== part.position)
        .map((position) => ({ kind: 'selector', position }));
    default:
      return [];
  }
}

/** A box whose engine draws by a selector from either of two pickups, one higher, past a valve and a coupler. */
function selected(): SystemDocument {
  const parsed = parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8'));
  if (!parsed.ok) throw new Error(parsed.error.detail);
  const box = parsed.value;
  const [tank] = box.tanks as [SystemDocument['tanks'][number]];
  const [line] = box.lines as [SystemDocument['lines'][number]];
  const selector = newPart(box, 'selector', 0.009);
  const end = (item: string, name: 'in' | 'out' | 'side') => ({ item, end: name, adapters: [] });
  const high = { ...tank.pickups[0]!, id: 'high', name: 'High pickup', port: 'return', heightOffFloor_m: chosen(0.09) };
  const two: SystemDocument = {
    ...box,
    name: 'Box with a selector',
    tanks: [{ ...tank, pickups: [...tank.pickups, high] }],
    components: [...box.components, selector],
    lines: [
      { ...line, to: end(selector.id, 'in') },
      { ...line, id: 'second', from: end('high', 'out'), to: end(selector.id, 'side') },
      { ...line, id: 'on', from: end(selector.id, 'out'), to: end('filter', 'in') },
      ...box.lines.slice(1),
    ],
  };
  const valved = unwrap(withPartIn(two, 'line-3', newPart(two, 'valve', 0.009)));
  return unwrap(withPartIn(valved, 'line-3', newPart(valved, 'coupler', 0.009)));
}
const SYSTEMS = [...DEMOS, ...ownSystems().map(({ system }) => system), selected()];

it('every kind of part that moves in use is there to be moved', () => {
  const kinds = new Set(SYSTEMS.flatMap(({ components }) => components.flatMap(moved).map(({ kind }) => kind)));
  expect([...kinds].sort()).toEqual(['coupler', 'pump', 'selector', 'valve']);
});

describe.each(SYSTEMS.map((system) => [system.name, system] as const))('%s', (_, system) => {
  it('conditions become a state in SI units', () => {
    const { model, state } = at(system);
    expectClose(Math.sin(state.attitude.pitch_rad), Math.sin((system.conditions.pitch_deg * Math.PI) / 180), {
      abs: 1e-15,
      why: 'degrees to radians',
    });
    for (const { document, gross_m3 } of model.tanks) {
      const share = system.conditions.fills.find(({ tank }) => tank === document.id)?.fill_ratio ?? 0.5;
      expect(state.liquid_m3[document.id]).toBe(share * gross_m3);
    }
    expect(state.supply_V).toBe(system.conditions.pumpVoltage_V);
  });

  it('a part that stands otherwise answers as one that is drawn so', () => {
    const { model, state } = at(system);
    const cases = system.components.flatMap((part) => moved(part).map((position) => ({ part, position })));
    for (const { part, position } of cases) {
      const drawn: SystemDocument = {
        ...system,
        components: system.components.map((each) =>
          each === part ? ({ ...each, ...position } as ComponentDocument) : each,
        ),
      };
      const stood = answers(system, { model, state: { ...state, positions: { [part.id]: position } } });
      const planned = answers(drawn, at(drawn));
      expect({ ...stood, state: undefined }, `${part.name}: ${JSON.stringify(position)}`).toEqual({
        ...planned,
        state: undefined,
      });
      expect(numbersOf(system, stood), part.name).toEqual(numbersOf(drawn, planned));
      expect(judge(system, stood), part.name).toEqual(judge(drawn, planned));
      for (const key of askedNumbers(system))
        expect(workingOf(key, system, stood), `${part.name}, ${key}`).toEqual(workingOf(key, drawn, planned));
    }
  });
});

describe('positions', () => {
  const [boat] = DEMOS as [SystemDocument];
  const circuits = unwrap(compile(boat)).circuits;

  it('as drawn leave the circuits the very same', () => {
    const drawn: Positions = Object.fromEntries(
      circuits.components.flatMap((part): [string, Position][] =>
        part.kind === 'pump' ? [[part.id, { kind: 'pump', running: part.running }]] : [],
      ),
    );
    expect(withPositions(circuits, {})).toBe(circuits);
    expect(withPositions(circuits, drawn)).toBe(circuits);
  });

  it('of another kind, or of a part that is not there, move nothing', () => {
    const pump = circuits.components.find(({ kind }) => kind === 'pump')!;
    expect(withPositions(circuits, { [pump.id]: { kind: 'valve', open: false } })).toBe(circuits);
    expect(withPositions(circuits, { nowhere: { kind: 'pump', running: false } })).toBe(circuits);
  });

  it('all pumps stopped: each, and nothing else', () => {
    const stopped = withPositions(circuits, pumpsStopped({}, circuits));
    for (const [c, part] of circuits.components.entries())
      expect(stopped.components[c]).toEqual(part.kind === 'pump' ? { ...part, running: false } : part);
  });
});

describe('what is no state', () => {
  const [boat] = DEMOS as [SystemDocument];
  it.each([
    ['weightless', { accelerationUp_mPerS2: -9.80665, pitch_deg: 0, roll_deg: 0 }],
    ['altitude-range', { altitude_m: 1e6 }],
  ])('%s', (code, change) => {
    const model = unwrap(compile(boat));
    expect(stateOf(model, { ...boat.conditions, ...change })).toMatchObject({ ok: false, error: { code } });
  });
});

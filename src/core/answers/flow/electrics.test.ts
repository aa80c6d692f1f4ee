import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, draftSystem, newPart, withPartIn, type SystemDocument } from '../../plan';
import { pumpCurrent_A, voltsAtPump, wireResistance_ohm, type PumpDocument } from '../../components';
import { unwrap } from '../../outcome';
import { COPPER, wireRow } from '../../reference/wires';
import { partAround, solveNetwork, type LinkElement, type Network } from '../../network';
import { compileNetwork } from '../../model/compileNetwork';
import { seeded } from '../../seeded';
import { documentAt } from '../at';
import { evaluateSystem } from '../evaluate';
import { electricsOf } from './electrics';
import { prepare } from './flowInputs';
import { steadySolution, workedAgainst_Pa } from './flowSolve';

const DRAFT = draftSystem({ name: 'Wired', vehicle: 'road', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.06 });
const WIRING = {
  freeCurrent_A: chosen(4),
  shutOffCurrent_A: chosen(10),
  wire: 'mm2-2-5',
  length_m: chosen(5),
  fuse_A: 15,
  relay: true,
  battery_Ah: chosen(60),
};
const wired = (more: Partial<typeof WIRING> = {}): SystemDocument => ({
  ...DRAFT,
  components: DRAFT.components.map((part) =>
    part.kind === 'pump' ? { ...part, wiring: { ...WIRING, ...more } } : part,
  ),
});
const pumpOf = (system: SystemDocument): PumpDocument =>
  system.components.find((part): part is PumpDocument => part.kind === 'pump')!;

const supplyOf = ({ conditions }: SystemDocument) => ({ supply_V: conditions.pumpVoltage_V });

describe('a pump on its wires', () => {
  const system = wired();
  const pump = pumpOf(system);
  const most = Math.max(...pump.curve.map(({ rise_Pa }) => rise_Pa));

  it('draws from its free to its shut-off current with its pressure, and no more beyond', () => {
    expect(pumpCurrent_A(pump, 0)).toBe(4);
    expect(pumpCurrent_A(pump, most)).toBe(10);
    expect(pumpCurrent_A(pump, 2 * most)).toBe(10);
    expectClose(pumpCurrent_A(pump, most / 2), 7, { rel: 1e-12, why: 'straight between' });
  });

  it('loses current times the resistance of both wires, warm', () => {
    const resistance = 2 * 5 * wireRow('mm2-2-5').resistance_ohmPerM * (1 + COPPER.rise_perK * 20);
    expectClose(wireResistance_ohm(pump.wiring!), resistance, { rel: 1e-12, why: 'there and back' });
    expectClose(voltsAtPump(supplyOf(system).supply_V, pump, most), system.conditions.pumpVoltage_V - 10 * resistance, {
      rel: 1e-12,
      why: 'Ohm',
    });
  });

  it('the solution settles where current and voltage agree, and longer wires deliver less', () => {
    const solved = (length: number) =>
      unwrap(unwrap(evaluateSystem(wired({ length_m: chosen(length) }), 'full', 'without-fit')).flows[0]!);
    const short = solved(1);
    const long = solved(25);
    expect(long.delivered_m3PerS).toBeLessThan(short.delivered_m3PerS);
    const { electrics, volts_V, rise_Pa } = long.pumps[0]!;
    const again = voltsAtPump(supplyOf(system).supply_V, pumpOf(wired({ length_m: chosen(25) })), rise_Pa);
    expectClose(volts_V, again, { rel: 1e-12, why: 'told by the rise' });
    expectClose(electrics!.pump_V, volts_V, { rel: 1e-12, why: 'the same point' });
  });

  it('the thinnest wires that do keep the drop and bear the shut-off current; one size thinner would not', () => {
    const { wires } = electricsOf(supplyOf(system), pump, most, 1e-5)!;
    expect(wires.map(({ name }) => name).length).toBe(2);
    for (const { drop_ratio } of wires) expect(drop_ratio).toBeLessThanOrEqual(0.1);
  });

  it('fuse: a quarter over what flows, no more than the wire bears; litres on half the battery', () => {
    const at = electricsOf(supplyOf(system), pump, 0, 2e-5)!;
    expect(at.fuse).toEqual({ least_A: 5, most_A: 30 });
    expectClose(at.onCharge_m3, (2e-5 * 0.5 * 60 * 3600) / 4, { rel: 1e-12, why: 'half of 60 A h at 4 A' });
    expect(
      electricsOf(
        supplyOf(system),
        pumpOf(wired({ wire: 'mm2-0-5', shutOffCurrent_A: chosen(60), freeCurrent_A: chosen(50) })),
        0,
        1e-5,
      )!.fuse,
    ).toBeUndefined();
    expect(electricsOf(supplyOf(DRAFT), pumpOf(DRAFT), 0, 1e-5)).toBeUndefined();
  });
});

describe('pumps in a row, each on wires of its own', () => {
  const WIRES = ['mm2-0-5', 'mm2-1', 'mm2-1-5', 'mm2-2-5'] as const;
  /** One to three pumps anywhere on the way, on wires from short and thick to long and thin. */
  const inARow = (seed: number): SystemDocument => {
    const { uniform } = seeded(seed);
    const consumer = uniform() < 0.5 ? 'diesel-engine' : 'petrol-injection';
    let system: SystemDocument = draftSystem({
      name: 'Row',
      vehicle: 'road',
      consumer,
      power_W: 20e3 + 80e3 * uniform(),
      holds_m3: 0.06,
    });
    const { curve } = pumpOf(system);
    for (let more = Math.floor(3 * uniform()); more > 0; more--) {
      const line = system.lines[Math.floor(system.lines.length * uniform())]!;
      const made = withPartIn(system, line.id, { ...newPart(system, 'pump', 0.008), curve } as PumpDocument);
      if (made.ok) system = made.value;
    }
    return {
      ...system,
      components: system.components.map((part) => {
        if (part.kind !== 'pump') return part;
        const free = 1 + 6 * uniform();
        return {
          ...part,
          wiring: {
            ...WIRING,
            freeCurrent_A: chosen(free),
            shutOffCurrent_A: chosen(free + 6 * uniform()),
            wire: WIRES[Math.floor(WIRES.length * uniform())]!,
            length_m: chosen(1 + 20 * uniform()),
          },
        };
      }),
    };
  };

  it('200 of them: at the voltages told, given as fixed ones, flows and rises are the same; all settle', () => {
    let pumps = 0;
    for (let seed = 1; seed <= 200; seed++) {
      const system = inARow(seed);
      const inputs = unwrap(prepare(unwrap(documentAt(system)))).inputsFor(system.consumers[0]);
      const need_m3PerS = system.consumers[0]!.neededFlow_m3PerS.value;
      for (const draw of [{ outflow_m3PerS: need_m3PerS }, { outflow_m3PerS: need_m3PerS / 7 }, { hold_Pa: 2e4 }]) {
        const draws = [{ consumer: 'consumer', ...draw }];
        const { solution, volts } = unwrap(steadySolution(inputs, draws, 'consumer'));
        const network = partAround(compileNetwork(inputs, draws), 'consumer:in');
        const fixed: Network = {
          ...network,
          links: network.links.map((link) => ({
            ...link,
            elements: link.elements.map((element): LinkElement => {
              const at_V = volts.get(link.id);
              if (element.kind !== 'pump' || at_V === undefined) return element;
              const pump = system.components.find(({ id }) => id === link.id) as PumpDocument;
              pumps++;
              return { kind: 'pump', curve: element.curve, voltageRatio: at_V / pump.ratedVoltage_V.value };
            }),
          })),
        };
        const again = unwrap(solveNetwork(fixed));
        for (const [id, { flow_m3PerS }] of solution.links)
          expectClose(again.links.get(id)!.flow_m3PerS, flow_m3PerS, { rel: 1e-6, abs: 1e-12, why: `${seed}: ${id}` });
        for (const [id, { gauge_Pa }] of solution.nodes)
          expectClose(again.nodes.get(id)!.gauge_Pa, gauge_Pa, { rel: 1e-6, abs: 0.05, why: `${seed}: ${id}` });
      }
    }
    expect(pumps).toBeGreaterThan(800);
  });

  it('a pump whose check valve stands shut works against what it gives at no flow, no more', () => {
    const system = wired({ length_m: chosen(15) });
    const pump = { ...pumpOf(system), checkBuiltIn: true };
    const plan = { ...system, components: system.components.map((part) => (part.id === pump.id ? pump : part)) };
    const inputs = unwrap(prepare(unwrap(documentAt(plan)))).inputsFor(plan.consumers[0]);
    const most = Math.max(...pump.curve.map(({ rise_Pa }) => rise_Pa));
    // Held at more than the pump gives, the consumer pushes back.
    const held = unwrap(steadySolution(inputs, [{ consumer: 'consumer', hold_Pa: 10 * most }]));
    expect(held.solution.links.get(pump.id)).toMatchObject({ shut: true });
    const own = workedAgainst_Pa(inputs, pump, held.solution);
    const volts = voltsAtPump(inputs.state.supply_V, pump, own);
    expectClose(own, most * (volts / pump.ratedVoltage_V.value) ** 2, { rel: 1e-9, why: 'shut off at its voltage' });
    expectClose(held.volts.get(pump.id)!, volts, { rel: 1e-12, why: 'told so' });
    const starved = { ...pump, wiring: { ...pump.wiring!, wire: 'mm2-0-5', length_m: chosen(60) } } as PumpDocument;
    expect(workedAgainst_Pa(inputs, starved, held.solution)).toBe(0);
    expect(voltsAtPump(inputs.state.supply_V, starved, 0)).toBe(0);
  });
});

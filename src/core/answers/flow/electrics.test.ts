import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { chosen, draftSystem, type SystemDocument } from '../../plan';
import type { PumpDocument } from '../../components';
import { unwrap } from '../../outcome';
import { COPPER, wireRow } from '../../reference/wires';
import { evaluateSystem } from '../evaluate';
import { electricsOf, pumpCurrent_A, voltsAtPump, wireResistance_ohm } from './electrics';

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
    expectClose(voltsAtPump(supplyOf(system), pump, most), system.conditions.pumpVoltage_V - 10 * resistance, {
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
    const again = voltsAtPump(supplyOf(system), pumpOf(wired({ length_m: chosen(25) })), rise_Pa);
    expectClose(volts_V, again, { abs: 2e-4, why: 'settled to a tenth of a millivolt' });
    expectClose(electrics!.pump_V, volts_V, { abs: 2e-4, why: 'the same point' });
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

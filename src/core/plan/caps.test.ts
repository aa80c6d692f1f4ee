import { describe, expect, it } from 'vitest';
import { expectClose } from '../../../tests/expectClose';
import { SOUND } from '../../../tests/raisedSystems';
import { evaluateSystem } from '../answers';
import { unwrap } from '../outcome';
import { findingsOf } from '../rules';
import { assumed, CAP_KINDS, chosen, newCap, type Cap, type PortDocument, type SystemDocument } from '.';

/** The sound system with these ports in place of its filler and its vent. */
const breathing = (change: (port: PortDocument) => PortDocument[]): SystemDocument => ({
  ...SOUND,
  tanks: SOUND.tanks.map((tank) => ({ ...tank, ports: tank.ports.flatMap(change) })),
});
/** It breathes by its cap alone. */
const capped = (cap: Cap): SystemDocument =>
  breathing((port) => (port.role === 'vent' ? [] : [port.role === 'filler' ? { ...port, cap } : port]));
const HOLE_M = 0.0004;
const withHole = (cap: Cap): Cap => ({ ...cap, hole_m: chosen(HOLE_M) });

const ullage = (system: SystemDocument): number =>
  unwrap(unwrap(evaluateSystem(system, 'full', 'without-fit')).flows[0]!).ullageGauge_Pa;
const raised = (system: SystemDocument): string[] =>
  findingsOf(system, unwrap(evaluateSystem(system, 'full', 'without-fit'))).map(({ id }) => id);

describe('a cap that is on', () => {
  it('with a hole is what a vent of that bore, three millimetres long, is', () => {
    const byVent = breathing((port) =>
      port.role === 'vent' ? [{ ...port, bore_m: chosen(HOLE_M), length_m: chosen(0.003) }] : [port],
    );
    expect(ullage(byVent)).toBeLessThan(-1);
    for (const kind of ['drilled', 'barb', 'screw'] as const)
      expectClose(ullage(capped(withHole(newCap(kind)))), ullage(byVent), { rel: 1e-9, why: 'the same hole' });
  });

  it('that opens at a pressure holds that much more, whichever way else it opens', () => {
    const open = ullage(capped(withHole(newCap('drilled'))));
    for (const kind of ['in-only', 'both-ways'] as const) {
      const cap = { ...withHole(newCap(kind)), opensIn_Pa: chosen(800) };
      expectClose(ullage(capped(cap)), open - 800, { abs: 0.5, why: 'hole and valve in a row' });
    }
  });

  it('is judged: tight, shut or of an unsaid hole it is no vent; in only it keeps pressure in', () => {
    const { hole_m, ...unsaid } = newCap('drilled');
    expect(hole_m).toBeDefined();
    for (const cap of [newCap('plain'), { ...newCap('screw'), shut: true }, unsaid])
      expect(raised(capped(cap))).toContain('vent.missing');
    expect(raised(capped(newCap('in-only')))).toContain('vent.holds-pressure');
    expect(raised(capped(newCap('both-ways')))).not.toContain('vent.holds-pressure');
    for (const kind of ['drilled', 'barb', 'both-ways'] as const)
      expect(raised(capped(newCap(kind)))).not.toContain('vent.missing');
  });

  it('spills where fuel comes to it on a short neck, and not by a valve that only lets air in', () => {
    const steep = (cap: Cap): SystemDocument => {
      const system = capped(cap);
      return {
        ...system,
        envelope: { ...system.envelope, noseUp_deg: chosen(40), noseDown_deg: chosen(40) },
        tanks: system.tanks.map((tank) => ({
          ...tank,
          ports: tank.ports.map((port) => (port.role === 'filler' ? { ...port, length_m: assumed(0.02, 0.01) } : port)),
        })),
      };
    };
    expect(raised(steep(newCap('drilled')))).toContain('vent.flooded');
    expect(raised(steep(newCap('in-only')))).not.toContain('vent.flooded');
  });

  it('in only: 30 K of sun on a shut ullage of air at 20 °C are 10.4 kPa, by hand', () => {
    const system = capped(newCap('in-only'));
    const evaluation = unwrap(evaluateSystem(system, 'full', 'without-fit'));
    const [hit] = findingsOf(system, evaluation).filter(({ id }) => id === 'vent.holds-pressure');
    // p₂ = p₁ T₂ / T₁ at one volume: 101.325 kPa × 30 / 293.15.
    expect(evaluation.state.fuelTemperature_K).toBe(293.15);
    expectClose(hit!.what.values.air!.value, 10.369e3, { rel: 1e-4, why: 'ideal gas' });
  });

  it('that liquid covers lets nothing through, and is told as covered and not as shut', () => {
    const pitched = capped(withHole(newCap('drilled')));
    const covered: SystemDocument = {
      ...pitched,
      conditions: { ...pitched.conditions, pitch_deg: 40, fills: [{ tank: 'main', fill_ratio: 0.95 }] },
      tanks: pitched.tanks.map((tank) => ({
        ...tank,
        ports: tank.ports.map((port) => (port.role === 'filler' ? { ...port, x_m: chosen(0.01) } : port)),
      })),
    };
    const flow = unwrap(evaluateSystem(covered, 'full', 'without-fit')).flows[0]!;
    expect(flow).toMatchObject({ ok: false });
    if (!flow.ok) expect(flow.error.detail).not.toMatch(/shut/);
  });

  it('keeps its hole when it becomes another kind', () => {
    for (const kind of CAP_KINDS)
      expect(newCap(kind, withHole(newCap('drilled'))).hole_m?.value).toBe(kind === 'plain' ? undefined : HOLE_M);
  });
});

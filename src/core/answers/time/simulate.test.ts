import { beforeAll, describe, expect, it } from 'vitest';
import { expectClose } from '../../../../tests/expectClose';
import { played, rig, rigEngine, rigPump } from '../../../../tests/timeSystems';
import { airState, fluidState } from '../../fluids';
import { loadKernel } from '../../geometry';
import { boreArea_m2, ventLaw } from '../../network';
import { unwrap } from '../../outcome';
import { chosen, type SystemDocument } from '../../plan';

beforeAll(loadKernel);

const G = 9.80665;
const K = 285.15;
const DIESEL = unwrap(fluidState({ key: 'diesel' }, K));
const AMBIENT_PA = 101325;
const OPEN: SystemDocument['components'][number] = { id: 'open', name: 'Open end', kind: 'outlet', ends: [] };

/** Runge's and Kutta's steps of one length, so short that they are as good as exact: nothing of ours is in it. */
function rungeKutta(rate: (y: number) => number, y0: number, until_s: number, steps = 20_000): number {
  let y = y0;
  const h = until_s / steps;
  for (let n = 0; n < steps; n++) {
    const a = rate(y);
    const b = rate(y + (h / 2) * a);
    const c = rate(y + (h / 2) * b);
    const d = rate(y + h * c);
    y += (h / 6) * (a + 2 * b + 2 * c + d);
  }
  return y;
}

describe('a tank that drains', () => {
  it('by a restrictor, as Torricelli has it: the root of the head falls evenly', () => {
    const [area, bore, c] = [0.4 * 0.3, 0.004, 0.62];
    const system = rig(
      [{ id: 'a', box: [0.4, 0.3, 0.5], vent_m: 0.03, outlet_m: 0.03, fill: 0.9 }],
      [
        { id: 'wide', from: ['a-pickup', 'out'], to: ['hole', 'in'], bore_m: 0.03, length_m: 0.01 },
        { id: 'end', from: ['hole', 'out'], to: ['open', 'in'], bore_m: 0.03, length_m: 0.01 },
      ],
      [
        { id: 'hole', name: 'Restrictor', kind: 'orifice', bore_m: chosen(bore), discharge_ratio: chosen(c), ends: [] },
        OPEN,
      ],
    );
    const run = played(system, 1200);
    const root = (t: number): number => Math.sqrt(0.45) - ((c * boreArea_m2(bore)) / area) * Math.sqrt(2 * G) * 0.5 * t;
    for (const { t_s, tanks } of run.samples)
      // Walls and ends of the wide pipe cost some two thousandths, and there is no head at the very end.
      expectClose(tanks[0]!.volume_m3 / area, root(t_s) ** 2, {
        rel: 4e-3,
        abs: 1e-4,
        why: 'what the wide pipe costs',
      });
  });

  it('by a long thin pipe, as Hagen and Poiseuille have it: the head falls by e in its own time', () => {
    const [bore, length] = [0.003, 40];
    const system = rig(
      [{ id: 'a', box: [0.4, 0.3, 0.5], vent_m: 0.03, outlet_m: 0.003, fill: 0.9 }],
      [{ id: 'thin', from: ['a-pickup', 'out'], to: ['open', 'in'], bore_m: bore, length_m: length, rise_m: -0.5 }],
      [OPEN],
    );
    const area = 0.12;
    const resists = (128 * DIESEL.viscosity_PaS * length) / (Math.PI * bore ** 4);
    const tau_s = (area * resists) / (DIESEL.density_kgPerM3 * G);
    const run = played(system, 3600);
    for (const { t_s, tanks } of run.samples) {
      const head = 0.95 * Math.exp(-t_s / tau_s);
      expectClose(tanks[0]!.volume_m3 / area + 0.5, head, { rel: 2e-5, why: 'its inlet costs a little too' });
    }
  });
});

it('two tanks that a thin pipe joins find one level, each by its share, with both vents open', () => {
  const [bore, length] = [0.005, 25];
  const system = rig(
    [
      { id: 'a', box: [0.4, 0.3, 0.5], vent_m: 0.03, outlet_m: 0.005, fill: 0.8 },
      { id: 'b', box: [0.6, 0.4, 0.5], vent_m: 0.03, inlet_m: 0.005, drop_m: 0.5, fill: 0.2 },
    ],
    [{ id: 'join', from: ['a-pickup', 'out'], to: ['b-in', 'in'], bore_m: bore, length_m: length, rise_m: 0.5 }],
  );
  const [a, b] = [0.12, 0.24];
  // The tube inside b is as wide: half a metre more.
  const resists = (128 * DIESEL.viscosity_PaS * (length + 0.5)) / (Math.PI * bore ** 4);
  const tau_s = (resists / (DIESEL.density_kgPerM3 * G)) * ((a * b) / (a + b));
  const run = played(system, 4 * tau_s);
  for (const { t_s, tanks } of run.samples) {
    const apart = tanks[0]!.volume_m3 / a - tanks[1]!.volume_m3 / b;
    expectClose(apart, 0.3 * Math.exp(-t_s / tau_s), { rel: 6e-3, why: 'ends cost as 25 mm of pipe do' });
  }
  const last = run.samples.at(-1)!;
  expectClose(last.tanks[0]!.volume_m3 + last.tanks[1]!.volume_m3, 0.8 * 0.06 + 0.2 * 0.12, { rel: 1e-9, why: 'sum' });
});

describe('gas over the liquid', () => {
  /** Nothing evaporates in so long. */
  const dry = { vapourLag_s: 1e7 };

  it('of a sealed tank that is filled is squeezed: pressure times volume stays', () => {
    const system = rig([{ id: 'a', box: [0.4, 0.3, 0.5], filler_m: 0.05, vent_m: 0.01, neck_m: 3, fill: 0.5 }], []);
    const run = played(system, 300, {
      ...dry,
      openings: [{ at_s: 0, port: 'a-vent', stands: 'blocked' }],
      pours: [
        {
          at_s: 10,
          port: 'a-filler',
          flow_m3PerS: 5e-5,
          volume_m3: 0.003,
          spout_m: 0.0499999,
          inserted_m: 0.01,
          stops: 'manual',
        },
      ],
    });
    const last = run.samples.at(-1)!.tanks[0]!;
    expectClose(run.totals.poured_m3, 0.003, { rel: 1e-8, why: 'as much as was asked for' });
    // The spout all but fills the neck; once it is out the neck is open, and its cap on again is tight.
    expect(run.events.map(({ kind }) => kind)).toContain('poured');
    expectClose(last.volume_m3, 0.033, { rel: 1e-8, why: 'all of it' });
    // The neck is room for gas like the rest.
    const neck_m3 = 3 * (Math.PI / 4) * 0.05 ** 2;
    expectClose(last.gauge_Pa + AMBIENT_PA, (AMBIENT_PA * (0.03 + neck_m3)) / (0.027 + neck_m3), {
      rel: 2e-3,
      why: 'a hair leaks by the spout',
    });
  });

  it('of a tank that warms and is shut goes with the temperature, and the liquid swells', () => {
    const system = rig([{ id: 'a', box: [0.4, 0.3, 0.5], vent_m: 0.01, fill: 0.5 }], []);
    const run = played(system, 7200, {
      ...dry,
      openings: [{ at_s: 0, port: 'a-vent', stands: 'blocked' }],
      temperatures: [
        { at_s: 600, temperature_K: K },
        { at_s: 6000, temperature_K: K + 25 },
      ],
    });
    const warm = unwrap(fluidState({ key: 'diesel' }, K + 25));
    const last = run.samples.at(-1)!.tanks[0]!;
    const volume = (0.03 * DIESEL.density_kgPerM3) / warm.density_kgPerM3;
    expectClose(last.volume_m3, volume, { rel: 1e-9, why: 'mass stays' });
    expectClose(last.gauge_Pa + AMBIENT_PA, (AMBIENT_PA * (K + 25) * 0.03) / (K * (0.06 - volume)), {
      rel: 1e-6,
      why: 'gas law, and a trace of vapour',
    });
  });

  it('goes out by a vent as its law has it, beside steps of another method', () => {
    // Shut while it warms by 20 K; then the vent is freed and it blows down.
    const system = rig([{ id: 'a', box: [0.4, 0.3, 0.5], vent_m: 0.002, ventLength_m: 0.5, fill: 0.1 }], []);
    const run = played(system, 1020, {
      ...dry,
      openings: [
        { at_s: 0, port: 'a-vent', stands: 'blocked' },
        { at_s: 1000, port: 'a-vent', stands: 'free' },
      ],
      temperatures: [{ at_s: 500, temperature_K: K + 20 }],
    });
    const begins = run.samples.findLast(({ t_s }) => t_s <= 1000)!.tanks[0]!;
    const law = ventLaw(0.002, 0.5, airState(K + 20, AMBIENT_PA));
    const flowAt = (pressure_Pa: number): number => {
      let [low, high] = [0, 1];
      for (let n = 0; n < 80; n++) {
        const middle = (low + high) / 2;
        if (law(middle).pressure_Pa > pressure_Pa) high = middle;
        else low = middle;
      }
      return low;
    };
    const gas_m3 = 0.06 - begins.volume_m3;
    // What leaves is counted as at the pressure outside.
    const gauge = (t_s: number): number =>
      rungeKutta((p) => (-AMBIENT_PA / gas_m3) * flowAt(p), begins.gauge_Pa, t_s, 4000);
    const after = run.samples.filter(({ t_s }) => t_s > 1000.05 && t_s < 1015);
    expect(after.length).toBeGreaterThan(3);
    for (const { t_s, tanks } of after)
      expectClose(tanks[0]!.gauge_Pa, gauge(t_s - 1000), { rel: 2e-3, abs: 0.5, why: 'tolerance of gas' });
  });

  it('is pulled thin where a pump draws from a sealed tank, until no more comes', () => {
    const system = rig(
      [{ id: 'a', box: [0.4, 0.3, 0.5], outlet_m: 0.01, fill: 0.9 }],
      [
        { id: 'suck', from: ['a-pickup', 'out'], to: ['pump', 'in'], bore_m: 0.01, length_m: 1, purpose: 'feed' },
        { id: 'push', from: ['pump', 'out'], to: ['engine', 'in'], bore_m: 0.01, length_m: 0.2, purpose: 'feed' },
      ],
      [rigPump('pump', 40_000, 2e-5)],
      [rigEngine(2e-6, 5_000)],
    );
    const run = played(system, 3600, dry);
    const starves = run.events.find(({ kind }) => kind === 'starves')!;
    expect(starves).toBeDefined();
    for (const { tanks } of run.samples) {
      const { volume_m3, gauge_Pa } = tanks[0]!;
      expectClose(gauge_Pa + AMBIENT_PA, (AMBIENT_PA * 0.006) / (0.06 - volume_m3), {
        rel: 1e-5,
        why: 'pressure times volume stays',
      });
    }
    // Less comes where the pump's curve is left behind: what it gives, the head and the vacuum are one.
    const at = run.samples.find(({ t_s }) => t_s >= starves.t_s)!;
    expect(at.tanks[0]!.gauge_Pa).toBeLessThan(-20_000);
    expect(run.samples.at(-1)!.consumers_m3PerS[0]!).toBeLessThan(0.05 * 2e-6);
  });
});

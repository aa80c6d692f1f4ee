import { roomOf } from '@/core/model/necks';
import { readdirSync, readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { documentAt } from '@/core/answers/at';
import { prepare } from '@/core/answers/flow/flowInputs';
import { steadySolution, whyBlocked } from '@/core/answers/flow/flowSolve';
import { simulate, type Simulated } from '@/core/answers/time';
import { loadKernel } from '@/core/geometry';
import { burnOf_m3PerS } from '@/core/model/burn';
import { outletNode } from '@/core/model/networkParts';
import { unwrap } from '@/core/outcome';
import { parseSystemText, type SystemDocument } from '@/core/plan';
import { endKey } from '@/core/plan/circuits';
import { parseScenario } from '@/core/plan/parseScenario';
import { quiet, type Scenario } from '@/core/plan/schemaScenario';
import { seeded } from '@/core/seeded';
import { allSteps } from '@/core/steps';
import { expectClose } from '../expectClose';
import { ownSystems } from './ownSystems';

beforeAll(loadKernel);

const DEMOS = readdirSync('demo').map((file) => unwrap(parseSystemText(readFileSync(`demo/${file}`, 'utf8'))));
const SYSTEMS: readonly SystemDocument[] = [...DEMOS, ...ownSystems().map(({ system }) => system)];
const play = (system: SystemDocument, scenario: Scenario) =>
  allSteps(simulate(unwrap(documentAt(system)), unwrap(parseScenario(scenario, system))));

/** Slopes at any angle, heat and cold, valves and pumps set, vents blocked, caps off, pours: whatever chance has. */
function chanceScenario(system: SystemDocument, seed: number): Scenario {
  const { uniform } = seeded(seed);
  const among = (low: number, high: number): number => low + (high - low) * uniform();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(uniform() * list.length)]!;
  const duration_s = 10 ** among(1, 4.5);
  const times = (count: number): number[] =>
    Array.from({ length: Math.floor(uniform() * (count + 1)) }, () => uniform() * duration_s).sort((a, b) => a - b);
  const ports = system.tanks.flatMap((tank) => tank.ports);
  const vents = ports.filter(({ role }) => role === 'vent');
  const fillers = ports.filter(({ role }) => role === 'filler');
  const parts = system.components.filter(({ kind }) => ['valve', 'coupler', 'pump'].includes(kind));
  const pumps = system.components.filter(({ kind }) => kind === 'pump');
  return {
    ...quiet(`Chance ${seed}`, duration_s),
    fills: system.tanks.map(({ id }) => ({ tank: id, fill_ratio: pick([0, 1, uniform(), uniform(), uniform()]) })),
    slopes: times(3).map((at_s) => ({
      at_s,
      pitch_deg: pick([among(-20, 20), among(-180, 180)]),
      roll_deg: pick([among(-20, 20), among(-180, 180)]),
      evenly: uniform() < 0.5,
    })),
    temperatures: times(2).map((at_s) => ({ at_s, temperature_K: among(255, 330) })),
    duties: times(2).map((at_s) => ({ at_s, duty_ratio: uniform(), runs: uniform() < 0.8 })),
    volts: times(1).map((at_s) => ({ at_s, supply_V: among(0, 30) })),
    sets: parts.length === 0 ? [] : times(3).map((at_s) => ({ at_s, part: pick(parts).id, on: uniform() < 0.5 })),
    openings: times(3).flatMap((at_s) => {
      const isVent = uniform() < 0.6;
      const [list, words] = isVent ? [vents, ['blocked', 'free'] as const] : [fillers, ['off', 'on'] as const];
      return list.length === 0 ? [] : [{ at_s, port: pick(list).id, stands: pick(words) }];
    }),
    pours:
      fillers.length === 0
        ? []
        : times(2).map((at_s) => {
            const { id, bore_m } = pick(fillers);
            return {
              at_s,
              port: id,
              flow_m3PerS: 10 ** among(-5, -2.9),
              volume_m3: 10 ** among(-4, -0.5),
              spout_m: bore_m.value * among(0.2, 0.95),
              inserted_m: among(0.01, 0.2),
              stops: pick(['automatic', 'manual'] as const),
            };
          }),
    switches:
      pumps.length === 0 || uniform() < 0.5
        ? []
        : [
            {
              pump: pick(pumps).id,
              tank: pick(system.tanks).id,
              stopsAt_ratio: among(0.1, 0.9),
              startsAt_ratio: among(0.1, 0.9),
            },
          ],
    vapourLag_s: 10 ** among(1, 5),
  };
}

function expectSound(system: SystemDocument, run: Simulated, scenario: Scenario): void {
  const model = unwrap(documentAt(system)).model;
  expect(run.unaccounted.liquid_ratio).toBeLessThanOrEqual(1e-6);
  expect(run.unaccounted.gas_ratio).toBeLessThanOrEqual(1e-6);
  expect(run.samples[0]!.t_s).toBe(0);
  expect(run.samples.at(-1)!.t_s).toBe(scenario.duration_s);
  for (const [n, sample] of run.samples.entries()) {
    if (n > 0) expect(sample.t_s).toBeGreaterThan(run.samples[n - 1]!.t_s);
    for (const [t, { volume_m3, gauge_Pa, offset_m }] of sample.tanks.entries()) {
      const { gross_m3 } = roomOf(model.tanks[t]!);
      expect(Number.isFinite(volume_m3) && Number.isFinite(gauge_Pa) && Number.isFinite(offset_m)).toBe(true);
      expect(volume_m3).toBeGreaterThan(-1e-5 * gross_m3);
      // What is shut in full and warms is pressed, as liquid is.
      expect(volume_m3).toBeLessThan(gross_m3 * (1 + 1e-5 + Math.max(0, gauge_Pa + 101_325) / 1.3e9));
      expect(gauge_Pa).toBeGreaterThan(-101_325);
    }
    for (const flow of [...sample.lines_m3PerS, ...sample.consumers_m3PerS]) expect(Number.isFinite(flow)).toBe(true);
    for (const flow of sample.consumers_m3PerS) expect(flow).toBeGreaterThan(-1e-9);
  }
  for (const [n, event] of run.events.entries())
    if (n > 0) expect(event.t_s).toBeGreaterThanOrEqual(run.events[n - 1]!.t_s);
}

describe('scenarios by chance: they end, nothing is lost, nothing is less than nothing', () => {
  const CHANCES = 8;
  it.each(SYSTEMS.map((system, n) => [system.name, system, n] as const))(
    '%s',
    (_, system, n) => {
      const refused: string[] = [];
      for (let seed = 0; seed < CHANCES; seed++) {
        const scenario = chanceScenario(system, 1000 * n + seed);
        const run = play(system, scenario);
        if (!run.ok) refused.push(`${seed}: ${run.error.code}, ${run.error.detail}`);
        else expectSound(system, run.value, scenario);
      }
      expect(refused).toEqual([]);
    },
    120_000,
  );
});

describe('a while after the beginning flow is what the steady answers have at the levels that there then are', () => {
  it.each(DEMOS.map((system) => [system.name, system] as const))('%s', (_, system) => {
    // At full load, for which the steady answers have what is sent back.
    const run = unwrap(play(system, { ...quiet('Still', 60), duties: [{ at_s: 0, duty_ratio: 1, runs: true }] }));
    const last = run.samples.at(-1)!;
    const then: SystemDocument = {
      ...system,
      conditions: {
        ...system.conditions,
        fills: unwrap(documentAt(system)).model.tanks.map(({ document, gross_m3 }, t) => ({
          tank: document.id,
          fill_ratio: last.tanks[t]!.volume_m3 / gross_m3,
        })),
      },
    };
    const prepared = unwrap(prepare(unwrap(documentAt(then))));
    const joined = new Set(system.lines.flatMap(({ from, to }) => [endKey(from), endKey(to)]));
    let compared = 0;
    for (const [c, consumer] of system.consumers.entries()) {
      const inputs = prepared.inputsFor(consumer);
      if (whyBlocked(inputs, consumer)) continue;
      const takes =
        consumer.kind === 'nozzle' || joined.has(outletNode(consumer.id))
          ? consumer.neededFlow_m3PerS.value
          : burnOf_m3PerS(consumer, 1);
      const draws = system.consumers.map((each) => ({
        consumer: each.id,
        outflow_m3PerS:
          each.kind === 'nozzle' || joined.has(outletNode(each.id))
            ? each.neededFlow_m3PerS.value
            : burnOf_m3PerS(each, 1),
      }));
      const steady = unwrap(steadySolution(inputs, draws)).solution;
      expectClose(last.consumers_m3PerS[c]!, takes, { rel: 1e-4, why: 'a hundred-thousandth more at each bar' });
      for (const [l, line] of system.lines.entries()) {
        const link = steady.links.get(line.id);
        if (!link || link.flow_m3PerS === 0) continue;
        compared++;
        expectClose(last.lines_m3PerS[l]!, link.flow_m3PerS, {
          rel: 2e-3,
          abs: 2e-9,
          why: `${line.name}: levels go on falling, and gas is squeezed`,
        });
      }
      for (const [t, { tank }] of prepared.levels.entries()) {
        const node = steady.nodes.get(`${tank.document.id}:ullage`);
        if (node)
          expectClose(last.tanks[t]!.gauge_Pa, node.gauge_Pa, { rel: 0.1, abs: 0.5, why: 'fuel gives off vapour' });
      }
    }
    expect(compared).toBeGreaterThan(0);
  });
});

describe('it is all one how a course is cut', () => {
  it.each(DEMOS.slice(0, 4).map((system) => [system.name, system] as const))('%s', (_, system) => {
    const whole = unwrap(play(system, quiet('Whole', 3000)));
    const cut = unwrap(
      play(system, {
        ...quiet('Cut', 3000),
        volts: Array.from({ length: 60 }, (_each, n) => ({
          at_s: 17.3 + 41.7 * n,
          supply_V: system.conditions.pumpVoltage_V,
        })),
      }),
    );
    for (const [t, { volume_m3, gauge_Pa }] of whole.samples.at(-1)!.tanks.entries()) {
      const other = cut.samples.at(-1)!.tanks[t]!;
      expectClose(other.volume_m3, volume_m3, { rel: 2e-4, abs: 1e-6, why: 'tolerance' });
      expectClose(other.gauge_Pa, gauge_Pa, { rel: 0.02, abs: 0.5, why: 'tolerance' });
    }
    expect(cut.events.map(({ kind, of }) => `${kind} ${of}`)).toEqual(
      whole.events.map(({ kind, of }) => `${kind} ${of}`),
    );
  });
});

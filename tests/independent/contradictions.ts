import type { SystemDocument } from '@/core/plan';
import {
  evaluateSystem,
  mainPickup,
  suppliesOf,
  numbersOf,
  NUMBER_KEYS,
  tankTable,
  type Evaluation,
  type FlowResult,
} from '@/core/answers';
import { judge } from '@/core/rules';
import { seeded } from '@/core/seeded';
import { unwrap } from '@/core/outcome';

/** Says what contradicts what; empty where nothing does. */
type Says = (what: string, holds: boolean, detail: string) => void;

const alike = (a: number, b: number, rel: number, abs: number): boolean =>
  Math.abs(a - b) <= Math.max(abs, rel * Math.max(Math.abs(a), Math.abs(b)));

/** Whether fuel that leaves by a pickup comes to the first consumer, if need be through other tanks. */
function reachesConsumer({ tanks, lines, consumers }: SystemDocument, pickup: string): boolean {
  const open = [pickup];
  const seen = new Set<string>();
  while (open.length > 0) {
    const at = open.pop()!;
    if (at === consumers[0]?.id) return true;
    if (seen.has(at)) continue;
    seen.add(at);
    const into = tanks.find(({ ports }) => ports.some(({ id }) => id === at));
    if (into) open.push(...into.pickups.map(({ id }) => id));
    for (const { from, to, purpose } of lines)
      if (from.item === at && (purpose === 'feed' || purpose === 'transfer')) open.push(to.item);
  }
  return false;
}

/** Conditions drawn over what a builder might set, every other one at rest on the level ground. */
export function withDrawnConditions(system: SystemDocument, seed: number): SystemDocument {
  const { uniform } = seeded(seed);
  const between = (low: number, high: number): number => low + (high - low) * uniform();
  const moving = seed % 2 === 1;
  const some = (low: number, high: number): number => (moving ? between(low, high) : 0);
  return {
    ...system,
    conditions: {
      pitch_deg: some(-15, 15),
      roll_deg: some(-15, 15),
      accelerationForward_mPerS2: some(-3, 3),
      accelerationPort_mPerS2: some(-3, 3),
      accelerationUp_mPerS2: some(-2, 4),
      fuelTemperature_K: between(258, 313),
      altitude_m: between(0, 2500),
      duty_ratio: between(0, 1),
      pumpVoltage_V: between(9, 14.5),
      fills: system.tanks.map(({ id }) => ({ tank: id, fill_ratio: between(0.03, 1) })),
    },
  };
}

/** Whatever is no number among what would be printed, with where it stands. */
export function notNumbers(value: unknown, at = ''): string[] {
  if (typeof value === 'number') return Number.isFinite(value) ? [] : [`${at} is ${value}`];
  if (value instanceof Map || value instanceof Float64Array) return [];
  return typeof value === 'object' && value !== null
    ? Object.entries(value).flatMap(([key, inner]) => notNumbers(inner, `${at}.${key}`))
    : [];
}

/** What two panels, or a panel and a chart, say differently of one system at its conditions. */
export function contradictionsIn(system: SystemDocument, full: Evaluation): string[] {
  const found: string[] = [];
  const says: Says = (what, holds, detail) => void (holds || found.push(`${what}: ${detail}`));
  const first = unwrap(evaluateSystem(system, 'numbers', 'without-fit'));
  numbersTwice(system, full, first, says);
  full.tanks.forEach((_, t) => tankAgainstTable(system, full, t, says));
  full.flows.forEach((flow, c) => flow.ok && flowAgainstChart(system, flow.value, c, says));
  full.gauges.forEach((gauge) => gauge.ok && gaugeAgainstCurve(gauge.value, says));
  rangeAgainstRest(system, full, says);
  linesAgainstRest(full, says);
  findingsAgainstNumbers(system, full, says);
  return found;
}

/** The four numbers come from a short evaluation first, and stay when the whole follows. */
function numbersTwice(system: SystemDocument, full: Evaluation, first: Evaluation, says: Says): void {
  const [a, b] = [numbersOf(system, full), numbersOf(system, first)];
  for (const key of NUMBER_KEYS) {
    const [one, other] = [a[key], b[key]];
    says(
      `${key} first and last`,
      one.ok === other.ok && (!one.ok || !other.ok || alike(one.value.value, other.value.value, 1e-9, 1e-12)),
      `${JSON.stringify(one)} against ${JSON.stringify(other)}`,
    );
  }
}

function tankAgainstTable(system: SystemDocument, full: Evaluation, t: number, says: Says): void {
  const { tanks, usable } = full;
  const tank = tanks[t]!;
  const { fill, gross_m3, holds_m3 } = tank;
  const tiny = 1e-6 * gross_m3;
  says(`${tank.name} holds`, holds_m3 <= gross_m3 + tiny, `${holds_m3} over ${gross_m3}`);
  says(
    `${tank.name} fill`,
    alike(fill.volume_m3, fill.ratio * gross_m3, 1e-6, tiny),
    `${fill.volume_m3} of ${gross_m3} at ${fill.ratio}`,
  );
  says(
    `${tank.name} compartments`,
    alike(
      tank.inside.compartments.reduce((sum, compartment) => sum + compartment.liquid_m3, 0),
      fill.volume_m3,
      1e-4,
      10 * tiny,
    ),
    `${tank.inside.compartments.map((compartment) => compartment.liquid_m3).join(' + ')} against ${fill.volume_m3}`,
  );
  const rows = unwrap(tankTable(system, t, 0.002, 'conditions'));
  const above = rows.findIndex(({ depth_m }) => depth_m >= fill.depth_m);
  const [low, high] = [rows[Math.max(0, above - 1)]!, rows[above < 0 ? rows.length - 1 : above]!];
  says(
    `${tank.name} table`,
    fill.volume_m3 >= low.volume_m3 - tiny && fill.volume_m3 <= high.volume_m3 + tiny,
    `${fill.volume_m3} at ${fill.depth_m} m deep, between ${low.volume_m3} and ${high.volume_m3}`,
  );
  says(
    `${tank.name} table's end`,
    alike(rows.at(-1)!.volume_m3, gross_m3, 1e-6, tiny),
    `${rows.at(-1)!.volume_m3} against ${gross_m3}`,
  );
  tank.strapping.forEach((row, i) =>
    says(
      `${tank.name} strapping`,
      i === 0 || row.volume_m3 >= tank.strapping[i - 1]!.volume_m3 - tiny,
      `falls at ${row.depth_m}`,
    ),
  );
  for (const pickup of tank.pickups) {
    // Of a tank with compartments more may stay when it is drawn from the brim than there is now.
    const within = fill.volume_m3 - tiny <= pickup.unusableNow_m3;
    const bounded =
      tank.inside.compartments.length < 2
        ? pickup.starvedNow === within || alike(fill.volume_m3, pickup.unusableNow_m3, 1e-6, tiny)
        : !pickup.starvedNow || within;
    says(
      `${pickup.name} starved`,
      bounded,
      `${pickup.starvedNow} with ${fill.volume_m3} where ${pickup.unusableNow_m3} cannot be drawn`,
    );
    says(
      `${pickup.name} draws`,
      pickup.starvedNow
        ? pickup.leftNow_m3 === 0
        : pickup.leftNow_m3 > 0 || alike(fill.volume_m3, pickup.unusableNow_m3, 1e-6, tiny),
      `${pickup.starvedNow}, can draw ${pickup.leftNow_m3} of ${fill.volume_m3}`,
    );
    says(
      `${pickup.name} worst`,
      pickup.worst.unusable_m3 >= pickup.unusableLevel_m3 - tiny,
      `worst ${pickup.worst.unusable_m3} under level ${pickup.unusableLevel_m3}`,
    );
    says(
      `${pickup.name} left`,
      pickup.leftNow_m3 >= 0 && pickup.leftNow_m3 <= fill.volume_m3 + tiny,
      `${pickup.leftNow_m3} of ${fill.volume_m3}`,
    );
  }
  says(
    `${tank.name} mass`,
    tank.liquidMass_kg <= (tank.fullMass_kg - tank.dryMass_kg) * (gross_m3 / holds_m3) * (1 + 1e-6) &&
      tank.dryMass_kg >= 0,
    `${tank.liquidMass_kg} of ${tank.fullMass_kg - tank.dryMass_kg}`,
  );
  const end = tank.balance.at(-1);
  says(
    `${tank.name} balance`,
    !end || alike(end.mass_kg, tank.fullMass_kg, 1e-6, 1e-9),
    `${end?.mass_kg} against ${tank.fullMass_kg}`,
  );
  if (usable.ok && tank === tanks[0]) {
    // By following the fuel on from each pickup, where the answer looks back from the consumer.
    const drawn = tanks.map((each, k) => {
      const leading = system.tanks[k]!.pickups.filter(({ id }) => reachesConsumer(system, id)).map(({ id }) => id);
      const lefts = each.pickups.filter(({ id }) => leading.includes(id)).map(({ worst }) => worst.unusable_m3);
      return lefts.length === 0 ? undefined : Math.max(0, each.holds_m3 - Math.min(...lefts));
    });
    const counted = drawn.filter((value) => value !== undefined);
    const main = mainPickup(system, full);
    const expected =
      counted.length > 0
        ? counted.reduce((sum, value) => sum + value, 0)
        : Math.max(0, (main?.tank.holds_m3 ?? 0) - (main?.pickup.worst.unusable_m3 ?? 0));
    says('usable', alike(usable.value, expected, 1e-9, tiny), `${usable.value} against ${expected}`);
  }
}

/** A chart of so many steps tells a crossing to so much of its reach. */
const CHART_REL = 0.05;

function flowAgainstChart(system: SystemDocument, flow: FlowResult, c: number, says: Says): void {
  const { name } = system.consumers[c]!;
  const tiny = 1e-9 + 1e-6 * flow.needed_m3PerS;
  says(
    `${name} margin`,
    alike(flow.margin_ratio, flow.delivered_m3PerS / flow.needed_m3PerS, 1e-9, 0),
    `${flow.margin_ratio}`,
  );
  const over = flow.pressureAtNeed_Pa - flow.neededPressure_Pa;
  const near = Math.abs(flow.margin_ratio - 1) < 1e-3 || Math.abs(over) < 1;
  says(
    `${name} pressure and flow`,
    near || over > 0 === flow.margin_ratio > 1,
    `${flow.margin_ratio} of the need, ${over} Pa over the pressure needed`,
  );
  const gives = flow.chart.map(({ flow_m3PerS, given_Pa, asked_Pa }) => ({ flow_m3PerS, over: given_Pa - asked_Pa }));
  const last = gives.findLastIndex((point) => point.over >= 0);
  const [before, after] = [gives[last], gives[last + 1]];
  if (gives.length > 1 && flow.chartLost === 0) {
    const reach = gives.at(-1)!.flow_m3PerS;
    if (before && after)
      says(
        `${name} chart`,
        flow.delivered_m3PerS >= before.flow_m3PerS - CHART_REL * reach &&
          flow.delivered_m3PerS <= after.flow_m3PerS + CHART_REL * reach,
        `crosses between ${before.flow_m3PerS} and ${after.flow_m3PerS}, delivers ${flow.delivered_m3PerS}`,
      );
    if (!before)
      says(`${name} chart`, flow.delivered_m3PerS <= tiny, `never has enough, delivers ${flow.delivered_m3PerS}`);
    if (before && !after)
      says(
        `${name} chart`,
        flow.delivered_m3PerS >= before.flow_m3PerS * (1 - CHART_REL),
        `has enough to its end at ${reach}, delivers ${flow.delivered_m3PerS}`,
      );
  }
  for (const { flow_m3PerS, given_Pa, givenLow_Pa, asked_Pa, askedDirty_Pa } of flow.chart) {
    says(`${name} chart, low volts`, givenLow_Pa <= given_Pa + 1, `${givenLow_Pa} over ${given_Pa} at ${flow_m3PerS}`);
    says(
      `${name} chart, dirt`,
      askedDirty_Pa >= asked_Pa - 1e-6,
      `${askedDirty_Pa} under ${asked_Pa} at ${flow_m3PerS}`,
    );
  }
  const fully = flow.duties.find(({ duty }) => duty === 'full');
  if (fully?.pressure_Pa !== undefined)
    says(
      `${name} full duty`,
      alike(fully.drawn_m3PerS, flow.needed_m3PerS, 1e-9, 0) &&
        alike(fully.pressure_Pa, flow.pressureAtNeed_Pa, 1e-6, 1),
      `${fully.pressure_Pa} against ${flow.pressureAtNeed_Pa}`,
    );
  flow.losses.forEach((loss, i) => {
    says(`${name} losses`, i === 0 || loss.loss_Pa <= flow.losses[i - 1]!.loss_Pa, 'not costliest first');
    const link = flow.links.find(({ id }) => id === loss.id);
    says(
      `${name} loss of ${loss.name}`,
      !!link && alike(Math.abs(link.loss_Pa), loss.loss_Pa, 1e-9, 1e-9),
      `${loss.loss_Pa} against ${link?.loss_Pa}`,
    );
  });
  says(
    `${name} boiling`,
    flow.nodes.every((node) => Number.isFinite(node.abs_Pa) && node.abs_Pa > 0),
    'an absolute pressure under nothing',
  );
}

type Gauge = Extract<Evaluation['gauges'][number], { ok: true }>['value'];

function gaugeAgainstCurve({ sender, curve, now, marks, band }: Gauge, says: Says): void {
  const worst = Math.max(...curve.points.map(({ needle_ratio, true_ratio }) => Math.abs(needle_ratio - true_ratio)));
  says(
    `${sender} worst error`,
    Math.abs(curve.worst.error_ratio) >= worst - 1e-6,
    `${curve.worst.error_ratio} where the curve shows ${worst}`,
  );
  says(`${sender} needle`, now.needle_ratio >= -0.5 && now.needle_ratio <= 1.5, `${now.needle_ratio}`);
  marks.forEach(({ needle_ratio, volume }) =>
    says(
      `${sender} mark`,
      volume.least_m3 <= volume.most_m3 && volume.least_m3 >= -1e-9,
      `${needle_ratio}: ${JSON.stringify(volume)}`,
    ),
  );
  band.forEach((point) =>
    says(
      `${sender} band`,
      point.needleLow_ratio <= point.needle_ratio + 1e-9 && point.needleHigh_ratio >= point.needle_ratio - 1e-9,
      `${point.needle_ratio} outside ${point.needleLow_ratio} to ${point.needleHigh_ratio}`,
    ),
  );
}

function rangeAgainstRest(system: SystemDocument, { range, usable }: Evaluation, says: Says): void {
  if (!range.ok || !usable.ok) return;
  const { value } = range;
  says('range, usable', alike(value.usable_m3, usable.value, 1e-12, 0), `${value.usable_m3} against ${usable.value}`);
  says(
    'range, hours',
    alike(value.endurance_s * value.burn_m3PerS, usable.value * (1 - system.wishes.reserve_ratio.value), 1e-9, 0),
    `${value.endurance_s} s`,
  );
  if (value.range_m !== undefined)
    says(
      'range, way',
      alike(value.range_m, value.endurance_s * (system.vehicle.speed_mPerS?.value ?? 0), 1e-9, 0),
      `${value.range_m} m`,
    );
}

function linesAgainstRest({ lines, flows, tanks }: Evaluation, says: Says): void {
  if (!lines) return;
  for (const transfer of lines.circuits.transfers) {
    says(
      `${transfer.name} moved`,
      transfer.volume_m3 >= -1e-12 && transfer.volume_m3 <= transfer.asked_m3 * (1 + 1e-6) + 1e-9,
      `${transfer.volume_m3} of ${transfer.asked_m3}`,
    );
    says(
      `${transfer.name} ends`,
      transfer.ends !== 'moved' || alike(transfer.volume_m3, transfer.asked_m3, 1e-3, 1e-9),
      `moved, but ${transfer.volume_m3} of ${transfer.asked_m3}`,
    );
  }
  const most = tanks.reduce((sum, { fill }) => sum + fill.volume_m3, 0);
  for (const spill of [...lines.jointSpills, ...lines.breakSpills]) {
    says(
      `spill at ${spill.height_m} m`,
      spill.lines_m3 >= 0 && spill.tanks.reduce((sum, { volume_m3 }) => sum + volume_m3, 0) <= most * (1 + 1e-6) + 1e-9,
      JSON.stringify(spill),
    );
  }
  // The place nearest to boiling: on a feed's profile, and in the numbers of what it feeds.
  for (const flow of flows.flatMap((each) => (each.ok ? [each.value] : []))) {
    const margins = lines.profiles.flatMap(({ nearestBoiling }) => nearestBoiling?.margin_Pa ?? []);
    says(
      `${flow.consumer} nearest to boiling`,
      margins.some((margin) => alike(margin, flow.suction.margin_Pa, 1e-9, 1)),
      `${flow.suction.margin_Pa} is on no profile: ${margins.join(', ')}`,
    );
  }
}

/** Rules that say in words what a number says. */
function findingsAgainstNumbers(system: SystemDocument, full: Evaluation, says: Says): void {
  const { findings } = judge(system, full);
  const raised = (rule: string, at: readonly (string | number)[] = []): boolean =>
    findings.some(({ id, path }) => id === rule && at.every((step, i) => path?.[i] === step));
  full.flows.forEach((flow, c) => {
    says(
      `finding of flow ${c}`,
      !flow.ok || raised('line.cannot-deliver', ['consumers', c]) === flow.value.margin_ratio < 1,
      flow.ok ? `${flow.value.margin_ratio}` : '',
    );
    says(`finding of no flow ${c}`, flow.ok || raised('line.no-flow'), 'a flow that cannot be had is not told');
  });
  const past = full.tanks.some((tank) => tank.fill.volume_m3 > tank.holds_m3 * (1 + 1e-6));
  says(
    'filled past the limit',
    past === raised('tank.filled-past-limit'),
    full.tanks.map((tank) => `${tank.fill.volume_m3} of ${tank.holds_m3}`).join(', '),
  );
  const starved = full.tanks.some((tank) => tank.pickups.some(({ starvedNow }) => starvedNow));
  says('draws air', starved === raised('pickup.draws-air-now'), `${starved}`);
  says(
    'the tank of the numbers',
    suppliesOf(system, full).every(({ tank }) => full.tanks.includes(tank)),
    'is none of them',
  );
}

import type { LinkElement, Network, NetworkSolution } from '@/core/network';

/**
 * Every law and balance of a solved network worked out again, apart from the
 * solver: nothing here is imported from it but types. Friction by Colebrook's
 * formula halved in, the bridge between laminar and turbulent flow by Hermite's
 * cubic in logarithms, with differences for slopes.
 */

const LAMINAR = 2000;
const TURBULENT = 4000;
/** A seat passes a drop an hour at a bar. */
const SEAT = 1e5 / (5e-8 / 3600);
/** What every link loses besides, so that none is without loss [Pa s/m³]. */
const LEAST = 1;

function colebrookNumber(re: number, roughness: number): number {
  let [low, high] = [1, 100];
  for (let i = 0; i < 80; i++) {
    const x = (low + high) / 2;
    if (x > -2 * Math.log10(roughness / 3.7 + (2.51 * x) / re)) high = x;
    else low = x;
  }
  return (re / low) ** 2;
}

function frictionNumber(re: number, roughness: number): number {
  if (re <= LAMINAR) return 64 * re;
  if (re >= TURBULENT) return colebrookNumber(re, roughness);
  const span = Math.log(TURBULENT / LAMINAR);
  const step = 1e-5;
  const slope =
    ((Math.log(colebrookNumber(TURBULENT * (1 + step), roughness)) -
      Math.log(colebrookNumber(TURBULENT * (1 - step), roughness))) /
      (Math.log1p(step) - Math.log1p(-step))) *
    span;
  const [y0, y1, t] = [
    Math.log(64 * LAMINAR),
    Math.log(colebrookNumber(TURBULENT, roughness)),
    Math.log(re / LAMINAR) / span,
  ];
  return Math.exp(
    y0 * (1 + 2 * t) * (1 - t) ** 2 + span * t * (1 - t) ** 2 + y1 * t * t * (3 - 2 * t) + slope * t * t * (t - 1),
  );
}

/** Loss of an element that lets flow pass both ways [Pa]; that of a valve is its own. */
function lossOf(element: LinkElement, q: number, { fluid }: Network): number {
  const size = Math.abs(q);
  const sign = Math.sign(q);
  switch (element.kind) {
    case 'line':
    case 'vent': {
      const [rho, nu] =
        element.kind === 'line'
          ? [fluid.density_kgPerM3, fluid.kinematicViscosity_m2PerS]
          : [element.air.density_kgPerM3, element.air.viscosity_PaS / element.air.density_kgPerM3];
      const d = element.bore_m;
      const speed = size / ((Math.PI * d * d) / 4);
      const re = (speed * d) / nu;
      const roughness = element.kind === 'line' ? element.roughness_m / d : 0;
      const ends =
        element.kind === 'line'
          ? element.fittings
          : [{ k1: 160, kInfinity: 1.5, sized: false, count: 1, kd: undefined }];
      const dynamic = (rho * speed * speed) / 2;
      let fittings = 0;
      for (const { k1, kInfinity, sized, kd, count } of ends) {
        const k = kInfinity * (kd !== undefined ? 1 + kd / (d / 0.0254) ** 0.3 : sized ? 1 + 0.0254 / d : 1);
        fittings += count * (k * dynamic + (k1 * rho * speed * nu) / (2 * d));
      }
      return (
        sign * ((((element.length_m / d) * rho * nu * nu) / (2 * d * d)) * frictionNumber(re, roughness) + fittings)
      );
    }
    case 'filter':
      return (
        element.ratedDrop_Pa *
        element.dirtFactor *
        (fluid.viscosity_PaS / element.ratedViscosity_PaS) *
        (q / element.ratedFlow_m3PerS)
      );
    case 'orifice': {
      const area = (element.dischargeCoefficient * Math.PI * element.bore_m ** 2) / 4;
      const turns = (10 * Math.PI * element.bore_m * fluid.kinematicViscosity_m2PerS) / 4;
      return (fluid.density_kgPerM3 * q * Math.hypot(q, turns)) / (2 * area * area);
    }
    case 'body':
      return (
        (((element.ratedDrop_Pa * fluid.density_kgPerM3) / element.ratedDensity_kgPerM3) *
          q *
          Math.hypot(q, element.ratedFlow_m3PerS / 1000)) /
        element.ratedFlow_m3PerS ** 2
      );
    case 'pump':
      return -pumpRise(element, q);
    default:
      return 0;
  }
}

/** What a pump gives; of one on thin wires by halving for the voltage that its own current leaves it. */
export function pumpRise(element: Extract<LinkElement, { kind: 'pump' }>, q: number): number {
  const { voltageRatio: free, shutOffVoltageRatio: shut = free } = element;
  const most = Math.max(...element.curve.map(({ rise_Pa }) => rise_Pa));
  const left = (v: number): number =>
    free + (shut - free) * Math.min(1, Math.max(0, v > 0 ? riseAt(element.curve, v, q) / most : 0));
  let [low, high] = [Math.max(0, Math.min(free, shut)), Math.max(free, shut)];
  for (let n = 0; n < 200 && high > low; n++) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) break;
    if (left(middle) > middle) low = middle;
    else high = middle;
  }
  return riseAt(element.curve, high, q);
}

function riseAt(
  curve: readonly { readonly flow_m3PerS: number; readonly rise_Pa: number }[],
  v: number,
  q: number,
): number {
  const points = [...curve]
    .sort((a, b) => a.flow_m3PerS - b.flow_m3PerS)
    .map((point) => [point.flow_m3PerS * v, point.rise_Pa * v * v] as const);
  const [first, last] = [points[0]!, points.at(-1)!];
  const mean = (last[1] - first[1]) / (last[0] - first[0]);
  if (q <= first[0]) return first[1] + mean * (q - first[0]);
  if (q > last[0]) return last[1] + mean * (q - last[0]);
  const i = points.findIndex(([flow]) => q <= flow);
  const [a, b] = [points[i - 1]!, points[i]!];
  return a[1] + ((b[1] - a[1]) * (q - a[0])) / (b[0] - a[0]);
}

/** Flow that is no more than a seat leaks [m³/s]. */
const LEAKS = 5e-11;

/**
 * What of a solution is against a law or a balance; nothing where all is right.
 * Pressures may be off by a millionth of the largest at work and a hundredth of
 * a pascal, flows by a millionth of the largest and what a seat leaks.
 */
export function faultsOf(network: Network, solution: NetworkSolution): string[] {
  const faults: string[] = [];
  const weight = network.fluid.density_kgPerM3 * network.gravity_mPerS2;
  const head = (id: string): number =>
    solution.nodes.get(id)!.gauge_Pa + weight * network.nodes.find((node) => node.id === id)!.height_m;
  const slack = 1e-2 + 1e-6 * Math.max(0, ...network.nodes.map(({ id }) => Math.abs(head(id))));
  const largest = Math.max(0, ...network.links.map(({ id }) => Math.abs(solution.links.get(id)!.flow_m3PerS)));
  for (const link of network.links) {
    const { flow_m3PerS: q, regulating } = solution.links.get(link.id)!;
    const drop = link.air
      ? solution.nodes.get(link.from)!.gauge_Pa - solution.nodes.get(link.to)!.gauge_Pa
      : head(link.from) - head(link.to);
    const fault = (what: string): void =>
      void faults.push(`${link.name}: ${what}; flow ${q}, pressure between its ends ${drop}`);
    if (!Number.isFinite(q) || !Number.isFinite(drop)) fault('no number');
    if (link.elements.some(({ kind }) => kind === 'closed')) {
      if (q !== 0) fault('flows though shut');
      continue;
    }
    const checks = link.elements.filter((element) => element.kind === 'check');
    const opens = checks.reduce((sum, element) => sum + (element.opens_Pa ?? 0), 0);
    const open = link.elements.reduce(
      (sum, element) => sum + lossOf(element, checks.length > 0 ? Math.max(0, q) : q, network),
      LEAST * q,
    );
    // A lossy law's pressure moves with its flow: what the last digits of the flow make of it is no fault.
    const bend =
      checks.length > 0
        ? 0
        : Math.abs(
            link.elements.reduce((sum, element) => sum + lossOf(element, q + 1e-8 * largest, network), LEAST * q) -
              open,
          );
    const hold = link.elements.find((element) => element.kind === 'hold-outlet' || element.kind === 'hold-inlet');
    if (hold) {
      const end = hold.kind === 'hold-outlet' ? link.to : link.from;
      const held = solution.nodes.get(end)!.gauge_Pa;
      const reached = hold.kind === 'hold-outlet' ? held - hold.set_Pa : hold.set_Pa - held;
      const given = network.nodes.find(({ id }) => id === end)!.fixedGauge_Pa !== undefined;
      const leaks = LEAKS + (1.01 * Math.abs(drop)) / SEAT;
      if (q < -leaks && !given && regulating !== 'open') fault('runs backward');
      if (regulating === 'holding' && Math.abs(reached) > slack) fault(`holds ${held} for ${hold.set_Pa}`);
      if (regulating === 'holding' && drop < open - slack - bend) fault('holds though it would have to push');
      if (regulating === 'open' && Math.abs(drop - open) > slack + bend) fault(`open, yet loses not ${open}`);
      if (regulating === 'open' && !given && q > LEAKS && reached > slack)
        fault(`open over its setting: ${held} for ${hold.set_Pa}`);
      if (regulating === 'shut' && Math.abs(q) > leaks) fault('flows though shut');
      if (regulating === 'shut' && drop > slack && reached < -slack)
        fault(`shut though ${held} is missing ${hold.set_Pa}`);
      continue;
    }
    if (checks.length === 0) {
      if (Math.abs(drop - open) > slack + bend) fault(`loses not ${open}`);
      continue;
    }
    // Of what passes an open valve, what leaks past its seat is no part of the law.
    const passes = q - opens / SEAT;
    const asOpen =
      opens + link.elements.reduce((sum, element) => sum + lossOf(element, passes, network), LEAST * passes);
    const moved =
      opens +
      link.elements.reduce((sum, element) => sum + lossOf(element, passes + 1e-8 * largest, network), LEAST * passes);
    const isOpen = passes > 0 && Math.abs(drop - asOpen) <= slack + Math.abs(moved - asOpen);
    if (passes > LEAKS && !isOpen) fault(`open, yet loses not ${asOpen}`);
    if (passes <= LEAKS && !isOpen) {
      const rest = link.elements.reduce((sum, element) => sum + lossOf(element, 0, network), 0);
      if (drop - rest > opens + slack) fault(`shut against ${drop - rest} for ${opens}`);
      if (q < -LEAKS - (1.01 * Math.max(0, rest - drop)) / SEAT) fault('leaks backward more than its seat does');
    }
  }
  for (const node of network.nodes) {
    if (node.fixedGauge_Pa !== undefined) {
      if (Math.abs(solution.nodes.get(node.id)!.gauge_Pa - node.fixedGauge_Pa) > slack)
        faults.push(`${node.name}: does not stand at its given pressure`);
      continue;
    }
    const gain = network.links.reduce(
      (sum, { id, from, to }) =>
        sum + solution.links.get(id)!.flow_m3PerS * (Number(to === node.id) - Number(from === node.id)),
      0,
    );
    const off = Math.abs(gain - (node.outflow_m3PerS ?? 0));
    if (!(off <= 1e-14 + 1e-8 * largest)) faults.push(`${node.name}: gains ${gain} for ${node.outflow_m3PerS ?? 0}`);
  }
  return faults;
}

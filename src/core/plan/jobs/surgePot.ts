import { assumed, chosen, fromPart } from '../../schema/known';
import { plainName } from '../../formats';
import { feedPath } from '../circuits';
import { freshId } from '../edit';
import type { LineDocument, SystemDocument } from '../schema';
import {
  boreFor_m,
  boxTank,
  lengthFor,
  portPlace,
  lidPort,
  linesOfRun,
  pickupIn,
  pumpFor,
  sizesFor,
  spanOf,
  toMm,
  type Point,
} from './kit';

/** Common practice: a lift pump moves half again what leaves the pot, so that it stays full and spills back. */
const LIFTED_OVER_DRAWN = 1.5;
const LIFT_SHUT_OFF_PA = 30e3;
/** A pot stands upright: length and height over width. */
const POT_SHAPE = [1, 1, 2] as const;
const USUAL_RUN_M = 1;

/**
 * A surge pot between a tank and the pump that must never draw air: a lift pump fills it, the engine's pump draws from
 * its foot, what comes back returns to it, and what is too much goes over to the tank from its top.
 * @returns undefined where no line leads from a tank to an engine
 */
export function withSurgePot(system: SystemDocument, holds_m3: number): SystemDocument | undefined {
  const consumer = system.consumers[0];
  const path = consumer ? feedPath(system, consumer.id) : [];
  const source = path.at(-1);
  const t = system.tanks.findIndex(({ pickups }) => pickups.some(({ id }) => id === source));
  const first = system.lines.find(({ from }) => from.item === source);
  const tank = system.tanks[t];
  const back = tank?.ports.find(({ role }) => role === 'return');
  if (!consumer || !first || !tank || !source || !back) return undefined;
  const fluid = system.fluids.find(({ id }) => id === tank.fluid)!.fluid;
  const pump = system.components.find((part) => part.kind === 'pump' && path.includes(part.id));
  // All that the engine's pump moves leaves the pot, and most of it comes back to it.
  const moved =
    pump?.kind === 'pump'
      ? Math.max(...pump.curve.map(({ flow_m3PerS }) => flow_m3PerS)) / 2.8
      : consumer.neededFlow_m3PerS.value;
  const lifted = LIFTED_OVER_DRAWN * consumer.neededFlow_m3PerS.value;
  const id = freshId(system, 'pot');
  const part = (base: string): string => freshId(system, `${id}-${base}`);
  const sizes = sizesFor(holds_m3, {}, POT_SHAPE);
  const bore = boreFor_m(Math.max(moved, lifted), fluid);
  const none = chosen(0);
  const pot = boxTank({
    id,
    name: 'Surge pot',
    fluid: tank.fluid,
    sizes,
    at: [-0.4, 0, 0],
    ports: [
      lidPort(sizes, part('in'), 'From the lift pump', 'return', [0.25, 0.25], {
        bore_m: fromPart(bore),
        length_m: none,
        drop_m: chosen(0.8 * sizes.height.value),
      }),
      lidPort(sizes, part('return'), 'From the regulator', 'return', [0.25, 0.75], {
        bore_m: fromPart(bore),
        length_m: none,
        drop_m: chosen(0.8 * sizes.height.value),
      }),
      lidPort(sizes, part('over'), 'Over to the tank', 'vent', [0.75, 0.25], {
        bore_m: fromPart(bore),
        length_m: none,
      }),
      {
        id: part('outlet'),
        name: 'To the engine’s pump',
        role: 'feed',
        face: 'floor',
        x_m: chosen(sizes.length.value / 2),
        y_m: chosen(sizes.width.value / 2),
        bore_m: fromPart(bore),
        length_m: none,
      },
    ],
    pickups: [pickupIn(part('outlet'), part('foot'), 'Pot outlet', 'bottom-outlet', 0, bore)],
  });
  const lift = pumpFor(part('lift-pump'), 'Lift pump', lifted, LIFT_SHUT_OFF_PA, {
    checkBuiltIn: true,
    selfPrimingLift_m: assumed(1, 0.3),
  });
  const fromPot = (line: LineDocument): LineDocument => ({
    ...line,
    name: `Pot outlet to ${nameOf(system, line.to.item)}`,
    from: { item: pot.pickups[0]!.id, end: 'out', adapters: [] },
  });
  // Where the regulator stands follows from the lines that lead to it; what goes back to the pot ends at the pot.
  const before = system.lines.filter(({ id: each, purpose }) => path.includes(each) && purpose === 'feed');
  const toPot = (line: LineDocument): LineDocument => {
    const stands = before
      .slice(0, before.findIndex(({ to }) => to.item === line.from.item) + 1)
      .reduce<Point | undefined>(
        (at, { forward_m, toPort_m, rise_m }) =>
          at && [at[0] + forward_m.value, at[1] + toPort_m.value, at[2] + rise_m.value],
        portPlace(pot, pot.ports[3]!),
      );
    const way = spanOf(stands, portPlace(pot, pot.ports[1]!));
    return {
      ...line,
      name: plainName(`${nameOf(system, line.from.item)} to surge pot`, 80),
      to: { item: pot.ports[1]!.id, end: 'in', adapters: [] },
      length_m: lengthFor(way, undefined, USUAL_RUN_M),
      ...(way
        ? {
            forward_m: assumed(toMm(way[0]), 0.05),
            toPort_m: assumed(toMm(way[1]), 0.05),
            rise_m: assumed(toMm(way[2]), 0.05),
          }
        : {}),
    };
  };
  const lines = system.lines.map((line) =>
    line.id === first.id ? fromPot(line) : line.to.item === back.id ? toPot(line) : line,
  );
  const added: SystemDocument = {
    ...system,
    tanks: [...system.tanks, pot],
    components: [...system.components, lift],
    conditions: { ...system.conditions, fills: [...system.conditions.fills, { tank: id, fill_ratio: 0.95 }] },
    lines,
  };
  const feedPort = tank.ports.find(({ id: each }) => each === tank.pickups.find((one) => one.id === source)!.port)!;
  const there = spanOf(portPlace(tank, feedPort), portPlace(pot, pot.ports[0]!));
  const up = linesOfRun(added, {
    purpose: 'transfer',
    stops: [
      { item: source, name: nameOf(system, source) },
      { item: lift.id, name: lift.name },
      { item: pot.ports[0]!.id, name: pot.name },
    ],
    bore_m: bore,
    length: lengthFor(there, undefined, USUAL_RUN_M),
    span: there,
  });
  const withUp = { ...added, lines: [...lines, ...up] };
  const away = spanOf(portPlace(pot, pot.ports[2]!), portPlace(tank, back));
  const over = linesOfRun(withUp, {
    purpose: 'overflow',
    stops: [
      { item: pot.ports[2]!.id, name: pot.name, end: 'in' },
      { item: back.id, name: tank.name },
    ],
    bore_m: bore,
    length: lengthFor(away, undefined, USUAL_RUN_M),
    span: away,
  });
  return { ...withUp, lines: [...withUp.lines, ...over] };
}

function nameOf({ tanks, components, consumers }: SystemDocument, id: string): string {
  const pickups = tanks.flatMap((tank) => tank.pickups);
  return [...pickups, ...components, ...consumers].find((each) => each.id === id)?.name.toLowerCase() ?? 'the tank';
}

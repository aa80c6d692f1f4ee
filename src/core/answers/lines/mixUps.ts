import { portPart } from '../../reference/portParts';
import { JOINS, type Join } from '../../reference/joins';
import { LOOK_ALIKES } from '../../reference/lookAlikes';
import { FLUIDS, type FluidKey } from '../../reference/fluids';
import { fluidAt, type Circuits } from '../../plan/circuits';
import { markWords, toldApart } from '../../plan/marks';
import type { Joint } from './joints';

/** Two things of a plan that somebody will one day take for each other, and what tells them apart. */
export type MixUp = {
  readonly kind: 'fillers' | 'threads' | 'ports' | 'lines';
  readonly one: string;
  readonly other: string;
  readonly tells: string;
};

/**
 * What could be mixed up: fillers of unlike liquids, threads that start in each other and do not seal, ports of one
 * thread for unlike uses, and lines of unlike liquids that look the same.
 * @param joints of the same system
 */
export const mixUpsOf = (system: Circuits, joints: readonly Joint[]): MixUp[] => [
  ...fillers(system),
  ...threads(joints),
  ...ports(system),
  ...lines(system),
];

const pairs = <T>(all: readonly T[]): (readonly [T, T])[] =>
  all.flatMap((one, i) => all.slice(i + 1).map((other) => [one, other] as const));

const fluidOf = (system: Circuits, id: string): FluidKey => system.fluids.find((fluid) => fluid.id === id)!.fluid;

function fillers(system: Circuits): MixUp[] {
  const all = system.tanks.flatMap(({ name, fluid, ports: of }) =>
    of.filter(({ role }) => role === 'filler').map((port) => ({ name, port, fluid: fluidOf(system, fluid) })),
  );
  return pairs(all).flatMap(([a, b]): MixUp[] => {
    if (a.fluid === b.fluid) return [];
    const alike = Math.abs(a.port.bore_m.value - b.port.bore_m.value) < ALIKE_M;
    return [
      {
        kind: 'fillers',
        one: `${a.port.name} of ${a.name}, ${FLUIDS[a.fluid].name}`,
        other: `${b.port.name} of ${b.name}, ${FLUIDS[b.fluid].name}`,
        tells: toldApart(a.port.mark, b.port.mark)
          ? `Told apart: ${markWords(a.port.mark!)} against ${markWords(b.port.mark!)}.${alike ? ' Of one size: unlike caps would help in the dark.' : ''}`
          : `${alike ? 'Of one size: make them unlike. ' : ''}Each with its fuel on it, in words and colour; unlike caps.`,
      },
    ];
  });
}
/** Common practice: bores nearer than this take the same spout [m]. */
const ALIKE_M = 0.005;

/** Every end that is screwed or pushed in the plan, once. */
function threads(joints: readonly Joint[]): MixUp[] {
  const ends = joints.flatMap(({ near, far, adapters }) => [
    ...(near ? [near] : []),
    ...(far ? [far] : []),
    ...adapters.flatMap(({ a, b }) => [a, b]),
  ]);
  const each = [...new Map(ends.map((join) => [`${join.system} ${join.size}`, join])).values()];
  return pairs(each).flatMap(([a, b]): MixUp[] => {
    const row = LOOK_ALIKES.find(({ systems, sizes }) =>
      [
        [a, b],
        [b, a],
      ].some(
        ([one, other]) =>
          systems[0] === one!.system &&
          systems[1] === other!.system &&
          (sizes ? sizes.some(([p, q]) => p === one!.size && q === other!.size) : one!.size === other!.size),
      ),
    );
    return row ? [{ kind: 'threads', one: plain(a), other: plain(b), tells: row.tells }] : [];
  });
}
const plain = ({ system, size }: Join): string => `${size} ${JOINS[system].name}`;

/** Ports of one tank into which the same fitting goes, though they are for unlike things. */
function ports(system: Circuits): MixUp[] {
  return system.tanks.flatMap((tank) =>
    pairs(tank.ports.filter(({ role, part }) => part !== undefined && role !== 'spare')).flatMap(([a, b]): MixUp[] => {
      if (a.part !== b.part || a.role === b.role) return [];
      const { thread, name } = portPart(a.part!);
      return thread
        ? [
            {
              kind: 'ports',
              one: `${a.name} of ${tank.name}`,
              other: b.name,
              tells: `Both are ${name}: mark the lid, and tag the hoses, before they come off.`,
            },
          ]
        : [];
    }),
  );
}

/** Lines of one stock, or of one bore and kind, that carry unlike liquids. */
function lines(system: Circuits): MixUp[] {
  const known = system.lines.flatMap((line) => {
    const fluid = fluidAt(system, line.from.item);
    return fluid && line.kind !== 'direct' ? [{ line, fluid }] : [];
  });
  const seen = new Set<string>();
  return pairs(known).flatMap(([a, b]): MixUp[] => {
    const alike =
      a.line.stock === b.line.stock && a.line.kind === b.line.kind && a.line.bore_m.value === b.line.bore_m.value;
    const key = [a.fluid, b.fluid, a.line.kind, a.line.bore_m.value].join(' ');
    if (a.fluid === b.fluid || !alike || seen.has(key)) return [];
    seen.add(key);
    return [
      {
        kind: 'lines',
        one: `${a.line.name} (${FLUIDS[a.fluid].name})`,
        other: `${b.line.name} (${FLUIDS[b.fluid].name})`,
        tells: 'They look the same: tag both ends of each, or take another colour or size for one.',
      },
    ];
  });
}

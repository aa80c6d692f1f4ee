import { JOINS, type Join } from '../reference/joins';
import { endKey, itemsOf } from './circuits';
import type { Fault } from './fault';
import type { SystemDocument } from './schema';

/**
 * Lines on ends that parts do not have or that another line has taken, ends made twice or in a size that there is not,
 * adapters on the wrong side of a joint without a line, and valves that name what is not there.
 */
export function circuitFaults(system: SystemDocument): Fault[] {
  const items = new Map(itemsOf(system).map((item) => [item.id, item]));
  const taken = new Map<string, string>();
  const tanks = system.tanks.map(({ id }) => id);
  const components = new Set(system.components.map(({ id }) => id));
  return [
    ...system.lines.flatMap((line, l) =>
      (['from', 'to'] as const).flatMap((side): Fault[] => {
        const { item, end, join } = line[side];
        const path = `lines[${l}].${side}`;
        const found = items.get(item);
        const sizes = join ? sizeFaults(join, `${path}.join`) : [];
        if (!found) return sizes;
        if (!found.ends.includes(end))
          return [
            ...sizes,
            {
              path: `${path}.end`,
              message: `names the end "${end}", which ${found.name} does not have; it has ${found.ends.join(', ')}`,
            },
          ];
        const key = endKey(line[side]);
        const other = taken.get(key);
        taken.set(key, line.id);
        return other === undefined
          ? sizes
          : [
              ...sizes,
              { path, message: `joins an end of ${found.name} that the line "${other}" has taken; put a tee there` },
            ];
      }),
    ),
    ...system.lines.flatMap((line, l): Fault[] =>
      line.from.item === line.to.item && line.from.end === line.to.end
        ? [{ path: `lines[${l}].to`, message: 'leads back to the end that it comes from' }]
        : [],
    ),
    ...system.lines.flatMap((line, l): Fault[] =>
      line.kind === 'direct' && line.from.adapters.length > 0
        ? [
            {
              path: `lines[${l}].from.adapters`,
              message: 'must be empty where parts are screwed together; what lies between them stands at "to"',
            },
          ]
        : [],
    ),
    ...(['components', 'consumers'] as const).flatMap((list) =>
      system[list].flatMap((part, p) => {
        const has = items.get(part.id)!.ends;
        return part.ends.flatMap((made, e): Fault[] => {
          const path = `${list}[${p}].ends[${e}]`;
          const twice = part.ends.findIndex(({ end }) => end === made.end) < e;
          return [
            ...(has.includes(made.end)
              ? []
              : [
                  {
                    path: `${path}.end`,
                    message: `is an end that ${part.name} does not have; it has ${has.join(', ')}`,
                  },
                ]),
            ...(twice ? [{ path: `${path}.end`, message: `"${made.end}" is described twice` }] : []),
            ...sizeFaults(made, path),
          ];
        });
      }),
    ),
    ...system.components.flatMap((part, c): Fault[] =>
      part.kind === 'float-valve' && !tanks.includes(part.tank)
        ? [
            {
              path: `components[${c}].tank`,
              message: `names the tank "${part.tank}", which does not exist; there is ${tanks.join(', ')}`,
            },
          ]
        : [],
    ),
    ...system.tanks.flatMap((tank, t) =>
      tank.sightTubes.flatMap(({ tee }, s): Fault[] =>
        tee === undefined || components.has(tee)
          ? []
          : [{ path: `tanks[${t}].sightTubes[${s}].tee`, message: `names the part "${tee}", which does not exist` }],
      ),
    ),
  ];
}

const sizeFaults = ({ system, size }: Pick<Join, 'system' | 'size'>, path: string): Fault[] =>
  JOINS[system].sizes.includes(size)
    ? []
    : [
        {
          path: `${path}.size`,
          message: `is no size of ${JOINS[system].name}; there is ${JOINS[system].sizes.join(', ')}`,
        },
      ];

import { ullageNode, type FlowInputs } from '../../model/networkParts';
import type { LinkElement, Network, NetworkLink } from '../../network';
import { endKey } from '../../plan/circuits';

/** How liquid that gets into a vent goes on in what is on it. */
export type VentWay = {
  readonly elements: readonly LinkElement[];
  /** What valves on the way hold back. */ readonly opens_Pa: number;
  /** Items that it comes past, by id. */ readonly past: readonly string[];
  /** The tank, by its place in the plan, whose vent it comes out by, where it does. */
  readonly into?: number;
  /** The port or part at which it comes out. */ readonly ends: string;
};

const itemOf = (node: string): string => node.split(':')[0]!;

/**
 * The shortest way from a vent through what is on it to the open, or to another tank's vent; undefined where nothing is
 * on the vent, nowhere where what is there is shut, plugged or lets nothing out.
 *
 * @param air the network as air has it, every vent free
 */
export function ventWay(
  { nodes, links }: Pick<Network, 'nodes' | 'links'>,
  { levels }: Pick<FlowInputs, 'levels'>,
  port: string,
): VentWay | 'nowhere' | undefined {
  const start = endKey({ item: port, end: 'in' });
  const onward = links.filter(({ air, id }) => air !== undefined && id !== port);
  if (!onward.some(({ from, to }) => from === start || to === start)) return undefined;
  const open = new Set(nodes.flatMap(({ id, fixedGauge_Pa }) => (fixedGauge_Pa === undefined ? [] : [id])));
  const tanks = new Map(levels.map(({ tank }, t) => [ullageNode(tank.document.id), t]));
  const seen = new Set([start]);
  const queue: { readonly node: string; readonly so: Omit<VentWay, 'ends' | 'into'> }[] = [
    { node: start, so: { elements: [], opens_Pa: 0, past: [port] } },
  ];
  for (let at = queue.shift(); at; at = queue.shift())
    for (const link of onward) {
      const node = link.from === at.node ? link.to : link.to === at.node ? link.from : undefined;
      if (node === undefined || seen.has(node) || !passes(link, at.node)) continue;
      seen.add(node);
      const so = {
        elements: [...at.so.elements, ...link.elements.flatMap(wetted)],
        opens_Pa: link.elements.reduce(
          (sum, element) => (element.kind === 'check' ? sum + (element.opens_Pa ?? 0) : sum),
          at.so.opens_Pa,
        ),
        past: [...at.so.past, itemOf(node)],
      };
      const into = tanks.get(node);
      if (into !== undefined) return { ...so, into, ends: link.id };
      // An end with nothing on it is joined to the open air by its own name.
      if (open.has(node)) return { ...so, ends: itemOf(node) === 'open' ? itemOf(at.node) : itemOf(node) };
      queue.push({ node, so });
    }
  return 'nowhere';
}

/** Whether something gets through a link from one of its ends: past nothing shut, and no valve from behind. */
const passes = ({ elements, from }: NetworkLink, at: string): boolean =>
  elements.every(({ kind }) => kind !== 'closed' && (kind !== 'check' || from === at));

/** What liquid meets where air met this. */
const wetted = (element: LinkElement): LinkElement[] =>
  element.kind === 'vent'
    ? [{ kind: 'line', bore_m: element.bore_m, length_m: element.length_m, roughness_m: 0, fittings: [] }]
    : element.kind === 'check'
      ? []
      : [element];

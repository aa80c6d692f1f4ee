import { type FlowInputs } from '../../model/networkParts';
import { boreArea_m2 } from '../../network';
import { carriesFlow, feedPath } from '../../plan/circuits';

/** Where what a pickup draws comes out first, and what the lines hold until there. */
export type LineAfter = { readonly volume_m3: number };

/**
 * Of each pickup: the lines from it to where they end. A consumer's are those that feed it as valves stand; where there
 * is no consumer, the shortest way to a port of a tank.
 */
export function linesAfter({ system, levels }: FlowInputs): Map<string, LineAfter> {
  const lines = system.lines.filter(carriesFlow);
  const held = (ids: readonly string[]): number =>
    lines.reduce(
      (sum, { id, bore_m, length_m }) => (ids.includes(id) ? sum + boreArea_m2(bore_m.value) * length_m.value : sum),
      0,
    );
  const ports = new Set(levels.flatMap(({ tank }) => tank.ports.map(({ document }) => document.id)));
  const after = new Map<string, LineAfter>();
  for (const { tank } of levels)
    for (const pickup of tank.pickups) {
      const { id } = pickup.document;
      const tube = boreArea_m2(pickup.document.bore_m.value) * pickup.tubeLength_m;
      const feeds = system.consumers.flatMap((consumer) => {
        const path = feedPath(system, consumer.id);
        return path.at(-1) === id ? [{ consumer, path }] : [];
      });
      if (feeds.length > 0) {
        after.set(id, { volume_m3: tube + Math.min(...feeds.map(({ path }) => held(path))) });
        continue;
      }
      const routes = waysToPorts(id, lines, ports);
      const nearest = routes
        .map(({ port, path }) => ({ port, volume: held(path) }))
        .sort((a, b) => a.volume - b.volume)[0];
      if (nearest) after.set(id, { volume_m3: tube + nearest.volume });
    }
  return after;
}

function waysToPorts(
  from: string,
  lines: FlowInputs['system']['lines'],
  ports: ReadonlySet<string>,
): { readonly port: string; readonly path: string[] }[] {
  const found: { readonly port: string; readonly path: string[] }[] = [];
  const seen = new Set([from]);
  const open = [{ at: from, path: [] as string[] }];
  for (let next = open.shift(); next; next = open.shift()) {
    for (const line of lines) {
      // As liquid is meant to flow.
      if (line.from.item !== next.at || seen.has(line.to.item)) continue;
      const path = [...next.path, line.id];
      if (ports.has(line.to.item)) {
        found.push({ port: line.to.item, path });
        continue;
      }
      seen.add(line.to.item);
      open.push({ at: line.to.item, path });
    }
  }
  return found;
}

import { endsOfComponent, joinedEnds, kindOf } from '../../components';
import { airLines } from '../../model/airNetwork';
import { componentLinks, fittingLoss } from '../../model/networkElements';
import { linkName, partLink, partPositions, type FlowInputs } from '../../model/networkParts';
import { dot } from '../../geometry';
import type { LinkElement } from '../../network';
import { endKey, type EndRef } from '../../plan/circuits';

/** How liquid that gets into a vent goes on in the lines on it. */
export type VentWay = {
  readonly elements: readonly LinkElement[];
  /** Of all that it comes past, over the vehicle's datum [m]. */ readonly heights_m: readonly number[];
  /** The tank, by its place in the plan, whose vent it comes out by, where it does. */
  readonly into?: number;
  /** The part or line at whose end it comes out. */ readonly ends: string;
};

/**
 * The way from a vent along its lines to the first open end, or to another tank's vent; undefined where nothing is on
 * the vent, nowhere where what is there is shut or plugged.
 */
export function ventWay(inputs: FlowInputs, port: string): VentWay | 'nowhere' | undefined {
  const { system, levels, state } = inputs;
  const lines = airLines(system);
  const begins = lines.filter(({ from, to }) => from.item === port || to.item === port);
  if (begins.length === 0) return undefined;
  const positions = partPositions(system, levels);
  const heightAt = (id: string): number[] => {
    const point = positions.get(id);
    return point ? [dot(state.gravity.up, point)] : [];
  };
  const parts = new Map(system.components.map((part) => [part.id, part]));
  const tankOf = (id: string): number =>
    levels.findIndex(({ tank }) => tank.ports.some(({ document }) => document.id === id));
  type At = { readonly end: EndRef; readonly so: Omit<VentWay, 'ends' | 'into'> };
  const seen = new Set<string>();
  const open: At[] = [{ end: { item: port, end: 'in' }, so: { elements: [], heights_m: heightAt(port) } }];
  for (let at = open.shift(); at; at = open.shift()) {
    const key = endKey(at.end);
    if (seen.has(key)) continue;
    seen.add(key);
    for (const line of lines) {
      const far = endKey(line.from) === key ? line.to : endKey(line.to) === key ? line.from : undefined;
      if (!far || seen.has(endKey(far))) continue;
      const so = {
        elements: [
          ...at.so.elements,
          {
            kind: 'line',
            bore_m: line.bore_m.value,
            length_m: line.length_m.value,
            roughness_m: 0,
            fittings: line.fittings.map(({ fitting, count }) => fittingLoss(fitting, count, inputs)),
          } as const,
        ],
        heights_m: [...at.so.heights_m, ...heightAt(far.item)],
      };
      const into = tankOf(far.item);
      if (into >= 0) return { ...so, into, ends: far.item };
      const part = parts.get(far.item);
      if (!part) continue;
      if (kindOf(part).isOpenToAir) return { ...so, ends: part.id };
      seen.add(endKey(far));
      const links = componentLinks(part, inputs);
      for (const next of joinedEnds(part, far.end)) {
        const name = partLink(part, [far.end, next]);
        const link = links.find(({ id }) => id === name) ?? links.find(({ id }) => id === linkName(part, undefined));
        const elements = link?.elements ?? [];
        if (elements.some(({ kind }) => kind === 'closed')) continue;
        // Backward through a check nothing goes.
        const isBackward = link !== undefined && link.from === endKey({ item: part.id, end: next });
        if (isBackward && elements.some(({ kind }) => kind === 'check')) continue;
        const after = { ...so, elements: [...so.elements, ...elements.filter(({ kind }) => kind !== 'check')] };
        const end = { item: part.id, end: next };
        const isPlugged = part.ends.some((made) => made.end === next && made.plugged);
        const isJoined = lines.some(({ from, to }) => endKey(from) === endKey(end) || endKey(to) === endKey(end));
        if (!isJoined && !isPlugged && endsOfComponent(part).includes(next)) return { ...after, ends: part.id };
        open.push({ end, so: after });
      }
    }
  }
  return 'nowhere';
}

'use client';

import { useEffect, useMemo, useState } from 'react';
import { standsAs } from '@/core/components';
import type { NodeResult } from '@/core/network';
import { flowRole, type LineDocument, type SystemDocument } from '@/core/plan';
import type { Placed } from '@/core/reports';
import { formatQuantity } from '@/core/units';
import { MM_A_PX } from '../drawing/useRoom';
import { useReader } from '../state/reader';
import { useFlows } from '../state/useLines';
import { placedSchematic, schematicGraph, wrapped, type PlacedSchematic } from './schematicLayout';

/** The circuits of the open system where the layout has put them, with what each part and line is called. */
export type Schematic = {
  readonly placed: Placed;
  /** By id: a name, and what flows or how it stands. */ readonly words: ReadonlyMap<string, readonly [string, string]>;
  /** It is of the circuits as they are now. */ readonly isFresh: boolean;
};

const ROOM_STEP_PX = 40;

/** What is told in it: what flows in a line [m³/s], and how a part stands, in words; nothing where it is not known. */
export type SteadyFlows = {
  readonly flowOf: (line: string) => number | undefined;
  readonly noteOf: (part: string) => string | undefined;
};

/** The circuits as they flow at the set conditions. */
export function useSteadyFlows(system: SystemDocument): SteadyFlows {
  const reader = useReader();
  const flows = useFlows();
  const nodeOf = (id: string): NodeResult | undefined =>
    flows.flatMap(({ nodes }) => nodes).find((node) => node.id === id);
  const isConsumer = (id: string): boolean => system.consumers.some((consumer) => consumer.id === id);
  return {
    flowOf: (id) => flows.flatMap(({ links }) => links).find((link) => link.id === id)?.flow_m3PerS,
    noteOf: (id) => {
      const node =
        (isConsumer(id) ? undefined : nodeOf(`${id}:out`)) ??
        nodeOf(`${id}:in`) ??
        (system.tanks.some((tank) => tank.id === id) ? nodeOf(`${id}:ullage`) : undefined);
      return node && formatQuantity(node.gauge_Pa, 'pressure', { reader }).text;
    },
  };
}

/** Undefined until it has been laid out; nothing where there are no lines. */
export function useSchematic(
  system: SystemDocument,
  flows: SteadyFlows,
  isNarrow: boolean,
  room_px: number,
): Schematic | undefined {
  const reader = useReader();
  const graph = useMemo(() => schematicGraph(system), [system]);
  // It is not laid out anew for every pixel.
  const room = Math.floor(room_px / ROOM_STEP_PX) * ROOM_STEP_PX;
  const key = JSON.stringify([graph.boxes.map(({ id, name, ends }) => [id, name, ends]), graph.lines, isNarrow, room]);
  const [laid, setLaid] = useState<{ readonly key: string; readonly at: PlacedSchematic } | undefined>();
  useEffect(() => {
    let current = true;
    void placedSchematic(graph, isNarrow, room).then((at) => {
      if (current) setLaid({ key, at });
    });
    return () => {
      current = false;
    };
    // The key says all that the layout depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  if (!laid) return undefined;
  const { at } = laid;
  const flowText = (id: string): string => {
    const flow = flows.flowOf(id);
    return flow === undefined ? '' : formatQuantity(Math.abs(flow), flowRole(Math.abs(flow)), { reader }).text;
  };
  const mm = ([x, y]: readonly [number, number]): readonly [number, number] => [x * MM_A_PX, y * MM_A_PX];
  const boxes = graph.boxes.flatMap((box): Placed['boxes'] => {
    const place = at.boxes.get(box.id);
    if (!place) return [];
    const part = system.components.find(({ id }) => id === box.id);
    const state = part ? standsAs(part) : '';
    const isShut = /^[A-Z]+$/.test(state);
    const told = flows.noteOf(box.id);
    return [
      {
        id: box.id,
        kind: box.kind,
        rows: wrapped(box.name),
        at: mm([place.x, place.y]),
        width_mm: place.width * MM_A_PX,
        height_mm: place.height * MM_A_PX,
        note: isShut ? state : (told ?? state),
        isShut,
      },
    ];
  });
  const lines = graph.lines.flatMap(({ id }): Placed['lines'] => {
    const points = at.lines.get(id);
    const line = system.lines.find((each) => each.id === id);
    if (!points || !line) return [];
    const flow = flowText(id);
    return [
      {
        id,
        purpose: line.purpose,
        points: points.map(mm),
        flow: isRepeated(system, line, flow, flowText) ? '' : flow,
        isBack: (flows.flowOf(id) ?? 0) < 0,
      },
    ];
  });
  return {
    placed: { width_mm: at.width * MM_A_PX, height_mm: at.height * MM_A_PX, boxes, lines },
    words: new Map([
      ...system.lines.map(({ id, name }) => [id, [name, flowText(id)]] as const),
      ...boxes.map(({ id, note }) => [id, [graph.boxes.find((box) => box.id === id)!.name, note]] as const),
    ]),
    isFresh: laid.key === key,
  };
}

/** Whether the one line that leads to a part says already what flows on from it: a flow is told where it changes. */
function isRepeated(
  system: SystemDocument,
  line: LineDocument,
  flow: string,
  flowText: (id: string) => string,
): boolean {
  const joined = system.lines.filter(({ from, to }) => from.item === line.from.item || to.item === line.from.item);
  const before = joined.find(({ to }) => to.item === line.from.item);
  return (
    joined.length === 2 &&
    before !== undefined &&
    before.purpose === line.purpose &&
    flow !== '' &&
    flowText(before.id) === flow
  );
}

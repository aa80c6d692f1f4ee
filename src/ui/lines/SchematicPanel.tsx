'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import type { LinkResult, NodeResult } from '@/core/network';
import type { SystemDocument } from '@/core/document';
import { flowRole } from '@/core/evaluate';
import { formatQuantity } from '@/core/units';
import { Panel } from '../parts/Panel';
import { useNarrow } from '../parts/useNarrow';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useFlows } from '../state/useLines';
import { useChosenPart } from './chosenPart';
import { stateWords } from './lineWords';
import {
  labelPlaces,
  placedSchematic,
  schematicGraph,
  wrapped,
  type PlacedSchematic,
  type SchematicGraph,
} from './schematicLayout';

/** Purposes are told apart by dash as well as by colour. */
const DASHES = {
  feed: undefined,
  return: '10 6',
  transfer: '2 5',
  fill: '14 4 2 4',
  vent: '5 5',
  overflow: '3 8',
} as const;

/** The whole system of circuits, laid out by the app: flow on every line, pressure at every part. */
export function SchematicPanel() {
  const system = useSystem();
  const narrow = useNarrow();
  const graph = useMemo(() => schematicGraph(system), [system]);
  const key = JSON.stringify([graph.boxes.map(({ id, name, ends }) => [id, name, ends]), graph.lines, narrow]);
  const [placed, setPlaced] = useState<{ readonly key: string; readonly at: PlacedSchematic } | undefined>();
  useEffect(() => {
    let current = true;
    void placedSchematic(graph, narrow).then((at) => {
      if (current) setPlaced({ key, at });
    });
    return () => {
      current = false;
    };
    // The key says all that the layout depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  if (graph.lines.length === 0) return null;
  return (
    <Panel
      title="All circuits"
      testId="schematic"
      aside={
        <Box color="soft" fontSize="sm">
          laid out by itself; press a part or a line
        </Box>
      }
    >
      <Box overflowX="auto" minH="160px" opacity={placed?.key === key ? 1 : 0.5}>
        {placed && <Drawing system={system} graph={graph} at={placed.at} narrow={narrow} />}
      </Box>
      <Box display="flex" gap="5" flexWrap="wrap" fontSize="sm" color="soft" mt="2" aria-hidden>
        {[...new Set(system.lines.map(({ purpose }) => purpose))].map((purpose) => (
          <Box key={purpose} display="flex" alignItems="center" gap="2">
            <svg width="44" height="10">
              <line
                x1="0"
                y1="5"
                x2="44"
                y2="5"
                stroke="var(--chakra-colors-accent)"
                strokeWidth="3"
                strokeDasharray={DASHES[purpose]}
              />
            </svg>
            {purpose}
          </Box>
        ))}
      </Box>
    </Panel>
  );
}

/** A wide schematic is scrolled rather than made too small to read. */
const LEAST_SCALE = 0.9;

function Drawing({
  system,
  graph,
  at,
  narrow,
}: {
  readonly system: SystemDocument;
  readonly graph: SchematicGraph;
  readonly at: PlacedSchematic;
  readonly narrow: boolean;
}) {
  const reader = useReader();
  const { id: chosen, choose } = useChosenPart();
  const flows = useFlows();
  const linkOf = (id: string): LinkResult | undefined =>
    flows.flatMap(({ links }) => links).find((link) => link.id === id);
  const nodeOf = (id: string): NodeResult | undefined =>
    flows.flatMap(({ nodes }) => nodes).find((node) => node.id === id);
  const flowText = (id: string): string => {
    const link = linkOf(id);
    return link
      ? formatQuantity(Math.abs(link.flow_m3PerS), flowRole(Math.abs(link.flow_m3PerS)), { reader }).text
      : '';
  };
  const labels = labelPlaces(at, new Map(graph.lines.map(({ id }) => [id, flowText(id)])));
  return (
    <chakra.svg
      role="group"
      aria-label="Schematic of all circuits"
      viewBox={`0 0 ${at.width} ${at.height}`}
      width={at.width}
      height={at.height}
      maxW="100%"
      minW={narrow ? undefined : `${Math.round(LEAST_SCALE * at.width)}px`}
      style={{ height: 'auto' }}
    >
      <defs>
        <marker
          id="flow-way"
          viewBox="0 0 10 10"
          refX="8"
          refY="5"
          markerWidth="5"
          markerHeight="5"
          orient="auto-start-reverse"
        >
          <path d="M 0 0 L 10 5 L 0 10 z" fill="var(--chakra-colors-accent)" />
        </marker>
      </defs>
      {graph.lines.map(({ id }) => {
        const points = at.lines.get(id);
        const line = system.lines.find((each) => each.id === id);
        if (!points || !line) return null;
        const link = linkOf(id);
        const text = flowText(id);
        const place = labels.get(id);
        const back = link !== undefined && link.flow_m3PerS < 0;
        return (
          <chakra.g
            key={id}
            role="button"
            tabIndex={0}
            aria-label={`${line.name}${text ? `, ${text}` : ''}`}
            cursor="pointer"
            onClick={() => choose(id)}
            onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && choose(id)}
            _focusVisible={{ outline: '3px solid var(--chakra-colors-accent)' }}
          >
            <polyline
              points={points.map((point) => point.join(',')).join(' ')}
              fill="none"
              stroke="transparent"
              strokeWidth="22"
            />
            <polyline
              points={points.map((point) => point.join(',')).join(' ')}
              fill="none"
              stroke={id === chosen ? 'var(--chakra-colors-ink)' : 'var(--chakra-colors-accent)'}
              strokeWidth={id === chosen ? 5 : 3}
              strokeDasharray={DASHES[line.purpose]}
              {...(back ? { markerStart: 'url(#flow-way)' } : { markerEnd: 'url(#flow-way)' })}
            />
            {place && (
              <text
                x={place[0]}
                y={place[1]}
                textAnchor="middle"
                fontSize="13"
                fontWeight="650"
                fill="var(--chakra-colors-ink)"
                stroke="var(--chakra-colors-panel)"
                strokeWidth="4"
                paintOrder="stroke"
              >
                {text}
              </text>
            )}
          </chakra.g>
        );
      })}
      {graph.boxes.map((box) => {
        const place = at.boxes.get(box.id);
        if (!place) return null;
        const part = system.components.find(({ id }) => id === box.id);
        const rows = wrapped(box.name);
        const node =
          (box.kind === 'consumer' ? undefined : nodeOf(`${box.id}:out`)) ??
          nodeOf(`${box.id}:in`) ??
          (box.kind === 'tank' ? nodeOf(`${box.id}:ullage`) : undefined);
        const state = part ? stateWords(part) : '';
        const shut = /^[A-Z]+$/.test(state);
        const pressure = node ? formatQuantity(node.gauge_Pa, 'pressure', { reader }).text : state;
        return (
          <chakra.g
            key={box.id}
            role="button"
            tabIndex={0}
            aria-label={`${box.name}${pressure ? `, ${pressure}` : ''}`}
            cursor="pointer"
            onClick={() => choose(box.id)}
            onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && choose(box.id)}
            _focusVisible={{ outline: '3px solid var(--chakra-colors-accent)' }}
          >
            <rect
              x={place.x}
              y={place.y}
              width={place.width}
              height={place.height}
              rx={box.kind === 'tank' ? 3 : box.kind === 'consumer' ? 16 : 7}
              fill={box.kind === 'tank' ? 'var(--chakra-colors-fuel)' : 'var(--chakra-colors-panel)'}
              fillOpacity={box.kind === 'tank' ? 0.35 : 1}
              stroke={shut ? 'var(--chakra-colors-stop)' : 'var(--chakra-colors-ink)'}
              strokeWidth={box.id === chosen ? 4 : box.kind === 'tank' ? 3 : 1.8}
            />
            {rows.map((row, i) => (
              <text
                key={row}
                x={place.x + place.width / 2}
                y={place.y + 22 + 18 * i}
                textAnchor="middle"
                fontSize="14"
                fontWeight="650"
                fill="var(--chakra-colors-ink)"
              >
                {row}
              </text>
            ))}
            <text
              x={place.x + place.width / 2}
              y={place.y + place.height - 9}
              textAnchor="middle"
              fontSize="13"
              fill={shut ? 'var(--chakra-colors-stop)' : 'var(--chakra-colors-soft)'}
              fontWeight={shut ? 700 : 400}
            >
              {shut ? state : pressure}
            </text>
          </chakra.g>
        );
      })}
    </chakra.svg>
  );
}

'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Printer } from 'lucide-react';
import { useEffect, useId, useState } from 'react';
import { fileNameOf, type SystemDocument } from '@/core/document';
import { mirrored, type Template } from '@/core/evaluate';
import { cornerLetter, templateSvg } from '@/core/formats';
import { formatQuantity } from '@/core/units';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { Panel } from '../parts/Panel';
import { saveFile } from '../parts/saveFile';
import { useRested } from '../parts/useRested';
import { useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { useTank } from '../state/tankChoice';
import { fitWorker } from './fitWorker';

/**
 * A template of each flat face: cut it in card, hold it in the real bay, and check these numbers before metal is cut.
 */
export function TemplatesPanel() {
  const system = useSystem();
  const rested = useRested(system);
  const t = useTank();
  const reader = useReader();
  const [shown, setShown] = useState<{
    readonly system: SystemDocument;
    readonly templates: readonly Template[] | undefined;
  }>();
  const [chosen, setChosen] = useState<string>();
  const [over, setOver] = useState(false);
  useEffect(() => {
    let current = true;
    fitWorker()
      .templates(rested, t)
      .then(
        (answer) => current && setShown({ system: rested, templates: answer.ok ? answer.value : undefined }),
        () => undefined,
      );
    return () => {
      current = false;
    };
  }, [rested, t]);
  const face = shown?.templates?.find(({ name }) => name === chosen) ?? shown?.templates?.[0];
  if (!shown || !face) {
    return (
      <Panel title="Templates" testId="templates">
        <Box color="soft">
          {!shown
            ? 'Working out the faces…'
            : shown.templates
              ? 'This tank has no flat face: lay card round it and trace.'
              : 'The faces cannot be worked out: see the findings below.'}
        </Box>
      </Panel>
    );
  }
  const template = over ? mirrored(face) : face;
  const title = `${system.tanks[t]!.name}, ${face.name.toLowerCase()}${over ? ', turned over' : ', seen from outside'}`;
  return (
    <Panel
      title="Templates"
      testId="templates"
      aside={
        <Button onClick={() => window.print()}>
          <Printer size={18} aria-hidden />
          Print
        </Button>
      }
    >
      <Box color="soft" mb="2">
        Cut the outline in card and hold it where the face will be. If a number does not agree, the bay is not as
        measured: find out which, before metal is cut.
      </Box>
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="end" mb="3">
        <Select
          label="Face"
          value={face.name}
          options={shown.templates!.map(({ name }) => ({ value: name, label: name }))}
          onChange={setChosen}
        />
        <chakra.label display="flex" gap="2" alignItems="center" minH="44px" cursor="pointer">
          <chakra.input
            type="checkbox"
            width="22px"
            height="22px"
            accentColor="var(--chakra-colors-accent)"
            checked={over}
            onChange={(event) => setOver(event.target.checked)}
          />
          Turned over, for the other side
        </chakra.label>
        <Button
          onClick={() =>
            saveFile(
              `${fileNameOf(title, 'template')}.svg`,
              'image/svg+xml',
              templateSvg(sheetOf(template, title, (value) => formatQuantity(value, 'tape', { reader }).text)),
            )
          }
        >
          <Download size={18} aria-hidden />
          Save at true size (SVG)
        </Button>
      </Box>
      <Box
        opacity={shown.system === system ? 1 : 0.6}
        display="grid"
        gap="4"
        gridTemplateColumns={{ base: '1fr', lg: '1fr 1fr' }}
      >
        <Outline template={template} title={title} />
        <Checks template={template} />
      </Box>
    </Panel>
  );
}

/** What stands on the saved sheet, in the reader's units. */
const sheetOf = (template: Template, title: string, text: (value: number) => string) => ({
  title,
  loops: template.loops,
  circles: template.holes,
  notes: [
    `Outside of the sheet, ${text(template.width_m)} wide and ${text(template.height_m)} high. Add for folds, take off for corner welds.`,
    ...template.edges.map(
      ({ from, to, length_m, gap }) =>
        `${cornerLetter(from)}-${cornerLetter(to)} ${text(length_m)}${gap ? `, then ${text(gap.distance_m)} to ${gap.to}` : ''}`,
    ),
    ...template.diagonals.map(
      ({ from, to, length_m }) => `${cornerLetter(from)}-${cornerLetter(to)} ${text(length_m)} across`,
    ),
  ],
});

const WIDE = 520;
const PAD = 34;
const MOST_TALL = 420;
const TALLER = 760;
const NARROW = 1.4;

function Outline({ template, title }: { readonly template: Template; readonly title: string }) {
  const reader = useReader();
  const titleId = useId();
  // A long narrow face may be taller than the table beside it, so that its holes keep apart.
  const most = template.height_m > NARROW * template.width_m ? TALLER : MOST_TALL;
  const scale = Math.min((WIDE - 2 * PAD) / template.width_m, (most - 2 * PAD) / template.height_m);
  const tall = template.height_m * scale + 2 * PAD;
  const left = (WIDE - template.width_m * scale) / 2;
  const place = ([u, v]: readonly [number, number]): readonly [number, number] => [
    left + u * scale,
    tall - PAD - v * scale,
  ];
  const path = template.loops
    .map(
      (loop) =>
        `${loop
          .map(
            (point, i) =>
              `${i === 0 ? 'M' : 'L'}${place(point)
                .map((value) => value.toFixed(1))
                .join(' ')}`,
          )
          .join('')}Z`,
    )
    .join('');
  const outline = template.loops[0]!;
  const few = outline.length <= MOST_LETTERED;
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${tall}`}
      role="img"
      aria-labelledby={titleId}
      data-testid="template-outline"
      style={{ width: '100%', display: 'block' }}
    >
      <title id={titleId}>{title}</title>
      <path
        d={path}
        fillRule="evenodd"
        fill="var(--chakra-colors-cobalt-muted)"
        fillOpacity="0.55"
        stroke="var(--chakra-colors-ink)"
        strokeWidth="2.5"
        strokeLinejoin="round"
      />
      {template.holes.map(({ name, at_m, diameter_m }, i) => {
        const [x, y] = place(at_m);
        return (
          <g key={name}>
            <circle
              cx={x}
              cy={y}
              r={Math.max(2, (diameter_m / 2) * scale)}
              fill="var(--chakra-colors-panel)"
              stroke="var(--chakra-colors-ink)"
              strokeWidth="1.5"
            >
              <title>{name}</title>
            </circle>
            <text
              x={x + (diameter_m / 2) * scale + 5}
              y={y - 4}
              fontSize="15"
              fontWeight="750"
              fill="var(--chakra-colors-ink)"
              stroke="var(--chakra-colors-panel)"
              strokeWidth="3"
              paintOrder="stroke"
            >
              {i + 1}
            </text>
          </g>
        );
      })}
      {few &&
        template.edges.map(({ from, to, length_m }) => {
          const [[x1, y1], [x2, y2]] = [place(outline[from]!), place(outline[to]!)];
          const long = Math.hypot(x2 - x1, y2 - y1);
          if (long < LEAST_LABELLED) return null;
          const [nx, ny] = [(y2 - y1) / long, (x1 - x2) / long];
          // Inside the outline; beside an upright edge a text needs half its width.
          const inward = (outlineTurns(template) ? -1 : 1) * (Math.abs(nx) > Math.abs(ny) ? 34 : 15);
          return (
            <text
              key={from}
              x={(x1 + x2) / 2 + inward * nx}
              y={(y1 + y2) / 2 + inward * ny + 5}
              fontSize="15"
              fontWeight="700"
              textAnchor="middle"
              fill="var(--chakra-colors-ink)"
              stroke="var(--chakra-colors-panel)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {formatQuantity(length_m, 'tape', { reader }).text}
            </text>
          );
        })}
      {few &&
        outline.map((point, i) => {
          const [x, y] = place(point);
          const [mx, my] = [WIDE / 2, tall / 2];
          const away = Math.hypot(x - mx, y - my) || 1;
          return (
            <text
              key={i}
              x={x + (16 * (x - mx)) / away}
              y={y + (16 * (y - my)) / away + 5}
              fontSize="14"
              fontWeight="750"
              textAnchor="middle"
              fill="var(--chakra-colors-accent)"
            >
              {cornerLetter(i)}
            </text>
          );
        })}
    </svg>
  );
}
/** A traced curve has too many corners to letter. */
const MOST_LETTERED = 16;
const LEAST_LABELLED = 44;

/** Turned over, an outline runs the other way round. */
const outlineTurns = ({ loops }: Template): boolean =>
  loops[0]!.reduce(
    (sum, [u, v], i, all) => sum + u * all[(i + 1) % all.length]![1] - all[(i + 1) % all.length]![0] * v,
    0,
  ) < 0;

/** What to hold a tape to: the edges, what stands beside each, and the lengths across. */
function Checks({ template }: { readonly template: Template }) {
  const reader = useReader();
  const text = (value: number): string => formatQuantity(value, 'tape', { reader }).text;
  const many = template.edges.length > MOST_LETTERED;
  return (
    <Box overflowX="auto">
      <chakra.table width="100%" borderCollapse="collapse" aria-label="Check on the real bay">
        <thead>
          <tr>
            {['check', 'length', 'beside it'].map((head, i) => (
              <chakra.th key={head} px="2" textAlign={i === 1 ? 'right' : 'left'} color="soft" fontWeight="600">
                {head}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {many &&
            (['width', 'height'] as const).map((which) => (
              <tr key={which}>
                <chakra.td px="2" py="1">
                  overall {which}
                </chakra.td>
                <chakra.td px="2" textAlign="right" fontWeight="700">
                  {text(which === 'width' ? template.width_m : template.height_m)}
                </chakra.td>
                <td />
              </tr>
            ))}
          {!many &&
            template.edges.map(({ from, to, length_m, gap }) => (
              <chakra.tr key={from} borderTopWidth="1px" borderColor="rule">
                <chakra.td px="2" py="1">
                  {cornerLetter(from)} to {cornerLetter(to)}
                </chakra.td>
                <chakra.td px="2" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                  {text(length_m)}
                </chakra.td>
                <chakra.td px="2">{gap ? `${text(gap.distance_m)} to ${gap.to}` : ''}</chakra.td>
              </chakra.tr>
            ))}
          {!many &&
            template.diagonals.map(({ from, to, length_m }) => (
              <chakra.tr key={`${from} ${to}`} borderTopWidth="1px" borderColor="rule">
                <chakra.td px="2" py="1" whiteSpace="nowrap">
                  {cornerLetter(from)} to {cornerLetter(to)}, across
                </chakra.td>
                <chakra.td px="2" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                  {text(length_m)}
                </chakra.td>
                <td />
              </chakra.tr>
            ))}
          {template.holes.map(({ name, at_m, diameter_m }, i) => (
            <chakra.tr key={name} borderTopWidth="1px" borderColor="rule">
              <chakra.td px="2" py="1">
                <b>{i + 1}</b> {name}
              </chakra.td>
              <chakra.td px="2" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                ⌀ {text(diameter_m)}
              </chakra.td>
              <chakra.td px="2">
                {text(at_m[0])} from the left, {text(at_m[1])} from below
              </chakra.td>
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Download, Printer } from 'lucide-react';
import { useShallow } from 'zustand/react/shallow';
import { fileNameOf } from '@/core/plan';
import { cutObstacles, type Template } from '@/core/answers';
import { cornerLetter, drawingSvg, templateDrawing } from '@/core/drawings';
import { holeSizeWords, outlineDrawing, roundHoles } from '@/core/reports';
import { formatQuantity } from '@/core/units';
import { DrawingView } from '../drawing/DrawingView';
import { MM_A_PX, useRoom } from '../drawing/useRoom';
import { Select } from '../fields/Select';
import { Button } from '../parts/Button';
import { goToSheet } from '../paper/choice';
import { Panel } from '../parts/Panel';
import { saveFile } from '../parts/saveFile';
import { useReader } from '../state/reader';
import { useValue } from '../state/editor';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { useTemplate, useTemplateChoice } from './useTemplate';

/**
 * A template of each flat face: cut it in card, hold it in the real bay, and check these numbers before metal is cut.
 */
export function TemplatesPanel() {
  const sides = useSides();
  const reader = useReader();
  const { faces, template, title, isFresh, why } = useTemplate();
  const { isOver } = useTemplateChoice();
  if (!template) {
    return (
      <Panel title="Templates" testId="templates">
        <TemplateOf />
        <Box color="soft">
          {faces
            ? 'It has no flat face: lay card round it and trace.'
            : why === undefined
              ? 'Working out the faces…'
              : `The faces cannot be worked out: ${why}`}
        </Box>
      </Panel>
    );
  }
  return (
    <Panel
      title="Templates"
      testId="templates"
      aside={
        <Button onClick={() => goToSheet('template')}>
          <Printer size={18} aria-hidden />
          Print
        </Button>
      }
    >
      <Box color="soft" mb="2" maxW="75ch">
        Cut the outline in card and hold it where the face will be. If a number does not agree, the bay is not as
        measured: find out which, before metal is cut.
      </Box>
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="end" mb="3">
        <TemplateOf />
        <Select
          label="Face"
          value={template.name}
          options={faces!.map(({ name }) => ({ value: name, label: sides(name) }))}
          onChange={(face) => useTemplateChoice.setState({ face })}
        />
        <chakra.label display="flex" gap="2" alignItems="center" minH="44px" cursor="pointer">
          <chakra.input
            type="checkbox"
            width="22px"
            height="22px"
            accentColor="var(--chakra-colors-accent)"
            checked={isOver}
            onChange={(event) => useTemplateChoice.setState({ isOver: event.target.checked })}
          />
          Turned over, for the other side
        </chakra.label>
        <Button
          onClick={() =>
            saveFile(
              `${fileNameOf(title, 'template')}.svg`,
              'image/svg+xml',
              drawingSvg(
                templateDrawing(sheetOf(template, title, (value) => formatQuantity(value, 'tape', { reader }).text)),
              ),
            )
          }
        >
          <Download size={18} aria-hidden />
          Save at true size (SVG)
        </Button>
      </Box>
      <Box opacity={isFresh ? 1 : 0.6} display="grid" gap="4" gridTemplateColumns={{ base: '1fr', lg: '1fr 1fr' }}>
        <Outline template={template} title={title} />
        <Checks template={template} />
      </Box>
    </Panel>
  );
}

/** Of which body: the tank at work, or a bracket, a frame or a cover that is cut from sheet too. */
export function TemplateOf() {
  const t = useTank();
  const { obstacle } = useTemplateChoice();
  const choices = useValue(
    useShallow((system) => [
      `- ${system.tanks[t]!.name}`,
      ...cutObstacles(system).map(({ id, name }) => `${id} ${name}`),
    ]),
  ).map((choice) => ({ value: choice.split(' ')[0]!, label: choice.slice(choice.indexOf(' ') + 1) }));
  if (choices.length < 2) return null;
  return (
    <Select
      label="Of"
      value={choices.find(({ value }) => obstacle?.tank === t && value === obstacle.id)?.value ?? '-'}
      options={choices}
      onChange={(of) =>
        useTemplateChoice.setState({ obstacle: of === '-' ? undefined : { id: of, tank: t }, face: undefined })
      }
    />
  );
}

/** What stands on the saved sheet, in the reader's units. */
const sheetOf = (template: Template, title: string, text: (value: number) => string) => ({
  title,
  loops: template.loops,
  circles: roundHoles(template.holes),
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

const USUAL_PX = 520;
const MOST_TALL_PX = 420;
const TALLER_PX = 760;
const NARROW = 1.4;

function Outline({ template, title }: { readonly template: Template; readonly title: string }) {
  const reader = useReader();
  const [ref, width_mm] = useRoom(USUAL_PX);
  // A long narrow face may be taller than the table beside it, so that its holes keep apart.
  const most_px = template.height_m > NARROW * template.width_m ? TALLER_PX : MOST_TALL_PX;
  const drawing = outlineDrawing(template, {
    title,
    room: { width_mm, height_mm: most_px * MM_A_PX },
    length: (value) => formatQuantity(value, 'tape', { reader }).text,
  });
  return (
    <Box ref={ref}>
      <DrawingView drawing={drawing} testId="template-outline" />
    </Box>
  );
}
/** A traced curve has too many corners to list. */
const MOST_LISTED = 16;

/** What to hold a tape to: the edges, what stands beside each, and the lengths across. */
function Checks({ template }: { readonly template: Template }) {
  const reader = useReader();
  const text = (value: number): string => formatQuantity(value, 'tape', { reader }).text;
  const many = template.edges.length > MOST_LISTED;
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
          {template.holes.map(({ name, at_m, size }, i) => (
            <chakra.tr key={name} borderTopWidth="1px" borderColor="rule">
              <chakra.td px="2" py="1">
                <b>{i + 1}</b> {name}
              </chakra.td>
              <chakra.td px="2" textAlign="right" fontWeight="700" whiteSpace="nowrap">
                {holeSizeWords(size, text)}
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

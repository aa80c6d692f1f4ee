'use client';

import { figureRoom, scaledDrawing, schematicDrawing, type Block, type PaperKey } from '@/core/reports';
import { poursOf } from '@/core/plan';
import { useSteadyFlows, useSchematic } from '../lines/useSchematic';
import { MM_A_PX } from '../drawing/useRoom';
import { tapeSteps } from '../drawing/tapeSteps';
import { useAnswer, useOutcome } from '../state/answers';
import { useSystem } from '../state/editor';
import { usePoursChoice, useTaughtPoints } from '../gauge/taughtPoints';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useDetails, useJudged } from '../state/results';
import { useTank } from '../state/tankChoice';
import { useLines } from '../state/useLines';
import { useTemplate } from '../fit/useTemplate';
import { cardSheet } from './cardSheet';
import { mountsSheet } from './mountsSheet';
import { poursSheet } from './poursSheet';
import { templateSheet } from './templateSheet';
import { type SheetKey } from './choice';
import {
  correctionSheet,
  cuttingSheet,
  findingsSheet,
  holesCaution,
  holesSheet,
  measureSheet,
  partsSheet,
  strappingSheet,
  valvesTable,
  writing,
} from './sheets';

/** What a sheet is made of, and whether that is of the system as it is now. */
type Content = { readonly blocks: readonly Block[]; readonly isFresh: boolean; readonly why?: string | undefined };
const NOTHING: Content = { blocks: [], isFresh: false };

type Sheet = { readonly isOfTank: boolean; readonly use: (paper: PaperKey) => Content };
/** Every sheet: what is on it. */
export const SHEETS: Readonly<Record<SheetKey, Sheet>> = {
  measure: { isOfTank: false, use: useMeasure },
  template: { isOfTank: true, use: useTemplateSheet },
  holes: { isOfTank: true, use: useHoles },
  cutting: { isOfTank: true, use: useCutting },
  parts: { isOfTank: false, use: useParts },
  schematic: { isOfTank: false, use: useSchematicSheet },
  card: { isOfTank: false, use: useCard },
  strapping: { isOfTank: true, use: useStrapping },
  correction: { isOfTank: true, use: useCorrection },
  mounts: { isOfTank: true, use: useMounts },
  pours: { isOfTank: true, use: usePours },
  findings: { isOfTank: false, use: useFindings },
};

function useHoles(paper: PaperKey): Content {
  const sides = useSides();
  const t = useTank();
  const reader = useReader();
  const { value, standing, reason } = useAnswer('sheets');
  if (!value) return { ...NOTHING, why: reason };
  if (!value.ok) return { ...NOTHING, why: value.error.detail };
  const blocks = holesSheet(value.value[t] ?? [], paper, writing(reader), sides);
  return { blocks: blocks.length > 0 ? [holesCaution, ...blocks] : [], isFresh: standing === 'fresh' };
}

function useCutting(): Content {
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const { value, fresh } = useOutcome('cuts', t);
  if (!value) return NOTHING;
  if (!value.ok) return { ...NOTHING, why: value.error.detail };
  return { blocks: cuttingSheet(system, t, value.value, writing(reader), reader), isFresh: fresh };
}

function useParts(): Content {
  const reader = useReader();
  const { lines, fresh } = useLines();
  return lines ? { blocks: partsSheet(lines.list, writing(reader)), isFresh: fresh } : NOTHING;
}

function useSchematicSheet(paper: PaperKey): Content {
  const system = useSystem();
  const schematic = useSchematic(system, useSteadyFlows(system), false, figureRoom(paper).width_mm / MM_A_PX);
  const { fresh } = useLines();
  if (system.lines.length === 0) return { blocks: [], isFresh: true };
  if (!schematic) return NOTHING;
  const room = figureRoom(paper);
  const drawing = schematicDrawing(schematic.placed, 'Schematic of all circuits', undefined);
  const factor = Math.min(1, room.width_mm / drawing.width_mm, room.height_mm / drawing.height_mm);
  return {
    blocks: [
      { kind: 'heading', text: 'All circuits' },
      {
        kind: 'figure',
        drawing: scaledDrawing(drawing, factor),
        caption: 'Flows and pressures at the conditions that are set; not to scale.',
      },
      ...valvesTable(system),
    ],
    isFresh: fresh && schematic.isFresh,
  };
}

function useCard(): Content {
  return { blocks: cardSheet(useSystem()), isFresh: true };
}

function useCorrection(): Content {
  const taught = useTaughtPoints();
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const { results, system: of } = useDetails();
  const first = system.tanks.slice(0, t).reduce((count, { senders }) => count + senders.length, 0);
  if (system.tanks[t]!.senders.length === 0) return { blocks: [], isFresh: true };
  if (!results) return NOTHING;
  if (!results.ok) return { ...NOTHING, why: results.error.detail };
  const { gauges } = results.evaluation;
  return {
    blocks: system.tanks[t]!.senders.flatMap(({ name }, s): readonly Block[] => {
      const gauge = gauges[first + s];
      if (!gauge) return [];
      return gauge.ok
        ? correctionSheet(gauge.value, name, taught, writing(reader))
        : [{ kind: 'text', text: `${name}: ${gauge.error.detail}`, isBold: true }];
    }),
    isFresh: of === system,
  };
}

function usePours(): Content {
  const sides = useSides();
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const { log, count, placed } = usePoursChoice();
  const { calibrations, senders, sightTubes, dipsticks } = system.tanks[t]!;
  const c = Math.max(
    0,
    calibrations.findIndex(({ id }) => id === log),
  );
  const { value, fresh } = useOutcome('calibration', t, c, count);
  const instruments = [...senders, ...sightTubes, ...dipsticks];
  const calibration = calibrations[c];
  if (!calibration) {
    const form = { name: `First pours of ${system.tanks[t]!.name}`, pitch_deg: 0, roll_deg: 0, start_m3: 0 };
    const instrument = instruments.map(({ name }) => name).join(', ');
    return {
      blocks: poursSheet(
        { calibration: form, instrument, log: [], data: undefined, placed },
        writing(reader),
        reader,
        sides,
      ),
      isFresh: true,
    };
  }
  if (!value) return NOTHING;
  const instrument = instruments.find(({ id }) => id === calibration.of)?.name ?? '';
  return {
    blocks: [
      ...poursSheet(
        {
          calibration,
          instrument,
          log: poursOf(system, calibration.id),
          data: value.ok ? value.value : undefined,
          placed,
        },
        writing(reader),
        reader,
        sides,
      ),
      ...(value.ok ? [] : [{ kind: 'text' as const, text: value.error.detail, isBold: true }]),
    ],
    isFresh: fresh,
  };
}

function useTemplateSheet(paper: PaperKey): Content {
  const reader = useReader();
  const { faces, template, title, isFresh, why } = useTemplate();
  if (!template) return faces ? { blocks: [], isFresh } : { ...NOTHING, why };
  return { blocks: templateSheet(template, title, paper, writing(reader)), isFresh };
}

function useMounts(paper: PaperKey): Content {
  const sides = useSides();
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const drawing = useOutcome('mountDrawing', t);
  const { value, standing, reason } = useAnswer('mounts');
  const { value: stands, standing: standsAre } = useAnswer('stands');
  if (!system.mounts.some(({ tank }) => tank === system.tanks[t]!.id)) return { blocks: [], isFresh: true };
  if (!value || !drawing.value) return { ...NOTHING, why: reason };
  if (!value.ok) return { ...NOTHING, why: value.error.detail };
  if (!drawing.value.ok) return { ...NOTHING, why: drawing.value.error.detail };
  return {
    blocks: mountsSheet(
      system,
      t,
      { mounts: value.value, seen: drawing.value.value, stands: stands?.ok ? stands.value : undefined },
      paper,
      reader,
      sides,
    ),
    isFresh: standing === 'fresh' && standsAre === 'fresh' && drawing.fresh,
  };
}

function useStrapping(): Content {
  const t = useTank();
  const system = useSystem();
  const reader = useReader();
  const { value, fresh } = useOutcome('strapping', t, tapeSteps(reader).large_m, 'mounted');
  if (!value) return NOTHING;
  if (!value.ok) return { ...NOTHING, why: value.error.detail };
  return {
    blocks: strappingSheet(value.value, system.tanks[t]!.name, 'As mounted, vehicle level', writing(reader)),
    isFresh: fresh,
  };
}

function useFindings(): Content {
  const reader = useReader();
  const { findings, notJudged, onTheWay, failed } = useJudged();
  return {
    blocks: findingsSheet(findings, { onTheWay, failed, notJudged: notJudged.length }, reader),
    isFresh: onTheWay.length === 0,
  };
}

function useMeasure(): Content {
  const system = useSystem();
  const reader = useReader();
  const { value, standing, reason } = useAnswer('spreads');
  if (!value) return { ...NOTHING, why: reason };
  return { blocks: measureSheet(system, value.influences, reader), isFresh: standing === 'fresh' };
}

'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { FaceSheet, SheetPort } from '@/core/answers';
import { entryText, formatQuantity, roleUnit, ROLES, unitById } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { useAnswer } from '../state/answers';
import { applyEdit, useSystem } from '../state/editor';
import { useReader } from '../state/reader';
import { tapeSteps } from '../drawing/tapeSteps';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { reachWords, WHEN_WORDS } from '../fit/reachWords';
import { withNudge, withPlace } from './portEdits';
import { AddPort } from './AddPort';
import { PortFields } from './PortRow';
import { SheetDrawing } from './SheetDrawing';
import { fromEdge } from './sheetPlace';
import { checkWords, fromWords, toolSteps } from './sheetWords';

/** A face of the tank to scale, with its ports placed as on metal, and what will not do. */
export function SheetPanel() {
  const sides = useSides();
  const reader = useReader();
  const system = useSystem();
  const t = useTank();
  const { value: sheets, standing, reason } = useAnswer('sheets');
  const fresh = standing === 'fresh';
  const [face, setFace] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  const all = sheets?.ok ? sheets.value[t] : undefined;
  if (!sheets || !all)
    return (
      <Panel title="Faces and holes" testId="sheets">
        {reason !== undefined || (sheets && !sheets.ok) ? (
          <NotWorkedOut why={reason ?? (sheets?.ok === false ? `${sheets.error.at}: ${sheets.error.detail}` : '')} />
        ) : (
          <Box color="soft">Laying out the faces…</Box>
        )}
      </Panel>
    );
  const busiest = all.reduce((best, sheet) => (sheet.ports.length > best.ports.length ? sheet : best), all[0]!);
  const sheet = all.find(({ name }) => name === face) ?? busiest;
  const wrong = all.flatMap((one) =>
    one.ports.filter(({ checks }) => checks.length > 0).map((port) => ({ port, sheet: one })),
  );
  const bad = wrong.length;
  const selected = sheet.ports.find(({ id }) => id === chosen) ?? sheet.ports[0];
  const { ports } = system.tanks[t]!;
  // The sheets may be of the moment before: what is removed meanwhile has no fields.
  const port = ports.find(({ id }) => id === selected?.id);
  const move = (port: SheetPort, at: readonly [number, number]): void =>
    applyEdit(`move ${port.name}`, (current) => withPlace(current, t, port, sheet, at));
  const name = `${system.tanks[t]!.name}, ${sides(sheet.name).toLowerCase()}, seen from outside`;
  return (
    <Panel title="Faces and holes" testId="sheets" aside={<AddPort />}>
      <Box
        fontSize="xl"
        fontWeight="750"
        color={bad > 0 ? 'stop' : 'good'}
        data-testid="sheets-sum"
        data-fresh={fresh}
        mb="2"
      >
        {bad === 0
          ? 'Every port fits where it stands'
          : `${bad === 1 ? 'One port does' : `${bad} ports do`} not fit where ${bad === 1 ? 'it stands' : 'they stand'}`}
      </Box>
      {wrong.length > 0 && (
        <Box display="flex" gap="2" flexWrap="wrap" mb="2">
          {wrong.map(({ port, sheet: one }) => (
            <Button
              key={port.id}
              onClick={() => {
                setFace(one.name);
                setChosen(port.id);
              }}
            >
              {port.name}, {sides(one.name).toLowerCase()}
            </Button>
          ))}
        </Box>
      )}
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="end" mb="2">
        <Select
          label="Sheet"
          width="260px"
          value={sheet.name}
          options={all.map((one) => ({
            value: one.name,
            label: `${sides(one.name)}${one.ports.length > 0 ? `, ${one.ports.length} ${one.ports.length === 1 ? 'port' : 'ports'}` : ''}`,
          }))}
          onChange={setFace}
        />
        <Box color="soft" pb="2">
          <Quantity value={sheet.width_m} role="tape" /> by <Quantity value={sheet.height_m} role="tape" />
          {sheet.kind === 'projected' && ', curved: seen straight on, distances from its left and lower end'}
        </Box>
      </Box>
      <Box
        opacity={fresh ? 1 : 0.75}
        display="grid"
        gap="4"
        gridTemplateColumns={{ base: 'minmax(0, 1fr)', xl: 'minmax(0, 3fr) minmax(0, 2fr)' }}
      >
        <SheetDrawing
          sheet={sheet}
          title={name}
          chosen={selected?.id}
          onChoose={setChosen}
          onMove={move}
          onNudge={(port, by) => applyEdit(`move ${port.name}`, (current) => withNudge(current, t, port, sheet, by))}
        />
        <Box>
          {sheet.ports.length === 0 && (
            <Box color="soft">No port on this face. Add one, or set a port’s face to this one.</Box>
          )}
          {sheet.ports.map((port, i) => (
            <PortLine
              key={port.id}
              port={port}
              number={i + 1}
              isChosen={port.id === selected?.id}
              onChoose={() => setChosen(port.id)}
            />
          ))}
          {selected && <PortPlace sheet={sheet} port={selected} onMove={(at) => move(selected, at)} />}
          <Box mt="2" fontSize="sm" color="soft">
            Drag a port, or choose it and use the arrow keys (with shift by{' '}
            <Quantity value={tapeSteps(reader).large_m} role="tape" />
            ). It lines up with others and with the middle.
          </Box>
        </Box>
      </Box>
      {port && (
        <Box mt="3" pt="3" borderTopWidth="1px" borderColor="rule">
          <PortFields key={port.id} port={port} t={t} p={ports.indexOf(port)} />
        </Box>
      )}
    </Panel>
  );
}

function PortLine({
  port,
  number,
  isChosen,
  onChoose,
}: {
  readonly port: SheetPort;
  readonly number: number;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}) {
  const reader = useReader();
  const text = (value: number): string => formatQuantity(value, 'tape', { reader }).text;
  const fine = (value: number): string => formatQuantity(value, 'thickness', { reader }).text;
  return (
    <chakra.button
      onClick={onChoose}
      aria-pressed={isChosen}
      display="block"
      width="100%"
      textAlign="left"
      px="2"
      py="1"
      minH="40px"
      borderTopWidth="1px"
      borderColor="rule"
      bg={isChosen ? 'sunk' : 'transparent'}
      cursor="pointer"
      data-testid={`line-${port.id}`}
    >
      <b>{number}</b> {port.name} <chakra.span color="soft">{port.part ?? 'part not chosen'}</chakra.span>
      {port.checks.map((check, i) => (
        <Box key={i} color="stop" fontWeight="650" fontSize="sm" data-testid="sheet-check">
          {checkWords(check, text, fine)}
        </Box>
      ))}
    </chakra.button>
  );
}

/** The chosen port: its centre from two edges, to be typed, how the hole is made and whether a spanner gets to it. */
function PortPlace({
  sheet,
  port,
  onMove,
}: {
  readonly sheet: FaceSheet;
  readonly port: SheetPort;
  readonly onMove: (at: readonly [number, number]) => void;
}) {
  const sides = useSides();
  const reader = useReader();
  const { value: reach } = useAnswer('reach');
  const text = (value: number): string => formatQuantity(value, 'tape', { reader }).text;
  const fine = (value: number): string => formatQuantity(value, 'bore', { reader }).text;
  const enter = (which: 0 | 1) => (entered: string) => {
    const read = readEntry(entered, 'tape', reader, { min: 0, max: Math.hypot(sheet.width_m, sheet.height_m) });
    if (!read.ok) return read;
    const at = fromEdge(sheet, port, which, read.value);
    if (!at) return { ok: false as const, message: 'This centre is measured from one edge only; drag it.' };
    onMove(at);
    return { ok: true as const };
  };
  const answers = reach?.ok ? reach.value.filter(({ id, job }) => id === port.id && job !== 'weld') : [];
  return (
    <Box mt="3" p="3" bg="sunk" borderRadius="md" data-testid="port-place">
      <Box fontWeight="700" mb="2">
        {port.name}: centre
      </Box>
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="3">
        {port.fromEdges.map((edge, i) => (
          <TextEntry
            key={i}
            label={`From ${fromWords(sheet, edge)}`}
            value={entryText(edge.distance_m, 'tape', reader)}
            unit={unitById(ROLES.tape.kind, roleUnit('tape', reader)).symbol}
            onEnter={enter(i as 0 | 1)}
          />
        ))}
      </Box>
      <Box mt="2">
        Hole <b>{text(port.hole_m)}</b>, covers <b>{text(port.cover_m)}</b>
        {port.below_m[1] > 0 && (
          <>
            , <b>{text(port.below_m[1])}</b> under the sheet
          </>
        )}
      </Box>
      <Box mt="1">{toolSteps(port, fine)}</Box>
      {port.seal === 'seals' && port.sag_m > 0 && (
        <Box mt="1" color="good">
          Seals on the curve: {text(port.sag_m)} out of flat.
        </Box>
      )}
      {answers.map((answer) => (
        <Box
          key={answer.job}
          mt="1"
          color={answer.when === 'never' ? 'stop' : answer.when === 'bench' ? 'warn' : 'soft'}
        >
          {WHEN_WORDS[answer.when][0]!.toUpperCase()}
          {WHEN_WORDS[answer.when].slice(1)}: {reachWords(answer, sides, reader)}
        </Box>
      ))}
    </Box>
  );
}

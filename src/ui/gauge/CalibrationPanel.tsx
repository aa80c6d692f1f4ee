'use client';

import { Box } from '@chakra-ui/react';
import { Download, Plus, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { fileNameOf, loosePours, poursOf, withoutEntry } from '@/core/plan';
import {
  MOST_POURS,
  NOT_UTF8,
  plainName,
  poursCsv,
  readPoursCsv,
  utf8Text,
  type DecimalMark,
  type PourLine,
} from '@/core/formats';
import { formatQuantity } from '@/core/units';
import type { CalibrationData } from '@/core/answers';
import { axisOf } from '../charts/axes';
import { LineChart } from '../charts/LineChart';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { Beside } from '../parts/Beside';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { saveFile } from '../parts/saveFile';
import { useOutcome } from '../state/answers';
import { applyEdit, openDocument, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { pourRecord, writeDown } from '../state/records';
import { CountAndPlace, TaughtTable } from './CorrectionPanel';
import { usePoursChoice } from './taughtPoints';
import { goToSheet } from '../paper/choice';
import { explanations } from './calibrationWords';
import { withCalibration, withTaught } from './gaugeEdits';
import { PourEntry } from './PourEntry';
import { PourTable } from './PourTable';
import { RigPanel } from './RigPanel';

/** Pours written down, what curve they show, what explains the difference to the plan, and what to teach the gauge. */
export function CalibrationPanel({ t }: { readonly t: number }) {
  const instruments = useValue(
    useShallow((system) =>
      [...system.tanks[t]!.senders, ...system.tanks[t]!.sightTubes, ...system.tanks[t]!.dipsticks].map(
        ({ id, name }) => `${id} ${name}`,
      ),
    ),
  );
  const calibrations = useValue((system) => system.tanks[t]!.calibrations);
  const chosen = usePoursChoice(({ log }) => log);
  const setChosen = (log: string | undefined): void => usePoursChoice.setState({ log });
  const nameOf = (id: string): string =>
    instruments.find((one) => one.startsWith(`${id} `))?.slice(id.length + 1) ?? id;
  const c = Math.max(
    0,
    calibrations.findIndex(({ id }) => id === chosen),
  );
  const calibration = calibrations[c];
  const add = (of: string): void => {
    applyEdit('begin a calibration', (system) =>
      withCalibration(
        system,
        t,
        of,
        plainName(`${nameOf(of)}, ${calibrations.filter((one) => one.of === of).length + 1}`, 80),
      ),
    );
    setChosen(openDocument().tanks[t]!.calibrations.at(-1)?.id);
  };
  return (
    <Panel title="Calibration by pours" testId="calibration">
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="end" mb="3" className="no-print">
        {calibrations.length > 0 && (
          <Select
            label="Log"
            width="260px"
            value={calibration!.id}
            options={calibrations.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setChosen}
          />
        )}
        {instruments.map((one) => (
          <Button key={one} onClick={() => add(one.split(' ')[0]!)}>
            <Plus size={18} aria-hidden />
            New log of {one.slice(one.indexOf(' ') + 1)}
          </Button>
        ))}
      </Box>
      {!calibration && (
        <Box color="soft">
          Once the tank is built: empty it, stand it level, pour in known amounts and write down what is read after
          each. Ten to twenty pours show the whole curve.
        </Box>
      )}
      {calibration && <Log key={calibration.id} t={t} c={c} nameOf={nameOf} />}
      <LooseNote />
    </Panel>
  );
}

/** Pours of logs that the plan no longer has are kept all the same. */
function LooseNote() {
  const loose = useValue((system) => loosePours(system).length);
  return loose === 0 ? null : (
    <Box mt="3" fontSize="sm" color="soft" data-testid="loose-pours">
      {loose} {loose === 1 ? 'pour' : 'pours'} of logs that were removed stay among this system’s records. Undo brings
      the log back; a file of the system carries them.
    </Box>
  );
}

function Log({ t, c, nameOf }: { readonly t: number; readonly c: number; readonly nameOf: (id: string) => string }) {
  const sides = useSides();
  const reader = useReader();
  const calibration = useValue((system) => system.tanks[t]!.calibrations[c]!);
  const senderIndex = useValue((system) => system.tanks[t]!.senders.findIndex(({ id }) => id === calibration.of));
  const signal = useValue((system) => system.tanks[t]!.senders[senderIndex]?.output.kind);
  const { count: points, placed } = usePoursChoice();
  const { value: answer, fresh } = useOutcome('calibration', t, c, points);
  const at = (key: string) => ['tanks', t, 'calibrations', c, key];
  const pour = (line: PourLine): void => writeDown([pourRecord(calibration.id, line)]);
  const enterStart = (text: string): EntryVerdict => {
    const read = readEntry(text, 'tankVolume', reader, { min: 0, max: 20 });
    if (read.ok) setValue('in the tank at the start', at('start_m3'), read.value);
    return read;
  };
  const enterSlope =
    (key: 'pitch_deg' | 'roll_deg') =>
    (text: string): EntryVerdict => {
      const read = readEntry(text, 'slope', reader, { min: -30, max: 30 });
      if (read.ok) setValue('how the tank stood', at(key), read.value);
      return read;
    };
  const start = formatQuantity(calibration.start_m3, 'tankVolume', { reader });
  const data = answer?.ok ? answer.value : undefined;
  return (
    <Box>
      <Caution>
        Calibrate with fuel outdoors, away from flames, the tank and cans bonded to each other; or with water before the
        tank has ever held fuel, and dry it well after.
      </Caution>
      {data?.simulated && (
        <Box mt="3" fontWeight="800" color="warn" data-testid="simulated-log">
          Lines of this log come from the simulated rig, not from a real tank.
        </Box>
      )}
      <Box mt="3">
        <FieldGrid min="220px">
          <TextEntry
            label="In it at the start"
            value={start.number}
            unit={start.symbol}
            onEnter={enterStart}
            hint="With what cannot be drawn."
          />
          <TextEntry
            label="Pitch during calibration, nose up"
            value={String(calibration.pitch_deg)}
            unit="°"
            onEnter={enterSlope('pitch_deg')}
          />
          <TextEntry
            label={sides('Roll during calibration, starboard down')}
            value={String(calibration.roll_deg)}
            unit="°"
            onEnter={enterSlope('roll_deg')}
          />
          <Box pt="5">
            <Button
              onClick={() =>
                applyEdit(`remove the log ${calibration.name}`, (system) =>
                  withoutEntry(system, ['tanks', t, 'calibrations'], c),
                )
              }
            >
              Remove this log
            </Button>
          </Box>
        </FieldGrid>
      </Box>
      <Beside
        picture={
          <Box>
            <PourEntry t={t} reads={signal ?? 'height'} onPour={pour} />
            {answer && !answer.ok && (
              <Box mt="3" color="stop" fontWeight="600">
                {answer.error.detail}
              </Box>
            )}
            <PourTable t={t} c={c} data={data} />
            <CsvButtons t={t} c={c} />
            {signal && <RigPanel sender={calibration.of} onPour={pour} />}
          </Box>
        }
      >
        <Box>
          {data && (
            <Box opacity={fresh ? 1 : 0.6} data-testid="calibrated" data-fresh={fresh}>
              {data.measured.ok ? (
                <Curves data={data} instrument={nameOf(calibration.of)} />
              ) : (
                <Box mt="3" color="soft">
                  {data.measured.error.detail}
                </Box>
              )}
              {data.measured.ok && (
                <Box mt="4" data-testid="explained">
                  <Box fontWeight="700">Why it does not read as planned</Box>
                  {explanations(data, reader).map((sentence) => (
                    <Box key={sentence}>{sentence}</Box>
                  ))}
                </Box>
              )}
              {signal && data.channel === signal && data.measured.ok && (
                <Box mt="4">
                  <Box fontWeight="700" mb="1">
                    What to teach the gauge, from these pours
                  </Box>
                  <CountAndPlace
                    count={points}
                    placed={placed}
                    onCount={(count) => usePoursChoice.setState({ count })}
                    onPlace={(where) => usePoursChoice.setState({ placed: where })}
                    of="pours"
                  />
                  <TaughtTable
                    table={data.tables[placed]}
                    signal={signal}
                    holds_m3={data.holds_m3}
                    name="measured"
                    label="Correction table from the pours"
                    onPrint={() => goToSheet('pours')}
                    onTeach={(table) =>
                      applyEdit('teach the gauge', (system) => withTaught(system, t, senderIndex, table.points))
                    }
                  />
                </Box>
              )}
            </Box>
          )}
        </Box>
      </Beside>
    </Box>
  );
}

const AXES = { resistance: 'sender, Ω', voltage: 'sender, V', needle: 'needle, %', height: 'height' } as const;

/** Plan and pours in one picture. */
function Curves({ data, instrument }: { readonly data: CalibrationData; readonly instrument: string }) {
  const reader = useReader();
  if (!data.measured.ok) return null;
  const { points, fitted } = data.measured.value;
  const found = data.explained.ok ? data.explained.value : undefined;
  const volume = axisOf('tankVolume', reader);
  const length = axisOf('tape', reader);
  const y = (value: number): number =>
    data.channel === 'needle' ? value * 100 : data.channel === 'height' ? length.value(value) : value;
  const curve = (list: readonly { readonly volume_m3: number }[], value: (i: number) => number) =>
    list.map(({ volume_m3 }, i) => ({ x: volume.value(volume_m3), y: y(value(i)) }));
  const worst = points.reduce((most, { low, high }) => Math.max(most, (high - low) / 2), 0);
  const role = data.channel === 'height' ? 'tape' : data.channel === 'needle' ? 'share' : data.channel;
  return (
    <Box mt="4" data-testid="calibration-chart">
      <LineChart
        x={`volume in the tank, ${volume.symbol}`}
        y={data.channel === 'height' ? `height, ${length.symbol}` : AXES[data.channel]}
        summary={`${instrument}: ${fitted.length} readings that count. The measured curve never turns back; it lies within ${formatQuantity(worst, role, { reader, digits: 2 }).text} 95 times in 100, and a single reading within ${formatQuantity(2 * data.measured.value.noise, role, { reader, digits: 2 }).text}.`}
        curves={[
          { label: 'measured', color: 'accent', points: curve(points, (i) => points[i]!.reading) },
          { label: 'it lies between', color: 'accent', dash: [2, 4], points: curve(points, (i) => points[i]!.low) },
          { label: '', color: 'accent', dash: [2, 4], points: curve(points, (i) => points[i]!.high) },
          {
            label: 'planned',
            color: 'soft',
            dash: [8, 5],
            points: curve(data.planned, (i) => data.planned[i]!.reading),
          },
          ...(found
            ? [
                {
                  label: 'planned, with what was found',
                  color: 'good' as const,
                  dash: [12, 3, 3, 3],
                  points: curve(found.curve, (i) => found.curve[i]!.reading),
                },
              ]
            : []),
          { label: 'read', color: 'ink', marks: 'rectRot' as const, points: curve(fitted, (i) => fitted[i]!.measured) },
        ]}
      />
    </Box>
  );
}

/** The log out as CSV and in again; a bad file says which rows, and nothing of it is taken. */
function CsvButtons({ t, c }: { readonly t: number; readonly c: number }) {
  const input = useRef<HTMLInputElement>(null);
  const [notice, setNotice] = useState<{ readonly ok: boolean; readonly text: string }>();
  const calibrationNow = () => openDocument().tanks[t]!.calibrations[c]!;
  const save = (): void => {
    const { id, name } = calibrationNow();
    const pours = poursOf(openDocument(), id).map(({ now }) => now);
    saveFile(`${fileNameOf(name, 'log')}-pours.csv`, 'text/csv', poursCsv(pours));
  };
  const [unclear, setUnclear] = useState<{ readonly name: string; readonly text: string; readonly why: string }>();
  const read = async (file: File): Promise<void> => {
    setUnclear(undefined);
    if (file.size > MOST_BYTES)
      return setNotice({ ok: false, text: `${file.name} is too large: a log has no more than ${MOST_POURS} rows.` });
    const text = utf8Text(new Uint8Array(await file.arrayBuffer()));
    if (text === undefined) return setNotice({ ok: false, text: `${file.name}: ${NOT_UTF8}` });
    take(file.name, text);
  };
  const take = (name: string, text: string, mark?: DecimalMark): void => {
    const found = readPoursCsv(text, mark);
    setNotice(undefined);
    setUnclear(!found.ok && found.error.code === 'unclear-mark' ? { name, text, why: found.error.detail } : undefined);
    if (!found.ok)
      return found.error.code === 'unclear-mark'
        ? undefined
        : setNotice({ ok: false, text: `${name}, ${found.error.at}: ${found.error.detail}` });
    const { lines } = found.value;
    const { id } = calibrationNow();
    const room = MOST_POURS - poursOf(openDocument(), id).length;
    if (lines.length > room)
      return setNotice({
        ok: false,
        text: `${name} has ${lines.length} rows; this log takes ${room} more. Nothing was imported.`,
      });
    writeDown(lines.map((line) => pourRecord(id, line)));
    setNotice({
      ok: true,
      text: `${lines.length} rows imported from ${name}${found.value.mark ? `, read with decimal ${found.value.mark}s` : ''}.`,
    });
  };
  return (
    <Box mt="2" className="no-print">
      <Box display="flex" gap="2" flexWrap="wrap">
        <Button onClick={save}>
          <Download size={18} aria-hidden />
          Log as CSV
        </Button>
        <Button onClick={() => input.current?.click()}>
          <Upload size={18} aria-hidden />
          Import CSV
        </Button>
        <input
          ref={input}
          type="file"
          accept=".csv,text/csv"
          hidden
          data-testid="pours-file"
          onChange={(event) => {
            const [file] = event.currentTarget.files ?? [];
            event.currentTarget.value = '';
            if (file)
              read(file).catch((error: unknown) =>
                setNotice({ ok: false, text: `${file.name} could not be read: ${String(error)}.` }),
              );
          }}
        />
      </Box>
      {unclear && (
        <Box mt="2" role="alert" data-testid="pours-unclear">
          <Box fontWeight="600">
            {unclear.name}: {unclear.why} Nothing was imported yet. What does the file have?
          </Box>
          <Box display="flex" gap="2" flexWrap="wrap" mt="1">
            <Button onClick={() => take(unclear.name, unclear.text, 'comma')}>Decimal commas</Button>
            <Button onClick={() => take(unclear.name, unclear.text, 'point')}>Decimal points</Button>
            <Button onClick={() => setUnclear(undefined)}>Import nothing</Button>
          </Box>
        </Box>
      )}
      {notice && (
        <Box mt="1" color={notice.ok ? 'good' : 'stop'} fontWeight="600" role="status" data-testid="pours-said">
          {notice.text}
        </Box>
      )}
    </Box>
  );
}
const MOST_BYTES = 400_000;

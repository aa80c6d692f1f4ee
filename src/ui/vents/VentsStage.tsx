'use client';

import { Box } from '@chakra-ui/react';
import {
  assumed,
  CAP_KINDS,
  CAP_WORDS,
  chosen,
  colourWords,
  freshId,
  letsAirIn,
  MARK_COLOURS,
  newCap,
  withAdded,
  type Cap,
  type FillerMark,
  type Path,
  type PortDocument,
} from '@/core/plan';
import { shapeSpan } from '@/core/model';
import { KnownField } from '../fields/KnownField';
import { Beside } from '../parts/Beside';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { NoAnswer } from '../parts/NoAnswer';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { TankViews } from '../drawing/TankViews';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { applyEdit, setValue, useSystem } from '../state/editor';
import { useSides } from '../state/sides';
import { useDetails } from '../state/results';
import { openTank, useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';
import { TimeTask } from '../time/TimeTask';
import { useTask } from '../workspace/goTo';
import { TransferTask } from './TransferTask';
import { VentSizeTask } from './VentSizeTask';

/** Common practice: a rollover valve shuts somewhere past 45 degrees. */
const USUAL_LEAN_DEG = assumed(45, 10);
/** Common practice: a clean silencer of sintered bronze loses some 200 Pa at 30 L/min. */
const USUAL_SCREEN = { flow_m3PerS: assumed(5e-4, 1e-4), loss_Pa: assumed(200, 100) };
/** Half a millimetre of water: nothing that a tank or pump would notice. */
const FREE_PA = 5;

/** How air and liquid get in and out, and what happens meanwhile. */
export function VentsStage() {
  switch (useTask('vents')) {
    case 'size':
      return <VentSizeTask />;
    case 'transfer':
      return <TransferTask />;
    case 'time':
      return <TimeTask />;
    default:
      return <OpeningsTask />;
  }
}

function OpeningsTask() {
  const system = useSystem();
  const { results } = useDetails();
  const t = useTank();
  const tank = system.tanks[t]!;
  const flow = results?.ok ? results.evaluation.flows[0] : undefined;
  const concerned = tank.ports
    .map((port, p) => ({ port, p }))
    .filter(({ port }) => port.role === 'vent' || port.role === 'filler');
  const hasVent = concerned.some(({ port }) => letsAirIn(port));
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      <Beside
        picture={
          <Panel title={tank.name}>
            <TankViews index={t} />
          </Panel>
        }
      >
        <Panel title="Air in as fuel goes out">
          {flow?.ok ? (
            <Box fontSize="lg">
              {Math.abs(flow.value.ullageGauge_Pa) < FREE_PA ? (
                <>
                  At the needed flow the air follows <b>freely</b>: the tank is drawn by less than{' '}
                  <Quantity value={FREE_PA} role="pressure" />.
                </>
              ) : (
                <>
                  At the needed flow the tank stands at{' '}
                  <b>
                    <Quantity value={flow.value.ullageGauge_Pa} role="pressure" digits={2} />
                  </b>{' '}
                  against the air outside.
                </>
              )}
            </Box>
          ) : (
            <NoAnswer error={flow?.error} />
          )}
          <Box mt="3">
            <Practice of="vent" />
          </Box>
          {!hasVent && (
            <Box mt="3">
              <Button kind="main" onClick={addVent}>
                Add a vent
              </Button>
            </Box>
          )}
        </Panel>
        {concerned.map(({ port, p }) => (
          <VentPanel key={port.id} port={port} t={t} p={p} />
        ))}
      </Beside>
      <Caution>
        Vapour sinks, spreads and finds a spark. Lead the vent outside, high and sheltered, away from heat, seats and
        openings. Fill with the engine and heater off, the nozzle or can touching the filler.
      </Caution>
    </Box>
  );
}

function VentPanel({ port, t, p }: { readonly port: PortDocument; readonly t: number; readonly p: number }) {
  const sides = useSides();
  const at = (key: string) => ['tanks', t, 'ports', p, key];
  return (
    <Panel title={port.name}>
      <FieldGrid>
        <KnownField path={at('bore_m')} entry={{ line: 'hose' }} />
        <KnownField
          label={port.role === 'vent' ? 'Length of the vent line' : 'Length of the neck'}
          path={at('length_m')}
        />
        {port.x_m && <KnownField label={sides('From the aft wall')} path={at('x_m')} />}
        {port.y_m && <KnownField label={sides('From the starboard wall')} path={at('y_m')} />}
      </FieldGrid>
      {port.role === 'vent' && <ValveFields port={port} path={['tanks', t, 'ports', p]} />}
      {port.role === 'filler' && <CapFields cap={port.cap} path={at('cap')} />}
      {port.role === 'filler' && <MarkFields mark={port.mark} path={at('mark')} />}
    </Panel>
  );
}

/** What a vent's valve is, by what shuts it. */
const SHUT_OFFS = {
  none: { label: 'nothing', shutOff: undefined },
  lean: { label: 'a rollover valve', shutOff: { lean_deg: USUAL_LEAN_DEG } },
  float: { label: 'a float', shutOff: { float: true } },
  both: { label: 'both of these', shutOff: { lean_deg: USUAL_LEAN_DEG, float: true } },
} as const;
type ShutOff = keyof typeof SHUT_OFFS;

/** What shuts a vent by itself, and what resists in it. */
function ValveFields({ port: { shutOff, screen }, path }: { readonly port: PortDocument; readonly path: Path }) {
  const at = (key: string): Path => [...path, key];
  const now: ShutOff = shutOff?.lean_deg ? (shutOff.float ? 'both' : 'lean') : shutOff?.float ? 'float' : 'none';
  return (
    <Box mt="3" data-path={at('shutOff').join('.')}>
      <FieldGrid>
        <Select
          label="What shuts it by itself"
          value={now}
          options={(Object.keys(SHUT_OFFS) as ShutOff[]).map((key) => ({ value: key, label: SHUT_OFFS[key].label }))}
          onChange={(key) => setValue('valve of the vent', at('shutOff'), SHUT_OFFS[key].shutOff)}
        />
        {shutOff?.lean_deg && <KnownField path={[...at('shutOff'), 'lean_deg']} />}
        <Select
          label="In it"
          value={screen ? 'screen' : 'none'}
          options={[
            { value: 'none', label: 'nothing that resists' },
            { value: 'screen', label: 'a screen, filter or silencer' },
          ]}
          onChange={(key) => setValue('screen of the vent', at('screen'), key === 'none' ? undefined : USUAL_SCREEN)}
        />
        {screen && <KnownField path={[...at('screen'), 'flow_m3PerS']} />}
        {screen && <KnownField path={[...at('screen'), 'loss_Pa']} />}
      </FieldGrid>
    </Box>
  );
}

const UNSAID = 'unsaid';

/** What stands on a filler while nobody fills. */
function CapFields({ cap, path }: { readonly cap: Cap | undefined; readonly path: Path }) {
  return (
    <Box mt="3" data-path={path.join('.')}>
      <FieldGrid>
        <Select
          label="Its cap"
          value={cap?.kind ?? UNSAID}
          options={[
            { value: UNSAID, label: 'not said' },
            ...CAP_KINDS.map((kind) => ({ value: kind, label: CAP_WORDS[kind] })),
          ]}
          onChange={(kind) => setValue('cap', path, kind === UNSAID ? undefined : newCap(kind, cap))}
        />
        {cap?.hole_m && <KnownField path={[...path, 'hole_m']} />}
        {cap?.opensIn_Pa && <KnownField path={[...path, 'opensIn_Pa']} />}
        {cap?.opensOut_Pa && <KnownField path={[...path, 'opensOut_Pa']} />}
        {cap?.kind === 'screw' && (
          <Select
            label="Its screw is"
            value={cap.shut ? 'shut' : 'open'}
            options={[
              { value: 'open', label: 'open' },
              { value: 'shut', label: 'shut, for carrying' },
            ]}
            onChange={(value) => setValue('screw of the cap', [...path, 'shut'], value === 'shut')}
          />
        )}
      </FieldGrid>
    </Box>
  );
}

/** What stands on a filler, so that nobody pours the wrong thing. */
function MarkFields({ mark, path }: { readonly mark: FillerMark | undefined; readonly path: Path }) {
  const put = (next: FillerMark): void =>
    setValue('mark of a filler', path, next.says === undefined && next.colour === undefined ? undefined : next);
  return (
    <Box mt="3" data-path={path.join('.')}>
      <FieldGrid>
        <TextEntry
          label="Says"
          value={mark?.says ?? ''}
          hint="On cap or neck."
          onEnter={(text) => {
            const { says: _says, ...rest } = mark ?? {};
            if (text.trim() !== '') return readName(text, (says) => put({ ...rest, says }));
            put(rest);
            return { ok: true };
          }}
        />
        <Select
          label="Colour"
          value={mark?.colour ?? UNSAID}
          options={[
            { value: UNSAID, label: 'not said' },
            ...MARK_COLOURS.map((colour) => ({ value: colour, label: colourWords(colour) })),
          ]}
          onChange={(colour) => {
            const { colour: _colour, ...rest } = mark ?? {};
            put(colour === UNSAID ? rest : { ...rest, colour });
          }}
        />
      </FieldGrid>
    </Box>
  );
}

function addVent(): void {
  applyEdit('add a vent', (system) => {
    const [length, width] = shapeSpan(system.tanks[openTank()]!.shape);
    const vent: PortDocument = {
      id: freshId(system, 'vent'),
      name: 'Vent',
      role: 'vent',
      face: 'lid',
      x_m: chosen(Number((length / 2).toFixed(3))),
      y_m: chosen(Number((width / 2).toFixed(3))),
      bore_m: chosen(0.014),
      length_m: chosen(1),
    };
    return withAdded(system, ['tanks', openTank(), 'ports'], vent);
  });
}

'use client';

import { Box } from '@chakra-ui/react';
import { ALLOYS, type AlloyKey } from '@/core/reference/alloys';
import { FLUIDS, type FluidKey } from '@/core/reference/fluids';
import { formatQuantity } from '@/core/units';
import { LineChart } from '../charts/LineChart';
import { axisOf } from '../charts/axes';
import { TankViews } from '../drawing/TankViews';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { assumed } from '@/core/plan';
import { Button } from '../parts/Button';
import { Beside } from '../parts/Beside';
import { Caution } from '../parts/Caution';
import { FieldGrid, Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { BafflesPanel } from './BafflesPanel';
import { ContactPanel, NamedPanel } from './ContactPanel';
import { FoamPanel } from './FoamPanel';
import { PartsPanel } from './PartsPanel';
import { ProfilesPanel, ShapePanel } from './ShapePanel';
import { TablePanel } from './TablePanel';
import { TipsPanel } from './TipsPanel';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useDetails } from '../state/results';
import { useTank } from '../state/tankChoice';
import { useTask } from '../workspace/goTo';
import { fluidOf, withFluid } from './tankEdits';
import { TankPicker } from './TankPicker';

/** What the tank holds, and what it is made of. */
export function TankStage() {
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker manage />
      <TaskBody />
    </Box>
  );
}

function TaskBody() {
  switch (useTask('tank')) {
    case 'baffles':
      return (
        <Beside picture={<Views />}>
          <BafflesPanel />
        </Beside>
      );
    case 'foam':
      return (
        <Beside picture={<Views />}>
          <FoamPanel />
        </Beside>
      );
    case 'metal':
      return <MetalPanel />;
    case 'contact':
      return <ContactPanel />;
    case 'seals':
      return <NamedPanel />;
    case 'slopes':
      return (
        <>
          <SlopesPanel />
          <BalanceChart />
          <TipsPanel />
        </>
      );
    case 'tables':
      return (
        <>
          <VolumeChart />
          <TablePanel />
        </>
      );
    default:
      return (
        <>
          <Beside
            picture={
              <>
                <Views />
                <PartsPanel />
              </>
            }
          >
            <ShapePanel />
          </Beside>
          <ProfilesPanel />
        </>
      );
  }
}

/** The tank to scale, its handles to be dragged. */
function Views() {
  const t = useTank();
  const name = useValue((system) => system.tanks[t]!.name);
  return (
    <Panel title={`${name}, to scale`}>
      <TankViews index={t} />
    </Panel>
  );
}

function MetalPanel() {
  const t = useTank();
  const T = ['tanks', t] as const;
  const alloyKey = useValue((system) => system.tanks[t]!.material.alloy);
  const hasDensity = useValue((system) => system.tanks[t]!.material.density_kgPerM3 !== undefined);
  const fluid = useValue((system) => fluidOf(system, t));
  const alloy = ALLOYS[alloyKey];
  return (
    <Panel title="Metal and fuel">
      <FieldGrid>
        <Select
          label="Metal"
          value={alloyKey}
          options={(Object.keys(ALLOYS) as AlloyKey[]).map((key) => ({ value: key, label: ALLOYS[key].name }))}
          onChange={(value) => setValue('metal', [...T, 'material', 'alloy'], value)}
        />
        <KnownField
          path={[...T, 'material', 'thickness_m']}
          {...(alloy.gauge ? { entry: { metal: alloy.gauge } } : {})}
          hint={alloy.gauge ? `A gauge such as 14 ga is read for ${alloy.gauge}.` : undefined}
        />
        {hasDensity ? (
          <KnownField path={[...T, 'material', 'density_kgPerM3']} />
        ) : (
          <Box alignSelf="end">
            <Button
              onClick={() =>
                setValue(
                  'density of the wall',
                  [...T, 'material', 'density_kgPerM3'],
                  assumed(alloy.density_kgPerM3, 50),
                )
              }
            >
              Say its density
            </Button>
          </Box>
        )}
        <Select
          label="Fuel"
          value={fluid}
          options={(Object.keys(FLUIDS) as FluidKey[]).map((key) => ({ value: key, label: FLUIDS[key].name }))}
          onChange={(value) => applyEdit('fuel', (system) => withFluid(system, t, value))}
        />
        <Practice of="fill" />
        <Practice of="welds" />
        <Practice of="flats" />
      </FieldGrid>
      {alloy.caution && (
        <Box mt="3">
          <Caution>{alloy.caution}</Caution>
        </Box>
      )}
      <Masses />
      <Box mt="3">
        <Caution>
          Never weld, grind or braze a tank that has held fuel: the vapour left in it explodes. Leave it to a shop that
          is equipped and licensed to clean, purge and certify it. New aluminium and stainless need clean metal and
          breathing protection.
        </Caution>
      </Box>
    </Panel>
  );
}

function SlopesPanel() {
  const sides = useSides();
  const t = useTank();
  const at = (key: string) => ['tanks', t, 'mounting', key];
  return (
    <Panel title="Slopes asked for">
      <Box color="soft" mb="2">
        The worst of these decides what is usable.
      </Box>
      <FieldGrid>
        <KnownField path={['envelope', 'noseUp_deg']} />
        <KnownField path={['envelope', 'noseDown_deg']} />
        <KnownField path={['envelope', 'portDown_deg']} />
        <KnownField path={['envelope', 'starboardDown_deg']} />
        <KnownField label="Tank mounted nose up" path={at('pitch_deg')} />
        <KnownField label={sides('Tank mounted starboard down')} path={at('roll_deg')} />
      </FieldGrid>
    </Panel>
  );
}

function VolumeChart() {
  const t = useTank();
  const reader = useReader();
  const { results } = useDetails();
  const tank = results?.ok ? results.evaluation.tanks[t] : undefined;
  if (!tank) return null;
  const depth = axisOf('tape', reader);
  const volume = axisOf('tankVolume', reader);
  const text = (value: number, role: 'tape' | 'tankVolume'): string => formatQuantity(value, role, { reader }).text;
  return (
    <Panel title="Volume against depth">
      <LineChart
        x={`depth of liquid, ${depth.symbol}`}
        y={`volume, ${volume.symbol}`}
        yMin={0}
        summary={`At the set slope and fill the liquid is ${text(tank.fill.depth_m, 'tape')} deep at its deepest: ${text(tank.fill.volume_m3, 'tankVolume')}.`}
        curves={[
          {
            label: 'at the set slope',
            color: 'fuelEdge',
            points: tank.strapping.map((row) => ({ x: depth.value(row.depth_m), y: volume.value(row.volume_m3) })),
          },
          {
            label: 'now',
            color: 'ink',
            marks: 'rectRot',
            points: [{ x: depth.value(tank.fill.depth_m), y: volume.value(tank.fill.volume_m3) }],
          },
        ]}
      />
    </Panel>
  );
}

function Masses() {
  const sides = useSides();
  const t = useTank();
  const { results, system } = useDetails();
  const tank = results?.ok ? results.evaluation.tanks[t] : undefined;
  if (!tank || !system) return null;
  const alloy = ALLOYS[system.tanks[t]!.material.alloy];
  return (
    <Box mt="3" display="grid" gap="1">
      <Box display="flex" columnGap="5" flexWrap="wrap">
        <Box>
          {system.tanks[t]!.fitted_kg ? 'Shell and what hangs on it' : 'Shell'}{' '}
          <b>
            <Quantity value={tank.dryMass_kg} role="mass" />
          </b>
        </Box>
        <Box>
          Liquid now{' '}
          <b>
            <Quantity value={tank.liquidMass_kg} role="mass" />
          </b>
        </Box>
        <Box>
          Together{' '}
          <b>
            <Quantity value={tank.dryMass_kg + tank.liquidMass_kg} role="mass" />
          </b>
        </Box>
        <Box>
          Inside to clean or line{' '}
          <b>
            <Quantity value={tank.insideArea_m2 + tank.plateArea_m2} role="area" />
          </b>
        </Box>
        <Box>
          Outside to coat{' '}
          <b>
            <Quantity value={tank.outsideArea_m2} role="area" />
          </b>
        </Box>
      </Box>
      {tank.centre_m && (
        <Box>
          Centre of gravity now:{' '}
          <b>
            <Quantity value={tank.centre_m[0]} role="tape" />
          </b>{' '}
          {sides('from aft')},{' '}
          <b>
            <Quantity value={tank.centre_m[1]} role="tape" />
          </b>{' '}
          {sides('from starboard')},{' '}
          <b>
            <Quantity value={tank.centre_m[2]} role="tape" />
          </b>{' '}
          above the lowest point
        </Box>
      )}
      <Box color="soft">
        Filler rod {alloy.filler}.{' '}
        {Number.isFinite(alloy.bendRadius_t) && (
          <>
            Least inside bend radius{' '}
            <Quantity value={alloy.bendRadius_t * system.tanks[t]!.material.thickness_m.value} role="tape" />.{' '}
          </>
        )}
        {alloy.note}
      </Box>
    </Box>
  );
}

/** Where the weight goes as the tank fills. */
function BalanceChart() {
  const sides = useSides();
  const t = useTank();
  const reader = useReader();
  const { results } = useDetails();
  const balance = (results?.ok ? results.evaluation.tanks[t]?.balance : undefined) ?? [];
  const [empty, full] = [balance[0], balance.at(-1)];
  if (!empty || !full) return null;
  const volume = axisOf('tankVolume', reader);
  const place = axisOf('tape', reader);
  const text = (value: number, role: 'mass' | 'tape'): string => formatQuantity(value, role, { reader }).text;
  const along = (axis: 0 | 1 | 2) =>
    balance.map((point) => ({ x: volume.value(point.volume_m3), y: place.value(point.centre_m[axis]) }));
  return (
    <Panel title="Centre of gravity against filling">
      <LineChart
        x={`volume in the tank, ${volume.symbol}`}
        y={`centre, ${place.symbol}`}
        summary={`At the set slope, tank and fuel together weigh ${text(empty.mass_kg, 'mass')} empty and ${text(full.mass_kg, 'mass')} at the fill limit; their centre stands ${text(empty.centre_m[2], 'tape')} above the floor empty and ${text(full.centre_m[2], 'tape')} full.`}
        curves={[
          { label: sides('from aft'), color: 'accent', points: along(0) },
          { label: sides('from starboard'), color: 'ink', dash: [8, 5], points: along(1) },
          { label: 'above the floor', color: 'fuelEdge', dash: [2, 4], points: along(2) },
        ]}
      />
    </Panel>
  );
}

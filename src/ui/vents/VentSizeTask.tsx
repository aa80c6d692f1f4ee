'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { VentDesign, VentLimit, VentRise, VentSize, VolumeCorrection } from '@/core/answers';
import { chosen } from '@/core/plan';
import { VENT_USUAL } from '@/core/reference/vents';
import { formatQuantity, type Role } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { NotWorkedOut } from '../parts/NotWorkedOut';
import { FieldGrid, Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { Table, useWrite } from '../parts/Table';
import { useOutcome } from '../state/answers';
import { setValue, useSystem, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useTank } from '../state/tankChoice';
import { TankPicker } from '../tank/TankPicker';

/** What the vent of a tank has to be, and what heat and slopes drive out. */
export function VentSizeTask() {
  const t = useTank();
  const { value, fresh } = useOutcome('ventDesign', t);
  const name = useValue((system) => system.tanks[t]!.name);
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4">
      <TankPicker />
      {value?.ok === false && <NotWorkedOut why={value.error.detail} />}
      {!value && <Box color="soft">Being worked out…</Box>}
      {value?.ok && (
        <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4" opacity={fresh ? 1 : 0.5} aria-busy={!fresh}>
          <SizesPanel name={name} design={value.value} />
        </Box>
      )}
      <LimitsPanel />
      {value?.ok && (
        <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="4" opacity={fresh ? 1 : 0.5}>
          <RisesPanel design={value.value} />
          <HeatPanel design={value.value} />
        </Box>
      )}
      <Caution>
        A screen, a filter or a sintered silencer in the vent resists beside this: take a size more, and see the vacuum
        on the real tank. Petrol vents on boats and road tankers follow their own rules; a licensed person has to sign.
      </Caution>
    </Box>
  );
}

const PRESSED_BY: Readonly<Record<VentLimit['by'], string>> = {
  said: 'as you said',
  usual: 'as usual',
  walls: 'half of what its weakest flat gives at',
};

function SizesPanel({ name, design }: { readonly name: string; readonly design: VentDesign }) {
  const reader = useReader();
  const text = (value: number, role: Role, digits?: number): string =>
    formatQuantity(value, role, { reader, ...(digits ? { digits } : {}) }).text;
  const { least, hoseLength_m, now, over, under, drawn, wall, whyNoWall } = design;
  const size = (kind: VentSize['kind']): string => {
    const bought = design.sizes.find((each) => each.kind === kind && each.isEnough);
    const exact = least[kind];
    if (exact === undefined) return 'no size there is';
    return bought
      ? `${text(bought.bore_m, 'bore')} (${text(exact, 'bore')} at least)`
      : `${text(exact, 'bore')} at least`;
  };
  return (
    <Panel title={`${name}: the smallest vent that does`} testId="vent-size">
      <Box fontSize="xl" fontWeight="750" lineHeight="1.3">
        A hole of {size('hole')}, or a hose {text(hoseLength_m, 'run')} long and {size('hose')} inside.
      </Box>
      <Box color={now ? (now.isEnough ? 'good' : 'stop') : 'stop'} fontWeight="650" mt="1" data-testid="vent-now">
        {now
          ? `What it has ${now.isEnough ? 'is enough' : 'is not enough'}: drawn to ${text(-now.under_Pa, 'pressure', 2)}, and filled under ${text(now.over_Pa, 'pressure', 2)}.`
          : 'It has no vent.'}
      </Box>
      <Box fontSize="sm" color="soft" mt="1">
        Filled at {text(design.fill_m3PerS, 'transfer')} it may come under {text(over.value_Pa, 'pressure')} (
        {PRESSED_BY[over.by]}); drawn from at {text(design.draw_m3PerS, 'burn')} it may be drawn to{' '}
        {text(-under.value_Pa, 'pressure')} ({PRESSED_BY[under.by]}).{' '}
        {drawn.length === 0
          ? 'Nothing draws from it.'
          : `Drawn by ${drawn.map((each) => `${each.name}, ${text(each.flow_m3PerS, 'burn')}`).join('; ')}.`}{' '}
        All the air goes by this one; what gets past a spout in the neck comes on top.
      </Box>
      <Box display="grid" gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="4" mt="3">
        {(['hole', 'hose'] as const).map((kind) => (
          <Sizes key={kind} kind={kind} sizes={design.sizes.filter((each) => each.kind === kind)} />
        ))}
      </Box>
      {design.drawUnknown !== undefined && (
        <Box color="warn" fontWeight="650" mt="3" role="alert">
          What pumps move out of it could not be worked out, and comes on top of what draws: {design.drawUnknown}
        </Box>
      )}
      {wall && Math.max(over.value_Pa, under.value_Pa) > wall.yields_Pa && (
        <Box color="stop" fontWeight="700" mt="3" role="alert">
          That is more than its weakest flat bears: {text(wall.yields_Pa, 'pressure', 2)}. Allow less, or stiffen it.
        </Box>
      )}
      <Box fontSize="sm" mt="3">
        {wall
          ? `Its weakest flat, ${text(wall.long_m, 'tape')} by ${text(wall.wide_m, 'tape')} between edges and baffles, gives at ${text(wall.yields_Pa, 'pressure', 2)} at least, and stands out ${text(wall.bulge_m, wall.bulge_m < 0.01 ? 'bore' : 'tape')} at the limit, at most.`
          : whyNoWall === 'unknown-metal'
            ? 'What its walls bear is not known: nothing is kept of how strong its metal is.'
            : 'It has no flat wall; what round ones bear is not judged here.'}
      </Box>
    </Panel>
  );
}

/** Sizes about the first that is enough. */
const [BEFORE, AFTER] = [2, 3];

function Sizes({ kind, sizes }: { readonly kind: VentSize['kind']; readonly sizes: readonly VentSize[] }) {
  const first = sizes.findIndex(({ isEnough }) => isEnough);
  const shown = first < 0 ? sizes.slice(-AFTER) : sizes.slice(Math.max(0, first - BEFORE), first + AFTER);
  return (
    <chakra.table
      width="100%"
      fontSize="sm"
      css={{
        '& th, & td': { textAlign: 'left', padding: '6px 8px 6px 0' },
        '& td': { fontVariantNumeric: 'tabular-nums' },
      }}
    >
      <thead>
        <tr>
          <th scope="col">{kind === 'hole' ? 'Hole' : 'Hose, inside'}</th>
          <th scope="col">Drawn to</th>
          <th scope="col">Filled under</th>
          <th scope="col">Enough</th>
        </tr>
      </thead>
      <tbody>
        {shown.map(({ bore_m, under_Pa, over_Pa, isEnough }) => (
          <chakra.tr key={bore_m} borderTopWidth="1px" borderColor="rule" fontWeight={isEnough ? '700' : '400'}>
            <th scope="row">
              <Quantity value={bore_m} role="bore" />
            </th>
            <td>
              <Quantity value={-under_Pa} role="pressure" digits={2} />
            </td>
            <td>
              <Quantity value={over_Pa} role="pressure" digits={2} />
            </td>
            <chakra.td color={isEnough ? 'good' : 'stop'}>{isEnough ? 'yes' : 'no'}</chakra.td>
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  );
}

const LIMITS = [
  { key: 'fill_m3PerS', label: 'Fastest that it is filled', usual: VENT_USUAL.fill_m3PerS, role: 'transfer' },
  { key: 'over_Pa', label: 'Most pressure over the liquid', usual: VENT_USUAL.over_Pa, role: 'pressure' },
  { key: 'under_Pa', label: 'Most vacuum over the liquid', usual: VENT_USUAL.under_Pa, role: 'pressure' },
  { key: 'hot_K', label: 'Hottest that it gets', usual: VENT_USUAL.hot_K, role: 'temperature' },
] as const;

/** What vents are made for; the usual where nothing is said. */
function LimitsPanel() {
  const { limits } = useSystem();
  return (
    <Panel title="What it is made for">
      <FieldGrid>
        {LIMITS.map(({ key, label, usual, role }) =>
          limits[key] ? (
            <KnownField key={key} path={['limits', key]} />
          ) : (
            <Box key={key} data-path={`limits.${key}`}>
              <Box fontSize="sm" color="soft">
                {label}
              </Box>
              <Button
                label={`Say: ${label}`}
                onClick={() => setValue(`say ${label.toLowerCase()}`, ['limits', key], chosen(usual))}
              >
                <Quantity value={usual} role={role} />, usual
              </Button>
            </Box>
          ),
        )}
      </FieldGrid>
    </Panel>
  );
}

function RisesPanel({ design: { rises } }: { readonly design: VentDesign }) {
  const reader = useReader();
  const rise = (value_m: number): string =>
    Number.isFinite(value_m)
      ? value_m < 5e-4
        ? 'none is needed'
        : formatQuantity(value_m, 'tape', { reader }).text
      : 'no rise helps';
  return (
    <Panel title="How high its line has to rise" testId="vent-rise">
      {rises.length === 0 && <Box color="soft">It has no vent.</Box>}
      {rises.map(({ id, name, standing_m, moving_m, end }) => (
        <Box key={id} mb="1">
          <b>{name}</b>: straight up from its port, at the slopes asked for <b>{rise(standing_m)}</b>; as hard as it
          brakes, drives and corners <b>{rise(moving_m)}</b>, while the liquid stands still against that.{' '}
          {end && <EndWords {...end} />}
        </Box>
      ))}
      <Box fontSize="sm" color="soft">
        Filled to its limit. A wave goes higher than liquid at rest, up to twice as far from level.
      </Box>
    </Panel>
  );
}

/** How high the end of a vent is over water, or over the ground. */
function EndWords({ name, isPlaced, over }: NonNullable<VentRise['end']>) {
  const reader = useReader();
  const high = (value_m: number): string => formatQuantity(Math.abs(value_m), 'tape', { reader }).text;
  const where = (value_m: number): string => `${high(value_m)} ${value_m > 0 ? 'over' : 'under'} the water`;
  if (!isPlaced)
    return (
      <Box as="span" color="warn" fontWeight="650">
        Where {name} ends is not in the plan: lead a line from it to an open end.
      </Box>
    );
  if (!over)
    return (
      <Box as="span" color="warn" fontWeight="650">
        How high {name} is over water or ground is not known: say where the waterline or the ground is, at Weight.
      </Box>
    );
  if (over.over === 'ground')
    return over.level_m > 0 ? (
      <>
        {name} is {high(over.level_m)} over the ground: water deeper than that gets in by it.
      </>
    ) : (
      <Box as="span" color="stop" fontWeight="650">
        {name} is {high(over.level_m)} under the ground.
      </Box>
    );
  return (
    <Box as="span" color={over.leaning_m > 0 ? undefined : 'stop'} fontWeight={over.leaning_m > 0 ? undefined : '650'}>
      {name} is {where(over.level_m)} that it floats in, and {where(over.leaning_m)} at the worst of the slopes asked
      for.
    </Box>
  );
}

/** What a filling is at other temperatures. */
function Corrections({ corrections }: { readonly corrections: readonly VolumeCorrection[] }) {
  const write = useWrite();
  return (
    <Box maxW="560px" mt="3">
      <Table
        label="Volume correction"
        heads={['What is filled, at', 'Takes up', 'Factor to 15 °C']}
        rows={corrections.map(({ temperature_K, volume_m3, factor_ratio, isExtrapolated }) => ({
          head: `${write(temperature_K, 'temperature')}${isExtrapolated ? ' (beyond the table)' : ''}`,
          cells: [{ text: write(volume_m3, 'tankVolume') }, { text: factor_ratio.toFixed(4) }],
        }))}
      />
    </Box>
  );
}

function HeatPanel({ design: { heat, can_m3 } }: { readonly design: VentDesign }) {
  const reader = useReader();
  const text = (value: number, role: Role): string => formatQuantity(value, role, { reader }).text;
  return (
    <Panel title="Filled cold, and warmed" testId="vent-heat">
      {heat.ok ? (
        <>
          <Box fontSize="lg" fontWeight="650" color={heat.value.over_m3 > 0 ? 'stop' : undefined}>
            {text(heat.value.filled_m3, 'tankVolume')} at {text(heat.value.cold_K, 'temperature')} become{' '}
            {text(heat.value.hot_m3, 'tankVolume')} at {text(heat.value.hot_K, 'temperature')}:{' '}
            {heat.value.over_m3 > 0
              ? `${text(heat.value.over_m3, 'tankVolume')} more than it has room for.`
              : `of ${text(heat.value.free_m3, 'tankVolume')} left free, ${text(heat.value.free_m3 - (heat.value.hot_m3 - heat.value.filled_m3), 'tankVolume')} remain.`}
          </Box>
          <Box fontSize="sm" color="soft" mt="1">
            Filled to no more than {text(heat.value.most_ratio, 'share')} it stays within.
            {can_m3 !== undefined &&
              ` An overflow can of ${text(can_m3, 'tankVolume')} takes what heat and the worst slope drive out, once; it needs a vent of its own.`}
          </Box>
          <Corrections corrections={heat.value.corrections} />
          <Box fontSize="sm" mt="2">
            <b>A line that is full and shut at both ends</b> rises by up to {text(heat.value.locked_PaPerK, 'pressure')}{' '}
            for each kelvin: a few degrees burst it. Leave one end open, or give it a relief valve.
          </Box>
        </>
      ) : (
        <Box color="stop" fontWeight="600">
          {heat.error.detail}
        </Box>
      )}
    </Panel>
  );
}

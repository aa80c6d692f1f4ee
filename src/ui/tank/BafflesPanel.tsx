'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { chosen, FLAP_WAYS, type PlateDocument } from '@/core/plan';
import { REFILL_HEAD_M, type FeedResult, type Manoeuvre } from '@/core/answers';
import { formatQuantity, type Role } from '@/core/units';
import { KnownField } from '../fields/KnownField';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Button } from '../parts/Button';
import { EntryFold, useUnfolded } from '../parts/EntryFold';
import { EntryHead } from '../parts/EntryHead';
import { Practice } from '../parts/Practice';
import { FieldGrid, Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { useDetails } from '../state/results';
import { useTank } from '../state/tankChoice';
import { NEW_FLAP, withBaffle } from './newParts';
import { cardTable } from '../parts/cardTable';

const STANDS: Readonly<Record<PlateDocument['axis'], string>> = {
  x: 'across the tank, at a length',
  y: 'fore and aft, at a width',
  z: 'level, at a height',
};
const AT_WORDS: Readonly<Record<PlateDocument['axis'], string>> = {
  x: 'From aft',
  y: 'From starboard',
  z: 'Above the floor',
};
const WAYS: Readonly<Record<PlateDocument['axis'], Readonly<Record<(typeof FLAP_WAYS)[number], string>>>> = {
  x: { higher: 'forward', lower: 'aft' },
  y: { higher: 'to port', lower: 'to starboard' },
  z: { higher: 'upward', lower: 'downward' },
};
const MOST_HOLES = 400;
/** Ten millilitres: less is what wets the floor. */
const PUDDLE_M3 = 1e-5;

/**
 * Baffles, and what they make of the tank: compartments, surge, swing, and how long the pickup's own compartment
 * feeds it.
 */
export function BafflesPanel() {
  const sides = useSides();
  const t = useTank();
  const plates = useValue((system) => system.tanks[t]!.plates);
  const fold = useUnfolded(plates.map(({ id }) => id));
  return (
    <Panel
      title="Baffles and surge"
      testId="baffles"
      aside={
        <Button onClick={() => applyEdit('add a baffle', (system) => withBaffle(system, t))}>
          <Plus size={18} aria-hidden />
          Baffle
        </Button>
      }
    >
      <Surge />
      <Box mt="3" maxW="420px">
        <Practice of="surge" />
      </Box>
      {plates.map((plate, p) => (
        <EntryFold
          key={plate.id}
          path={['tanks', t, 'plates', p]}
          name={plate.name}
          note={
            <>
              {sides(STANDS[plate.axis]).split(',')[0]}, <Quantity value={plate.at_m.value} role="tape" />{' '}
              {sides(AT_WORDS[plate.axis]).toLowerCase()}
            </>
          }
          isOpen={fold.isOpen(plate.id)}
          onToggle={(isOpen) => fold.toggled(plate.id, isOpen)}
        >
          <PlateFields plate={plate} t={t} p={p} />
        </EntryFold>
      ))}
      <Box mt="4">
        <FieldGrid>
          <KnownField path={['limits', 'surgeCompartment_m3']} />
          <KnownField path={['envelope', 'braking_mPerS2']} />
          <KnownField path={['envelope', 'driving_mPerS2']} />
          <KnownField path={['envelope', 'cornering_mPerS2']} />
        </FieldGrid>
      </Box>
    </Panel>
  );
}

function PlateFields({ plate, t, p }: { readonly plate: PlateDocument; readonly t: number; readonly p: number }) {
  const sides = useSides();
  const list = ['tanks', t, 'plates'] as const;
  const at = (key: string) => [...list, p, key];
  const of = (text: string): string => `${text}, ${plate.name}`;
  const upright = plate.axis !== 'z';
  const partial = plate.from_m !== undefined || plate.to_m !== undefined;
  const setHoles = (text: string) => {
    const count = Number(text);
    if (!Number.isInteger(count) || count < 0 || count > MOST_HOLES)
      return { ok: false as const, message: `Enter a whole number from 0 to ${MOST_HOLES}.` };
    setValue(of('holes'), [...at('holes'), 'count'], count);
    return { ok: true as const };
  };
  const setReach = (value: 'whole' | 'part'): void =>
    applyEdit(of('reach'), (system) => ({
      ...system,
      tanks: system.tanks.map((tank, at) =>
        at === t
          ? { ...tank, plates: tank.plates.map((other, q) => (q === p ? reaching(other, value) : other)) }
          : tank,
      ),
    }));
  return (
    <>
      <EntryHead name={plate.name} list={list} index={p} />
      <FieldGrid>
        <Select
          label={of('Stands')}
          value={plate.axis}
          options={(['x', 'y', 'z'] as const).map((value) => ({ value, label: sides(STANDS[value]) }))}
          onChange={(axis) => setValue(of('which way it stands'), at('axis'), axis)}
        />
        <KnownField label={of(sides(AT_WORDS[plate.axis]))} path={at('at_m')} />
        <KnownField label={of('Thickness')} path={at('thickness_m')} />
        {upright && (
          <Select
            label={of('Reaches')}
            value={partial ? 'part' : 'whole'}
            options={[
              { value: 'whole', label: 'from wall to wall' },
              { value: 'part', label: 'over a part' },
            ]}
            onChange={setReach}
          />
        )}
        {upright && partial && <KnownField label={of('Begins at')} path={at('from_m')} />}
        {upright && partial && <KnownField label={of('Ends at')} path={at('to_m')} />}
        <KnownField label={of('Lower corners cut, leg')} path={at('cornerCut_m')} hint="0 for none." />
        {upright && <KnownField label={of('Air gap above')} path={at('topGap_m')} />}
        <TextEntry label={of('Holes')} value={String(plate.holes.count)} onEnter={setHoles} />
        {plate.holes.count > 0 && <KnownField label={of('Hole diameter')} path={[...at('holes'), 'diameter_m']} />}
        {plate.holes.count > 0 && upright && (
          <KnownField label={of('Hole centres above its lowest point')} path={[...at('holes'), 'height_m']} />
        )}
        <Select
          label={of('Flap')}
          value={plate.flap?.passes ?? 'none'}
          options={[
            { value: 'none', label: 'none' },
            ...FLAP_WAYS.map((way) => ({ value: way, label: sides(`lets liquid ${WAYS[plate.axis][way]}`) })),
          ]}
          onChange={(way) =>
            setValue(of('flap'), at('flap'), way === 'none' ? undefined : { ...(plate.flap ?? NEW_FLAP), passes: way })
          }
        />
        {plate.flap && <KnownField label={of('Flap width')} path={[...at('flap'), 'width_m']} />}
        {plate.flap && <KnownField label={of('Flap height')} path={[...at('flap'), 'height_m']} />}
        {plate.flap && <KnownField label={of('Flap leaks when shut')} path={[...at('flap'), 'leak_ratio']} />}
      </FieldGrid>
    </>
  );
}

/** From wall to wall, or over the middle third of a metre until it is typed. */
function reaching({ from_m: _from, to_m: _to, ...plate }: PlateDocument, reach: 'whole' | 'part'): PlateDocument {
  return reach === 'whole' ? plate : { ...plate, from_m: chosen(0.1), to_m: chosen(0.3) };
}

const MANOEUVRE_WORDS: Readonly<Record<Manoeuvre, string>> = {
  braking: 'braking',
  driving: 'pulling away',
  'cornering to port': 'turning to port',
  'cornering to starboard': 'turning to starboard',
};

const HEADS = ['compartment', 'volume', 'liquid now', 'swings fore and aft', 'side to side', 'keeps from the pickup'];

function Surge() {
  const sides = useSides();
  const t = useTank();
  const { results } = useDetails();
  const tank = results?.ok ? results.evaluation.tanks[t] : undefined;
  if (!tank) return null;
  const { compartments, feeds } = tank.inside;
  return (
    <Box display="grid" gap="3">
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Compartments, a row each">
        <chakra.table
          borderCollapse="collapse"
          minW="min(100%, 520px)"
          aria-label="Compartments"
          css={cardTable(HEADS.map(sides))}
        >
          <thead>
            <tr>
              {HEADS.map((word) => (
                <chakra.th
                  key={word}
                  textAlign={word === 'compartment' ? 'left' : 'right'}
                  px="2"
                  py="1"
                  color="soft"
                  fontWeight="600"
                >
                  {sides(word)}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {compartments.map((compartment, b) => {
              const home = feeds.filter((feed) => feed.compartment === b).length > 0;
              const kept = Object.values(compartment.kept_m3)[0];
              return (
                <chakra.tr key={b} borderTopWidth="1px" borderColor="rule">
                  <chakra.td px="2" py="1" fontWeight="650">
                    {b + 1}
                    {home ? ', pickup' : ''}
                  </chakra.td>
                  <Cell value={compartment.volume_m3} role="tankVolume" strong />
                  <Cell value={compartment.liquid_m3} role="tankVolume" />
                  <Hertz value={compartment.slosh_Hz?.lengthwise} damping={compartment.foam?.damping.lengthwise} />
                  <Hertz value={compartment.slosh_Hz?.crosswise} damping={compartment.foam?.damping.crosswise} />
                  {kept === undefined ? (
                    <chakra.td />
                  ) : kept < PUDDLE_M3 ? (
                    <chakra.td px="2" textAlign="right" color="soft">
                      nothing
                    </chakra.td>
                  ) : kept === Infinity ? (
                    <chakra.td px="2" textAlign="right" color="stop" fontWeight="650">
                      all of it
                    </chakra.td>
                  ) : (
                    <Cell value={kept} role="tankVolume" />
                  )}
                </chakra.tr>
              );
            })}
          </tbody>
        </chakra.table>
      </Box>
      {feeds.map((feed) => (
        <Feed key={feed.pickup} feed={feed} name={tank.pickups.find((pickup) => pickup.id === feed.pickup)!.name} />
      ))}
    </Box>
  );
}

function Feed({ feed, name }: { readonly feed: FeedResult; readonly name: string }) {
  const sides = useSides();
  return (
    <Box>
      <Box fontWeight="650">
        {name}
        {feed.draw_m3PerS > 0 ? (
          <>
            , at a draw of <Quantity value={feed.draw_m3PerS} role="burn" />
          </>
        ) : (
          ', which nothing draws from yet'
        )}
      </Box>
      <Box display="flex" columnGap="5" rowGap="1" flexWrap="wrap">
        {(Object.keys(MANOEUVRE_WORDS) as Manoeuvre[]).map((manoeuvre) => {
          const { staysWet, volume_m3, time_s } = feed.holds[manoeuvre];
          return (
            <Box key={manoeuvre} data-testid={`hold-${manoeuvre}`}>
              {sides(MANOEUVRE_WORDS[manoeuvre])}:{' '}
              <b>
                {staysWet ? (
                  'stays wet'
                ) : feed.draw_m3PerS > 0 || volume_m3 === 0 ? (
                  `fed for ${seconds(time_s)}`
                ) : (
                  <>
                    holds <Quantity value={volume_m3} role="smallVolume" />
                  </>
                )}
              </b>
            </Box>
          );
        })}
        {feed.refill && (
          <Box>
            fed through{' '}
            <b>
              <Quantity value={feed.refill.area_m2} role="smallArea" />
            </b>{' '}
            of openings,{' '}
            <b>
              <Quantity value={feed.refill.rate_m3PerS} role="transfer" />
            </b>{' '}
            in the last <Quantity value={REFILL_HEAD_M} role="tape" />
          </Box>
        )}
      </Box>
    </Box>
  );
}

const seconds = (time_s: number): string =>
  time_s < 10 ? `${time_s.toFixed(1)} s` : time_s < 600 ? `${Math.round(time_s)} s` : `${Math.round(time_s / 60)} min`;

function Cell({ value, role, strong }: { readonly value: number; readonly role: Role; readonly strong?: boolean }) {
  const reader = useReader();
  return (
    <chakra.td px="2" py="1" textAlign="right" fontWeight={strong ? '650' : undefined}>
      {formatQuantity(value, role, { reader }).text}
    </chakra.td>
  );
}

/** How fast it swings; foam damps it by at least so much of what stops it. */
const Hertz = ({ value, damping }: { readonly value: number | undefined; readonly damping?: number | undefined }) => (
  <chakra.td px="2" py="1" textAlign="right">
    {value === undefined
      ? '–'
      : damping === undefined
        ? `${value.toFixed(2)} Hz`
        : damping >= 1
          ? 'foam stills it'
          : `${value.toFixed(2)} Hz, damped`}
  </chakra.td>
);

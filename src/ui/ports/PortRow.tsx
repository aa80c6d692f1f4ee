'use client';

import { Box, chakra } from '@chakra-ui/react';
import { chosen, FACES, PORT_ROLES, TURNS, type PortDocument } from '@/core/plan';
import { standsOn } from '@/core/model';
import { portPart } from '@/core/reference/portParts';
import { KnownField } from '../fields/KnownField';
import { Owner } from '../fields/Owner';
import { Select } from '../fields/Select';
import { EntryHead } from '../parts/EntryHead';
import { Button } from '../parts/Button';
import { FieldGrid } from '../parts/Panel';
import { FACE_WORDS, ROLE_WORDS, TURN_WORDS } from '../parts/words';
import { applyEdit, setValue, useValue } from '../state/editor';
import { useSides } from '../state/sides';
import { useDetails } from '../state/results';
import { carriersFor, partsFor, withFace, withPart, withSpigot } from './portEdits';

const AXIS_WORDS = { x_m: 'From the aft wall', y_m: 'From the starboard wall', z_m: 'Above the floor' } as const;
const NO_PART = '';
const THE_WALL = '';

type Props = { readonly port: PortDocument; readonly t: number; readonly p: number };

/** One port of a list: its name, use and place, and its fields when it is opened. */
export function PortRow({ port, t, p }: Props) {
  const sides = useSides();
  const row = port.part ? portPart(port.part) : undefined;
  return (
    <chakra.details borderTopWidth="1px" borderColor="rule" pt="2" data-path={`tanks.${t}.ports.${p}`}>
      <chakra.summary minH="42px" cursor="pointer">
        <b>{port.name}</b>{' '}
        <chakra.span color="soft">
          {ROLE_WORDS[port.role].toLowerCase()}, {sides(FACE_WORDS[port.face])},{' '}
          {row ? row.name : port.on ? 'spigot' : 'part not chosen'}
          {port.existing ? ', there already' : ''}
        </chakra.span>
      </chakra.summary>
      <PortFields port={port} t={t} p={p} />
    </chakra.details>
  );
}

/** What a port is for, of which part it is made, where it sits and what stands on it. */
export function PortFields({ port, t, p }: Props) {
  const sides = useSides();
  const list = ['tanks', t, 'ports'] as const;
  const at = (...keys: string[]) => [...list, p, ...keys];
  const of = (words: string): string => `${words}, ${port.name}`;
  const inUse = useValue((system) =>
    [...system.tanks[t]!.pickups, ...system.tanks[t]!.senders, ...system.tanks[t]!.dipsticks].some(
      (part) => part.port === port.id,
    ),
  );
  const joined = useValue((system) =>
    system.lines.some(({ from, to }) => from.item === port.id || to.item === port.id),
  );
  const wet = useDetails(
    ({ results }) => results?.ok === true && results.evaluation.tanks[t]?.wetPorts.includes(port.id) === true,
  );
  const ports = useValue((system) => system.tanks[t]!.ports);
  const carriers = carriersFor(ports, port);
  const carries = ports.some(({ on }) => on === port.id);
  const row = port.part ? portPart(port.part) : undefined;
  const stands = standsOn(port);
  return (
    <Owner name={port.name}>
      <EntryHead
        name={port.name}
        list={list}
        index={p}
        heldBy={
          inUse
            ? 'A pickup, sender or stick hangs in this port'
            : joined
              ? 'A line is joined to this port'
              : carries
                ? 'A spigot stands on this port'
                : undefined
        }
      >
        <Select
          label="For"
          width="150px"
          value={port.role}
          options={PORT_ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))}
          onChange={(value) => setValue('use of a port', at('role'), value)}
        />
        <Select
          label="On the"
          width="150px"
          value={port.face}
          options={FACES.map((value) => ({ value, label: sides(FACE_WORDS[value]) }))}
          onChange={(face) => applyEdit('face of a port', (current) => withFace(current, t, p, face))}
        />
        <Select
          label={of('Part')}
          width="280px"
          value={port.part ?? NO_PART}
          options={[
            { value: NO_PART, label: 'not chosen' },
            ...partsFor(port.role).map(({ key, name }) => ({ value: key, label: name })),
          ]}
          onChange={(key) =>
            applyEdit(`part of ${port.name}`, (current) => withPart(current, t, p, key === NO_PART ? undefined : key))
          }
        />
        {carriers.length > 0 && !carries && (
          <Select
            label={of('Stands on')}
            width="220px"
            value={port.on ?? THE_WALL}
            options={[
              { value: THE_WALL, label: 'the wall itself' },
              ...carriers.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={(id) => setValue(`what ${port.name} stands on`, at('on'), id === THE_WALL ? undefined : id)}
          />
        )}
      </EntryHead>
      {wet && (
        <Box fontSize="sm" color="soft" mb="2">
          Under the liquid now.
        </Box>
      )}
      {row && (
        <Box fontSize="sm" color="soft" mb="2">
          Seal: {row.seal}. {row.source[0]!.toUpperCase()}
          {row.source.slice(1)} ({row.status}).
        </Box>
      )}
      <FieldGrid>
        {(['x_m', 'y_m', 'z_m'] as const)
          .filter((axis) => port[axis])
          .map((axis) => (
            <KnownField key={axis} label={sides(AXIS_WORDS[axis])} path={at(axis)} />
          ))}
        <KnownField path={at('bore_m')} entry={{ line: 'hose' }} />
        {port.length_m && <KnownField path={at('length_m')} />}
        {port.drop_m && <KnownField path={at('drop_m')} />}
        {port.hole_m && <KnownField label={of('Hole to be cut')} path={at('hole_m')} />}
        {port.bolts && <KnownField label={of('Circle of its screws')} path={at('bolts', 'circle_m')} />}
        {port.bolts && <KnownField label={of('Holes of its screws')} path={at('bolts', 'diameter_m')} />}
        {port.clock_deg && <KnownField label={of('First screw, clockwise from up')} path={at('clock_deg')} />}
      </FieldGrid>
      <Box display="flex" gap="3" flexWrap="wrap" alignItems="center" mt="2">
        {port.on === undefined && (
          <chakra.label display="flex" gap="2" alignItems="center" minH="44px" cursor="pointer">
            <chakra.input
              type="checkbox"
              width="22px"
              height="22px"
              accentColor="var(--chakra-colors-accent)"
              checked={port.existing === true}
              onChange={(event) =>
                setValue(
                  `whether ${port.name} is there already`,
                  at('existing'),
                  event.target.checked ? true : undefined,
                )
              }
            />
            There already: nothing is cut
          </chakra.label>
        )}
        {row?.bolts && port.on === undefined && (
          <Button onClick={() => applyEdit(`spigot on ${port.name}`, (current) => withSpigot(current, t, p))}>
            Add a spigot on it
          </Button>
        )}
        {!port.hole_m && port.on === undefined && (
          <Button
            onClick={() => setValue(`hole of ${port.name}`, at('hole_m'), chosen(row?.hole ?? port.bore_m.value))}
          >
            Its hole differs
          </Button>
        )}
        {port.bolts?.outOfStep_deg && (
          <KnownField label={of('Last screw out of step by, clockwise')} path={at('bolts', 'outOfStep_deg')} />
        )}
        {port.bolts && !port.bolts.outOfStep_deg && (
          <Button onClick={() => setValue(`screws of ${port.name}`, at('bolts', 'outOfStep_deg'), chosen(0))}>
            One screw is out of step
          </Button>
        )}
        {row?.bolts && !port.bolts && (
          <Button
            onClick={() =>
              setValue(`screws of ${port.name}`, at('bolts'), {
                count: row.bolts!.count,
                circle_m: chosen(row.bolts!.circle),
                diameter_m: chosen(0.0055),
                outOfStep_deg: chosen(0),
              })
            }
          >
            Its screws differ
          </Button>
        )}
        {!port.stands && (
          <Button
            onClick={() =>
              setValue(`what stands on ${port.name}`, at('stands'), {
                height_m: chosen(stands.height_m),
                diameter_m: chosen(stands.diameter_m),
                turns: 'straight',
                reach_m: chosen(0.05),
              })
            }
          >
            A hose end turns aside
          </Button>
        )}
        {port.stands && (
          <Button onClick={() => setValue(`what stands on ${port.name}`, at('stands'), undefined)}>
            As usual for its part
          </Button>
        )}
      </Box>
      {port.stands && (
        <Box mt="2">
          <FieldGrid>
            <KnownField label={of('Stands over the face')} path={at('stands', 'height_m')} />
            <KnownField label={of('Is as wide as')} path={at('stands', 'diameter_m')} />
            <Select
              label={of('Hose end goes')}
              value={port.stands.turns}
              options={TURNS.map((value) => ({ value, label: sides(TURN_WORDS[value]) }))}
              onChange={(value) => setValue(`where the hose end of ${port.name} goes`, at('stands', 'turns'), value)}
            />
            <KnownField label={of('Hose end reaches')} path={at('stands', 'reach_m')} />
          </FieldGrid>
        </Box>
      )}
    </Owner>
  );
}

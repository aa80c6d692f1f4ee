'use client';

import { Box } from '@chakra-ui/react';
import type { SystemDocument } from '@/core/plan';
import { inReaderUnits } from '@/core/units';
import { Select } from '../fields/Select';
import { setValue, useValue } from '../state/editor';
import { useReader } from '../state/reader';

type PracticeKey = keyof Required<SystemDocument['practice']>;
type School = { readonly value: string; readonly label: string; readonly reason: string };

/** Where builders disagree: the schools, the first one the default, each with its reason. */
const SCHOOLS: Readonly<Record<PracticeKey, { readonly title: string; readonly schools: readonly School[] }>> = {
  outlet: {
    title: 'Tube from the lid or outlet in the bottom',
    schools: [
      {
        value: 'top-tube',
        label: 'Tube from the lid (default)',
        reason: 'A failed hose drains nothing, and nothing hangs where stones strike.',
      },
      {
        value: 'bottom-outlet',
        label: 'Outlet in the bottom',
        reason: 'Feeds by gravity and to the last drop; wants a valve on the tank, and some rules forbid it.',
      },
    ],
  },
  pickup: {
    title: 'Pickup off the floor or on it',
    schools: [
      {
        value: 'off-floor',
        label: 'About {tape 0.025} off the floor (default)',
        reason: 'Water and dirt stay below it.',
      },
      {
        value: 'on-floor',
        label: 'On the floor with a sock',
        reason: 'Leaves least behind; the sock must be reachable.',
      },
    ],
  },
  strainer: {
    title: 'Strainer inside or outside',
    schools: [
      { value: 'outside', label: 'Filter outside (default)', reason: 'You can see it, reach it and change it.' },
      { value: 'inside', label: 'Sock or mesh inside', reason: 'Guards the pump itself; right for an in-tank pump.' },
    ],
  },
  heaterPickup: {
    title: 'Heater’s pickup higher or deep',
    schools: [
      {
        value: 'higher',
        label: 'Higher than the engine’s (default)',
        reason: 'It can never strand the vehicle, and its going out is the low-fuel warning.',
      },
      {
        value: 'deep',
        label: 'As deep as it goes',
        reason: 'Warm to the last litre; the gauge or a lamp must warn instead.',
      },
    ],
  },
  ports: {
    title: 'New port or one that is there',
    schools: [
      { value: 'new', label: 'A new port (default)', reason: 'Right size, place and thread, and known to be sound.' },
      {
        value: 'existing',
        label: 'One that is there',
        reason: 'Saves a leak point; find out its thread first, and what hung in it.',
      },
    ],
  },
  sender: {
    title: 'New sender or salvaged one',
    schools: [
      {
        value: 'new',
        label: 'New, made for the depth (default)',
        reason: 'Arm and pivot set to this tank; its range is printed on it.',
      },
      {
        value: 'salvaged',
        label: 'Salvaged from another tank',
        reason:
          'Costs nothing, but pivot and arm suit the other tank’s depth: work out what to cut or bend before it goes in.',
      },
    ],
  },
  vent: {
    title: 'Vent line or vented cap',
    schools: [
      {
        value: 'vent-line',
        label: 'Vent line (default)',
        reason: 'Lets a nozzle fill fast, and its outlet can be put high and sheltered.',
      },
      {
        value: 'vented-cap',
        label: 'Vented cap',
        reason: 'Enough for a heater or a carburettor on a small tank; not for filling by nozzle.',
      },
    ],
  },
  fill: {
    title: 'Fill to 95 % or to click-off',
    schools: [
      { value: '95-percent', label: 'To 95 % (default)', reason: 'Head room for cold fuel that warms.' },
      {
        value: 'click-off',
        label: 'To click-off',
        reason: 'Where the neck ends below the lid, click-off itself leaves the head room.',
      },
    ],
  },
  returnOutlet: {
    title: 'Return low or high',
    schools: [
      {
        value: 'low',
        label: 'Led down near the floor (default)',
        reason: 'Does not foam the fuel; away from the pickup, so that warm fuel and bubbles are not drawn at once.',
      },
      {
        value: 'high',
        label: 'Dropped in at the top',
        reason: 'Nothing can siphon back through it, and it needs no tube; it aerates the fuel and builds static.',
      },
    ],
  },
  transferBy: {
    title: 'Transfer by pump, gravity, vacuum or selector valve',
    schools: [
      {
        value: 'pump',
        label: 'Transfer pump (default)',
        reason: 'Moves it when you say so, uphill too; wants wire, fuse and a way to stop.',
      },
      {
        value: 'gravity',
        label: 'Gravity from above',
        reason: 'Nothing to fail, but it goes on until levels or vents stop it: a valve is needed.',
      },
      {
        value: 'vacuum',
        label: 'Vacuum of the sealed main',
        reason:
          'Works only while the main’s other breathers are shut and the auxiliary’s is open; the auxiliary empties first.',
      },
      {
        value: 'selector',
        label: 'Selector valve',
        reason: 'The engine draws from either; a return must be switched with it or one tank overflows.',
      },
    ],
  },
  lineFor: {
    title: 'Line sized for today or for later',
    schools: [
      { value: 'today', label: 'For today (default)', reason: 'Less to buy, to hold and to spill when it is opened.' },
      {
        value: 'later',
        label: 'One size larger',
        reason: 'For the next engine or pump; the new line then need not be run again.',
      },
    ],
  },
  meter: {
    title: 'Meter before or after the filter',
    schools: [
      { value: 'after-filter', label: 'After the filter (default)', reason: 'Clean fuel does not jam it.' },
      {
        value: 'before-filter',
        label: 'Before the filter',
        reason: 'It counts what leaves the tank even when the filter is changed; wants a strainer of its own.',
      },
    ],
  },
  surge: {
    title: 'Baffles, foam or a trap door',
    schools: [
      {
        value: 'baffles',
        label: 'Baffles (usual)',
        reason: 'Stiffen the flats as well; slow what surges, and do not hold it.',
      },
      {
        value: 'foam',
        label: 'Foam',
        reason: 'Slows slosh everywhere and takes a few per cent; holds nothing at the pickup, and ages.',
      },
      {
        value: 'trap-door',
        label: 'Trap door into the pickup’s bay',
        reason: 'Holds fuel at the pickup while it brakes or corners, for as long as it leaks little.',
      },
    ],
  },
  catchTank: {
    title: 'Catch tank large or small',
    schools: [
      { value: 'full', label: 'As much as the engine has', reason: 'All of its oil may come at once.' },
      {
        value: 'small',
        label: 'Small, emptied often',
        reason: 'Light and easy to place; somebody must look into it after every run.',
      },
    ],
  },
  expelledPlace: {
    title: 'Catch tank clear of the wheels or as ballast',
    schools: [
      {
        value: 'clear',
        label: 'Clear of the wheels (default)',
        reason: 'What leaks or runs over falls on no tyre and on nothing hot.',
      },
      {
        value: 'ballast',
        label: 'Where its weight helps',
        reason:
          'Weight over the driven wheels, or low on the light side; a leak then lands on a tyre, so it is boxed in.',
      },
    ],
  },
  lining: {
    title: 'Lined or bare',
    schools: [
      {
        value: 'bare',
        label: 'Bare (usual)',
        reason: 'Nothing that can lift and block a filter; right for aluminium and stainless.',
      },
      {
        value: 'lined',
        label: 'Lined',
        reason:
          'Keeps steel from rusting; wants a clean wall, the right liner for the fuel, and its full time to cure.',
      },
    ],
  },
  welds: {
    title: 'Welds proud or dressed',
    schools: [
      { value: 'proud', label: 'Left proud (usual)', reason: 'The bead is part of its strength.' },
      {
        value: 'dressed',
        label: 'Dressed flush',
        reason: 'Lies flat under straps and looks well; keeps less metal, and opens pores: test it afterwards.',
      },
    ],
  },
  flats: {
    title: 'Thicker flats or beads',
    schools: [
      { value: 'thick', label: 'Thicker sheet, flat (usual)', reason: 'Simple to cut, fold and weld.' },
      {
        value: 'beads',
        label: 'Thin sheet with beads',
        reason: 'Lighter; beads keep flats from drumming, and want a bead roller.',
      },
    ],
  },
  losses: {
    title: 'Losses of fittings',
    schools: [
      {
        value: 'two-k',
        label: 'Two-K, Hooper (default)',
        reason: 'Asks for more pressure in small bores: the safe side.',
      },
      {
        value: 'three-k',
        label: 'Three-K, Darby',
        reason: 'Fitted to data over more sizes; closer where the fittings are good ones.',
      },
    ],
  },
};

const UNSAID = 'unsaid';

export function Practice({ of }: { readonly of: PracticeKey }) {
  const chosen = useValue((system) => system.practice[of]);
  const { title, schools } = SCHOOLS[of];
  const reader = useReader();
  const current = schools.find((school) => school.value === chosen);
  return (
    <Box data-path={`practice.${of}`}>
      <Select
        label={title}
        value={chosen ?? UNSAID}
        options={[
          ...(chosen === undefined ? [{ value: UNSAID, label: 'not chosen' }] : []),
          ...schools.map(({ value, label }) => ({ value: value as string, label: inReaderUnits(label, reader) })),
        ]}
        onChange={(value) => value !== UNSAID && setValue(title, ['practice', of], value)}
      />
      <Box fontSize="sm" color="soft" mt="2px">
        {current?.reason}
      </Box>
    </Box>
  );
}

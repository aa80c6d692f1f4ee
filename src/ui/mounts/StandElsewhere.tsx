'use client';

import { Box } from '@chakra-ui/react';
import { MOVED_M, type Stands } from '@/core/answers';
import { withTankMoved, type StanceDocument } from '@/core/plan';
import { type Vec3 } from '@/core/geometry';
import { type Role } from '@/core/units';
import { onTape, stepsNow } from '../drawing/tapeSteps';
import { Button } from '../parts/Button';
import { applyEdit, useSystem } from '../state/editor';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';
import { useWrite } from '../parts/Table';
import { isLevel } from './level';

/** What moving the tank does, and where it would stand even. */
export function Elsewhere({ stance, stands }: { readonly stance: StanceDocument; readonly stands: Stands }) {
  const t = useTank();
  const system = useSystem();
  const sides = useSides();
  const write = useWrite();
  const own = stands.moved.filter(({ tanks }) => tanks.includes(t));
  const [fore, port] = [own.find(({ way }) => way === 'fore'), own.find(({ way }) => way === 'port')];
  if (!fore || !port) return null;
  const name = fore.tanks.map((each) => system.tanks[each]!.name).join(' and ');
  const more = (value: number, role: Role): string => `${value < 0 ? '−' : '+'}${write(Math.abs(value), role)}`;
  const axles = stance.axles ?? [];
  const { hull } = stands;
  const words = [
    ...(fore.axles_kg
      ? [
          `${sides('forward')}: ${fore.axles_kg.map((value, a) => `${axles[a]?.name} ${more(value, 'mass')}`).join(', ')}${
            fore.hitch_kg === undefined ? '' : `, coupling ${more(fore.hitch_kg, 'mass')}`
          }`,
        ]
      : []),
    ...(port.port_kg === undefined
      ? []
      : [`${sides('to port')}: ${more(port.port_kg, 'mass')} ${sides('on the port side')}`]),
    ...(fore.bowDown_rad === undefined || !hull
      ? []
      : [`forward: ${more(Math.tan(fore.bowDown_rad) * (hull.fore_m - hull.aft_m), 'tape')} bow down over her length`]),
    ...(port.portDown_rad === undefined ? [] : [`to port: ${more(port.portDown_rad, 'slope')} port side down`]),
  ];
  const places = betterPlaces(stance, stands, fore, port);
  return (
    <Box mt="3" data-testid="elsewhere">
      <Box>
        {name}, full, {write(MOVED_M, 'tape')} further {words.join('; ')}.
      </Box>
      {stance.weighed !== 'without' ? (
        <Box color="soft" mt="1">
          It was weighed with the tanks where they stood. Weigh it without them, or take them off, to move them here.
        </Box>
      ) : (
        places.length > 0 && (
          <Box display="flex" gap="2" flexWrap="wrap" mt="2">
            {places.map(({ by_m, even }) => {
              const k = by_m[0] === 0 ? 1 : 0;
              const way = k === 1 ? (by_m[1] > 0 ? 'to port' : 'to starboard') : by_m[0] > 0 ? 'forward' : 'aft';
              const text = `${write(Math.abs(by_m[k]), 'tape')} ${sides(way)}: ${even}`;
              return (
                <Button
                  key={even}
                  onClick={() => applyEdit(`move ${name} ${text}`, (current) => withTankMoved(current, t, by_m))}
                >
                  {text}
                </Button>
              );
            })}
          </Box>
        )
      )}
    </Box>
  );
}

/** Further than this it is another tank [m]. */
const MOST_MOVE_M = 3;
/** Sides that differ by less of the whole are alike. */
const UNEVEN_REL = 0.005;

/** Where it would stand, all full, so that both sides are alike, or so that she trims level. */
function betterPlaces(
  stance: StanceDocument,
  stands: Stands,
  fore: Stands['moved'][number],
  port: Stands['moved'][number],
): { readonly by_m: Vec3; readonly even: string }[] {
  const full = stands.cases.find(({ fill }) => fill === 'full');
  if (!full) return [];
  const found: { by_m: Vec3; even: string }[] = [];
  const step = (off: number, each: number | undefined): number | undefined => {
    if (each === undefined || Math.abs(each) < 1e-9) return undefined;
    const by = onTape((-off / each) * MOVED_M, stepsNow());
    return Math.abs(by) > MOST_MOVE_M || by === 0 ? undefined : by;
  };
  if (full.wheels?.ok && full.wheels.value.lifts.length === 0) {
    const off = full.wheels.value.axles.reduce((sum, { port_kg, starboard_kg }) => sum + port_kg - starboard_kg, 0) / 2;
    const by = step(off, port.port_kg);
    if (by !== undefined && Math.abs(off) > UNEVEN_REL * full.wheels.value.total_kg)
      found.push({ by_m: [0, by, 0], even: 'both sides alike' });
  }
  if (full.afloat?.ok && stance.hull) {
    const across = step(full.afloat.value.portDown_rad, port.portDown_rad);
    if (across !== undefined && !isLevel(full.afloat.value.portDown_rad))
      found.push({ by_m: [0, across, 0], even: 'she does not list' });
    const along = step(full.afloat.value.bowDown_rad, fore.bowDown_rad);
    if (along !== undefined && !isLevel(full.afloat.value.bowDown_rad))
      found.push({ by_m: [along, 0, 0], even: 'she trims level' });
  }
  return found;
}

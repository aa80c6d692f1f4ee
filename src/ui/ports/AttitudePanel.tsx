'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import type { SystemDocument } from '@/core/plan';
import { MAP_LIMIT, type MapMode, type TankMap } from '@/core/answers';
import { STANDARD_GRAVITY_M_PER_S2 } from '@/core/units';
import { Select } from '../fields/Select';
import { Panel } from '../parts/Panel';
import { Quantity } from '../parts/Quantity';
import { applyEdit } from '../state/editor';
import { useDetails } from '../state/results';
import { useTank } from '../state/tankChoice';
import { AttitudeMapView } from './AttitudeMapView';
import { useTankMap } from './useTankMap';

const MODE_WORDS: Readonly<Record<MapMode, string>> = { slope: 'slopes, standing still', g: 'braking and cornering' };

/** What stays behind at every slope, or under every push; a click goes there. */
export function AttitudePanel() {
  const { results, system } = useDetails();
  const [mode, setMode] = useState<MapMode>('slope');
  const [chosen, setChosen] = useState(0);
  const t = useTank();
  const { map, why, fresh } = useTankMap(t, mode);
  const holds = results?.ok ? results.evaluation.tanks[t]?.holds_m3 : undefined;
  if (!system) return null;
  const pickup = Math.min(chosen, (map?.pickups.length ?? 1) - 1);
  return (
    <Panel title="What stays behind, all round" testId="attitude-map">
      <Box display="flex" gap="3" flexWrap="wrap" mb="3">
        <Select
          label="Over"
          width="240px"
          value={mode}
          options={(['slope', 'g'] as const).map((value) => ({ value, label: MODE_WORDS[value] }))}
          onChange={setMode}
        />
        {map && map.pickups.length > 1 && (
          <Select
            label="For"
            width="240px"
            value={String(pickup)}
            options={map.pickups.map(({ name }, i) => ({ value: String(i), label: name }))}
            onChange={(value) => setChosen(Number(value))}
          />
        )}
      </Box>
      {why && (
        <Box color="stop" fontWeight="600">
          {why}
        </Box>
      )}
      {!map && !why && (
        <Box minH="300px" display="grid" placeItems="center" color="soft" role="status">
          Tilting the tank every way…
        </Box>
      )}
      {map && map.mode === mode && holds && (
        <Box aria-busy={!fresh} opacity={fresh ? 1 : 0.6}>
          <AttitudeMapView
            map={map}
            pickup={pickup}
            holds_m3={holds}
            at={pointOf(system, mode)}
            envelope={mode === 'slope' ? envelopeOf(system) : pushesOf(system)}
            onPick={(x, y) => goThere(mode, () => [x, y])}
            onMove={(dx, dy) => goThere(mode, ([x, y]) => [x + dx, y + dy])}
          />
          {map.pickups.length > 1 && <StarvesFirst map={map} at={pointOf(system, mode)} />}
        </Box>
      )}
    </Panel>
  );
}

const pointOf = ({ conditions }: SystemDocument, mode: MapMode): readonly [number, number] =>
  mode === 'slope'
    ? [conditions.roll_deg, conditions.pitch_deg]
    : [
        conditions.accelerationPort_mPerS2 / STANDARD_GRAVITY_M_PER_S2,
        conditions.accelerationForward_mPerS2 / STANDARD_GRAVITY_M_PER_S2,
      ];

const envelopeOf = ({ envelope }: SystemDocument) => ({
  x: [-envelope.portDown_deg.value, envelope.starboardDown_deg.value] as const,
  y: [-envelope.noseDown_deg.value, envelope.noseUp_deg.value] as const,
});

/** The hardest that the vehicle moves, in g: braking is a push backward. */
const pushesOf = ({ envelope }: SystemDocument) => {
  const g = (known: { readonly value: number }): number => known.value / STANDARD_GRAVITY_M_PER_S2;
  return {
    x: [-g(envelope.cornering_mPerS2), g(envelope.cornering_mPerS2)] as const,
    y: [-g(envelope.braking_mPerS2), g(envelope.driving_mPerS2)] as const,
  };
};

/** No finer than a finger can point. */
const toStep = (value: number, step: number): number => Math.round(value / step) * step;

/**
 * Sets the conditions to a point of the map, told from where the document stands now: what is drawn may be some steps
 * behind.
 */
function goThere(mode: MapMode, to: (from: readonly [number, number]) => readonly [number, number]): void {
  const limit = MAP_LIMIT[mode];
  const held = (value: number): number => Math.min(limit, Math.max(-limit, value));
  applyEdit(mode === 'slope' ? 'slope from the map' : 'push from the map', (system) => {
    const [x, y] = to(pointOf(system, mode));
    return {
      ...system,
      conditions:
        mode === 'slope'
          ? { ...system.conditions, roll_deg: toStep(held(x), 0.5), pitch_deg: toStep(held(y), 0.5) }
          : {
              ...system.conditions,
              accelerationPort_mPerS2: toStep(held(x), 0.05) * STANDARD_GRAVITY_M_PER_S2,
              accelerationForward_mPerS2: toStep(held(y), 0.05) * STANDARD_GRAVITY_M_PER_S2,
            },
    };
  });
}

/** Of two pickups or more: which draws air first where the conditions stand, and what the other still has. */
function StarvesFirst({ map, at }: { readonly map: TankMap; readonly at: readonly [number, number] }) {
  const nearest = (axis: readonly number[], value: number): number =>
    axis.reduce((best, each, i) => (Math.abs(each - value) < Math.abs(axis[best]! - value) ? i : best), 0);
  const index = nearest(map.ys, at[1]) * map.xs.length + nearest(map.xs, at[0]);
  const order = map.pickups
    .map((pickup, p) => ({ ...pickup, left: map.left_m3[p]![index]! }))
    .sort((a, b) => b.left - a.left);
  const [first, next] = [order[0]!, order[1]!];
  return (
    <Box mt="2">
      Here <b>{first.name}</b> starves first; <b>{next.name}</b> then has{' '}
      <b>
        <Quantity value={first.left - next.left} role="tankVolume" />
      </b>{' '}
      more.
    </Box>
  );
}

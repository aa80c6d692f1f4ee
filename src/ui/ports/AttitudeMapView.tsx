'use client';

import { Box } from '@chakra-ui/react';
import { useTheme } from 'next-themes';
import { useEffect, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import type { TankMap } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { arrowMove } from '../drawing/arrows';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';

type Props = {
  readonly map: TankMap;
  readonly pickup: number;
  readonly holds_m3: number;
  /** Where the conditions stand. */
  readonly at: readonly [number, number];
  readonly envelope: { readonly x: readonly [number, number]; readonly y: readonly [number, number] } | undefined;
  readonly onPick: (x: number, y: number) => void;
  /** By so much from where the document stands, which may be further on than `at`. */
  readonly onMove: (dx: number, dy: number) => void;
};

/** From nothing to a third of what the tank holds, and more. */
const SCALE_TOP = 1 / 3;
const PALE = { light: [247, 243, 232], dark: [32, 38, 43] } as const;
const AMBER = { light: [217, 154, 43], dark: [182, 122, 23] } as const;
const RED = { light: [150, 20, 20], dark: [255, 120, 105] } as const;

const WORDS = {
  slope: { x: ['port down', 'starboard down'], y: ['nose down', 'nose up'], unit: '°', step: 1 },
  g: { x: ['turning right', 'turning left'], y: ['braking', 'speeding up'], unit: ' g', step: 0.05 },
} as const;

const SIZE = 340;
const EDGE = 44;

/** The map as a picture with axes, the slopes asked for drawn on it, and where the conditions stand. */
export function AttitudeMapView({ map, pickup, holds_m3, at, envelope, onPick, onMove }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { resolvedTheme } = useTheme();
  const reader = useReader();
  const theme = resolvedTheme === 'dark' ? 'dark' : 'light';
  const limit = map.xs.at(-1)!;
  const sides = useSides();
  const words = { ...WORDS[map.mode], x: WORDS[map.mode].x.map(sides) };
  const values = map.left_m3[pickup]!;

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const n = map.xs.length;
    const image = context.createImageData(n, n);
    for (let row = 0; row < n; row++) {
      for (let column = 0; column < n; column++) {
        const share = values[row * n + column]! / holds_m3 / SCALE_TOP;
        const pixel = ((n - 1 - row) * n + column) * 4;
        image.data.set([...shade(share, theme), 255], pixel);
      }
    }
    context.putImageData(image, 0, 0);
  }, [map, values, holds_m3, theme]);

  const place = ([x, y]: readonly [number, number]): [number, number] => [
    ((x + limit) / (2 * limit)) * SIZE,
    ((limit - y) / (2 * limit)) * SIZE,
  ];
  const onClick = (event: MouseEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    onPick(
      ((event.clientX - box.left) / box.width) * 2 * limit - limit,
      limit - ((event.clientY - box.top) / box.height) * 2 * limit,
    );
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = arrowMove(event, words.step * (event.shiftKey ? 5 : 1));
    if (by) onMove(by[0], by[1]);
  };
  const inside = envelope ? worstWithin(map, values, envelope) : undefined;
  const text = (value: number): string => formatQuantity(value, 'tankVolume', { reader, digits: 2 }).text;
  const [px, py] = place(at);
  return (
    <Box display="flex" gap="5" flexWrap="wrap" alignItems="start">
      <Box position="relative" width={`min(100%, ${SIZE + EDGE}px)`} pb="20px" pl={`${EDGE}px`}>
        <Box position="relative" width="100%" aspectRatio="1">
          <canvas
            ref={canvas}
            width={map.xs.length}
            height={map.xs.length}
            style={{
              width: '100%',
              height: '100%',
              imageRendering: map.xs.length > 40 ? 'auto' : 'pixelated',
              display: 'block',
            }}
          />
          <svg
            viewBox={`0 0 ${SIZE} ${SIZE}`}
            onClick={onClick}
            onKeyDown={onKeyDown}
            tabIndex={0}
            role="application"
            data-testid="map-field"
            aria-label={`Map of what stays behind over ${words.x.join(' to ')} and ${words.y.join(' to ')}. Arrow keys move the conditions.`}
            style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', cursor: 'crosshair' }}
          >
            <path
              d={`M ${SIZE / 2} 0 V ${SIZE} M 0 ${SIZE / 2} H ${SIZE}`}
              stroke="var(--chakra-colors-edge)"
              strokeWidth="1"
              strokeDasharray="3 4"
            />
            {envelope && (
              <Envelope corners={[place([envelope.x[0], envelope.y[1]]), place([envelope.x[1], envelope.y[0]])]} />
            )}
            <g stroke="var(--chakra-colors-ink)" strokeWidth="2.5" fill="none">
              <circle cx={px} cy={py} r="8" stroke="var(--chakra-colors-panel)" strokeWidth="5" />
              <circle cx={px} cy={py} r="8" />
              <path d={`M ${px - 14} ${py} H ${px + 14} M ${px} ${py - 14} V ${py + 14}`} />
            </g>
          </svg>
        </Box>
        <Box display="flex" justifyContent="space-between" fontSize="xs" color="soft" mt="1">
          <span>
            {words.x[0]} {limit}
            {words.unit}
          </span>
          <span>
            {words.x[1]} {limit}
            {words.unit}
          </span>
        </Box>
        <Box
          position="absolute"
          left="0"
          top="0"
          bottom="20px"
          width={`${EDGE - 6}px`}
          display="flex"
          flexDirection="column"
          justifyContent="space-between"
          fontSize="xs"
          color="soft"
          textAlign="right"
          lineHeight="1.1"
        >
          <span>
            {words.y[1]} {limit}
            {words.unit}
          </span>
          <span>
            {words.y[0]} {limit}
            {words.unit}
          </span>
        </Box>
      </Box>
      <Box flex="1 1 220px" minW="0">
        <Legend theme={theme} top={text(holds_m3 * SCALE_TOP)} none={text(0)} />
        {inside && (
          <Box mt="3">
            Within the slopes asked for, at worst <b>{text(inside)}</b> of {text(holds_m3)} stay behind.
          </Box>
        )}
        <Box mt="2" color="soft" fontSize="sm">
          Click, or use the arrow keys, to stand there. {envelope && 'The dashed box is what you asked for.'}
        </Box>
      </Box>
    </Box>
  );
}

function shade(share: number, theme: 'light' | 'dark'): [number, number, number] {
  if (!Number.isFinite(share)) return [128, 128, 128];
  const held = Math.min(1, Math.max(0, share));
  const [from, to, t] =
    held < 0.5 ? ([PALE[theme], AMBER[theme], held * 2] as const) : ([AMBER[theme], RED[theme], held * 2 - 1] as const);
  return [0, 1, 2].map((i) => Math.round(from[i]! + (to[i]! - from[i]!) * t)) as [number, number, number];
}

function worstWithin(map: TankMap, values: Float64Array, { x, y }: NonNullable<Props['envelope']>): number {
  let worst = 0;
  map.ys.forEach((pitch, row) =>
    map.xs.forEach((roll, column) => {
      if (roll >= x[0] && roll <= x[1] && pitch >= y[0] && pitch <= y[1])
        worst = Math.max(worst, values[row * map.xs.length + column]!);
    }),
  );
  return worst;
}

const Envelope = ({
  corners: [[left, top], [right, bottom]],
}: {
  readonly corners: readonly [readonly [number, number], readonly [number, number]];
}) => (
  <rect
    x={left}
    y={top}
    width={right - left}
    height={bottom - top}
    fill="none"
    stroke="var(--chakra-colors-accent)"
    strokeWidth="3"
    strokeDasharray="8 5"
  />
);

function Legend({
  theme,
  top,
  none,
}: {
  readonly theme: 'light' | 'dark';
  readonly top: string;
  readonly none: string;
}) {
  const stops = [0, 0.25, 0.5, 0.75, 1].map((share) => `rgb(${shade(share, theme).join(',')})`).join(', ');
  return (
    <Box maxW="300px">
      <Box fontSize="sm" mb="1">
        Stays behind
      </Box>
      <Box
        height="16px"
        borderRadius="sm"
        borderWidth="1px"
        borderColor="rule"
        style={{ background: `linear-gradient(to right, ${stops})` }}
      />
      <Box display="flex" justifyContent="space-between" fontSize="sm">
        <span>{none}</span>
        <span>{top} and more</span>
      </Box>
    </Box>
  );
}

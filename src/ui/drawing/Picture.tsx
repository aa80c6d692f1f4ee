'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Maximize2, Minimize2 } from 'lucide-react';
import { useTheme } from 'next-themes';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { TankSolid } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { useOutcome } from '../state/answers';
import { useReader } from '../state/reader';
import { useSides } from '../state/sides';
import { arrowMove } from './arrows';
import type { Scene, Where } from './scene';

type Props = { readonly index: number; readonly large?: boolean; readonly onToggle: () => void };

/** What a length takes up, at most [px]. */
const LABEL_PX = { wide: 96, tall: 24 };

/** The tank at the set conditions in three dimensions, which may be enlarged. */
export function Picture({ index, large = false, onToggle }: Props) {
  const { value, fresh } = useOutcome('solid', index);
  const Icon = large ? Minimize2 : Maximize2;
  return (
    <SolidPicture
      solid={value?.ok ? value.value : undefined}
      fresh={fresh}
      {...(value?.ok === false ? { why: value.error.detail } : {})}
      {...(large ? { height: '60vh' } : {})}
    >
      <chakra.button
        type="button"
        aria-label={large ? 'Back to the views' : 'Enlarge the picture'}
        title={large ? 'Back to the views' : 'Enlarge the picture'}
        onClick={onToggle}
        minW="44px"
        minH="40px"
        display="grid"
        placeItems="center"
        cursor="pointer"
      >
        <Icon size={18} aria-hidden />
      </chakra.button>
    </SolidPicture>
  );
}

/** A tank in three dimensions: turn it by dragging or with the arrow keys, cut it open with the slider. */
export function SolidPicture({
  solid,
  fresh,
  why: missing,
  height = '100%',
  children,
}: {
  readonly solid: TankSolid | undefined;
  readonly fresh: boolean;
  /** Why there is none. */ readonly why?: string;
  readonly height?: string;
  /** Stands beside the slider. */ readonly children?: ReactNode;
}) {
  const sides = useSides();
  const reader = useReader();
  const { resolvedTheme } = useTheme();
  const holder = useRef<HTMLDivElement>(null);
  const scene = useRef<Scene>(undefined);
  const [why, setWhy] = useState('');
  const [cut, setCut] = useState(1);
  const [labels, setLabels] = useState<readonly Where[]>([]);

  useEffect(() => {
    let gone = false;
    void import('./scene')
      .then(({ openScene }) => {
        if (gone || !holder.current) return;
        const opened = openScene(holder.current, setLabels);
        if (typeof opened === 'string') setWhy(opened);
        else {
          scene.current = opened;
          setWhy('ready');
        }
      })
      .catch(() =>
        setWhy(
          'What draws the picture could not be loaded, since the server does not answer: reload the page when it does.',
        ),
      );
    return () => {
      gone = true;
      scene.current?.close();
      scene.current = undefined;
    };
  }, []);

  useEffect(() => {
    if (solid && why === 'ready') scene.current?.show(solid);
  }, [solid, why, resolvedTheme]);
  useEffect(() => scene.current?.cutAt(cut), [cut, solid, why]);

  const failed = why !== '' && why !== 'ready' ? why : missing;
  return (
    <Box
      position="relative"
      height={height}
      minH="120px"
      display="flex"
      flexDirection="column"
      className="no-print"
      data-testid="picture"
    >
      <Box
        ref={holder}
        flex="1"
        minH="0"
        position="relative"
        opacity={fresh ? 1 : 0.5}
        aria-busy={!fresh}
        tabIndex={0}
        role="img"
        aria-label="The tank in three dimensions; drag or use the arrow keys to turn it"
        cursor="grab"
        overflow="hidden"
        onKeyDown={(event) => {
          const turn = arrowMove(event, 1);
          if (turn) scene.current?.turn(turn[0], turn[1]);
        }}
      >
        {failed !== undefined && (
          <Box position="absolute" inset="0" display="grid" placeItems="center" textAlign="center" color="soft" p="3">
            {failed} The numbers do without this picture.
          </Box>
        )}
        {failed === undefined &&
          fresh &&
          labels.map(({ axis, x, y, length_m }) => (
            <Box
              key={axis}
              position="absolute"
              // Whole within the picture, wherever the edge ends that it measures.
              left={`clamp(${LABEL_PX.wide / 2}px, ${x}px, calc(100% - ${LABEL_PX.wide / 2}px))`}
              top={`clamp(${LABEL_PX.tall / 2}px, ${y}px, calc(100% - ${LABEL_PX.tall / 2}px))`}
              transform="translate(-50%, -50%)"
              px="1"
              bg="panel"
              borderRadius="sm"
              fontSize="sm"
              fontWeight="650"
              whiteSpace="nowrap"
              pointerEvents="none"
            >
              {formatQuantity(length_m, 'tape', { reader }).text}
            </Box>
          ))}
      </Box>
      <Box display="flex" gap="2" alignItems="center" px="1">
        <chakra.label flex="1" display="flex" alignItems="center" gap="2" fontSize="sm" color="soft" minW="0">
          Section
          <chakra.input
            type="range"
            aria-label={sides('Cut the picture open from starboard')}
            min="0"
            max="1"
            step="0.01"
            value={cut}
            onChange={(event) => setCut(Number(event.target.value))}
            flex="1"
            minW="0"
            minH="40px"
            accentColor="var(--chakra-colors-accent)"
          />
        </chakra.label>
        {children}
      </Box>
    </Box>
  );
}

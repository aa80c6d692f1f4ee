'use client';

import { Box } from '@chakra-ui/react';
import { dequal } from 'dequal';
import { useCallback, useState, type PointerEvent } from 'react';
import { LineChart, type ChartArea, type Curve } from '../charts/LineChart';
import type { Span } from './span';
import type { Told } from './timeWords';

type Props = {
  readonly title: string;
  readonly y: string;
  readonly unit: { readonly symbol: string; readonly unit_s: number };
  readonly span: Span;
  readonly curves: readonly Curve[];
  readonly summary: string;
  readonly at_s: number;
  readonly told: readonly Told[];
  readonly onTime: (at_s: number) => void;
  readonly yMin?: number;
  /** Its time axis is named; of several, the lowest's. */ readonly isLast: boolean;
};

/** One of several charts over the same time, with marks where something happens; a press goes to its moment. */
export function TimeChart({ title, y, unit, span, curves, summary, at_s, told, onTime, yMin, isLast }: Props) {
  const [from_s, to_s] = span;
  const [area, setArea] = useState<ChartArea>();
  // Told in the middle of drawing: the page follows when that is done. What is the same is not set anew.
  const keepArea = useCallback((next: ChartArea): void => {
    queueMicrotask(() => setArea((old) => (dequal(old, next) ? old : next)));
  }, []);
  const go = (event: PointerEvent<HTMLElement>): void => {
    if (!area || (event.type === 'pointermove' && event.buttons === 0)) return;
    const { left } = event.currentTarget.getBoundingClientRect();
    const share = (event.clientX - left - area.left) / (area.right - area.left);
    onTime(from_s + Math.min(1, Math.max(0, share)) * (to_s - from_s));
  };
  const xOf = (t_s: number): number => area!.left + ((t_s - from_s) / (to_s - from_s)) * (area!.right - area!.left);
  return (
    <Box>
      <Box fontWeight="650">{title}</Box>
      <LineChart
        x={isLast ? `time, ${unit.symbol}` : ''}
        y={y}
        height={isLast ? '160px' : '140px'}
        {...(yMin === undefined ? {} : { yMin })}
        xSpan={[from_s / unit.unit_s, to_s / unit.unit_s]}
        curves={curves}
        summary={summary}
        onArea={keepArea}
        over={
          area ? (
            <Box
              position="absolute"
              inset="0"
              cursor="crosshair"
              style={{ touchAction: 'pan-y' }}
              onPointerDown={go}
              onPointerMove={go}
              aria-hidden
            >
              {told
                .filter(({ severity, t_s }) => severity && t_s >= from_s && t_s <= to_s)
                .map(({ t_s, severity }, i) => (
                  <Box
                    key={i}
                    position="absolute"
                    top={`${area.top}px`}
                    height={`${area.bottom - area.top}px`}
                    left={`${xOf(t_s)}px`}
                    borderLeftWidth="1.5px"
                    borderLeftStyle="dashed"
                    borderColor={severity}
                    opacity="0.6"
                  />
                ))}
              <Box
                position="absolute"
                top={`${area.top}px`}
                height={`${area.bottom - area.top}px`}
                left={`${xOf(at_s)}px`}
                borderLeftWidth="2.5px"
                borderColor="ink"
              />
            </Box>
          ) : (
            ''
          )
        }
      />
    </Box>
  );
}

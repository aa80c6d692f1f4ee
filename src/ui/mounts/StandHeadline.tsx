'use client';

import { Box } from '@chakra-ui/react';
import { HEEL_SHOWS_RAD, TRIM_SHOWS_RAD, type Stands } from '@/core/answers';
import { type StanceDocument, type SystemDocument } from '@/core/plan';
import { useSystem } from '../state/editor';
import { useSides } from '../state/sides';
import { fillHead } from './fillHead';
import { useWrite, type Write } from '../parts/Table';
import { isLevel } from './level';

/** What it comes to, in a line: what of what it may bear is borne at most; how she lies, full. */
export function Headline({ stance, stands }: { readonly stance: StanceDocument; readonly stands: Stands }) {
  const system = useSystem();
  const sides = useSides();
  const write = useWrite();
  const lines = headlineOf(system, stance, stands, write);
  return (
    <>
      {lines.map(({ text, tone, more }) => (
        <Box key={text} mb="3" data-testid="stand-verdict">
          <Box fontSize="2xl" fontWeight="750" color={tone} lineHeight="1.2">
            {sides(text)}
          </Box>
          <Box>{more}</Box>
        </Box>
      ))}
    </>
  );
}

type HeadlineLine = { readonly text: string; readonly tone: 'good' | 'warn' | 'stop'; readonly more?: string };

function headlineOf(system: SystemDocument, stance: StanceDocument, { cases }: Stands, write: Write): HeadlineLine[] {
  const lines: HeadlineLine[] = [];
  const axles = stance.axles ?? [];
  if (axles.length > 0 && cases.every(({ wheels }) => wheels?.ok)) {
    const rated = [
      ...axles.map(({ name, rating_kg }, a) => ({ name, rating: rating_kg?.value, a })),
      ...(stance.hitch ? [{ name: 'Coupling', rating: stance.hitch.rating_kg?.value, a: -1 }] : []),
      { name: 'In all', rating: stance.rating_kg?.value, a: -2 },
    ];
    const loads = cases.flatMap((each) => {
      if (!each.wheels?.ok) return [];
      const { axles: on, hitch_kg, total_kg } = each.wheels.value;
      return rated.flatMap(({ name, rating, a }) => {
        const load = a === -2 ? total_kg : a === -1 ? hitch_kg! : on[a]!.load_kg;
        return rating === undefined ? [] : [{ name, each, load, rating }];
      });
    });
    const most = loads.reduce<(typeof loads)[number] | undefined>(
      (worst, one) => (worst && worst.load / worst.rating >= one.load / one.rating ? worst : one),
      undefined,
    );
    const unsaid = rated.filter(({ rating }) => rating === undefined).map(({ name }) => name.toLowerCase());
    const lifts = cases.some(({ wheels }) => wheels?.ok && wheels.value.lifts.length > 0);
    const more = unsaid.length > 0 ? `What may be borne is not said: ${unsaid.join(', ')}.` : undefined;
    if (lifts) lines.push({ text: 'A wheel lifts off the ground', tone: 'stop' });
    else if (!most) lines.push({ text: 'Not known whether it bears them', tone: 'warn', ...(more ? { more } : {}) });
    else
      lines.push({
        text: `${most.name}: ${write(most.load, 'load')} of ${write(most.rating, 'load')}, ${fillHead(system, most.each).toLowerCase()}`,
        tone: most.load > most.rating ? 'stop' : unsaid.length > 0 ? 'warn' : 'good',
        ...(more ? { more } : {}),
      });
  }
  const full = cases.find(({ fill }) => fill === 'full')?.afloat;
  if (full?.ok) {
    const { portDown_rad, bowDown_rad, gm_m } = full.value;
    const list = isLevel(portDown_rad)
      ? 'lies upright'
      : `lists ${write(Math.abs(portDown_rad), 'slope')} to ${portDown_rad > 0 ? 'port' : 'starboard'}`;
    const trim = isLevel(bowDown_rad)
      ? 'trims level'
      : `trims ${write(Math.abs(bowDown_rad), 'slope')} by the ${bowDown_rad > 0 ? 'bow' : 'stern'}`;
    lines.push({
      text: `Full she ${list} and ${trim}`,
      tone: Math.abs(portDown_rad) > HEEL_SHOWS_RAD || Math.abs(bowDown_rad) > TRIM_SHOWS_RAD ? 'warn' : 'good',
      more: `Against how she lay when she was weighed. ${write(gm_m, 'tape')} of metacentric height are left.`,
    });
  } else if (full) lines.push({ text: 'How she lies full is not known', tone: 'stop', more: full.error.detail });
  return lines;
}

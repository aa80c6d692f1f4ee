'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Copy, Download, Trash2 } from 'lucide-react';
import Link from 'next/link';
import type { NumberKey } from '@/core/answers';
import { useReader } from '../state/reader';
import { VEHICLE_WORDS, CONSUMER_WORDS } from '../parts/words';
import { figureOf } from '../numbers/cells';
import { labelsOf } from '../numbers/labels';
import type { ListedSystem } from './serverSystems';
import { useCard, type CardShown } from './useCard';

const SHOWN = ['holds', 'usable', 'delivers', 'goes'] as const satisfies readonly NumberKey[];
/** Of what feeds nobody, as much as it has. */
const OF_NO_CONSUMER = ['holds', 'comes', 'usable', 'backPressure'] as const satisfies readonly NumberKey[];

type Props = { readonly entry: ListedSystem; readonly onDelete: () => void; readonly onDuplicate: () => void };

/** One system with its four numbers; one that cannot be read says so, and can be taken out as it is kept. */
export function SystemCard({ entry, onDelete, onDuplicate }: Props) {
  const { shown, box } = useCard(entry);
  const { id, name } = entry;
  return (
    <Box
      as="article"
      ref={box}
      bg="panel"
      borderWidth="1px"
      borderColor={entry.readable ? 'rule' : 'stop'}
      borderRadius="lg"
      data-testid="system-card"
      position="relative"
      display="flex"
      flexDirection="column"
    >
      {entry.readable ? (
        <Link href={`/systems/${id}`} prefetch={false} style={{ display: 'block', padding: '16px', flex: 1 }}>
          <Box fontSize="xl" fontWeight="750" pr="100px">
            {name}
          </Box>
          <Box fontSize="sm" color="soft">
            {VEHICLE_WORDS[entry.vehicle]}
            {entry.consumer ? ` · ${CONSUMER_WORDS[entry.consumer]}` : ''}
          </Box>
          <CardNumbers shown={shown} consumer={entry.consumer} />
          <CardState shown={shown} />
          {entry.description && (
            <Box fontSize="sm" color="soft" mt="2">
              {entry.description}
            </Box>
          )}
        </Link>
      ) : (
        <Box p="4" flex="1">
          <Box fontSize="xl" fontWeight="750" pr="100px">
            {name}
          </Box>
          <Box fontWeight="600" color="stop" mt="2" data-testid="card-state">
            It cannot be read. {entry.detail}
          </Box>
          <chakra.a
            href={`/api/systems/${id}/file`}
            mt="3"
            display="inline-flex"
            alignItems="center"
            gap="2"
            minH="44px"
            textDecoration="underline"
          >
            <Download size={18} aria-hidden />
            Download it as it is kept
          </chakra.a>
        </Box>
      )}
      <Box position="absolute" top="2" right="2" display="flex">
        {entry.readable && (
          <CardButton label={`Duplicate ${name}`} onClick={onDuplicate}>
            <Copy size={18} aria-hidden />
          </CardButton>
        )}
        <CardButton label={`Delete ${name}`} onClick={onDelete}>
          <Trash2 size={18} aria-hidden />
        </CardButton>
      </Box>
    </Box>
  );
}

function CardNumbers({
  shown,
  consumer,
}: {
  readonly shown: CardShown;
  readonly consumer: Parameters<typeof labelsOf>[0];
}) {
  const reader = useReader();
  const numbers = shown.kind === 'numbers' ? shown.numbers : shown.kind === 'whole' ? shown.card.numbers : undefined;
  const keys: readonly NumberKey[] =
    numbers && consumer === null ? OF_NO_CONSUMER.filter((key) => numbers.some((one) => one.key === key)) : SHOWN;
  return (
    <Box display="grid" gridTemplateColumns="repeat(4, minmax(0, 1fr))" gap="2" mt="3">
      {keys.map((key) => {
        const number = numbers?.find((one) => one.key === key);
        const label = labelsOf(consumer, number?.role !== 'duration')[key];
        const text = number && figureOf(number, reader, number.spread);
        return (
          <Box key={key} minW="0">
            <Box fontSize="xs" color="soft">
              {label}
            </Box>
            <Box fontSize="2xl" fontWeight="750" lineHeight="1.1" whiteSpace="nowrap">
              {text ? text.number : numbers || shown.kind === 'failed' ? '–' : '…'}
            </Box>
            <Box fontSize="sm">{text?.symbol}</Box>
          </Box>
        );
      })}
    </Box>
  );
}

/** What the rules say of it; while they have not spoken, that. */
function CardState({ shown }: { readonly shown: CardShown }) {
  const line = (color: string, text: string) => (
    <Box fontSize="sm" mt="2" fontWeight="600" color={color} data-testid="card-state">
      {text}
    </Box>
  );
  if (shown.kind === 'failed') return line('stop', `Not worked out: ${shown.why}`);
  if (shown.kind !== 'whole') return line('soft', 'Looking for findings…');
  const { stops, warns, notes, notJudged, fails } = shown.card;
  if (fails) return line('stop', fails);
  const parts = [
    stops > 0 ? `■ ${stops} must be fixed` : '',
    warns > 0 ? `▲ ${warns} to look at` : '',
    notes > 0 ? `● ${notes} to know` : '',
    notJudged > 0 ? `? ${notJudged} not judged` : '',
  ].filter(Boolean);
  return line(
    stops > 0 ? 'stop' : warns > 0 ? 'warn' : parts.length > 0 ? 'soft' : 'good',
    parts.length > 0 ? parts.join(' · ') : 'Nothing to mend',
  );
}

function CardButton({
  label,
  onClick,
  children,
}: {
  readonly label: string;
  readonly onClick: () => void;
  readonly children: React.ReactNode;
}) {
  return (
    <chakra.button
      type="button"
      aria-label={label}
      title={label}
      onClick={onClick}
      minW="44px"
      minH="44px"
      display="grid"
      placeItems="center"
      borderRadius="md"
      cursor="pointer"
      color="soft"
      _hover={{ bg: 'sunk', color: 'ink' }}
    >
      {children}
    </chakra.button>
  );
}

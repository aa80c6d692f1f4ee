'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Copy, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { NUMBER_KEYS, type NumberKey } from '@/core/evaluate';
import { formatQuantity } from '@/core/units';
import type { Card, Results } from '@/workers/evaluate.worker';
import { inBackground } from '../state/background';
import { evaluatorWorker } from '../state/results';
import { useReader } from '../state/reader';
import { VEHICLE_WORDS, CONSUMER_WORDS } from '../parts/words';
import { cardWorker } from './cardWorker';
import type { ListedSystem } from './serverSystems';

const LABELS: Readonly<Partial<Record<NumberKey, string>>> = { holds: 'Holds', usable: 'Usable', delivers: 'Delivers', goes: 'Goes' };

type Props = { readonly entry: ListedSystem; readonly onDelete: () => void; readonly onDuplicate: () => void };

/** One system with its four numbers. */
export function SystemCard({ entry, onDelete, onDuplicate }: Props) {
  const reader = useReader();
  const [results, setResults] = useState<Results>();
  const [card, setCard] = useState<Card>();
  const [failed, setFailed] = useState<string>();
  useEffect(() => {
    let current = true;
    const ask = async (): Promise<void> => {
      try {
        const found = await evaluatorWorker().evaluate(entry.document, 'numbers');
        if (current) setResults(found);
        // The numbers of all cards first; then what every rule says, as in the open system.
        const whole = await inBackground('whenever', async () => (current ? cardWorker().card(entry.document) : undefined));
        if (current && whole) setCard(whole);
      } catch (error) {
        if (current) setFailed(error instanceof Error ? error.message : String(error));
      }
    };
    void ask();
    return () => {
      current = false;
    };
  }, [entry.document]);
  const { name, description, vehicle, consumers } = entry.document;
  return (
    <Box as="article" bg="panel" borderWidth="1px" borderColor="rule" borderRadius="lg" data-testid="system-card" position="relative" display="flex" flexDirection="column">
      <Link href={`/systems/${entry.id}`} style={{ display: 'block', padding: '16px', flex: 1 }}>
        <Box fontSize="xl" fontWeight="750" pr="100px">{name}</Box>
        <Box fontSize="sm" color="soft">{VEHICLE_WORDS[vehicle.kind]}{consumers[0] ? ` · ${CONSUMER_WORDS[consumers[0].kind]}` : ''}</Box>
        <Box display="grid" gridTemplateColumns="repeat(4, minmax(0, 1fr))" gap="2" mt="3">
          {NUMBER_KEYS.filter((key) => LABELS[key]).map((key) => {
            const number = results?.ok ? results.numbers[key] : undefined;
            const shown = number?.ok ? formatQuantity(number.value.value, number.value.role, { reader }) : undefined;
            return (
              <Box key={key} minW="0">
                <Box fontSize="xs" color="soft">{LABELS[key]}</Box>
                <Box fontSize="2xl" fontWeight="750" lineHeight="1.1" whiteSpace="nowrap">{shown ? shown.number : results ? '–' : '…'}</Box>
                <Box fontSize="sm">{shown?.symbol}</Box>
              </Box>
            );
          })}
        </Box>
        <CardState results={results} card={card} failed={failed} />
        {description && <Box fontSize="sm" color="soft" mt="2">{description}</Box>}
      </Link>
      <Box position="absolute" top="2" right="2" display="flex">
        <CardButton label={`Duplicate ${name}`} onClick={onDuplicate}><Copy size={18} aria-hidden /></CardButton>
        <CardButton label={`Delete ${name}`} onClick={onDelete}><Trash2 size={18} aria-hidden /></CardButton>
      </Box>
    </Box>
  );
}

/** What the rules say of it; while they have not spoken, that. */
function CardState({ results, card, failed }: { readonly results: Results | undefined; readonly card: Card | undefined; readonly failed: string | undefined }) {
  const said = (color: string, text: string) => <Box fontSize="sm" mt="2" fontWeight="600" color={color} data-testid="card-state">{text}</Box>;
  if (failed) return said('stop', `Not worked out: ${failed}`);
  if (results?.ok === false) return said('stop', results.error.detail);
  if (!card) return said('soft', 'Looking for findings…');
  if (!card.ok) return said('stop', card.error.detail);
  const { findings, notJudged } = card.judged;
  const count = (severity: string): number => findings.filter((finding) => finding.severity === severity).length;
  const [stops, warns, notes] = [count('stop'), count('warn'), count('note')];
  const parts = [stops > 0 ? `■ ${stops} must be mended` : '', warns > 0 ? `▲ ${warns} to look at` : '', notes > 0 ? `● ${notes} to know` : '', notJudged.length > 0 ? `? ${notJudged.length} not judged` : ''].filter(Boolean);
  return said(stops > 0 ? 'stop' : warns > 0 ? 'warn' : findings.length + notJudged.length > 0 ? 'soft' : 'good', parts.length > 0 ? parts.join(' · ') : 'Nothing to mend');
}

function CardButton({ label, onClick, children }: { readonly label: string; readonly onClick: () => void; readonly children: React.ReactNode }) {
  return <chakra.button type="button" aria-label={label} title={label} onClick={onClick} minW="44px" minH="44px" display="grid" placeItems="center" borderRadius="md" cursor="pointer" color="soft" _hover={{ bg: 'sunk', color: 'ink' }}>{children}</chakra.button>;
}

'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Copy, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { NUMBER_KEYS, type NumberKey } from '@/core/evaluate';
import { formatQuantity } from '@/core/units';
import type { Results } from '@/workers/evaluate.worker';
import { evaluatorWorker } from '../state/results';
import { useReader } from '../state/reader';
import { VEHICLE_WORDS, CONSUMER_WORDS } from '../parts/words';
import type { ListedSystem } from './serverSystems';

const LABELS: Readonly<Partial<Record<NumberKey, string>>> = { holds: 'Holds', usable: 'Usable', delivers: 'Delivers', goes: 'Goes' };

type Props = { readonly entry: ListedSystem; readonly onDelete: () => void; readonly onDuplicate: () => void };

/** One system with its four numbers. */
export function SystemCard({ entry, onDelete, onDuplicate }: Props) {
  const reader = useReader();
  const [results, setResults] = useState<Results>();
  useEffect(() => {
    let current = true;
    void evaluatorWorker().evaluate(entry.document, 'numbers').then((found) => current && setResults(found));
    return () => {
      current = false;
    };
  }, [entry.document]);
  const { name, description, vehicle, consumers } = entry.document;
  const count = (severity: string): number => (results?.ok ? results.findings.filter((finding) => finding.severity === severity).length : 0);
  const [stops, warns] = [count('stop'), count('warn')];
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
        {results?.ok && (
          <Box fontSize="sm" mt="2" fontWeight="600" color={stops > 0 ? 'stop' : warns > 0 ? 'warn' : 'good'}>
            {stops > 0 ? `■ ${stops} must be mended` : warns > 0 ? `▲ ${warns} to look at` : 'Nothing to mend'}
          </Box>
        )}
        {description && <Box fontSize="sm" color="soft" mt="2">{description}</Box>}
      </Link>
      <Box position="absolute" top="2" right="2" display="flex">
        <CardButton label={`Duplicate ${name}`} onClick={onDuplicate}><Copy size={18} aria-hidden /></CardButton>
        <CardButton label={`Delete ${name}`} onClick={onDelete}><Trash2 size={18} aria-hidden /></CardButton>
      </Box>
    </Box>
  );
}

function CardButton({ label, onClick, children }: { readonly label: string; readonly onClick: () => void; readonly children: React.ReactNode }) {
  return <chakra.button type="button" aria-label={label} title={label} onClick={onClick} minW="44px" minH="44px" display="grid" placeItems="center" borderRadius="md" cursor="pointer" color="soft" _hover={{ bg: 'sunk', color: 'ink' }}>{children}</chakra.button>;
}

'use client';

import { Box, chakra, Heading } from '@chakra-ui/react';
import { DatabaseBackup, Download, RotateCcw } from 'lucide-react';
import { useEffect, useState } from 'react';
import { asked } from '../library/serverSystems';
import { Button } from '../parts/Button';
import { PageHead } from '../parts/PageHead';
import { useReaderStore } from '../state/reader';
import { Devices, type Device } from './Devices';

export type Backup = {
  readonly name: string;
  readonly kind: 'daily' | 'before-update' | 'before-restore' | 'asked-for';
  readonly at_ms: number;
  readonly bytes: number;
};

const KIND_WORDS: Readonly<Record<Backup['kind'], string>> = {
  daily: 'of the day',
  'before-update': 'before an update of Gas Line',
  'before-restore': 'before another was brought back',
  'asked-for': 'made by hand',
};

type Props = {
  readonly folder: string;
  readonly backups: readonly Backup[];
  readonly devices: readonly Device[];
  readonly isOnNetwork: boolean;
};

/** Where the data is, its copies and how to bring one back, and the devices that may come in. */
export function YourData({ folder, backups: first, devices, isOnNetwork }: Props) {
  const [backups, setBackups] = useState(first);
  const [message, setMessage] = useState<{ readonly ok: boolean; readonly text: string }>();
  const [sure, setSure] = useState<Backup>();
  useEffect(() => void useReaderStore.persist.rehydrate(), []);
  const again = async (): Promise<void> => {
    const found = await asked<{ backups: Backup[] }>('/api/data');
    if (found.ok) setBackups(found.body.backups);
  };
  const backUp = async (): Promise<void> => {
    const made = await asked<Backup>('/api/data', { method: 'POST' });
    setMessage(made.ok ? { ok: true, text: `Copied: ${made.body.name}.` } : { ok: false, text: made.detail });
    await again();
  };
  const restore = async ({ name }: Backup): Promise<void> => {
    setSure(undefined);
    const done = await asked<{ systems: number; before: Backup }>('/api/data/restore', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name }),
    });
    setMessage(
      done.ok
        ? {
            ok: true,
            text: `Brought back ${done.body.systems} systems. What was there before is kept as ${done.body.before.name}.`,
          }
        : { ok: false, text: `Nothing was changed. ${done.detail}` },
    );
    await again();
  };
  return (
    <Box maxW="980px" mx="auto" px={{ base: '3', md: '6' }} py="4">
      <PageHead />
      <Box as="main">
        <Heading as="h1" fontSize="3xl" fontWeight="800">
          Your data
        </Heading>
        <Box mt="2">
          All of it is in one folder on this machine: <chakra.code overflowWrap="anywhere">{folder}</chakra.code>
        </Box>
        <Box mt="2" color="soft">
          A copy is made once a day and before each update, and the last seven of each are kept there under{' '}
          <chakra.code>backups</chakra.code>. Against a lost disk, download one now and then and keep it elsewhere.
        </Box>
        <Box display="flex" gap="3" mt="4" alignItems="center" flexWrap="wrap">
          <Button kind="main" onClick={() => void backUp()}>
            <DatabaseBackup size={20} aria-hidden />
            Make a copy now
          </Button>
          {message && (
            <Box role="status" fontWeight="600" color={message.ok ? 'good' : 'stop'} data-testid="data-said">
              {message.text}
            </Box>
          )}
        </Box>
        <Heading as="h2" fontSize="xl" mt="6" mb="2">
          Copies
        </Heading>
        {backups.length === 0 && <Box color="soft">None yet.</Box>}
        <Box as="ul" listStyleType="none" data-testid="backups">
          {backups.map((backup) => (
            <Box
              as="li"
              key={backup.name}
              display="flex"
              gap="3"
              alignItems="center"
              flexWrap="wrap"
              py="2"
              borderTopWidth="1px"
              borderColor="rule"
            >
              <Box flex="1 1 260px">
                <b suppressHydrationWarning>{new Date(backup.at_ms).toLocaleString()}</b>
                <Box fontSize="sm" color="soft">
                  {KIND_WORDS[backup.kind]}, {sizeText(backup.bytes)}
                </Box>
              </Box>
              <chakra.a
                href={`/api/data/${backup.name}`}
                download
                display="inline-flex"
                gap="2"
                alignItems="center"
                minH="44px"
                px="2"
                textDecoration="underline"
              >
                <Download size={18} aria-hidden />
                Download
              </chakra.a>
              <Button onClick={() => setSure(backup)}>
                <RotateCcw size={18} aria-hidden />
                Bring back
              </Button>
              {sure?.name === backup.name && (
                <Box role="alert" width="100%" bg="noteBg" borderRadius="md" p="3">
                  All systems will be as they were then, and what was made since will not be there. What is there now is
                  copied first.
                  <Box display="flex" gap="2" mt="2">
                    <Button kind="main" onClick={() => void restore(backup)}>
                      Bring it back
                    </Button>
                    <Button onClick={() => setSure(undefined)}>Leave all as it is</Button>
                  </Box>
                </Box>
              )}
            </Box>
          ))}
        </Box>
        <Devices first={devices} isOnNetwork={isOnNetwork} />
      </Box>
    </Box>
  );
}

const sizeText = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

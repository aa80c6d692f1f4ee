'use client';

import { Box, chakra, Heading } from '@chakra-ui/react';
import { Columns3, DatabaseBackup, Plus, Upload } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { plainName } from '@/core/formats';
import { PageHead } from '../parts/PageHead';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { useReaderStore } from '../state/reader';
import {
  createOnServer,
  deleteOnServer,
  importFile,
  restoreOnServer,
  systemOnServer,
  type ListedSystem,
  type Listing,
  type Refusal,
} from './serverSystems';
import { useListing } from './useListing';
import { SystemCard } from './SystemCard';

/** The first screen: what this is, the systems there are, and how to begin one. */
export function Library({ first, isHere }: { readonly first: Listing; readonly isHere: boolean }) {
  const router = useRouter();
  const [refusal, setRefusal] = useState<Refusal>();
  const [deleted, setDeleted] = useState<ListedSystem>();
  const { listing, having, search, more, again, isBusy } = useListing(first, setRefusal);
  useEffect(() => void useReaderStore.persist.rehydrate(), []);

  const remove = async (entry: ListedSystem): Promise<void> => {
    const refused = await deleteOnServer(entry.id);
    setRefusal(refused);
    if (!refused) setDeleted(entry);
    await again();
  };
  const restore = async (): Promise<void> => {
    if (!deleted) return;
    setRefusal(await restoreOnServer(deleted.id));
    setDeleted(undefined);
    await again();
  };
  const duplicate = async (entry: ListedSystem): Promise<void> => {
    const found = await systemOnServer(entry.id);
    const made = found.ok
      ? await createOnServer({ ...found.document, name: `${plainName(entry.name, 72)} (copy)` })
      : found;
    setRefusal(made.ok ? undefined : made);
    await again();
  };
  const take = async (file: File): Promise<void> => {
    const made = await importFile(file);
    if (made.ok) router.push(`/systems/${made.id}`);
    else setRefusal(made);
  };
  const { systems, count } = listing;
  return (
    <Box maxW="1180px" mx="auto" px={{ base: '3', md: '6' }} py="4">
      <PageHead home />
      <Box as="main">
        <Heading as="h1" fontSize={{ base: '3xl', md: '4xl' }} lineHeight="1.1" fontWeight="800" maxW="820px">
          Know what your fuel tank will do before you cut metal.
        </Heading>
        <Box fontSize="lg" mt="3" maxW="760px" color="soft">
          Describe the tank, its holes, the line and the pump. Gas Line works out what it holds, what of it you can use
          on a slope, whether the engine gets its fuel, how far it goes, and what the gauge will say.
        </Box>
        <Box display="flex" gap="3" mt="5" mb="6" flexWrap="wrap">
          <Link href="/new">
            <Button kind="main">
              <Plus size={20} aria-hidden />
              Plan a new system
            </Button>
          </Link>
          {count > 1 && (
            <Link href="/compare" prefetch={false}>
              <Button>
                <Columns3 size={20} aria-hidden />
                Compare
              </Button>
            </Link>
          )}
          <ImportButton onFile={(file) => void take(file)} />
          {isHere && (
            <Link href="/data" prefetch={false}>
              <Button>
                <DatabaseBackup size={20} aria-hidden />
                Your data
              </Button>
            </Link>
          )}
        </Box>
        {refusal && <RefusalBox refusal={refusal} onClose={() => setRefusal(undefined)} />}
        {deleted && (
          <Box
            role="status"
            bg="noteBg"
            borderRadius="md"
            px="4"
            py="2"
            mb="4"
            display="flex"
            alignItems="center"
            gap="3"
            flexWrap="wrap"
          >
            <Box flex="1">“{deleted.name}” was deleted.</Box>
            <Button onClick={() => void restore()}>Undo</Button>
          </Box>
        )}
        <Box display="flex" gap="3" alignItems="end" flexWrap="wrap" mb="3">
          <Heading as="h2" fontSize="xl" flex="1">
            Your systems{count > systems.length ? `, ${systems.length} of ${count}` : ''}
          </Heading>
          {(first.count > SEARCH_FROM || having !== '') && <SearchField value={having} onSearch={search} />}
        </Box>
        {systems.length === 0 && (
          <Box bg="panel" borderWidth="1px" borderColor="rule" borderRadius="lg" p="6" color="soft">
            {having === ''
              ? 'None yet. Plan a new one: it takes five questions, and every number it cannot know yet is stated as an assumption.'
              : `No name has “${having}” in it.`}
          </Box>
        )}
        <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(min(100%, 480px), 1fr))" gap="4">
          {systems.map((entry) => (
            <SystemCard
              key={entry.id}
              entry={entry}
              onDelete={() => void remove(entry)}
              onDuplicate={() => void duplicate(entry)}
            />
          ))}
        </Box>
        {count > systems.length && (
          <Box mt="4">
            <Button disabled={isBusy} onClick={() => void more()}>
              Show more
            </Button>
          </Box>
        )}
        <Box mt="6">
          <Caution>
            Fuel and its vapour burn and explode. Gas Line computes; it does not replace the rules in force where you
            are, nor a licensed person’s check. Regulated uses such as petrol in boats, road tanker loads and aircraft
            need both.
          </Caution>
        </Box>
      </Box>
    </Box>
  );
}
/** Fewer are found by looking. */
const SEARCH_FROM = 12;

function SearchField({ value, onSearch }: { readonly value: string; readonly onSearch: (text: string) => void }) {
  return (
    <chakra.input
      type="search"
      aria-label="Search by name"
      placeholder="Search by name"
      defaultValue={value}
      minH="44px"
      width="260px"
      px="3"
      bg="panel"
      borderWidth="1.5px"
      borderColor="edge"
      borderRadius="md"
      maxLength={80}
      onChange={(event) => onSearch(event.currentTarget.value)}
    />
  );
}

function ImportButton({ onFile }: { readonly onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => input.current?.click()}>
        <Upload size={20} aria-hidden />
        Import a file
      </Button>
      <chakra.input
        ref={input}
        type="file"
        accept=".json,application/json"
        display="none"
        aria-label="System file"
        data-testid="import-file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}

const FAULTS_SHOWN = 8;

function RefusalBox({ refusal, onClose }: { readonly refusal: Refusal; readonly onClose: () => void }) {
  return (
    <Box
      role="alert"
      data-testid="refusal"
      bg="stopBg"
      borderLeftWidth="6px"
      borderColor="stop"
      borderRadius="md"
      px="4"
      py="3"
      mb="4"
    >
      <Box fontWeight="700" color="stop">
        Nothing was changed.{' '}
        {refusal.faults.length > 1 ? `The file has ${refusal.faults.length} faults:` : refusal.detail}
      </Box>
      {refusal.faults.length > 1 && (
        <Box as="ul" mt="1" pl="5" listStyleType="disc">
          {refusal.faults.slice(0, FAULTS_SHOWN).map((fault) => (
            <li key={fault.path + fault.message}>
              <code>{fault.path}</code> {fault.message}
            </li>
          ))}
          {refusal.faults.length > FAULTS_SHOWN && <li>and {refusal.faults.length - FAULTS_SHOWN} more</li>}
        </Box>
      )}
      <Box mt="2">
        <Button onClick={onClose}>Close</Button>
      </Box>
    </Box>
  );
}

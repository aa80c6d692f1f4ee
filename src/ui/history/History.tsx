'use client';

import { Box, Heading } from '@chakra-ui/react';
import { CopyPlus, RotateCcw } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { differences, type SystemDocument } from '@/core/plan';
import { DifferenceList } from '../compare/DifferenceRows';
import { TextEntry } from '../fields/TextEntry';
import { createOnServer } from '../library/serverSystems';
import { Button } from '../parts/Button';
import { PageHead } from '../parts/PageHead';
import { useReaderStore } from '../state/reader';
import { nameSave, restoreSave, saveOnServer, type Revision } from './saves';

type Props = {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly revisions: readonly Revision[];
};

/** Every save of a system that is kept: when, what led to it, what changed; to open, to name, to come back to. */
export function History({ id, name, revision, revisions }: Props) {
  useEffect(() => void useReaderStore.persist.rehydrate(), []);
  const [wrong, setWrong] = useState('');
  return (
    <Box maxW="980px" mx="auto" px={{ base: '3', md: '6' }} py="4">
      <PageHead />
      <Box as="main">
        <Heading as="h1" fontSize="2xl" fontWeight="800">
          History of{' '}
          <Box asChild textDecoration="underline" textDecorationThickness="1.5px">
            <Link href={`/systems/${id}`}>{name}</Link>
          </Box>
        </Heading>
        <Box color="soft" mt="1" mb="4" maxW="70ch">
          The last 100 saves, and before them the last of each day for 90 days. One that you name is kept for good.
          Restoring makes an earlier save the newest: what came between stays in this list.
        </Box>
        <Box role="status" color="stop" fontWeight="600" mb={wrong ? '3' : '0'}>
          {wrong}
        </Box>
        <Box as="ol" listStyleType="none" display="grid" gap="2">
          {revisions.map((save, i) => (
            <Save
              key={save.revision}
              id={id}
              of={name}
              save={save}
              before={revisions[i + 1]?.revision}
              latest={revision}
              onWrong={setWrong}
            />
          ))}
        </Box>
      </Box>
    </Box>
  );
}

/** Now, or that day and hour as the reader's machine writes them. */
function when(ms: number): string {
  const time = new Date(ms);
  const clock = time.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
  return time.toDateString() === new Date().toDateString()
    ? `Today, ${clock}`
    : `${time.toLocaleDateString(undefined, { year: 'numeric', month: 'short', day: 'numeric' })}, ${clock}`;
}

function Save({
  id,
  of,
  save,
  before,
  latest,
  onWrong,
}: {
  readonly id: string;
  readonly of: string;
  readonly save: Revision;
  readonly before: number | undefined;
  readonly latest: number;
  readonly onWrong: (why: string) => void;
}) {
  const router = useRouter();
  const [name, setName] = useState(save.name ?? '');
  const [open, setOpen] = useState(false);
  const isLatest = save.revision === latest;
  const rename = async (text: string): Promise<void> => {
    const done = await nameSave(id, save.revision, text);
    onWrong(done.ok ? '' : done.detail);
    if (done.ok) setName(text);
  };
  const restore = async (): Promise<void> => {
    const done = await restoreSave(id, save.revision, latest);
    if (done.ok) router.push(`/systems/${id}`);
    else onWrong(done.detail);
  };
  const copy = async (): Promise<void> => {
    const found = await saveOnServer(id, save.revision);
    const made = found.ok
      ? await createOnServer({ ...found.body.document, name: `${of.slice(0, 60)}, save ${save.revision}` }, id)
      : found;
    if (made.ok) router.push(`/systems/${made.id}`);
    else onWrong(made.detail);
  };
  return (
    <Box
      as="li"
      bg="panel"
      borderWidth="1px"
      borderColor={isLatest ? 'accent' : 'rule'}
      borderRadius="lg"
      px="4"
      py="2"
      data-testid="save"
    >
      <Box display="flex" gap="3" alignItems="center" flexWrap="wrap">
        <Box flex="1 1 180px" minW="0">
          <Box fontWeight="700" suppressHydrationWarning>
            {when(save.savedAt_ms)}
            {isLatest && (
              <Box as="span" color="accent" ml="2">
                as it is now
              </Box>
            )}
          </Box>
          <Box color="soft" fontSize="sm" overflowWrap="anywhere">
            Save {save.revision}: {save.edit}
          </Box>
        </Box>
        <Box flex={{ base: '1 1 220px', md: '0 0 220px' }}>
          <TextEntry
            label={`Name of save ${save.revision}, to keep it`}
            hideLabel={false}
            value={name}
            onEnter={(text) => {
              void rename(text.trim());
              return { ok: true };
            }}
          />
        </Box>
        <Box
          display="flex"
          gap="2"
          flexWrap="wrap"
          justifyContent={{ md: 'flex-end' }}
          width={{ base: 'auto', md: '430px' }}
        >
          {before !== undefined && <Button onClick={() => setOpen(!open)}>{open ? 'Close' : 'What changed'}</Button>}
          <Button onClick={() => void copy()} title="Opens it beside this one, as a variant">
            <CopyPlus size={18} aria-hidden />
            Open a copy
          </Button>
          {!isLatest && (
            <Button onClick={() => void restore()}>
              <RotateCcw size={18} aria-hidden />
              Restore
            </Button>
          )}
        </Box>
      </Box>
      {open && before !== undefined && <Changed id={id} revision={save.revision} before={before} />}
    </Box>
  );
}

type Two = { readonly before: SystemDocument; readonly after: SystemDocument };

/** What a save changed, place by place, against the one before it that is kept. */
function Changed({
  id,
  revision,
  before,
}: {
  readonly id: string;
  readonly revision: number;
  readonly before: number;
}) {
  const [two, setTwo] = useState<Two | { readonly why: string }>();
  useEffect(() => {
    let current = true;
    void Promise.all([saveOnServer(id, before), saveOnServer(id, revision)]).then(([was, is]) => {
      if (!current) return;
      if (was.ok && is.ok) setTwo({ before: was.body.document, after: is.body.document });
      else setTwo({ why: was.ok ? (is.ok ? '' : is.detail) : was.detail });
    });
    return () => {
      current = false;
    };
  }, [id, revision, before]);
  if (!two) return <Box color="soft">Reading both saves…</Box>;
  if ('why' in two) return <Box color="stop">{two.why}</Box>;
  const found = differences(two.before, two.after);
  return (
    <Box mt="2" data-testid="save-changes">
      <Box color="soft" fontSize="sm">
        Against save {before}:{' '}
        {found.length === 0
          ? 'nothing but name or description'
          : `${found.length} ${found.length === 1 ? 'place' : 'places'}`}
      </Box>
      <DifferenceList found={found} before={two.before} after={two.after} />
    </Box>
  );
}

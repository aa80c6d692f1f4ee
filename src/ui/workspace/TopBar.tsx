'use client';

import { Box, chakra, VisuallyHidden } from '@chakra-ui/react';
import { Columns3, Download, Ellipsis, GitFork, History as HistoryIcon, Redo2, Search, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { fileNameOf } from '@/core/plan';
import { readName } from '../fields/readName';
import { TextEntry } from '../fields/TextEntry';
import { createOnServer, family, systemNames, variantName } from '../library/serverSystems';
import { Mark } from '../parts/Mark';
import { ReaderPicker } from '../parts/ReaderPicker';
import { saveFile } from '../parts/saveFile';
import { ThemeSwitch } from '../parts/ThemeSwitch';
import { saveNow, useSaveState } from '../state/autosave';
import { openDocument, setValue, useEditor, useHistory, useValue } from '../state/editor';
import { openCommandBox } from './commandOpen';
import { mayLeaveFor } from './useLeaving';

/** The bar at the very top, whatever stands in it. */
export function TopFrame({ children }: { readonly children: ReactNode }) {
  return (
    <Box
      as="header"
      bg="panel"
      borderBottomWidth="1px"
      borderColor="rule"
      px={{ base: '3', lg: '4' }}
      py={{ base: '0', md: '1' }}
      display="flex"
      alignItems="center"
      columnGap={{ base: '1', md: '2' }}
      flexWrap="wrap"
      className="no-print"
    >
      {children}
    </Box>
  );
}

export function TopBar() {
  const name = useValue((system) => system.name);
  // On a phone what is needed less stands in a second row, which opens.
  const [hasMore, setMore] = useState(false);
  const less = { order: { base: 1, md: 0 }, display: { base: hasMore ? 'flex' : 'none', md: 'flex' } } as const;
  return (
    <TopFrame>
      <Link href="/" aria-label="All systems">
        <Mark isShort />
      </Link>
      <VisuallyHidden as="h1">{name}</VisuallyHidden>
      <Box flex={{ base: '1 1 110px', md: '1 1 180px' }} minW="0" maxW="420px">
        <TextEntry
          label="Name of the system"
          hideLabel
          value={name}
          onEnter={(text) => readName(text, (entered) => setValue('rename', ['name'], entered))}
          testId="system-name"
        />
      </Box>
      <SaveBadge />
      <Box flex="1" display={{ base: 'none', md: 'block' }} />
      <IconButton label="Go to… (key /)" onClick={openCommandBox}>
        <Search size={20} aria-hidden />
      </IconButton>
      <HistoryButtons />
      <Box display={{ base: 'block', md: 'none' }}>
        <IconButton label={hasMore ? 'Less' : 'More'} onClick={() => setMore(!hasMore)} isOpen={hasMore}>
          <Ellipsis size={20} aria-hidden />
        </IconButton>
      </Box>
      <Box display={{ base: 'block', md: 'none' }} flexBasis="100%" height="0" order={1} />
      <Box {...less}>
        <VariantButtons />
        <ExportLink />
      </Box>
      <Box {...less}>
        <ReaderPicker />
      </Box>
      <Box {...less}>
        <ThemeSwitch />
      </Box>
    </TopFrame>
  );
}

function HistoryButtons() {
  const history = useHistory();
  return (
    <>
      <IconButton
        label={history.undoes ? `Undo: ${history.undoes}` : 'Nothing to undo'}
        onClick={history.undo}
        disabled={!history.undoes}
      >
        <Undo2 size={20} aria-hidden />
      </IconButton>
      <IconButton
        label={history.redoes ? `Redo: ${history.redoes}` : 'Nothing to redo'}
        onClick={history.redo}
        disabled={!history.redoes}
      >
        <Redo2 size={20} aria-hidden />
      </IconButton>
    </>
  );
}

function IconButton({
  label,
  onClick,
  disabled,
  isOpen,
  children,
}: {
  readonly label: string;
  readonly onClick: () => void;
  readonly disabled?: boolean;
  /** Of one that opens something. */ readonly isOpen?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <chakra.button
      type="button"
      aria-label={label}
      aria-expanded={isOpen}
      title={label}
      onClick={onClick}
      disabled={disabled}
      minW={{ base: '40px', md: '44px' }}
      minH="44px"
      display="grid"
      placeItems="center"
      borderRadius="md"
      cursor="pointer"
      _hover={{ bg: 'sunk' }}
      _disabled={{ opacity: 0.35, cursor: 'default' }}
    >
      {children}
    </chakra.button>
  );
}

/** A word, and on a phone its sign. */
const Brief = ({ word, sign }: { readonly word: string; readonly sign: string }) => (
  <>
    <Box as="span" display={{ base: 'none', md: 'inline' }}>
      {word}
    </Box>
    <Box as="span" display={{ base: 'inline-block', md: 'none' }} minW="14px" role="img" aria-label={word} title={word}>
      {sign}
    </Box>
  </>
);

function SaveBadge() {
  const { state, conflict, notKept } = useSaveState();
  return (
    <Box
      role="status"
      data-testid="save-state"
      data-state={state.kind}
      fontSize="sm"
      color={state.kind === 'failed' ? 'stop' : 'soft'}
      maxW="420px"
      order={{ base: state.kind === 'failed' || notKept ? 2 : 0, md: 0 }}
    >
      {state.kind === 'saved' && <Brief word="Saved" sign="✓" />}
      {state.kind === 'saving' && <Brief word="Saving…" sign="…" />}
      {state.kind === 'failed' && (
        <>
          <b>Not saved.</b> {conflict ? 'Another device changed the same place: choose below.' : state.why}{' '}
          {!conflict && (
            <chakra.button
              type="button"
              color="accent"
              textDecoration="underline"
              cursor="pointer"
              onClick={() => void saveNow()}
            >
              Try now
            </chakra.button>
          )}
        </>
      )}
      {state.kind !== 'saved' && notKept && <Box color="stop">And this browser keeps nothing: {notKept}</Box>}
    </Box>
  );
}

/** Another one like this, to change and to compare; what is open is saved first. */
function VariantButtons() {
  const router = useRouter();
  const id = useEditor((state) => state.id);
  const fork = async (): Promise<void> => {
    await saveNow();
    const system = openDocument();
    const made = await createOnServer({ ...system, name: variantName(system.name, await systemNames()) }, id);
    if (made.ok && mayLeaveFor(`/systems/${made.id}`)) router.push(`/systems/${made.id}`);
  };
  const compare = async (): Promise<void> => {
    await saveNow();
    const to = `/compare?${(await family(id)).map((each) => `with=${encodeURIComponent(each)}`).join('&')}`;
    if (mayLeaveFor(to)) router.push(to);
  };
  const history = async (): Promise<void> => {
    await saveNow();
    if (mayLeaveFor(`/systems/${id}/history`)) router.push(`/systems/${id}/history`);
  };
  return (
    <>
      <IconButton label="Fork a variant of this system" onClick={() => void fork()}>
        <GitFork size={20} aria-hidden />
      </IconButton>
      <IconButton label="Compare with its variants" onClick={() => void compare()}>
        <Columns3 size={20} aria-hidden />
      </IconButton>
      <IconButton label="History: its earlier saves" onClick={() => void history()}>
        <HistoryIcon size={20} aria-hidden />
      </IconButton>
    </>
  );
}

/** The file is what is on screen, whether the server has it or not. */
function ExportLink() {
  const download = (): void => {
    const system = openDocument();
    saveFile(`${fileNameOf(system.name)}.gasline.json`, 'application/json', `${JSON.stringify(system, null, 2)}\n`);
  };
  return (
    <IconButton label="Export as a file" onClick={download}>
      <Download size={20} aria-hidden />
    </IconButton>
  );
}

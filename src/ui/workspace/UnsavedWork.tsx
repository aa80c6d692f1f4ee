'use client';

import { Box } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { differences, mergeSystems, sameContent, type SystemDocument } from '@/core/plan';
import { DifferenceList } from '../compare/DifferenceRows';
import { createOnServer } from '../library/serverSystems';
import { Button } from '../parts/Button';
import { plainName } from '@/core/formats';
import { applyEdit, openDocument } from '../state/editor';
import { forget, leftBehind, type KeptCopy, type KeptText } from '../state/keptCopies';
import { useTyping } from '../state/typing';
import { openPlaceText } from './goTo';

/**
 * What a page that is gone left in this browser of this system and the server never got: beside what the server has, to
 * be taken or thrown away.
 */
export function UnsavedWork({ id, document }: { readonly id: string; readonly document: SystemDocument }) {
  const [copies, setCopies] = useState<readonly KeptCopy[]>([]);
  const [texts, setTexts] = useState<readonly KeptText[]>([]);
  useEffect(() => {
    let current = true;
    leftBehind(id).then(
      (left) => {
        if (!current) return;
        const isHad = (copy: KeptCopy): boolean => sameContent(copy.system, document);
        for (const copy of left.copies.filter(isHad)) void forget('copies', copy.key);
        setCopies(left.copies.filter((copy) => !isHad(copy)));
        setTexts(left.texts);
      },
      () => undefined,
    ); // a browser that keeps nothing has nothing
    return () => {
      current = false;
    };
    // What the server had when the system was opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  const done = (copy: KeptCopy): void => {
    setCopies((list) => list.filter(({ key }) => key !== copy.key));
    void forget('copies', copy.key);
  };
  const doneText = (text: KeptText): void => {
    setTexts((list) => list.filter(({ key }) => key !== text.key));
    void forget('texts', text.key);
  };
  return (
    <>
      {copies.map((copy) => (
        <LeftCopy key={copy.key} copy={copy} onDone={() => done(copy)} />
      ))}
      {texts.map((text) => (
        <LeftText key={text.key} kept={text} onDone={() => doneText(text)} />
      ))}
    </>
  );
}

const MOST_SHOWN = 12;

function LeftCopy({ copy, onDone }: { readonly copy: KeptCopy; readonly onDone: () => void }) {
  const router = useRouter();
  const [fault, setFault] = useState('');
  const now = openDocument();
  const found = differences(now, copy.system);
  const known = new Set(now.records.map(({ id }) => id));
  const written = copy.system.records.filter(({ id }) => !known.has(id)).length;
  const take = (): void => {
    const merged = mergeSystems(copy.base, copy.system, openDocument());
    if (!merged.ok)
      return setFault(
        `The server’s system was changed too, ${merged.places.length > 0 ? `in ${merged.places.length} of the same places` : 'and both together do not go'}. Open it as a copy, and compare the two.`,
      );
    applyEdit('use unsaved work', () => ({ ...merged.value, conditions: copy.system.conditions }));
    onDone();
  };
  const asCopy = async (): Promise<void> => {
    const made = await createOnServer({ ...copy.system, name: `${plainName(copy.system.name, 66)} (unsaved)` });
    if (!made.ok) return setFault(made.detail);
    onDone();
    router.push(`/systems/${made.id}`);
  };
  return (
    <Box
      role="alert"
      data-testid="unsaved-work"
      bg="warnBg"
      borderLeftWidth="6px"
      borderColor="warn"
      borderRadius="md"
      px="4"
      py="3"
      mb="4"
    >
      <Box fontWeight="700">
        This browser has work on this system that was never saved: from {new Date(copy.at_ms).toLocaleString()}, “
        {copy.edit}”.
      </Box>
      <Box mt="2">
        {written > 0 && (
          <Box data-testid="unsaved-records">
            {written} {written === 1 ? 'line' : 'lines'} of its logs were written down here and not saved.
          </Box>
        )}
        {found.length === 0 ? (
          <Box>{written > 0 ? 'Beside that it' : 'It'} differs in its name, description or conditions at most.</Box>
        ) : (
          <>
            <Box
              fontSize="sm"
              color="soft"
              display={{ base: 'none', md: 'grid' }}
              gridTemplateColumns="1.3fr 1fr 1fr"
              columnGap="3"
            >
              <span>What</span>
              <span>On the server</span>
              <span>In this browser</span>
            </Box>
            <DifferenceList found={found.slice(0, MOST_SHOWN)} before={now} after={copy.system} />
            {found.length > MOST_SHOWN && <Box>and {found.length - MOST_SHOWN} more</Box>}
          </>
        )}
      </Box>
      {fault && (
        <Box mt="2" color="stop" fontWeight="600">
          {fault}
        </Box>
      )}
      <Box display="flex" gap="2" mt="3" flexWrap="wrap">
        <Button kind="main" onClick={take}>
          Use it
        </Button>
        <Button onClick={() => void asCopy()}>Open it as a copy</Button>
        <Button onClick={onDone}>Discard it</Button>
      </Box>
    </Box>
  );
}

function LeftText({ kept, onDone }: { readonly kept: KeptText; readonly onDone: () => void }) {
  const back = (): void => {
    openPlaceText(kept.stage);
    useTyping.setState({ back: { label: kept.label, text: kept.text } });
    onDone();
  };
  return (
    <Box
      role="status"
      data-testid="typed-text"
      bg="noteBg"
      borderRadius="md"
      px="4"
      py="2"
      mb="4"
      display="flex"
      gap="3"
      alignItems="center"
      flexWrap="wrap"
    >
      <Box flex="1 1 260px">
        You had typed “{kept.text}” into “{kept.label}”, and not entered it.
      </Box>
      <Button onClick={back}>Put it back</Button>
      <Button onClick={onDone}>Leave it</Button>
    </Box>
  );
}

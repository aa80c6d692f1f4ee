'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { goToSheet } from '../paper/choice';
import { useSystem } from '../state/editor';
import { closeCommandBox } from './commandOpen';
import { usePlace } from './goTo';
import { foundPlaces, placesOf, type PlaceToGo } from './places';

const KEYS: readonly (readonly [key: string, effect: string])[] = [
  ['/', 'go to anything by name'],
  ['1 … 7', 'stages, in the order of the work'],
  ['8, 9, 0', 'findings, measure next, paper'],
  ['Ctrl Z, Ctrl Y', 'undo, redo'],
  ['↑ ↓ in a field', 'a step more or less'],
  ['Enter, Esc', 'take an entry, leave it as it was'],
];

/**
 * Goes anywhere by name.
 * @source W3C, ARIA Authoring Practices Guide: combobox with a listbox; dialog (modal)
 */
export function CommandBox() {
  const system = useSystem();
  const { goTo, goToTask } = usePlace();
  const id = useId();
  const dialog = useRef<HTMLDialogElement>(null);
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const places = useMemo(() => placesOf(system), [system]);
  const found = foundPlaces(places, typed);
  const chosen = found[Math.min(at, found.length - 1)];
  useEffect(() => {
    const element = dialog.current!;
    const before = document.activeElement;
    element.showModal();
    return () => {
      if (element.open) element.close();
      // Back to where one was, unless the box has led elsewhere.
      if (document.activeElement === document.body && before instanceof HTMLElement) before.focus();
    };
  }, []);
  const go = (place: PlaceToGo | undefined): void => {
    if (!place) return;
    closeCommandBox();
    // When the dialog is gone: it would take the focus back.
    setTimeout(() => {
      if (place.sheet) goToSheet(place.sheet);
      else if (place.task) goToTask(place.stage, place.task);
      else goTo(place.stage, place.path);
    }, 0);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      event.preventDefault();
      setAt((now) => (Math.min(now, found.length - 1) + step + found.length) % Math.max(1, found.length));
    } else if (event.key === 'Enter') {
      event.preventDefault();
      go(chosen);
    }
  };
  return (
    <chakra.dialog
      ref={dialog}
      aria-label="Go to"
      data-testid="command-box"
      onClose={closeCommandBox}
      onClick={(event) => event.target === dialog.current && closeCommandBox()}
      bg="panel"
      color="ink"
      borderWidth="1px"
      borderColor="edge"
      borderRadius="lg"
      p="0"
      m="0 auto"
      mt="12vh"
      w="min(640px, calc(100vw - 24px))"
      maxH="76vh"
      boxShadow="lg"
      css={{ '&::backdrop': { background: 'rgb(0 0 0 / 0.35)' } }}
    >
      <Box p="3">
        <chakra.input
          autoFocus
          role="combobox"
          aria-label="Go to a task, sheet, part, port or field"
          aria-expanded="true"
          aria-controls={`${id}-list`}
          aria-activedescendant={chosen ? `${id}-${found.indexOf(chosen)}` : undefined}
          aria-autocomplete="list"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setAt(0);
          }}
          onKeyDown={onKeyDown}
          placeholder="Go to… a task, sheet, part, port or field"
          width="100%"
          minH="48px"
          px="3"
          borderWidth="1px"
          borderColor="edge"
          borderRadius="md"
          bg="page"
          fontSize="lg"
        />
        <Box as="ul" role="listbox" aria-label="Places" id={`${id}-list`} listStyleType="none" mt="2">
          {found.map((place, i) => (
            <chakra.li
              key={place.id}
              id={`${id}-${i}`}
              role="option"
              aria-selected={place === chosen}
              onMouseMove={() => setAt(i)}
              onClick={() => go(place)}
              px="3"
              py="2"
              minH="44px"
              display="flex"
              gap="3"
              justifyContent="space-between"
              alignItems="baseline"
              borderRadius="md"
              cursor="pointer"
              bg={place === chosen ? 'accent' : 'transparent'}
              color={place === chosen ? 'onAccent' : 'ink'}
            >
              <Box fontWeight="650">{capital(place.label)}</Box>
              <Box fontSize="sm" color={place === chosen ? 'onAccent' : 'soft'} textAlign="right">
                {place.detail}
              </Box>
            </chakra.li>
          ))}
        </Box>
        {found.length === 0 && (
          <Box px="3" py="2" role="status">
            Nothing is called so.
          </Box>
        )}
        {typed === '' && (
          <Box
            as="dl"
            mt="3"
            px="3"
            fontSize="sm"
            display="grid"
            gridTemplateColumns="max-content 1fr"
            columnGap="4"
            rowGap="1"
            color="soft"
            data-testid="keys"
          >
            {KEYS.map(([key, effect]) => (
              <Box key={key} display="contents">
                <Box as="dt" fontWeight="650">
                  {key}
                </Box>
                <Box as="dd">{effect}</Box>
              </Box>
            ))}
          </Box>
        )}
      </Box>
    </chakra.dialog>
  );
}

const capital = (text: string): string => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}`;

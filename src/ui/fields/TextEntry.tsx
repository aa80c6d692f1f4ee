'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { FIELD_ROWS } from '../parts/Panel';
import { noteTyping, useTyping } from '../state/typing';
import { LabelWords } from './Owner';

export type EntryVerdict =
  { readonly ok: true; readonly note?: string } | { readonly ok: false; readonly message: string };

type Props = {
  readonly label: string;
  /** The text that stands for the present value. */
  readonly value: string;
  readonly unit?: string;
  readonly onEnter: (text: string) => EntryVerdict;
  /** Called for arrow keys: up 1, down -1, ten times with shift. */
  readonly onStep?: (steps: number) => void;
  readonly hint?: string;
  /** Stands at the end of the label's line, and in a line of its own under the field. */
  readonly tag?: ReactNode;
  readonly below?: ReactNode;
  readonly hideLabel?: boolean;
  readonly width?: string;
  readonly testId?: string;
  readonly prefix?: string;
  /** A side value: set smaller than the main ones. */
  readonly quiet?: boolean;
};

/**
 * A field that takes what people write, on Enter or when left, and says at
 * once what is wrong with it. A refused entry stays to be mended; Escape
 * brings the old value back.
 */
export function TextEntry({
  label,
  value,
  unit,
  onEnter,
  onStep,
  hint,
  tag,
  below,
  hideLabel,
  width,
  testId,
  prefix,
  quiet,
}: Props) {
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const [draft, setDraftHere] = useState<string>();
  const setDraft = (text: string | undefined): void => {
    setDraftHere(text);
    noteTyping(label, text ?? '');
  };
  useEffect(() => {
    /** What was typed here in a page that is gone comes back, and waits to be entered. */
    const take = (): void => {
      const { back } = useTyping.getState();
      if (back?.label !== label) return;
      useTyping.setState({ back: undefined });
      setDraftHere(back.text);
      noteTyping(label, back.text);
      input.current?.focus();
    };
    queueMicrotask(take);
    return useTyping.subscribe(take);
  }, [label]);
  const [verdict, setVerdict] = useState<EntryVerdict>();
  const wrong = verdict?.ok === false;

  const commit = (): void => {
    if (draft === undefined) return;
    if (draft.trim() === value) {
      setDraft(undefined);
      setVerdict(undefined);
      return;
    }
    const result = onEnter(draft);
    setVerdict(result);
    if (result.ok) setDraft(undefined);
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'Enter') {
      event.preventDefault(); // in a form, entering one answer does not send them all
      commit();
    }
    if (event.key === 'Escape') {
      setDraft(undefined);
      setVerdict(undefined);
    }
    if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && onStep) {
      event.preventDefault();
      setDraft(undefined);
      setVerdict(undefined);
      onStep((event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1));
    }
  };

  const note = wrong ? verdict.message : verdict?.ok ? verdict.note : undefined;
  return (
    <Box minW="0" {...(hideLabel ? {} : FIELD_ROWS)}>
      <Box display="flex" alignItems="baseline" justifyContent="space-between" gap="2" alignSelf="end">
        <chakra.label
          htmlFor={id}
          display="block"
          fontSize="sm"
          color="soft"
          lineHeight="1.25"
          {...(hideLabel
            ? { position: 'absolute', width: '1px', height: '1px', overflow: 'hidden', clip: 'rect(0 0 0 0)' }
            : {})}
        >
          <LabelWords label={label} />
        </chakra.label>
        {tag}
      </Box>
      <Box display="flex" gap="1" alignItems="stretch">
        <Box
          display="flex"
          alignItems="center"
          flex="1"
          minW="0"
          maxW={width}
          bg="panel"
          borderWidth="1.5px"
          borderRadius="md"
          borderColor={wrong ? 'stop' : 'edge'}
          minH="42px"
          px="2"
          _focusWithin={{ outline: '3px solid {colors.focus}', outlineOffset: '1px' }}
        >
          {prefix && (
            <Box as="span" color="soft" fontSize="sm" pr="1">
              {prefix}
            </Box>
          )}
          <chakra.input
            ref={input}
            id={id}
            data-testid={testId}
            value={draft ?? value}
            onChange={(event) => setDraft(event.target.value)}
            onBlur={commit}
            onKeyDown={onKeyDown}
            autoComplete="off"
            spellCheck={false}
            aria-invalid={wrong}
            aria-describedby={note || hint ? `${id}-note` : undefined}
            flex="1"
            minW="0"
            width="100%"
            bg="transparent"
            border="none"
            outline="none"
            fontSize={quiet ? 'sm' : 'lg'}
            fontWeight={quiet ? '400' : '600'}
          />
          {unit && (
            <Box as="span" color="soft" fontSize="sm" pl="1" whiteSpace="nowrap">
              {unit}
            </Box>
          )}
        </Box>
      </Box>
      <Box minW="0">
        {(note ?? hint) && (
          <Box
            id={`${id}-note`}
            fontSize="sm"
            mt="2px"
            color={wrong ? 'stop' : 'soft'}
            role={wrong ? 'alert' : undefined}
          >
            {note ?? hint}
          </Box>
        )}
        {below}
      </Box>
    </Box>
  );
}

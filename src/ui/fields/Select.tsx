'use client';

import { chakra } from '@chakra-ui/react';
import { useId } from 'react';
import { FIELD_ROWS } from '../parts/Panel';
import { LabelWords } from './Owner';

type Props<T extends string> = {
  readonly label: string;
  readonly value: T;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly onChange: (value: T) => void;
  readonly hideLabel?: boolean;
  readonly width?: string;
};

/** A plain choice, as the platform draws it: large, and good under a thumb. */
export function Select<T extends string>({ label, value, options, onChange, hideLabel, width }: Props<T>) {
  const id = useId();
  return (
    <chakra.div minW="0" width={width} {...(hideLabel ? {} : FIELD_ROWS)}>
      {!hideLabel && (
        <chakra.label htmlFor={id} display="block" fontSize="sm" color="soft" lineHeight="1.25" alignSelf="end">
          <LabelWords label={label} />
        </chakra.label>
      )}
      <chakra.select
        id={id}
        aria-label={hideLabel ? label : undefined}
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
        minH="42px"
        width="100%"
        bg="panel"
        color="ink"
        borderWidth="1.5px"
        borderColor="edge"
        borderRadius="md"
        px="2"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </chakra.select>
    </chakra.div>
  );
}

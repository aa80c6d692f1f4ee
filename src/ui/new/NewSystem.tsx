'use client';

import { Box, chakra, Heading } from '@chakra-ui/react';
import { yupResolver } from '@hookform/resolvers/yup';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { answerLimits, answersSchema, CONSUMER_KINDS, draftSystem, VEHICLES, type Answers } from '@/core/plan';
import { entryText, roleUnit, ROLES, unitById, type Role } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { Select } from '../fields/Select';
import { readName } from '../fields/readName';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { createOnServer } from '../library/serverSystems';
import { PageHead } from '../parts/PageHead';
import { Button } from '../parts/Button';
import { CONSUMER_WORDS, VEHICLE_WORDS } from '../parts/words';
import { useReader, useReaderStore } from '../state/reader';

/** What most of each kind have, to begin with. Common practice. */
const USUAL_POWER_W: Readonly<Record<Answers['consumer'], number>> = {
  'diesel-engine': 40e3,
  'petrol-injection': 80e3,
  'petrol-carburettor': 60e3,
  heater: 4e3,
  generator: 6e3,
  nozzle: 40e3,
};

const FIRST: Answers = {
  name: 'My tank',
  vehicle: 'boat',
  consumer: 'diesel-engine',
  power_W: USUAL_POWER_W['diesel-engine'],
  holds_m3: 0.1,
};

const POWER_QUESTION: Readonly<Record<Answers['consumer'], string>> = {
  'diesel-engine': 'How strong is the engine?',
  'petrol-injection': 'How strong is the engine?',
  'petrol-carburettor': 'How strong is the engine?',
  heater: 'How strong is the heater?',
  generator: 'How strong is the generator?',
  nozzle: 'How strong is the machine it fills?',
};

type SizeKey = 'holds_m3' | 'power_W' | 'length_m' | 'width_m' | 'height_m' | 'run_m';
const SIZES: Readonly<Record<SizeKey, Role>> = {
  holds_m3: 'tankVolume',
  power_W: 'power',
  length_m: 'tape',
  width_m: 'tape',
  height_m: 'tape',
  run_m: 'run',
};
/** May stay empty: then they are assumed. */
const OPTIONAL: ReadonlySet<SizeKey> = new Set(['length_m', 'width_m', 'height_m', 'run_m']);

/** A few questions; everything not asked becomes a stated assumption. */
export function NewSystem() {
  const router = useRouter();
  const reader = useReader();
  const [problem, setProblem] = useState<string>();
  const { control, handleSubmit, getValues, setValue, formState } = useForm<Answers>({
    defaultValues: FIRST,
    resolver: yupResolver(answersSchema) as never,
  });
  useEffect(() => void useReaderStore.persist.rehydrate(), []);

  const start = handleSubmit(async (answers) => {
    const made = await createOnServer(draftSystem(answers));
    if (made.ok) router.push(`/systems/${made.id}`);
    else setProblem(made.detail);
  });

  /** A power that nobody entered follows the consumer. */
  const chooseConsumer = (from: Answers['consumer'], to: Answers['consumer']): void => {
    if (getValues('power_W') === USUAL_POWER_W[from]) setValue('power_W', USUAL_POWER_W[to]);
    setValue('consumer', to);
  };

  const size = (key: SizeKey, label: string, hint?: string) => (
    <Controller
      control={control}
      name={key}
      render={({ field }) => {
        const role = SIZES[key];
        const enter = (text: string): EntryVerdict => {
          if (text.trim() === '' && OPTIONAL.has(key)) {
            setValue(key, undefined);
            return { ok: true };
          }
          const read = readEntry(text, role, reader, answerLimits(key));
          if (!read.ok) return read;
          setValue(key, read.value);
          return { ok: true, ...(read.note ? { note: read.note } : {}) };
        };
        const value = field.value === undefined ? '' : entryText(field.value, role, reader);
        return (
          <TextEntry
            label={label}
            value={value}
            unit={unitById(ROLES[role].kind, roleUnit(role, reader)).symbol}
            onEnter={enter}
            hint={hint}
            testId={`new-${key}`}
          />
        );
      }}
    />
  );

  return (
    <Box maxW="760px" mx="auto" px={{ base: '3', md: '6' }} py="4">
      <PageHead />
      <Box as="main">
        <Heading as="h1" fontSize="3xl" fontWeight="800">
          A new system
        </Heading>
        <Box color="soft" mt="1" mb="4">
          Five answers are enough. What you do not know yet is assumed, and marked as assumed, until you measure it.
        </Box>
        <chakra.form onSubmit={(event) => void start(event)} noValidate display="grid" gap="4">
          <Box display="grid" gap="4" gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }} alignItems="start">
            <Controller
              control={control}
              name="name"
              render={({ field }) => (
                <Box gridColumn={{ md: '1 / -1' }}>
                  <TextEntry
                    label="1. What do you call it?"
                    value={field.value}
                    testId="new-name"
                    onEnter={(text) => readName(text, (entered) => setValue('name', entered))}
                  />
                </Box>
              )}
            />
            <Controller
              control={control}
              name="vehicle"
              render={({ field }) => (
                <Select
                  label="2. What is it in?"
                  value={field.value}
                  options={VEHICLES.map((value) => ({ value, label: VEHICLE_WORDS[value] }))}
                  onChange={(value) => setValue('vehicle', value)}
                />
              )}
            />
            <Controller
              control={control}
              name="consumer"
              render={({ field: { value: consumer } }) => (
                <>
                  <Select
                    label="3. What takes the fuel?"
                    value={consumer}
                    options={CONSUMER_KINDS.map((value) => ({ value, label: CONSUMER_WORDS[value] }))}
                    onChange={(value) => chooseConsumer(consumer, value)}
                  />
                  {size('power_W', `4. ${POWER_QUESTION[consumer]}`)}
                </>
              )}
            />
            {size('holds_m3', '5. How much should it hold?', 'At the fill limit, not to the brim.')}
          </Box>
          <Box as="fieldset" borderTopWidth="1px" borderColor="rule" pt="3">
            <Box as="legend" fontWeight="650" pr="2">
              What is there already? Leave empty what you do not know.
            </Box>
            <Box display="grid" gap="4" gridTemplateColumns={{ base: '1fr 1fr', md: 'repeat(4, 1fr)' }}>
              {size('length_m', 'Inside length')}
              {size('width_m', 'Inside width')}
              {size('height_m', 'Inside height')}
              {size('run_m', 'Line, tank to consumer')}
            </Box>
          </Box>
          {problem && (
            <Box role="alert" color="stop" fontWeight="600">
              {problem}
            </Box>
          )}
          {Object.values(formState.errors).map((error) => (
            <Box key={error.message} role="alert" color="stop">
              {error.message}
            </Box>
          ))}
          <Box>
            <Button kind="main" type="submit" testId="new-start">
              Work it out
            </Button>
          </Box>
        </chakra.form>
      </Box>
    </Box>
  );
}

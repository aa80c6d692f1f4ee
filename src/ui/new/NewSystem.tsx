'use client';

import { Box, chakra, Heading } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useState, type FormEvent } from 'react';
import {
  answersFor,
  checkedAnswers,
  JOBS,
  openQuestions,
  type AnswerValue,
  type Job,
  type JobAnswers,
  type Question,
} from '@/core/plan';
import { entryText, roleUnit, ROLES, unitById } from '@/core/units';
import { readEntry } from '../fields/readEntry';
import { readName } from '../fields/readName';
import { Select } from '../fields/Select';
import { TextEntry, type EntryVerdict } from '../fields/TextEntry';
import { createOnServer } from '../library/serverSystems';
import { Button } from '../parts/Button';
import { PageHead } from '../parts/PageHead';
import { useReader, useReaderStore } from '../state/reader';

/** What is to be built, and its few questions; everything not asked becomes a stated assumption. */
export function NewSystem() {
  const router = useRouter();
  const [job, setJob] = useState<Job>(JOBS[0]!);
  const [given, setGiven] = useState<JobAnswers>({});
  const [name, setName] = useState<string>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => void useReaderStore.persist.rehydrate(), []);
  // What was answered for one job still counts for the next that asks it.
  const answers = answersFor(job, given);
  const shownName = name ?? job.title;
  const start = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const checked = checkedAnswers(job, answers);
    if (!checked.ok) return setProblem(checked.error.detail);
    const made = await createOnServer(job.draft(shownName, checked.value));
    if (made.ok) router.push(`/systems/${made.id}`);
    else setProblem(made.detail);
  };
  return (
    <Box maxW="860px" mx="auto" px={{ base: '3', md: '6' }} py="4">
      <PageHead />
      <Box as="main">
        <Heading as="h1" fontSize="3xl" fontWeight="800">
          A new system
        </Heading>
        <Box color="soft" mt="1" mb="4">
          A few answers are enough. What you do not know yet is assumed, and marked as assumed, until you measure it.
        </Box>
        <chakra.form onSubmit={(event) => void start(event)} noValidate display="grid" gap="4">
          <JobChoice job={job} onChoose={setJob} />
          <Box
            as="section"
            aria-label={job.title}
            bg="panel"
            borderWidth="1px"
            borderColor="rule"
            borderRadius="lg"
            p="4"
            display="grid"
            gap="4"
            gridTemplateColumns={{ base: 'minmax(0, 1fr)', md: 'repeat(2, minmax(0, 1fr))' }}
            alignItems="start"
          >
            {openQuestions(job, answers).map((question) => (
              <OneQuestion
                key={`${job.key} ${question.key}`}
                question={question}
                value={answers[question.key]}
                onAnswer={(value) => {
                  setProblem(undefined);
                  setGiven({ ...given, [question.key]: value });
                }}
              />
            ))}
            <TextEntry
              label="What do you call it?"
              value={shownName}
              testId="new-name"
              onEnter={(text) => readName(text, setName)}
            />
          </Box>
          {problem && (
            <Box role="alert" color="stop" fontWeight="600">
              {problem}
            </Box>
          )}
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

/** The kinds of job, one of them chosen; arrow keys go through them. */
function JobChoice({ job, onChoose }: { readonly job: Job; readonly onChoose: (job: Job) => void }) {
  return (
    <Box
      as="fieldset"
      display="grid"
      gap="2"
      gridTemplateColumns={{ base: 'repeat(2, minmax(0, 1fr))', md: 'repeat(4, minmax(0, 1fr))' }}
    >
      <Box as="legend" fontWeight="650" mb="2">
        What is to be built?
      </Box>
      {JOBS.map((each) => (
        <chakra.label
          key={each.key}
          display="flex"
          flexDirection="column"
          gap="1"
          p="3"
          borderWidth="1.5px"
          borderRadius="md"
          cursor="pointer"
          bg={each === job ? 'accent' : 'panel'}
          color={each === job ? 'onAccent' : 'ink'}
          borderColor={each === job ? 'accent' : 'edge'}
          position="relative"
          _focusWithin={{ outline: '3px solid', outlineColor: 'accent', outlineOffset: '2px' }}
        >
          <chakra.input
            type="radio"
            name="job"
            value={each.key}
            checked={each === job}
            onChange={() => onChoose(each)}
            position="absolute"
            opacity={0}
            inset="0"
            cursor="pointer"
          />
          <Box fontWeight="700">{each.title}</Box>
          <Box fontSize="sm" color={each === job ? 'onAccent' : 'soft'}>
            {each.about}
          </Box>
        </chakra.label>
      ))}
    </Box>
  );
}

type QuestionProps = {
  readonly question: Question;
  readonly value: AnswerValue;
  readonly onAnswer: (value: AnswerValue) => void;
};

function OneQuestion({ question, value, onAnswer }: QuestionProps) {
  const reader = useReader();
  if (question.kind === 'choice')
    return <Select label={question.ask} value={String(value ?? '')} options={question.options} onChange={onAnswer} />;
  const { role, min, max, isOptional = false } = question;
  const enter = (text: string): EntryVerdict => {
    if (text.trim() === '' && isOptional) {
      onAnswer(undefined);
      return { ok: true };
    }
    const read = readEntry(text, role, reader, { min, max });
    if (!read.ok) return read;
    onAnswer(read.value);
    return { ok: true, ...(read.note ? { note: read.note } : {}) };
  };
  return (
    <TextEntry
      label={question.ask}
      value={typeof value === 'number' ? entryText(value, role, reader) : ''}
      unit={unitById(ROLES[role].kind, roleUnit(role, reader)).symbol}
      onEnter={enter}
      hint={question.hint}
      testId={`new-${question.key}`}
    />
  );
}

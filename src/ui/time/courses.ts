import { create } from 'zustand';
import type { Played } from '@/core/answers';
import type { Outcome } from '@/core/outcome';
import type { SystemDocument } from '@/core/plan';
import { useEditor } from '../state/editor';
import { spanWith, type Span } from './span';

/** A scenario played, and the document that it was played on. */
export type Course = { readonly of: SystemDocument; readonly played: Outcome<Played, string> };

/** Of one system: what is looked at, and the last two courses of each scenario. */
type Courses = {
  readonly chosen: string | undefined;
  readonly at_s: number;
  /** What is shown of it; the whole where nothing is said. */ readonly span?: Span | undefined;
  readonly runs: Readonly<Record<string, { readonly now: Course; readonly before?: Course } | undefined>>;
};
const NOTHING: Courses = { chosen: undefined, at_s: 0, runs: {} };

/** By the system's own id: courses stand as long as the page does, so that the next can be laid beside the last. */
const useStore = create<Readonly<Record<string, Courses | undefined>>>()(() => ({}));

export function useCourses(): Courses {
  const id = useEditor((editor) => editor.id);
  return useStore((all) => all[id] ?? NOTHING);
}

/** The same outside what is drawn. */
export const coursesOf = (id: string): Courses => useStore.getState()[id] ?? NOTHING;

const change = (how: (courses: Courses) => Courses): void => {
  const { id } = useEditor.getState();
  useStore.setState((all) => ({ [id]: how(all[id] ?? NOTHING) }));
};

/** What a course comes to first is what is looked at first. */
const firstOf = (course: Course | undefined): number =>
  course?.played.ok ? (course.played.value.verdict.find(({ t_s }) => t_s !== undefined)?.t_s ?? 0) : 0;

export const chooseScenario = (chosen: string | undefined): void =>
  change((courses) => ({
    ...courses,
    chosen,
    span: undefined,
    at_s: firstOf(chosen === undefined ? undefined : courses.runs[chosen]?.now),
  }));
export const goToTime = (at_s: number, duration_s: number): void =>
  change((courses) => ({ ...courses, at_s, span: courses.span && spanWith(courses.span, at_s, duration_s) }));
export const showSpan = (span: Span): void => change((courses) => ({ ...courses, span }));

/** Keeps a course; the one before it of the same scenario is kept beside it where the system was another. */
export const keepCourse = (key: string, now: Course): void =>
  change((courses) => {
    const old = courses.runs[key];
    const before = old && old.now.of !== now.of && old.now.played.ok ? old.now : old?.before;
    return {
      ...courses,
      at_s: firstOf(now),
      span: undefined,
      runs: { ...courses.runs, [key]: { now, ...(before ? { before } : {}) } },
    };
  });

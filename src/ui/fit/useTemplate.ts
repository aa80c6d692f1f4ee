'use client';

import { create } from 'zustand';
import { cutObstacles, mirrored, type Template } from '@/core/answers';
import { useAnswer } from '../state/answers';
import { useSystem } from '../state/editor';
import { useSides } from '../state/sides';
import { useTank } from '../state/tankChoice';

/** Which face is cut in card, and whether turned over; the same in its panel and on its sheet. */
export const useTemplateChoice = create<{
  /** A bracket, a frame or a cover, chosen while a tank was at work; that tank itself where left out. */
  readonly obstacle: { readonly id: string; readonly tank: number } | undefined;
  readonly face: string | undefined;
  readonly isOver: boolean;
}>()(() => ({ obstacle: undefined, face: undefined, isOver: false }));

type TemplateInUse = {
  /** Undefined until they are worked out, and where they cannot be. */
  readonly faces: readonly Template[] | undefined;
  readonly template: Template | undefined;
  readonly title: string;
  readonly isFresh: boolean;
  /** Why there are none. */ readonly why: string | undefined;
};

/** The templates of the tank at work, and the one that is chosen. */
export function useTemplate(): TemplateInUse {
  const sides = useSides();
  const t = useTank();
  const system = useSystem();
  const { obstacle, face, isOver } = useTemplateChoice();
  const of = obstacle?.tank === t ? cutObstacles(system).find(({ id }) => id === obstacle.id) : undefined;
  const name = of?.name ?? system.tanks[t]!.name;
  const { value, standing, reason } = useAnswer('templates', t, of?.id);
  const faces = value?.ok ? value.value : undefined;
  const chosen = faces?.find(({ name }) => name === face) ?? faces?.[0];
  return {
    faces,
    template: chosen && isOver ? mirrored(chosen) : chosen,
    title: chosen
      ? `${name}, ${sides(chosen.name).toLowerCase()}${isOver ? ', turned over' : ', seen from outside'}`
      : name,
    isFresh: standing === 'fresh',
    why: value && !value.ok ? value.error.detail : value ? undefined : reason,
  };
}

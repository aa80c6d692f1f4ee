import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  COMPONENT_KINDS,
  COMPONENTS,
  endsOfComponent,
  joinedEnds,
  kindOf,
  MIDDLE,
  standsAs,
  type Hydraulics,
} from './';
import { unwrap } from '../outcome';
import { newPart, parsePart, parseSystemText, type ComponentDocument } from '../plan';
import { reached } from '../reached';

const SYSTEM = unwrap(parseSystemText(readFileSync('tests/fixtures/box-boat.json', 'utf8')));
const made = COMPONENT_KINDS.map((kind) => newPart(SYSTEM, kind, 0.008));
const HYDRAULICS: Hydraulics = {
  fitting: (_, count) => ({ k1: 100, kInfinity: 1, sized: false, count }),
  viscosity_PaS: 0.003,
  supply_V: 12,
  tank: () => undefined,
};
/** Each part as begun, and at every choice that it has. */
const asMade: ComponentDocument[] = made.flatMap((part) => [
  part,
  ...(kindOf(part).choices ?? []).flatMap(({ key, options }) =>
    options.map(({ value }) => ({ ...part, [key]: value }) as ComponentDocument),
  ),
  ...(kindOf(part).additions ?? []).map(({ key, start }) => ({ ...part, [key]: start(part) }) as ComponentDocument),
]);

describe.each(asMade.map((part, i) => [`${part.kind} ${i}`, part] as const))('%s', (_, part) => {
  const kind = kindOf(part);
  const links = kind.links(part, HYDRAULICS);

  it('is what the format takes, at every choice it offers', () => {
    expect(parsePart(part)).toMatchObject({ ok: true });
  });

  it('has links between its own ends and its middle alone, each by a name of its own', () => {
    const places = new Set<string>([...endsOfComponent(part), ...(kind.hasMiddle ? [MIDDLE] : [])]);
    for (const { from, to } of links)
      expect([places.has(from), places.has(to), from !== to]).toEqual([true, true, true]);
    expect(new Set(links.map(({ suffix }) => suffix ?? '')).size).toBe(links.length);
  });

  it('joins by links the very ends that it says it joins', () => {
    const open = links
      .filter(({ elements }) => !elements.some((element) => element.kind === 'closed'))
      .map(({ from, to }) => [from, to] as const);
    for (const end of endsOfComponent(part)) {
      const linked = [...reached([end], open)].filter((each) => each !== end && each !== MIDDLE).sort();
      const stated = kind.isShut?.(part) ? [] : [...joinedEnds(part, end)].sort();
      expect(linked).toEqual(stated);
    }
  });

  it('is moved in use by one of its choices, and says how it stands', () => {
    if (!kind.moved) return expect(standsAs(part)).toBe('');
    expect(kind.choices?.map(({ key }) => key)).toContain(kind.moved.key);
    expect(standsAs(part)).not.toBe('');
  });

  it('lets back by an end and a link that it has', () => {
    const back = kind.letsBack?.(part);
    if (!back) return expect(back).toBeUndefined();
    expect(endsOfComponent(part)).toContain(back.end);
    expect(links.map(({ suffix }) => suffix)).toContain(back.suffix);
  });

  it('has remedies that the format takes and that change a quantity it has', () => {
    for (const { key, value } of kind.remedies?.(part) ?? []) {
      const changed = { ...part, [key]: { ...(part as never as Record<string, object>)[key], value } };
      expect(parsePart(changed)).toMatchObject({ ok: true });
    }
  });
});

describe('draining', () => {
  const draining = { head_Pa: 1000, isOverSurfaces: false };
  const drains = (
    part: ComponentDocument,
    from: 'in' | 'out' | 'side',
    towards: 'in' | 'out' | 'side',
    with_ = draining,
  ) => kindOf(part).drains?.(part, { from, towards }, with_) ?? true;
  const of = (kind: (typeof COMPONENT_KINDS)[number]) => made.find((part) => part.kind === kind)!;

  it('goes by a check valve forward alone, and by a sprung one only over its spring', () => {
    const check = of('check-valve');
    expect(drains(check, 'in', 'out')).toBe(true);
    expect(drains(check, 'out', 'in')).toBe(false);
    const sprung = { ...check, opens_Pa: { value: 3000, origin: 'chosen' } } as ComponentDocument;
    expect(drains(sprung, 'in', 'out')).toBe(false);
    expect(drains(sprung, 'in', 'out', { ...draining, head_Pa: 3001 })).toBe(true);
  });

  it('ends at a vacuum breaker that lies over every surface', () => {
    expect(drains(of('vacuum-breaker'), 'in', 'out')).toBe(true);
    expect(drains(of('vacuum-breaker'), 'in', 'out', { ...draining, isOverSurfaces: true })).toBe(false);
  });

  it('never goes by a regulator’s return', () => {
    expect(drains(of('regulator'), 'in', 'out')).toBe(true);
    expect(drains(of('regulator'), 'in', 'side')).toBe(false);
    expect(drains(of('regulator'), 'side', 'in')).toBe(false);
  });
});

it('every kind has a word, a name and ends of its own', () => {
  for (const kind of COMPONENT_KINDS) {
    expect(COMPONENTS[kind].word).not.toBe('');
    expect(Object.keys(COMPONENTS[kind].ends).length).toBeGreaterThan(0);
  }
  expect(new Set(COMPONENT_KINDS.map((kind) => COMPONENTS[kind].name)).size).toBe(COMPONENT_KINDS.length);
});

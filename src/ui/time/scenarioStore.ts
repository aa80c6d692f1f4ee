import type { Scenario, SystemDocument } from '@/core/plan';
import { applyEdit } from '../state/editor';

const MOST_NAME = 80;

/** A name that none of a system's own scenarios has. */
export function freeName(own: readonly Scenario[], base: string): string {
  const names = new Set(own.map(({ name }) => name));
  for (let n = 1; ; n++) {
    const tail = n === 1 ? ', own' : `, own ${n}`;
    const name = `${base.slice(0, MOST_NAME - tail.length)}${tail}`;
    if (!names.has(name)) return name;
  }
}

const change = (edit: string, how: (own: readonly Scenario[]) => Scenario[]): void =>
  applyEdit(edit, (system): SystemDocument => ({ ...system, scenarios: how(system.scenarios ?? []) }));

export const addScenario = (scenario: Scenario): void =>
  change(`add the scenario ${scenario.name}`, (own) => [...own, scenario]);

export const putScenario = (at: number, scenario: Scenario): void =>
  change(`change the scenario ${scenario.name}`, (own) => own.map((each, n) => (n === at ? scenario : each)));

export const removeScenario = (at: number, name: string): void =>
  change(`remove the scenario ${name}`, (own) => own.filter((_, n) => n !== at));

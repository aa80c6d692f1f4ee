import { fuzzed } from '../tests/independent/networkFuzz';
import type { Bench } from './measure';

const NETWORKS = 20_000;

/** Random networks with up to two regulators, every law and balance worked out again: none wrong, none refused. */
export const networkFuzz: Bench = {
  name: 'network-fuzz',
  async run() {
    const { wrong, refused } = fuzzed(NETWORKS, 2, 100_000);
    const value = wrong.length + refused.length;
    const first = [...wrong, ...refused][0];
    return {
      name: 'network-fuzz',
      value,
      unit: 'wrong or refused',
      ratio: null,
      goal: 0,
      met: value === 0,
      reference: `of ${NETWORKS}: ${wrong.length} faults, ${refused.length} refused${first ? `, first ${first}` : ''}`,
    };
  },
};

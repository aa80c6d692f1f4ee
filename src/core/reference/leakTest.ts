import { sourced, type Sourced } from './provenance';

/** Air that a new tank is tried with for leaks: what its walls are known to have borne. */
export const LEAK_TEST: Sourced & { readonly air_Pa: number } = {
  air_Pa: 27.6e3,
  ...sourced('common practice', 'about 4 psi of air, left overnight'),
};

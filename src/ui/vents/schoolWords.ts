import type { TransferSchool } from '@/core/answers';

/** Each school of moving liquid from tank to tank: what it is called, and what goes wrong with it. */
export const SCHOOL_WORDS: Readonly<Record<TransferSchool, { readonly label: string; readonly caution: string }>> = {
  pump: {
    label: 'by pump',
    caution: 'Left on, it overfills what it moves into: stay with it, or give it a level switch.',
  },
  gravity: { label: 'by gravity', caution: 'It goes on until levels or vents stop it: shut the cock when you leave.' },
  vacuum: {
    label: 'by the vacuum of the sealed one',
    caution:
      'With any breather open nothing moves, and nobody sees why. Open one again before it is filled or parked warm.',
  },
  selector: { label: 'by selector valve', caution: 'Drawn dry, it gives the engine air: change over before that.' },
};

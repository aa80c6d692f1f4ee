export type Quantity = {
  readonly si: number;
  /** How the entry was understood, to be shown beside it. */
  readonly reading: string;
  /** True when the text named a size out of a table. */
  readonly nominal?: boolean;
};

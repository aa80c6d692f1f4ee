/** Common practice: a filter is changed when it costs five times what it did new. */
export const DIRTY_RATIO = 5;

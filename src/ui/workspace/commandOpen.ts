'use client';

import { create } from 'zustand';

/** Whether the box that goes anywhere is open. */
export const useCommandBox = create<{ readonly isOpen: boolean }>()(() => ({ isOpen: false }));
export const openCommandBox = (): void => useCommandBox.setState({ isOpen: true });
export const closeCommandBox = (): void => useCommandBox.setState({ isOpen: false });

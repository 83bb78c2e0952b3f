import { useStore } from 'zustand';
import { useController } from './context';
import type { MouldState } from './mould-work';

/** A narrow slice of the work on the mould. */
export function useMould<T>(pick: (state: MouldState) => T): T {
  return useStore(useController().mould.store, pick);
}

import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

/**
 * Whether the page answers yet: it is shown before its scripts have come, and what is pressed or typed until then is
 * lost, so what can be pressed waits for this.
 */
export function useInUse(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}

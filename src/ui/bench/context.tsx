'use client';
import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { BenchController, BenchState } from './controller';

const BenchContext = createContext<BenchController | null>(null);
export const BenchProvider = BenchContext.Provider;

export function useController(): BenchController {
  const controller = useContext(BenchContext);
  if (!controller) throw new Error('not on a bench');
  return controller;
}

/** A narrow slice of the bench; the component wakes only when it changes. */
export function useBench<T>(pick: (state: BenchState) => T): T {
  return useStore(useController().store, pick);
}

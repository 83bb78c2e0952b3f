'use client';
import { createContext, useContext, useEffect, type ReactNode } from 'react';
import { useController } from '../bench/context';
import { useNow, useSurroundings, type KnownSurroundings } from './surroundings';
import { useLog, type KnownLog, type LatestOfLog } from './use-log';

/** Log, workshop and clock of the open build: read once for the whole bench, and given to the one reckoning. */
interface Feed {
  readonly log: KnownLog;
  readonly around: KnownSurroundings;
}
const FeedContext = createContext<Feed | null>(null);

export function SessionFeed({ latest, children }: { latest: LatestOfLog; children: ReactNode }) {
  const controller = useController();
  const log = useLog(controller.id, latest);
  const around = useSurroundings(controller.id);
  const now = useNow();
  const { entries } = log;
  const { surroundings } = around;
  useEffect(() => {
    if (entries) controller.setLog(entries);
  }, [controller, entries]);
  useEffect(() => {
    if (surroundings) controller.setSurroundings(surroundings);
  }, [controller, surroundings]);
  useEffect(() => controller.setNow(now), [controller, now]);
  return <FeedContext.Provider value={{ log, around }}>{children}</FeedContext.Provider>;
}

export function useFeed(): Feed {
  const feed = useContext(FeedContext);
  if (!feed) throw new Error('not on a bench');
  return feed;
}

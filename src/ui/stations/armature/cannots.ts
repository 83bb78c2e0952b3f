'use client';
import { useEffect, useRef, useState } from 'react';
import type { Build } from '../../../core/document';
import { compareClient, type CompareClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';

/** The bench is left alone this long after a change before other ways of building are tried, milliseconds. */
const stillFor = 1500;

/**
 * Why other ways of building cannot make this form in this clay, by kind: each is sized as well as can be, in a worker,
 * once the bench has its own answer.
 */
export function useCannots(kinds: readonly string[]): Readonly<Record<string, string>> {
  const controller = useController();
  const build = useBench((s) => s.build);
  const settled = useBench((s) => s.reckoning === 'done');
  const [found, setFound] = useState<Readonly<Record<string, string>>>({});
  const client = useRef<CompareClient | null>(null);
  const askedFor = useRef<Build | null>(null);
  const list = kinds.join();
  useEffect(() => () => client.current?.stop(), []);
  useEffect(() => {
    if (!settled || list === '' || askedFor.current === build) return;
    const timer = setTimeout(() => {
      askedFor.current = build;
      client.current?.stop();
      setFound({});
      client.current = compareClient((answer) => {
        if (answer.kind !== 'school') return;
        const { cannot } = answer.row;
        if (cannot !== null) setFound((f) => ({ ...f, [answer.school]: cannot }));
      });
      client.current.ask({ kind: 'schools', asked: controller.askedOf(build), schools: list.split(',') });
    }, stillFor);
    return () => clearTimeout(timer);
  }, [build, settled, list, controller]);
  return found;
}

'use client';
import { useEffect, useState } from 'react';
import type { UnitSystem } from '../../core/quantity';
import { call } from './http';

/** The user's own ways: units, theme, motion; kept on the server, put on the page at once. */
export interface Ways {
  readonly units: UnitSystem;
  readonly theme: 'day' | 'evening' | 'system';
  readonly motion: boolean;
}

function wantsDark(theme: Ways['theme']): boolean {
  return theme === 'evening' || (theme === 'system' && window.matchMedia('(prefers-color-scheme: dark)').matches);
}

export function useWays(initial: Ways): { ways: Ways; dark: boolean; change: (next: Partial<Ways>) => void } {
  const [ways, setWays] = useState(initial);
  const [dark, setDark] = useState(initial.theme === 'evening');
  useEffect(() => {
    const put = () => {
      const now = wantsDark(ways.theme);
      setDark(now);
      document.documentElement.dataset['theme'] = now ? 'evening' : 'day';
      document.documentElement.dataset['motion'] = ways.motion ? 'on' : 'off';
    };
    put();
    const query = window.matchMedia('(prefers-color-scheme: dark)');
    query.addEventListener('change', put);
    return () => query.removeEventListener('change', put);
  }, [ways]);
  const change = (next: Partial<Ways>) => {
    const all = { ...ways, ...next };
    setWays(all);
    void call('PUT', '/api/settings', all);
  };
  return { ways, dark, change };
}

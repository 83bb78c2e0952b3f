import '@fontsource/atkinson-hyperlegible/400.css';
import '@fontsource/atkinson-hyperlegible/700.css';
import '@fontsource-variable/bricolage-grotesque/index.css';
import '../ui/theme/theme.scss';
import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { readSettings } from '../server';

export const metadata: Metadata = {
  title: 'Sostegno',
  description: 'Armatures that hold, and clay that dries without cracking.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };
export const dynamic = 'force-dynamic';

export default async function Layout({ children }: { children: ReactNode }) {
  const { theme, motion } = await readSettings();
  return (
    <html
      lang="en"
      data-theme={theme === 'evening' ? 'evening' : 'day'}
      data-motion={motion ? 'on' : 'off'}
      suppressHydrationWarning
    >
      <body>{children}</body>
    </html>
  );
}

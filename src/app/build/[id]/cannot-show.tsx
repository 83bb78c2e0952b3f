import Link from 'next/link';
import { notFound } from 'next/navigation';
import type { ReactElement } from 'react';
import type { Failure } from '../../../core/quantity';
import { lastReadable, openBuild } from '../../../server';
import Unreadable from '../../../ui/parts/unreadable';

/** What stands in the place of a page that cannot be made, `what` being its name: no such build, one that cannot be read, or what stands in the way. */
export async function cannotShow(id: string, what: string, failed: Failure): Promise<ReactElement> {
  if (failed.code === 'no-such-build') notFound();
  const opened = await openBuild(id);
  if (!opened.ok)
    return (
      <Unreadable
        id={id}
        why={`What is kept of it is damaged (${opened.path}, ${opened.message})`}
        last={await lastReadable(id)}
      />
    );
  return (
    <main className="shelf">
      <div className="empty">
        <h1 className="h3">{what} cannot be made.</h1>
        <p role="alert">
          {failed.path}: {failed.message}.
        </p>
        <Link href={`/build/${id}`} className="btn btn-quiet">
          To the bench
        </Link>
      </div>
    </main>
  );
}

'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { formatDate } from '../../core/quantity';
import { call } from './http';

/** A build whose document cannot be read: what is wrong, and the newest version that can be taken back. */
export default function Unreadable({
  id,
  why,
  last,
}: {
  id: string;
  why: string;
  last: { readonly savedAt: string } | null;
}) {
  const router = useRouter();
  const [wrong, setWrong] = useState<string | null>(null);
  const takeBack = async () => {
    const answer = await call('POST', `/api/builds/${id}/mark`, { mark: 'take-back' });
    if (answer.ok) router.refresh();
    else setWrong(answer.message);
  };
  return (
    <main className="shelf">
      <div className="empty">
        <h1 className="h3">This build cannot be read.</h1>
        <p>{why}.</p>
        {last ? (
          <p>
            The version saved on {formatDate(last.savedAt.slice(0, 10))} at {last.savedAt.slice(11, 16)} UTC can be
            read. Its log and pictures are kept as they are.
          </p>
        ) : (
          <p>No earlier version of it can be read either. A backup may have it: bin/sostegno restore FILE.</p>
        )}
        {wrong && (
          <p className="status-fails" role="alert">
            {wrong}
          </p>
        )}
        <div className="d-flex gap-2 justify-content-center">
          {last && (
            <Button variant="iron" onClick={() => void takeBack()}>
              Take that version back
            </Button>
          )}
          <Link href="/" className="btn btn-quiet">
            To the shelf
          </Link>
        </div>
      </div>
    </main>
  );
}

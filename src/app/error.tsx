'use client';

export default function ErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main className="shelf">
      <div className="empty">
        <h1 className="h3">This page could not be shown.</h1>
        <p>{error.message}</p>
        <button type="button" className="btn btn-iron" onClick={reset}>
          Try again
        </button>
      </div>
    </main>
  );
}

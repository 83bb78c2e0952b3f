import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="shelf">
      <div className="empty">
        <h1 className="h3">There is nothing here.</h1>
        <p>The build may have been deleted. Deleted builds come back with Undo, on the shelf, right after.</p>
        <Link href="/" className="btn btn-iron">
          To the shelf
        </Link>
      </div>
    </main>
  );
}

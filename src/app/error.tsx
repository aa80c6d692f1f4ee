'use client';

export default function ErrorPage({
  error,
  reset,
}: {
  readonly error: Error & { digest?: string };
  readonly reset: () => void;
}) {
  return (
    <main role="alert" style={{ maxWidth: 640, margin: '80px auto', padding: 16 }}>
      <h1 style={{ fontSize: '2rem', fontWeight: 800 }}>Gas Line tripped over itself.</h1>
      <p style={{ margin: '12px 0' }}>
        What was saved is safe. {error.digest ? `The server’s log has more under ${error.digest}.` : error.message}
      </p>
      <button
        type="button"
        onClick={reset}
        style={{ minHeight: 44, padding: '0 16px', border: '1.5px solid', borderRadius: 6 }}
      >
        Try again
      </button>
    </main>
  );
}

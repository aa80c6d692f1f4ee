import Link from 'next/link';

export default function NotFound() {
  return (
    <main style={{ maxWidth: 640, margin: '80px auto', padding: 16 }}>
      <h1 style={{ fontSize: '2rem', fontWeight: 800 }}>There is nothing here.</h1>
      <p style={{ margin: '12px 0' }}>The system may have been deleted, or the address is wrong.</p>
      <Link href="/" style={{ textDecoration: 'underline' }}>
        All systems
      </Link>
    </main>
  );
}

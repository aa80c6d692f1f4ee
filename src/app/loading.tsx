export default function Loading() {
  return <main role="status" style={{ padding: 32 }}>Opening…</main>;
}

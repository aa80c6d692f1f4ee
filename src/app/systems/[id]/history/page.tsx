import { notFound } from 'next/navigation';
import { database, findSystem, listRevisions } from '@/db';
import { UnreadableSystem } from '@/ui/library/UnreadableSystem';
import { History } from '@/ui/history/History';

export const metadata = { title: 'History · Gas Line' };

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  const found = findSystem(database(), id);
  if (!found.ok && found.error.code === 'unreadable') return <UnreadableSystem id={id} detail={found.error.detail} />;
  if (!found.ok) notFound();
  const { document, revision } = found.value;
  return <History id={id} name={document.name} revision={revision} revisions={listRevisions(database(), id)} />;
}

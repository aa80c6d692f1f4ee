import { notFound } from 'next/navigation';
import { database, findSystem } from '@/db';
import { UnreadableSystem } from '@/ui/library/UnreadableSystem';
import { Workspace } from '@/ui/workspace/Workspace';

export const dynamic = 'force-dynamic';

type Props = { readonly params: Promise<{ id: string }> };

export default async function Page({ params }: Props) {
  const { id } = await params;
  const found = findSystem(database(), id);
  if (!found.ok && found.error.code === 'unreadable') return <UnreadableSystem id={id} detail={found.error.detail} />;
  if (!found.ok) notFound();
  const { document, revision } = found.value;
  return <Workspace key={id} id={id} document={document} revision={revision} />;
}

import { notFound } from 'next/navigation';
import { database, findSystem } from '@/db';
import { Workspace } from '@/ui/workspace/Workspace';

export const dynamic = 'force-dynamic';

type Props = { readonly params: Promise<{ id: string }>; readonly searchParams: Promise<{ stage?: string | string[] }> };

export default async function Page({ params, searchParams }: Props) {
  const { id } = await params;
  const { stage } = await searchParams;
  const row = findSystem(database(), id);
  if (!row) notFound();
  return <Workspace key={row.id} id={row.id} document={row.document} revision={row.revision} stage={typeof stage === 'string' ? stage : null} />;
}

import { cookies } from 'next/headers';
import { notFound } from 'next/navigation';
import type { Card } from '@/core/answers';
import { cardOfSystem, database, findSystem } from '@/db';
import { buildId } from '@/server/build';
import { READER_COOKIE, readerOfCookie } from '@/ui/parts/readerCookie';
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
  const card = cardOfSystem(database(), id, buildId());
  const reader = readerOfCookie((await cookies()).get(READER_COOKIE)?.value);
  return (
    <Workspace
      key={id}
      id={id}
      document={document}
      revision={revision}
      card={card === undefined ? undefined : (JSON.parse(card) as Card)}
      reader={reader}
    />
  );
}

import { database, findSystem, listSystems } from '@/db';
import { Compare } from '@/ui/compare/Compare';
import { MOST_COMPARED } from '@/ui/compare/chosen';

export const dynamic = 'force-dynamic';

type Props = { readonly searchParams: Promise<{ with?: string | string[] }> };

export default async function Page({ searchParams }: Props) {
  const { with: asked } = await searchParams;
  const ids = [...new Set([asked ?? []].flat())].slice(0, MOST_COMPARED);
  const chosen = ids.flatMap((id) => findSystem(database(), id) ?? []);
  const all = listSystems(database()).map(({ id, variantOf, document }) => ({ id, variantOf, name: document.name }));
  return <Compare all={all} chosen={chosen.map(({ id, variantOf, document }) => ({ id, variantOf, document }))} />;
}

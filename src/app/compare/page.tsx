import { database, findSystem, nameSystems } from '@/db';
import { Compare } from '@/ui/compare/Compare';
import { MOST_COMPARED } from '@/ui/compare/chosen';

export const metadata = { title: 'Compare · Gas Line' };

export const dynamic = 'force-dynamic';

type Props = { readonly searchParams: Promise<{ with?: string | string[] }> };

export default async function Page({ searchParams }: Props) {
  const { with: asked } = await searchParams;
  const ids = [...new Set([asked ?? []].flat())].slice(0, MOST_COMPARED);
  const chosen = ids.flatMap((id) => {
    const found = findSystem(database(), id);
    return found.ok ? [found.value] : [];
  });
  return (
    <Compare
      all={nameSystems(database())}
      chosen={chosen.map(({ id, variantOf, document }) => ({ id, variantOf, document }))}
    />
  );
}

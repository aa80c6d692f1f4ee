import { Pair } from '@/ui/data/Pair';

export const metadata = { title: 'Connect a device · Gas Line' };

type Props = { readonly searchParams: Promise<{ code?: string | string[] }> };

export default async function Page({ searchParams }: Props) {
  const { code } = await searchParams;
  return <Pair code={typeof code === 'string' ? code.slice(0, 40) : ''} />;
}

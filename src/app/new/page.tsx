import { NewSystem } from '@/ui/new/NewSystem';

export const metadata = { title: 'A new system · Gas Line' };

export const dynamic = 'force-dynamic';

export default function Page() {
  return <NewSystem />;
}

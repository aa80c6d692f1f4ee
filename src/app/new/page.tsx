import { NewSystem } from '@/ui/new/NewSystem';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <NewSystem />;
}

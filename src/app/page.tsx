import { database, listSystems } from '@/db';
import { Library } from '@/ui/library/Library';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <Library systems={listSystems(database())} />;
}

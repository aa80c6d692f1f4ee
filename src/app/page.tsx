import { database, listSystems } from '@/db';
import { buildId } from '@/server/build';
import { Library } from '@/ui/library/Library';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <Library first={listSystems(database(), buildId())} />;
}

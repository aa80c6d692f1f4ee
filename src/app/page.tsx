import { headers } from 'next/headers';
import { database, listSystems } from '@/db';
import { buildId } from '@/server/build';
import { Library } from '@/ui/library/Library';

export const dynamic = 'force-dynamic';

export default async function Page() {
  // What is about all the data stays with the machine that it is on.
  const isHere = (await headers()).get('x-gasline-door') !== 'network';
  return <Library first={listSystems(database(), buildId())} isHere={isHere} />;
}

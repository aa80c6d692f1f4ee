import { headers } from 'next/headers';
import { notFound } from 'next/navigation';
import { dataFolder, database, listBackups, listDevices } from '@/db';
import { ownAddresses } from '@/server/gate';
import { YourData } from '@/ui/data/YourData';

export const metadata = { title: 'Your data · Gas Line' };

export const dynamic = 'force-dynamic';

export default async function Page() {
  if ((await headers()).get('x-gasline-door') === 'network') notFound();
  return (
    <YourData
      folder={dataFolder()}
      backups={listBackups(dataFolder())}
      devices={listDevices(database())}
      isOnNetwork={ownAddresses().length > 0}
    />
  );
}

import { renderSVG } from 'uqr';
import { database, listDevices } from '@/db';
import { newCode } from '@/server/access';
import { ownAddresses } from '@/server/gate';
import { hereOnly, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

/** The devices that were let in. */
export const GET = hereOnly((): Response => Response.json({ devices: listDevices(database()) }));

/** A new code to let a device in by, with its picture. */
export const POST = hereOnly((request: Request): Response => {
  const [address] = ownAddresses();
  if (address === undefined)
    return refuse(
      409,
      'no-network',
      'Gas Line answers on this machine only. Start it with npm run demo -- --lan to let other devices in.',
    );
  const { code, until_ms } = newCode(Date.now());
  const url = `http://${address}:${new URL(request.url).port}/pair?code=${code}`;
  return Response.json({ code, until_ms, url, picture: renderSVG(url) }, { status: 201 });
});

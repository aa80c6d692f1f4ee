import http, { type IncomingMessage, type ServerResponse } from 'node:http';
import { networkInterfaces } from 'node:os';
import { parseArgs } from 'node:util';
import v8 from 'node:v8';
import next from 'next';
import { renderUnicodeCompact } from 'uqr';
import { dataFolder } from '@/db';
import { fromNetwork, newCode } from './access';
import { plainPath, turnedAway, type Turned } from './gate';
import { startUpOrExit } from './startup';

/**
 * `npm start`, and what `npm run demo` runs: looks through the data, then
 * answers on this machine; with --lan on the local network too, to devices that
 * were let in. Ends with one sentence and 1 where it cannot.
 */
const HERE = '127.0.0.1';

/**
 * A server that runs beside a builder's other programs all day takes less memory rather than less time. @source V8's
 * flags, node --v8-options
 */
for (const flag of ['--optimize-for-size', '--max-semi-space-size=2']) v8.setFlagsFromString(flag);

/** This machine's addresses on its networks; a test names another loopback address for one. */
const lanAddresses = (): string[] =>
  process.env.GASLINE_LAN_TEST?.split(',') ??
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);

function stop(sentence: string): never {
  console.error(sentence);
  process.exit(1);
}

function options(): { readonly port: number; readonly lan: boolean } {
  try {
    const { values } = parseArgs({ options: { port: { type: 'string' }, lan: { type: 'boolean', default: false } } });
    const port = Number(values.port ?? process.env.PORT ?? 3000);
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      stop(`The port must be a whole number from 1 to 65535; it is "${String(values.port ?? process.env.PORT)}".`);
    return { port, lan: values.lan };
  } catch (error) {
    return stop(`${(error as Error).message} There is --port N and --lan.`);
  }
}

type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<void>;

/** A refusal as JSON where data was asked for, else as text to read. */
function refuse(request: IncomingMessage, response: ServerResponse, { status, code, detail }: Turned): void {
  const isData = request.url?.startsWith('/api/') ?? false;
  response.writeHead(status, {
    'content-type': isData ? 'application/json' : 'text/plain; charset=utf-8',
    'cache-control': 'no-store',
    'x-content-type-options': 'nosniff',
    ...(status === 405 ? { allow: 'GET, HEAD, POST, PUT, DELETE' } : {}),
    connection: 'close',
  });
  response.end(isData ? JSON.stringify({ error: { code, detail } }) : `${detail}\n`);
}

/** Every request goes through here: first the door, then from the network the list of devices, then the app. */
const answerer =
  (app: Handler, addresses: readonly string[]) =>
  (request: IncomingMessage, response: ServerResponse): void => {
    const header = (name: string): string | undefined => [request.headers[name]].flat()[0];
    const turned = turnedAway({ method: request.method ?? '', url: request.url ?? '', header }, addresses);
    if (turned) return refuse(request, response, turned);
    const isHere = ['127.0.0.1', '::1', '::ffff:127.0.0.1'].includes(request.socket.localAddress ?? '');
    if (!isHere) {
      const entry = fromNetwork(plainPath(request.url ?? '')!, header('cookie'), Date.now());
      if (!entry.enters && entry.status === 303)
        return void response.writeHead(303, { location: entry.detail, 'cache-control': 'no-store' }).end();
      if (!entry.enters)
        return refuse(request, response, {
          status: entry.status,
          code: entry.status === 401 ? 'not-let-in' : 'only-here',
          detail: entry.detail,
        });
    }
    // Said by the server, whatever was sent; and nothing that is only for the framework's own parts comes from outside.
    for (const name of Object.keys(request.headers))
      if (/^x-(middleware|nextjs|gasline)-/.test(name)) delete request.headers[name];
    request.headers['x-gasline-door'] = isHere ? 'here' : 'network';
    request.headers['x-gasline-from'] = request.socket.remoteAddress ?? '';
    app(request, response).catch((error: unknown) => {
      console.error(error);
      if (!response.headersSent)
        refuse(request, response, {
          status: 500,
          code: 'broken',
          detail: 'Gas Line’s server could not do that; its window says more.',
        });
      else response.end();
    });
  };

function listen(server: http.Server, port: number, address: string): Promise<void> {
  return new Promise((done) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      stop(
        error.code === 'EADDRINUSE'
          ? `Port ${port} is taken, perhaps by a Gas Line that already runs: http://${address}:${port}. Set PORT to use another.`
          : `Nothing can be served at ${address}:${port} (${error.code ?? error.message}). Set PORT to use another.`,
      ),
    );
    server.listen(port, address, () => done());
  });
}

/** How another device comes in: the address, and the code as a picture that its camera reads. */
function sayHow(addresses: readonly string[], port: number): void {
  const { code } = newCode(Date.now());
  const url = `http://${addresses[0]!}:${port}/pair?code=${code}`;
  console.log(
    `${renderUnicodeCompact(url)}\nOn your phone, on the same network: ${addresses.map((address) => `http://${address}:${port}`).join(' or ')}\nCode: ${code} (works once, for 10 minutes; a new one is under “Your data”)\nWhat goes over the network is not encrypted: whoever is on it can read along. Use a network that you trust.`,
  );
}

async function main(): Promise<void> {
  const { port, lan } = options();
  startUpOrExit();
  const addresses = lan ? lanAddresses() : [];
  if (lan && addresses.length === 0)
    stop(
      '--lan was asked for, and this machine has no address on a local network. Connect it, or start without --lan.',
    );
  process.env.GASLINE_LAN_ADDRESSES = addresses.join(',');
  const app = next({ dev: false, dir: process.cwd(), hostname: HERE, port });
  const servers = [HERE, ...addresses].map((address) => ({ address, server: http.createServer() }));
  await app.prepare();
  const answer = answerer(app.getRequestHandler() as Handler, addresses);
  for (const { address, server } of servers) {
    server.on('request', answer);
    // What idles is kept for longer than a page's pauses: a request sent just as its connection is closed would fail.
    server.keepAliveTimeout = 5 * 60_000;
    // Nothing here speaks another protocol.
    server.on('upgrade', (_, socket) => socket.destroy());
    await listen(server, port, address);
  }
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      servers.forEach(({ server }) => server.close());
      process.exit(0);
    });
  }
  console.log(`Gas Line runs at http://${HERE}:${port} (Ctrl+C stops it). Your data: ${dataFolder()}`);
  if (lan) sayHow(addresses, port);
}

main().catch((error: unknown) =>
  stop(`Gas Line could not be started: ${error instanceof Error ? error.message : String(error)}`),
);

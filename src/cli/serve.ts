import { createServer } from 'node:http';
import path from 'node:path';
import next from 'next';
import {
  clearLeftovers,
  clearUnusedPictures,
  closeDatabase,
  dataFolder,
  database,
  diskFailure,
  faultOfDatabase,
  loadDemo,
  moveWholePhotosOut,
  notWriting,
  onlyThisMachine,
  ownHost,
  Unusable,
} from '../server';

/** demo and start: brings the database up to date, loads demo data when asked, serves, prints the address. */
interface Options {
  demo: boolean;
  again: boolean;
  port: number;
  host: string;
  /** Only whether they can be. */
  only: boolean;
}

function stop(message: string): never {
  process.stderr.write(`sostegno: ${message}\n`);
  process.exit(2);
}

function readOptions(args: readonly string[]): Options {
  const options: Options = { demo: false, again: false, port: 3210, host: '127.0.0.1', only: false };
  const list = [...args];
  while (list.length > 0) {
    const flag = list.shift();
    const value = () => list.shift() ?? stop(`${flag} needs a value`);
    if (flag === '--demo') options.demo = true;
    else if (flag === '--only-options') options.only = true;
    else if (flag === '--again') options.again = true;
    else if (flag === '--host') {
      options.host = value();
      if (!onlyThisMachine(options.host))
        stop(
          `--host ${options.host} would open every piece and log to whoever reaches that address: nobody can sign in yet, so it listens on this machine alone (127.0.0.1, ::1, localhost)`,
        );
    } else if (flag === '--data') process.env['SOSTEGNO_DATA'] = path.resolve(value());
    else if (flag === '--port') {
      options.port = Number(value());
      if (!Number.isInteger(options.port) || options.port < 0 || options.port > 65535)
        stop('--port is a number up to 65535');
    } else stop(`there is no option "${flag}"`);
  }
  return options;
}

/** What an earlier end left behind is cleared, the database looked through and brought up to date, demo data put in. */
async function makeReady({ demo, again }: Options): Promise<void> {
  const store = await database();
  const fault = await faultOfDatabase();
  if (fault) throw new Unusable(fault);
  const closed = await notWriting();
  if (closed) process.stdout.write(`${closed.path}: ${closed.message}.\n`);
  else {
    clearLeftovers(dataFolder());
    await moveWholePhotosOut(store);
    await clearUnusedPictures(store);
    if (demo && (await loadDemo(Date.now() / 1000, again))) process.stdout.write('Demo data loaded.\n');
  }
  await closeDatabase();
}

async function main(): Promise<void> {
  const options = readOptions(process.argv.slice(2));
  if (options.only) return;
  const root = process.env['SOSTEGNO_ROOT'] ?? process.cwd();
  process.env['SOSTEGNO_DATA'] ??= path.join(root, 'data');
  process.env['SOSTEGNO_HOST'] = options.host;
  await makeReady(options);
  const server = createServer();
  // A page asks again every few seconds: closed after the usual five, a connection could end as it is asked.
  server.keepAliveTimeout = 75_000;
  const port = await new Promise<number>((resolve, reject) => {
    server.once('error', reject);
    server.listen(options.port, options.host, () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : options.port);
    });
  }).catch((error: NodeJS.ErrnoException) =>
    stop(error.code === 'EADDRINUSE' ? `port ${options.port} is taken; choose another with --port` : error.message),
  );
  const app = next({ dev: false, dir: root, hostname: options.host, port });
  // The port is open before the pages are: an early caller waits instead of hanging for ever.
  const ready = app.prepare().then(() => app.getRequestHandler());
  server.on('request', (request, response) => {
    if (!ownHost(request.headers.host ?? '')) {
      response.writeHead(403, { 'content-type': 'text/plain; charset=utf-8' });
      response.end('This machine is not asked by that name.\n');
      return;
    }
    // Small answers, and many: packing them would take longer than sending them.
    if (request.url?.startsWith('/api/')) request.headers['accept-encoding'] = 'identity';
    ready
      .then((handle) => handle(request, response))
      .catch((error: Error) => {
        process.stderr.write(`${error.message}\n`);
        response.statusCode = 500;
        response.end();
      });
  });
  await ready;
  process.stdout.write(
    `Data in ${dataFolder()}\nSostegno is open at http://${options.host.includes(':') ? `[${options.host}]` : options.host}:${port}\n`,
  );
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => process.exit(0));
}

main().catch((error: Error) => {
  const why = error instanceof Unusable ? error.failure : diskFailure(error, dataFolder());
  stop(why ? `${why.path}: ${why.message}` : error.message);
});

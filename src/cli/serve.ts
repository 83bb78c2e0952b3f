import { createServer } from 'node:http';
import path from 'node:path';
import next from 'next';
import { closeDatabase, dataFolder, database, loadDemo, moveWholePhotosOut } from '../server';

/** demo and start: brings the database up to date, loads demo data when asked, serves, prints the address. */
interface Options {
  demo: boolean;
  again: boolean;
  port: number;
  host: string;
}

function stop(message: string): never {
  process.stderr.write(`sostegno: ${message}\n`);
  process.exit(2);
}

function readOptions(args: readonly string[]): Options {
  const options: Options = { demo: false, again: false, port: 3210, host: '127.0.0.1' };
  const list = [...args];
  while (list.length > 0) {
    const flag = list.shift();
    const value = () => list.shift() ?? stop(`${flag} needs a value`);
    if (flag === '--demo') options.demo = true;
    else if (flag === '--again') options.again = true;
    else if (flag === '--host') options.host = value();
    else if (flag === '--data') process.env['SOSTEGNO_DATA'] = path.resolve(value());
    else if (flag === '--port') {
      options.port = Number(value());
      if (!Number.isInteger(options.port) || options.port < 0 || options.port > 65535)
        stop('--port is a number up to 65535');
    } else stop(`there is no option "${flag}"`);
  }
  return options;
}

async function main(): Promise<void> {
  const options = readOptions(process.argv.slice(2));
  const root = process.env['SOSTEGNO_ROOT'] ?? process.cwd();
  process.env['SOSTEGNO_DATA'] ??= path.join(root, 'data');
  process.env['SOSTEGNO_HOST'] = options.host;
  await moveWholePhotosOut(await database());
  if (options.demo && (await loadDemo(Date.now() / 1000, options.again))) process.stdout.write('Demo data loaded.\n');
  await closeDatabase();
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

main().catch((error: Error) => stop(error.message));

import { readConfig } from './config.ts';
import { startServer } from './server.ts';

try {
  const config = readConfig(process.env);
  const server = await startServer(config);
  process.send?.({ port: server.port });
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    void server.stop().then(() => process.exit(0));
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
} catch (error) {
  const { code, message } = error as NodeJS.ErrnoException;
  const port = process.env['HELB_PORT'] ?? '7340';
  const words = code === 'EADDRINUSE' ? `Port ${port} is in use. Choose another: HELB_PORT=7341 ./helb demo` : message;
  process.stderr.write(`${words}\n`);
  process.exit(1);
}

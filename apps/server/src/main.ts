import { monitorEventLoopDelay } from 'node:perf_hooks';
import { readConfig } from './config.ts';
import { startServer } from './server.ts';

/** Whoever has started it may ask how it is: the longest hold of the event loop and the processor's time since it was asked. */
function answerHowItIs(): void {
  const loop = monitorEventLoopDelay({ resolution: 5 });
  loop.enable();
  let last = process.cpuUsage();
  process.on('message', (message) => {
    if (message !== 'how are you') return;
    const { user, system } = process.cpuUsage(last);
    last = process.cpuUsage();
    process.send!({
      hold_ms: loop.max / 1e6,
      memory_MB: process.memoryUsage().rss / 1024 ** 2,
      processor_ms: (user + system) / 1000,
    });
    loop.reset();
  });
}

try {
  const config = readConfig(process.env);
  const server = await startServer(config);
  process.send?.({ port: server.port });
  if (process.send) answerHowItIs();
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

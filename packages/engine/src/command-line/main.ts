import { startKernelInNode } from '@helb/kernel/node';
import { run } from './run.ts';

process.exitCode = await run(process.argv.slice(2), {
  print: (text) => process.stdout.write(`${text}\n`),
  complain: (text) => process.stderr.write(`${text}\n`),
  startKernel: startKernelInNode,
});

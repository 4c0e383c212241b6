import { createRequire } from 'node:module';
import { compileScript, parse } from '@vue/compiler-sfc';

const require = createRequire(import.meta.url);
const { transformSync } = require('@swc/core');

/** Compiles a single-file component for Jest: script setup with the template inlined, then TypeScript away. */
export default {
  process(source, filename) {
    const { descriptor } = parse(source, { filename });
    const { content } = compileScript(descriptor, { id: filename, inlineTemplate: true });
    return transformSync(content, {
      filename: `${filename}.ts`,
      jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
      module: { type: 'es6' },
      sourceMaps: 'inline',
    });
  },
};

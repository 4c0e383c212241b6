import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { parser } from 'typescript-eslint';

// Lint asks for types. A component opened by itself makes the type checker begin anew (two seconds each): here the scripts of
// all components are one program, made when the first of them is looked at.

const WEB = join(import.meta.dirname, '../apps/web');

/** @type {ts.Program | undefined} */
let program;

/** The script of a component, as the parser of components gives it away. */
function scriptOf(text) {
  const tag = /<script\b[^>]*>/.exec(text);
  if (!tag) return '';
  const from = tag.index + tag[0].length;
  return text.slice(from, text.indexOf('</script>', from));
}

function webProgram() {
  const { options } = ts.parseJsonConfigFileContent(
    ts.readConfigFile(join(WEB, 'tsconfig.json'), ts.sys.readFile).config,
    ts.sys,
    WEB,
  );
  const settings = { ...options, allowNonTsExtensions: true };
  const host = ts.createCompilerHost(settings, true);
  const read = host.getSourceFile;
  host.getSourceFile = (path, languageVersion, ...more) =>
    path.endsWith('.vue')
      ? ts.createSourceFile(path, scriptOf(ts.sys.readFile(path)), languageVersion, true, ts.ScriptKind.TS)
      : read(path, languageVersion, ...more);
  const files = readdirSync(join(WEB, 'src'), { recursive: true }).filter((file) => /\.(vue|ts)$/.test(file));
  const rootNames = files.map((file) => join(WEB, 'src', file));
  return ts.createProgram({ rootNames, options: settings, host });
}

/** Parses as the parser of TypeScript does; scripts of components with the types of one program for all. */
export const lintParser = {
  ...parser,
  parseForESLint(code, options) {
    const isScript = options.filePath.endsWith('.vue') && options.projectService;
    if (!isScript) return parser.parseForESLint(code, options);
    program ??= webProgram();
    // an editor's text that is not on the disk yet is opened by itself
    if (program.getSourceFile(options.filePath)?.text !== code) return parser.parseForESLint(code, options);
    return parser.parseForESLint(code, { ...options, projectService: undefined, programs: [program] });
  },
};

import { ESLint } from 'eslint';
import ts from 'typescript';

// Types and style in one go: the rules of style ask for types, and to find them twice would take as long again.
// `types` or `style` as a word asks for one of them alone.

const [only] = process.argv.slice(2);
const HOST: ts.FormatDiagnosticsHost = {
  getCanonicalFileName: (name) => name,
  getCurrentDirectory: () => process.cwd(),
  getNewLine: () => '\n',
};

/** The program of all rooms, as the compiler's own command would read it. */
function wholeProgram(): ts.Program {
  const read = ts.getParsedCommandLineOfConfigFile(
    'tsconfig.json',
    {},
    { ...ts.sys, onUnRecoverableConfigFileDiagnostic: refuse },
  );
  if (!read) throw new Error('tsconfig.json cannot be read');
  if (read.errors.length > 0) refuse(read.errors[0]!);
  return ts.createProgram({ rootNames: read.fileNames, options: read.options });
}

function refuse(diagnostic: ts.Diagnostic): never {
  throw new Error(ts.formatDiagnostic(diagnostic, HOST));
}

/** @returns what is wrong, in words; nothing where all is well */
function typeTroubles(program: ts.Program): string {
  return ts.formatDiagnostics(ts.getPreEmitDiagnostics(program), HOST);
}

async function styleTroubles(program: ts.Program): Promise<string> {
  const parserOptions = { projectService: false, programs: [program] };
  const eslint = new ESLint({
    overrideConfig: [{ files: ['**/*.ts', '**/*.tsx'], languageOptions: { parserOptions } }],
  });
  const results = await eslint.lintFiles(['.']);
  const bad = results.filter(({ errorCount, warningCount }) => errorCount + warningCount > 0);
  return bad.length === 0 ? '' : (await eslint.loadFormatter('stylish')).format(bad);
}

const program = wholeProgram();
let failed = false;
for (const [name, find] of [
  ['types', typeTroubles],
  ['style', styleTroubles],
] as const) {
  if (only !== undefined && only !== name) continue;
  const troubles = await find(program);
  if (troubles !== '') {
    failed = true;
    console.log(`${name}:\n${troubles}`);
  }
}
process.exit(failed ? 1 : 0);

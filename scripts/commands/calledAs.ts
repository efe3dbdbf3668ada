/** How whoever reads a program's words has called it: by npm where the sources are, else the built file itself. */
export function calledAs(script: string): string {
  return process.env['npm_lifecycle_event'] === script ? `npm run ${script} --` : `node dist/server/${script}.js`;
}

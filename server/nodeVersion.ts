/** As package.json has it under `engines`; a test holds them together. */
export const OLDEST_NODE = [20, 19] as const;

/** Says why in a sentence and a line of log, and ends this process with 1, where Node is too old. */
export function demandNode(version = process.versions.node): void {
  const [major = 0, minor = 0] = version.split('.').map(Number);
  const [oldest, oldestMinor] = OLDEST_NODE;
  if (major > oldest || (major === oldest && minor >= oldestMinor)) return;
  const sentence = `Clapboard needs Node ${OLDEST_NODE.join('.')} or newer; this is ${version}`;
  console.log(JSON.stringify({ level: 60, time: Date.now(), msg: `not started: ${sentence}` }));
  console.error(sentence);
  process.exit(1);
}

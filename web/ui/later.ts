/** @returns what takes it back */
export function later(action: () => void, ms: number): () => void {
  const timer = setTimeout(action, ms);
  return () => clearTimeout(timer);
}

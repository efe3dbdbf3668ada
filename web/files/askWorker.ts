/**
 * Asks a worker one thing, and ends it.
 * @param broken  what is said when the worker itself fails
 */
export async function askOnce<Answer>(worker: Worker, request: unknown, broken: string): Promise<Answer> {
  try {
    return await new Promise<Answer>((resolve, reject) => {
      worker.addEventListener('error', () => reject(new Error(broken)));
      worker.addEventListener('message', ({ data }: MessageEvent<Answer>) => resolve(data));
      worker.postMessage(request);
    });
  } finally {
    worker.terminate();
  }
}

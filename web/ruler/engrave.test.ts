// @vitest-environment happy-dom
import { afterEach, expect, it, vi } from 'vitest';

afterEach(() => vi.unstubAllGlobals());

it('a music font that did not come is asked for once more, one that is there is not', async () => {
  // An instance of its own: what other tests show has no font to wait for.
  const own: string = './engrave.ts?own';
  const { engravingReady } = (await import(/* @vite-ignore */ own)) as typeof import('./engrave.ts');
  const load = vi.fn().mockRejectedValueOnce(new Error('away')).mockResolvedValue('font');
  const add = vi.fn();
  vi.stubGlobal(
    'FontFace',
    class {
      readonly load = load;
    },
  );
  vi.stubGlobal('document', { fonts: { add } });
  await expect(engravingReady()).rejects.toThrow('away');
  await engravingReady();
  await engravingReady();
  expect([load.mock.calls.length, add.mock.calls]).toEqual([2, [['font']]]);
});

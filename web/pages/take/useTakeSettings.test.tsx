// @vitest-environment happy-dom
import { renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { useAskedSettings, useTakeSettings } from './useTakeSettings.ts';

beforeEach(() => localStorage.clear());

function settingsAt(address: string) {
  const { result } = renderHook(() => {
    const { settings, set } = useTakeSettings();
    useAskedSettings(new URLSearchParams(address), set);
    return settings;
  });
  return result.current;
}

it.each([
  ['', { bpm: 72, method: 'tap', task: 'claps', clicks: 'all' }],
  ['bpm=2000&clicks=some&task=dance', { bpm: 72, task: 'claps', clicks: 'all' }],
  ['child=ada&bpm=54', { bpm: 54 }],
  ['clicks=half', { clicks: 'half' }],
])('what “%s” asks for holds at once', (address, expected) => expect(settingsAt(address)).toMatchObject(expected));

it('feet are tapped, whatever heard the last child', () => {
  localStorage.setItem('take.way', 'microphone');
  expect(settingsAt('task=feet')).toMatchObject({ method: 'tap', task: 'feet' });
});

import '@testing-library/jest-dom';
import { act, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import { measure, useScopes } from '@/store/scopes';
import { lightTheme } from '../theme';
import { Scope } from './Scope';

jest.mock('@/store/engine', () => ({ getEngine: async () => ({}) }));

/** A ramp with a cast, a tenth of it clipped white. */
function pixels(blue: number): Uint8Array {
  const out = new Uint8Array(1000 * 4);
  for (let i = 0; i < 1000; i++) {
    const v = i < 100 ? 255 : 20 + (200 * (i - 100)) / 900;
    out.set([v, v, i < 100 ? 255 : Math.min(250, v * blue), 255], i * 4);
  }
  return out;
}
const show = () =>
  render(
    <PaperProvider theme={lightTheme}>
      <Scope />
    </PaperProvider>,
  );

beforeEach(() => useScopes.setState({ histogram: null, watchers: 0 }));

it('measures only while somebody watches, and asks for what is on the canvas at once', () => {
  measure(pixels(1), 1000, 1);
  expect(useScopes.getState().histogram).toBeNull();
  const { asked } = useScopes.getState();
  const { unmount } = show();
  expect(useScopes.getState().asked).toBe(asked + 1);
  expect(useScopes.getState().watchers).toBe(1);
  act(() => measure(pixels(1), 1000, 1));
  expect(useScopes.getState().histogram?.pixels).toBe(1000);
  unmount();
  expect(useScopes.getState().watchers).toBe(0);
});

it('says how much is clipped, and a cast in a sentence', async () => {
  // What is on the canvas is handed over again when it is asked for, as the painter does.
  let canvas = pixels(1.25);
  const again = () => measure(canvas, 1000, 1);
  const off = useScopes.subscribe((now, before) => now.asked !== before.asked && again());
  show();
  await act(async () => {
    again();
    await new Promise((resolve) => setTimeout(resolve, 80));
  });
  expect(screen.getByRole('img', { name: 'Histogram of what is in view: 0 % black, 10 % white' })).toBeInTheDocument();
  expect(screen.getByText(/^Blue sits above red and green in the/)).toBeInTheDocument();
  await act(async () => {
    canvas = pixels(1);
    again();
    await new Promise((resolve) => setTimeout(resolve, 80));
  });
  expect(screen.queryByText(/sits above/)).toBeNull();
  off();
});

it('follows a drag, at most twenty times a second', async () => {
  show();
  const seen: number[] = [];
  const off = useScopes.subscribe((now, before) => now.histogram !== before.histogram && seen.push(now.histogram?.white ?? -1));
  const start = performance.now();
  await act(async () => {
    for (let i = 0; i < 30; i++) {
      measure(pixels(1 + i / 100), 1000, 1);
      await new Promise((resolve) => setTimeout(resolve, 8));
    }
  });
  const spent = performance.now() - start;
  expect(seen.length).toBeGreaterThan(0);
  expect(seen.length).toBeLessThanOrEqual(Math.ceil(spent / 50) + 1);
  off();
});

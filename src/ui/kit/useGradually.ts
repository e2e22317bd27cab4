import { useEffect, useState } from 'react';

/** How many of a long list to draw: a few at once, more after each pause, so that the page never stands still for all of them together. */
export function useGradually(total: number, step: number): number {
  const [count, setCount] = useState(step);
  useEffect(() => {
    if (count >= total) return;
    const timer = setTimeout(() => setCount((c) => c + step));
    return () => clearTimeout(timer);
  }, [count, total, step]);
  return Math.min(count, total);
}

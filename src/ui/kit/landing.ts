import { useEffect } from 'react';

/** How many elements are remembered that had the focus. */
const REMEMBERED = 12;
/** When to check for lost focus, in ms after a control was used: screens open at once, dialogs a little later, and a piece much later on a slow machine. */
const LOOKS = [60, 300, 1000, 2500, 5000, 10_000, 20_000];

const isSeen = (element: HTMLElement) => element.isConnected && element.offsetParent !== null && !element.closest('[inert]');
const isUsable = (element: HTMLElement) => isSeen(element) && !element.matches(':disabled, [aria-disabled="true"]');
const all = (selector: string) => [...document.querySelectorAll<HTMLElement>(selector)];

/** Where the focus goes when what had it is gone: what has just opened, what had it before, the chosen card, or the screen's title. */
function landing(recent: readonly HTMLElement[]): HTMLElement | undefined {
  return (
    all('[role="dialog"]').findLast(isSeen) ??
    recent.find(isUsable) ??
    all('[data-testid^="card-"][aria-pressed="true"]').find(isUsable) ??
    all('h1, [role="heading"][aria-level="1"]').findLast(isSeen)
  );
}

/**
 * Keeps the focus for keyboards and screen readers. When a focused control is removed, the browser drops the focus, and the next Tab would begin at the top
 * of the page. Touch and mouse are left alone.
 */
export function useLanding(): void {
  useEffect(() => {
    let recent: HTMLElement[] = [];
    let timers: ReturnType<typeof setTimeout>[] = [];
    const settle = () => {
      if (document.activeElement && document.activeElement !== document.body) return;
      // A field that is still there gave the focus up on purpose, so that keys work on the picture.
      if (recent.length > 0 && isUsable(recent[0])) return;
      const target = landing(recent);
      if (!target) return;
      if (target.tabIndex < 0) target.setAttribute('tabindex', '-1');
      target.focus({ preventScroll: true });
    };
    const onFocus = ({ target }: FocusEvent) => {
      if (target instanceof HTMLElement) recent = [target, ...recent.filter((one) => one !== target && one.isConnected)].slice(0, REMEMBERED);
    };
    const watch = () => {
      timers.forEach(clearTimeout);
      timers = LOOKS.map((ms) => setTimeout(settle, ms));
    };
    // Keys and screen readers click without a press.
    const onClick = ({ detail }: MouseEvent) => detail === 0 && watch();
    const onKey = ({ key }: KeyboardEvent) => (key === 'Enter' || key === ' ' || key === 'Escape' || key === 'Delete') && watch();
    const leave = () => timers.forEach(clearTimeout);
    document.addEventListener('focusin', onFocus);
    document.addEventListener('pointerdown', leave, true);
    document.addEventListener('click', onClick, true);
    document.addEventListener('keydown', onKey, true);
    return () => {
      leave();
      document.removeEventListener('pointerdown', leave, true);
      document.removeEventListener('focusin', onFocus);
      document.removeEventListener('click', onClick, true);
      document.removeEventListener('keydown', onKey, true);
    };
  }, []);
}

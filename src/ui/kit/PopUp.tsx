import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import { Dialog, Portal } from 'react-native-paper';

interface PopUpProps {
  /** Its name, for those who hear it. */
  label: string;
  visible?: boolean;
  maxWidth?: number;
  onClose(): void;
  children: ReactNode;
}

/** A dialog: named, closed by Esc, with the keyboard kept inside and given back, never taller than the view. Paper's has none of that on the web. */
export function PopUp({ label, visible = true, maxWidth = 520, onClose, children }: PopUpProps) {
  // Paper unmounts and remounts a dialog that is opened again while it fades out; a key pressed at that moment is lost. So it never fades.
  if (!visible) return null;
  return (
    <Portal>
      <Dialog visible onDismiss={onClose} style={{ borderRadius: 3, maxWidth, width: '94%', maxHeight: '94%', alignSelf: 'center' }}>
        <Inside label={label} onClose={onClose}>
          {children}
        </Inside>
      </Dialog>
    </Portal>
  );
}

const FOCUSABLE = 'button, [href], input, select, textarea, [role="button"], [tabindex]:not([tabindex="-1"])';
const focusable = (within: HTMLElement) =>
  [...within.querySelectorAll<HTMLElement>(FOCUSABLE)].filter((e) => e.tabIndex >= 0 && !e.hasAttribute('disabled') && e.offsetParent !== null);

function Inside({ label, onClose, children }: Pick<PopUpProps, 'label' | 'onClose' | 'children'>) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null;
    const inside = place.current;
    if (inside && !inside.contains(document.activeElement)) inside.focus();
    return () => before?.focus?.();
  }, []);
  const onKeyDown = (e: KeyboardEvent) => {
    // Keys of the screen below do nothing meanwhile.
    e.stopPropagation();
    if (e.key === 'Escape') return onClose();
    const all = e.key === 'Tab' && place.current ? focusable(place.current) : [];
    if (all.length === 0) return;
    const [first, last] = [all[0], all[all.length - 1]];
    const now = document.activeElement;
    const leaves = e.shiftKey ? now === first || now === place.current : now === last;
    if (!leaves) return;
    e.preventDefault();
    (e.shiftKey ? last : first).focus();
  };
  return (
    <div
      ref={place}
      role="dialog"
      aria-modal
      aria-label={label}
      tabIndex={-1}
      onKeyDown={onKeyDown}
      style={{ display: 'flex', flexDirection: 'column', minHeight: 0, maxHeight: '94vh', outline: 'none' }}
    >
      {children}
    </div>
  );
}

import { useIsFocused } from 'expo-router';
import { useEffect, useState } from 'react';

/** Files dropped anywhere on the page, or pasted; true while something is dragged over. Screens that lie under the present one take none. */
export function useDrop(take: (files: File[]) => void): boolean {
  const [over, setOver] = useState(false);
  const isSeen = useIsFocused();
  useEffect(() => {
    if (!isSeen) return;
    const files = (data: DataTransfer | null) => [...(data?.files ?? [])];
    const drag = (e: DragEvent) => {
      if (!e.dataTransfer?.types.includes('Files')) return;
      e.preventDefault();
      setOver(e.type === 'dragover');
    };
    const drop = (e: DragEvent) => {
      e.preventDefault();
      setOver(false);
      const list = files(e.dataTransfer);
      if (list.length > 0) take(list);
    };
    const paste = (e: ClipboardEvent) => {
      const list = files(e.clipboardData);
      if (list.length > 0) {
        e.preventDefault();
        take(list);
      }
    };
    window.addEventListener('dragover', drag);
    window.addEventListener('dragleave', drag);
    window.addEventListener('drop', drop);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('dragover', drag);
      window.removeEventListener('dragleave', drag);
      window.removeEventListener('drop', drop);
      window.removeEventListener('paste', paste);
    };
  }, [take, isSeen]);
  return over;
}

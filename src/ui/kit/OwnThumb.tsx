import { useEffect, useState } from 'react';
import { loadPicture } from '@/store/pictures';
import type { OwnMaterial } from '@/store/storage';

/** An imported picture as it is made to fit, reduced; the file itself where no small picture is kept. `whole` shows it to its edges. */
export function OwnThumb({ own, label, whole = false }: { own: OwnMaterial; label: string; whole?: boolean }) {
  const [url, setUrl] = useState<string | null>(null);
  const { key, thumb } = own;
  useEffect(() => {
    if (thumb) return;
    let address: string | null = null;
    let live = true;
    void loadPicture(key).then(
      (blob) => {
        if (!live) return;
        address = URL.createObjectURL(blob);
        setUrl(address);
      },
      () => undefined,
    );
    return () => {
      live = false;
      if (address) URL.revokeObjectURL(address);
    };
  }, [key, thumb]);
  const src = thumb ?? url;
  return src ? <img src={src} alt={label} style={{ width: '100%', height: '100%', objectFit: whole ? 'fill' : 'cover', display: 'block' }} /> : null;
}

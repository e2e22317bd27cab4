import { useEffect, useState } from 'react';
import { loadPicture } from '@/store/storage';

/** An imported picture, reduced. */
export function OwnThumb({ picture, label }: { picture: string; label: string }) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    let address: string | null = null;
    let live = true;
    void loadPicture(picture).then(
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
  }, [picture]);
  return url ? <img src={url} alt={label} style={{ width: '100%', height: '100%', objectFit: 'cover', display: 'block' }} /> : null;
}

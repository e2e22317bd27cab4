import type { CSSProperties } from 'react';

/** A sheet of small pictures with a line under each. */
export const pictureSheet: Record<'grid' | 'card' | 'frame' | 'caption', CSSProperties> = {
  grid: { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(104px, 1fr))', gap: 10 },
  card: { border: 'none', background: 'none', padding: 0, minWidth: 0, textAlign: 'left', cursor: 'pointer' },
  frame: { display: 'block', width: '100%', aspectRatio: '1', borderRadius: 2, overflow: 'hidden' },
  caption: {
    display: 'block',
    fontSize: 14,
    lineHeight: '18px',
    paddingTop: 3,
    overflow: 'hidden',
    textOverflow: 'ellipsis',
    whiteSpace: 'nowrap',
  },
};

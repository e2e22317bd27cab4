/** Values that a step is often begun with, each one tap away (common practice, no source; ours begin with a greatest shift of about 0.3 % of the long side). */
export const mapStarts: Readonly<Record<string, readonly { label: string; values: Record<string, unknown> }[]>> = {
  drape: [
    { label: 'Face', values: { map: 'form', form: 0.8 } },
    { label: 'Skin and cloth', values: { map: 'below', amountX: 12, amountY: 12, blur: 3, level: 0.5, channel: 'luma' } },
    { label: 'Rough wall', values: { map: 'below', amountX: 24, amountY: 24, blur: 1.5, level: 0.5, channel: 'luma' } },
    { label: 'Soft folds', values: { map: 'below', amountX: 50, amountY: 50, blur: 16, level: 0.5, channel: 'luma' } },
  ],
};

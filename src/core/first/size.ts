import { defineFirst } from './control';

/** How large the material lies. Smaller than the picture it would leave a bare edge. */
export default defineFirst({
  control: 'size',
  shape: 'size',
  label: () => 'Size',
  help: 'How large the texture lies on the photo.',
  begins: 1,
  read: (coat) => coat.lay.scale,
  write: (coat, _spec, value) => ({ lay: { ...coat.lay, scale: Math.max(1, Number(value ?? 1)) } }),
});

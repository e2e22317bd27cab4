/* global __dirname */
/** Unit tests use the compiled kernels, the bundles for Node (built when older than their sources) and photographs from Debian's packages. */
module.exports = async function setup() {
  process.env.DERMATEX_ROOT = require('node:path').dirname(__dirname);
  const { buildNode } = await import('./build-node.mjs');
  await buildNode();
  const { ensureRealPhotos } = await import('./real-photos.mjs');
  ensureRealPhotos();
};

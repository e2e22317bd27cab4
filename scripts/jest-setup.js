/* global __dirname */
/** Unit tests use the compiled kernels and the bundles for Node: built when older than their sources. */
module.exports = async function setup() {
  process.env.DERMATEX_ROOT = require('node:path').dirname(__dirname);
  const { buildNode } = await import('./build-node.mjs');
  await buildNode();
};

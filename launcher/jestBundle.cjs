const { randomUUID } = require('node:crypto');
const { join } = require('node:path');
const { buildSync } = require('esbuild');

/**
 * Jest transform: bundles each test file with all it imports of ours. The solver's inner loops then call their
 * functions directly and not through module getters, which makes the numerical tests five times quicker.
 * Packages stay outside. Never cached: what a test imports is not seen by Jest's own cache key.
 */
module.exports = {
  getCacheKey: () => randomUUID(),
  process(_source, file) {
    const root = join(__dirname, '..');
    const { outputFiles } = buildSync({
      entryPoints: [file],
      bundle: true,
      write: false,
      platform: 'node',
      format: 'cjs',
      target: 'node20',
      packages: 'external',
      alias: { '@': join(root, 'src') },
      // A bundle has no address of its own: workers are named from here.
      define: { 'import.meta.url': '"file:///bundle"' },
      sourcemap: 'inline',
      jsx: 'automatic',
      logLevel: 'error',
    });
    // Inside Jest's own context every look-up of a global is slow: the loops' globals are made local.
    const names = ['Math', 'Number', 'Float64Array', 'Int32Array', 'Uint16Array', 'Map', 'Set', 'Array'];
    const heads = [...names.map((name) => `${name} = globalThis.${name}`), 'Infinity = 1 / 0', 'NaN = 0 / 0'];
    return { code: `const ${heads.join(', ')};${outputFiles[0].text}` };
  },
};

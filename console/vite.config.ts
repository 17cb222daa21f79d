import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react()],
  // Into the jar that the service serves as its static files.
  build: { outDir: 'target/classes/static', emptyOutDir: true, assetsInlineLimit: 0, manifest: true },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
  // Tests read the demo's definitions and the contract.
  server: { proxy: { '/api': 'http://127.0.0.1:8480' }, fs: { allow: ['.', '../demo/definitions', '../contract'] } },
  test: { environment: 'jsdom', setupFiles: ['src/test-setup.ts'], globals: true, testTimeout: 120_000 },
})

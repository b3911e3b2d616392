import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

/** One script and one style sheet, which the report carries in itself. */
export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  logLevel: 'warn',
  oxc: { jsx: { runtime: 'automatic', importSource: 'preact' } },
  build: {
    target: 'es2022',
    outDir: '../dist/src/tasks/report-app',
    emptyOutDir: true,
    cssCodeSplit: false,
    modulePreload: false,
    rollupOptions: {
      input: fileURLToPath(new URL('src/main.tsx', import.meta.url)),
      output: {
        format: 'iife',
        entryFileNames: 'report.js',
        assetFileNames: 'report[extname]',
      },
    },
  },
});

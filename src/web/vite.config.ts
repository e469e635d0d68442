import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { outDir: '../Fendrik.Server/wwwroot', emptyOutDir: true, sourcemap: false, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
  // Tests that need a page say so in their first line: making one for each file takes longer than its tests.
  test: { environment: 'node', pool: 'threads', include: ['src/**/*.test.{ts,tsx}'] },
});

import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  root: here('.'),
  plugins: [react()],
  resolve: { alias: { '@core': here('../core') } },
  build: { outDir: here('../dist/web'), emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 2000 },
  worker: { format: 'es' },
});

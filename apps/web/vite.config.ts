import { defineConfig } from 'vite';
import vue from '@vitejs/plugin-vue';
import tailwind from '@tailwindcss/vite';

const inPackages = (...names: string[]) => new RegExp(`[\\\\/]node_modules[\\\\/](${names.join('|')})[\\\\/]`);

export default defineConfig({
  plugins: [vue(), tailwind()],
  worker: { format: 'es' },
  optimizeDeps: { exclude: ['replicad-opencascadejs'] },
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'three', test: inPackages('three', 'camera-controls', 'three-mesh-bvh') },
            { name: 'vue', test: inPackages('vue', '@vue', 'vue-router', 'pinia') },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': process.env['HELB_API'] ?? 'http://127.0.0.1:7340' } },
});

import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [react(), tailwindcss()],
	build: { assetsInlineLimit: 0, target: 'es2022' },
	test: { setupFiles: ['src/test-setup.ts'] },
	server: { port: 5173, proxy: { '/api': 'http://127.0.0.1:8137' } },
});

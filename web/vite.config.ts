import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';

// Every page's chunks are preloaded, before the entry script has been read.
const preload: Plugin = {
	name: 'preload',
	transformIndexHtml: {
		order: 'post',
		handler: (_, { bundle }) =>
			Object.keys(bundle ?? {})
				.filter((part) => /\/(shared|main)-[^/]*\.js$/.test(part))
				.map((part) => ({
					tag: 'link',
					attrs: { rel: 'modulepreload', crossorigin: true, href: `/${part}` },
				})),
	},
};

export default defineConfig({
	plugins: [react(), tailwindcss(), preload],
	build: {
		assetsInlineLimit: 0,
		target: 'es2022',
		rolldownOptions: {
			output: {
				codeSplitting: {
					// What most pages share is one chunk; the entry script does not wait for it.
					includeDependenciesRecursively: false,
					groups: [
						{
							name: 'start',
							test: /src\/(app\/(start|pages)|words\/(catalogue|locale))\.|preload-helper/,
							priority: 1,
						},
						{ name: 'shared', minShareCount: 5 },
					],
				},
			},
		},
	},
	test: { setupFiles: ['src/app/test-setup.ts'], pool: 'threads', isolate: false },
	server: { port: 5173, proxy: { '/api': 'http://127.0.0.1:8137' } },
});

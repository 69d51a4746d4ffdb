import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	kit: {
		adapter: adapter(),
		// hooks.server.ts looks where every request that changes something comes from, and answers as the rest does.
		csrf: { trustedOrigins: ['*'] },
		csp: {
			mode: 'auto',
			directives: {
				'default-src': ['self'],
				'script-src': ['self'],
				'style-src': ['self', 'unsafe-inline'],
				// Style sheets of a page have its number; attributes place what is drawn.
				'style-src-elem': ['self'],
				'style-src-attr': ['unsafe-inline'],
				'img-src': ['self', 'data:'],
				'font-src': ['self', 'data:'],
				'object-src': ['none'],
				'frame-ancestors': ['none'],
				'base-uri': ['self'],
				'form-action': ['self']
			}
		},
		typescript: {
			config: (config) => {
				config.include.push(
					'../src/cli/**/*.ts',
					'../tests/**/*.ts',
					'../bench/**/*.ts',
					'../demo/**/*.ts',
					'../migrations/**/*.ts',
					'../scripts/**/*.ts',
					'../scripts/**/*.mjs'
				);
			}
		}
	}
};

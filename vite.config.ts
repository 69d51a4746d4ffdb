import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';
import { noticesPlugin } from './scripts/notices.mjs';

export default defineConfig({
	// Browsers that know light-dark(): which of two colours holds is decided where they are used, so that documents stay on
	// white paper by night. Written for older ones, it would be decided once for the page.
	build: { cssTarget: ['chrome123', 'firefox120', 'safari17.5'] },
	// It names Svelte among what it can work with, and would be taken for a library of components.
	ssr: { external: ['better-auth'] },
	plugins: [tailwindcss({ optimize: false }), sveltekit(), noticesPlugin()]
});

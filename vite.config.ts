import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';
import { noticesPlugin } from './scripts/notices.mjs';

export default defineConfig({ plugins: [tailwindcss(), sveltekit(), noticesPlugin()] });

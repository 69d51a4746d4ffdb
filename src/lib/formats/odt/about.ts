import type { About } from '../about.ts';

export const odt = {
	kind: 'odt',
	endings: ['odt', 'fodt', 'ott'],
	mediaType: 'application/vnd.oasis.opendocument.text',
	words: 'open text',
	out: 'ODT, open text',
	opens: true,
	holdsText: true
} as const satisfies About;

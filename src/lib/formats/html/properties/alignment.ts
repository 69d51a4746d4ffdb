import type { Look } from '../../../core/properties/index.ts';
import { acrossFrom } from '../../sides.ts';
import { isRightToLeft, type HtmlFields } from './property.ts';

const READ: Record<string, Look['h']> = {
	left: 'start',
	start: 'start',
	center: 'middle',
	middle: 'middle',
	'-webkit-center': 'middle',
	right: 'end',
	end: 'end',
	justify: 'justify'
};
const SAID = { start: 'start', middle: 'center', end: 'end', justify: 'justify', decimal: 'end' } as const;
const MODE = { 0: 'horizontal-tb', 90: 'vertical-rl', 270: 'sideways-lr' } as const;

export const ALIGNMENT: HtmlFields<'h' | 'v' | 'rotate'> = {
	h: {
		nearest: (h) => (h === 'decimal' ? 'end' : h),
		isFar: (h) => h === 'decimal',
		cannot: 'decimal alignment',
		read({ computed, isRight }) {
			const said = computed.get('text-align') ?? 'start';
			const isSide = /^(left|right)$/i.test(said);
			const isOther = isSide ? isRight : isRightToLeft(computed) !== isRight;
			return acrossFrom(READ[said] ?? 'start', isOther);
		},
		declare: (h) => [`text-align: ${SAID[h]}`]
	},
	v: {
		read({ computed }) {
			const vertical = computed.get('vertical-align');
			return vertical === 'top' || vertical === 'baseline' ? 'top' : vertical === 'bottom' ? 'bottom' : 'middle';
		},
		declare: (v) => [`vertical-align: ${v}`]
	},
	rotate: {
		read({ computed }) {
			const mode = computed.get('writing-mode');
			return mode === 'vertical-rl' ? 90 : mode === 'sideways-lr' || mode === 'vertical-lr' ? 270 : 0;
		},
		declare: (rotate) => [`writing-mode: ${MODE[rotate]}`]
	}
};

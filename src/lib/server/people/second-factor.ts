import { APIError } from 'better-auth/api';
import { renderSVG } from 'uqr';
import { InputError } from '../../core/errors.ts';
import type { Cookies, Entrance } from './entrance.ts';
import type { Who } from './who.ts';

/** What somebody puts into the program that makes their codes, and codes that each lead in once where that is lost. */
export interface SecondFactor {
	/** The secret, as it is typed (RFC 4648, base 32). */
	readonly secret: string;
	/** The same to be photographed: an SVG of a QR code (ISO/IEC 18004). */
	readonly picture: string;
	readonly spares: readonly string[];
}

const NO_CODE = 'This code is not right, or no longer: each holds for half a minute.';
const NO_PASSWORD = 'Set a password first: a second factor stands beside one.';

/** What better-auth refuses is said in our words. */
async function refusing<T>(words: string, where: string, work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (error) {
		if (error instanceof APIError) throw new InputError('second-factor', words, where);
		throw error;
	}
}

/** Begins a second factor of one-time codes (RFC 6238); it holds once a code of it was said. Throws InputError. */
export async function beginSecond(
	{ auth }: Entrance,
	who: Who,
	password: string,
	headers: Headers
): Promise<SecondFactor> {
	if (who.session === undefined) throw new InputError('second-factor', NO_PASSWORD);
	const made = await refusing('The password is another.', '/password', () =>
		auth.api.enableTwoFactor({ body: { password, method: 'totp' }, headers })
	);
	if (!('totpURI' in made)) throw new Error('There are only codes by time.');
	const secret = new URL(made.totpURI).searchParams.get('secret')!;
	// Named as they are called here, not by the address that nobody gave (Key URI of one-time codes).
	const label = encodeURIComponent(`Heptarch:${who.name}`);
	const picture = renderSVG(`otpauth://totp/${label}?secret=${secret}&issuer=Heptarch`, { border: 2 });
	return { secret, picture, spares: made.backupCodes };
}

/** Holds from now on: whoever signs in says a code, too. Throws InputError. */
export const confirmSecond = async ({ auth }: Entrance, code: string, headers: Headers): Promise<Cookies> =>
	refusing(NO_CODE, '/code', async () => {
		const answer = await auth.api.verifyTOTP({ body: { code: code.replace(/\s/g, '') }, headers, returnHeaders: true });
		return answer.headers.getSetCookie();
	});

/** Comes in by a code after name and password: one by time, or one of the spares. Throws InputError. */
export async function saySecond({ auth }: Entrance, code: string, headers: Headers): Promise<Cookies> {
	const bare = code.replace(/\s/g, '');
	const answer = await refusing(NO_CODE, '/code', () =>
		/^\d{6}$/.test(bare)
			? auth.api.verifyTOTP({ body: { code: bare }, headers, returnHeaders: true })
			: auth.api.verifyBackupCode({ body: { code: bare }, headers, returnHeaders: true })
	);
	return answer.headers.getSetCookie();
}

/** Ends it. Throws InputError where the password is another. */
export const endSecond = ({ auth }: Entrance, password: string, headers: Headers): Promise<unknown> =>
	refusing('The password is another.', '/password', () => auth.api.disableTwoFactor({ body: { password }, headers }));

/** Takes it from somebody who lost it, and all their sessions with it. */
export async function takeSecondFrom({ door }: Entrance, person: string): Promise<void> {
	await door.transaction().execute(async (trx) => {
		await trx.updateTable('people').set({ twoFactorEnabled: false }).where('id', '=', person).execute();
		await trx.deleteFrom('secondFactors').where('userId', '=', person).execute();
		await trx.deleteFrom('sessions').where('userId', '=', person).execute();
	});
}

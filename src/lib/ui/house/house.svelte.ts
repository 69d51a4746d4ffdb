import { invalidate } from '$app/navigation';
import type { Line } from '$lib/core/history.ts';
import type { TypeRole } from '$lib/core/style/types.ts';
import type { HouseRecord } from '$lib/server/house/house.ts';
import type { StepInfo } from '$lib/server/history.ts';
import type { Policy } from '$lib/core/policy/policy.ts';
import { EMPTY_POLICY, type HouseState } from '$lib/workbench/house.ts';
import { without } from '$lib/workbench/table.ts';
import { lineAt, Sender } from '../history.svelte.ts';

/** The same things in the same order, one of them under another name. */
const renamedIn = <T>(things: Readonly<Record<string, T>>, from: string, to: string): Record<string, T> =>
	Object.fromEntries(Object.entries(things).map(([name, thing]) => [name === from ? to : name, thing]));

/** The house as it is being worked on: every change is one step, saved at once, that can be undone. */
export class HouseWork {
	house: HouseRecord = $state.raw({} as HouseRecord);
	steps: readonly StepInfo[] = $state.raw([]);

	constructor(house: HouseRecord, steps: readonly StepInfo[]) {
		this.house = house;
		this.steps = steps;
	}
	get line(): Line<StepInfo> {
		return lineAt(this.steps, this.house.step);
	}

	readonly sender = Sender.of('/house', {
		needs: 'designer',
		line: () => this.line,
		version: () => this.house.version,
		orderTo: (to) => ({ path: '/api/house/step', body: { version: this.house.version, to } }),
		take: (answer) => {
			this.house = answer as HouseRecord;
			return invalidate('heptarch:house');
		},
		renew: () => invalidate('heptarch:house')
	});
	get isBusy(): boolean {
		return this.sender.isBusy;
	}
	/** Returns whether it was saved; what went wrong is said, and what stands now is shown. */
	private change(
		label: string,
		change: (house: HouseState) => Partial<HouseState>,
		renamed: { inks?: Record<string, string>; typeRoles?: Record<string, string> } = {}
	): Promise<boolean> {
		return this.sender.send(() => {
			const { inks, typeRoles, locale, policy, version } = { ...this.house, ...change(this.house) };
			const body = { version, label, state: { inks, typeRoles, locale, policy }, ...renamed };
			return { label, method: 'PUT', path: '/api/house', body };
		});
	}

	setInk(name: string, hex: string): Promise<boolean> {
		return this.change(`ink ${name}: ${hex}`, ({ inks }) => ({ inks: { ...inks, [name]: hex } }));
	}
	/** A new ink under a name that is free. */
	async addInk(hex: string): Promise<string | undefined> {
		let name = 'ink';
		for (let n = 2; name in this.house.inks; n++) name = `ink ${n}`;
		return (await this.setInk(name, hex)) ? name : undefined;
	}
	renameInk(from: string, to: string): Promise<boolean> {
		return this.change(`ink ${from} is ${to} now`, ({ inks }) => ({ inks: renamedIn(inks, from, to) }), {
			inks: { [from]: to }
		});
	}
	/** Takes an ink out; where styles name it, `instead` stands in its place. */
	removeInk(name: string, instead: string | undefined): Promise<boolean> {
		const label = instead ? `ink ${name} replaced by ${instead}` : `ink ${name} taken out`;
		return this.change(
			label,
			({ inks }) => ({ inks: without(inks, name) }),
			instead ? { inks: { [name]: instead } } : {}
		);
	}

	setTypeRole(name: string, role: TypeRole): Promise<boolean> {
		return this.change(`type role ${name}`, ({ typeRoles }) => ({ typeRoles: { ...typeRoles, [name]: role } }));
	}
	async addTypeRole(): Promise<string | undefined> {
		let name = 'type role';
		for (let n = 2; name in this.house.typeRoles; n++) name = `type role ${n}`;
		return (await this.setTypeRole(name, { family: 'Source Sans 3', size: '10pt', weight: 400 })) ? name : undefined;
	}
	renameTypeRole(from: string, to: string): Promise<boolean> {
		return this.change(
			`type role ${from} is ${to} now`,
			({ typeRoles }) => ({ typeRoles: renamedIn(typeRoles, from, to) }),
			{ typeRoles: { [from]: to } }
		);
	}
	removeTypeRole(name: string, instead: string | undefined): Promise<boolean> {
		const label = instead ? `type role ${name} replaced by ${instead}` : `type role ${name} taken out`;
		return this.change(
			label,
			({ typeRoles }) => ({ typeRoles: without(typeRoles, name) }),
			instead ? { typeRoles: { [name]: instead } } : {}
		);
	}

	setLocale(locale: string): Promise<boolean> {
		return this.change(`figures as in ${locale}`, () => ({ locale }));
	}
	setPolicy(label: string, change: (policy: Policy) => Policy | null): Promise<boolean> {
		return this.change(`policy: ${label}`, ({ policy }) => ({ policy: change(policy ?? EMPTY_POLICY) }));
	}
	/** Takes in inks and type roles; those of the same name are changed. */
	takeIn(inks: Record<string, string>, typeRoles: Record<string, TypeRole>): Promise<boolean> {
		return this.change('design tokens taken in', (house) => ({
			inks: { ...house.inks, ...inks },
			typeRoles: { ...house.typeRoles, ...typeRoles }
		}));
	}
}

import { invalidate } from '$app/navigation';
import type { Line } from '$lib/core/history.ts';
import type { TypeRole } from '$lib/core/style/types.ts';
import type { HouseRecord } from '$lib/server/house/house.ts';
import type { StepInfo } from '$lib/server/history.ts';
import type { HouseState } from '$lib/workbench/house.ts';
import { call } from '../api.ts';
import { notifyError } from '../notices.svelte.ts';

/** The house as it is being worked on: every change is one step, saved at once, that can be undone. */
export class HouseWork {
	house: HouseRecord = $state.raw({} as HouseRecord);
	steps: readonly StepInfo[] = $state.raw([]);
	isBusy = $state(false);

	constructor(house: HouseRecord, steps: readonly StepInfo[]) {
		this.house = house;
		this.steps = steps;
	}
	get line(): Line<StepInfo> {
		return { steps: this.steps, at: this.house.step };
	}

	/** Returns whether it was saved; what went wrong is said. */
	private async send(method: 'PUT', path: string, body: object): Promise<boolean> {
		this.isBusy = true;
		try {
			this.house = await call<HouseRecord>(method, path, { version: this.house.version, ...body });
			await invalidate('heptarch:house');
			return true;
		} catch (error) {
			notifyError(error);
			await invalidate('heptarch:house');
			return false;
		} finally {
			this.isBusy = false;
		}
	}
	private change(
		label: string,
		change: Partial<HouseState>,
		renamed: { inks?: Record<string, string>; typeRoles?: Record<string, string> } = {}
	): Promise<boolean> {
		const { inks, typeRoles, locale } = { ...this.house, ...change };
		return this.send('PUT', '/api/house', { label, state: { inks, typeRoles, locale }, ...renamed });
	}
	goTo(to: number): Promise<boolean> {
		return this.send('PUT', '/api/house/step', { to });
	}

	setInk(name: string, hex: string): Promise<boolean> {
		return this.change(`ink ${name}: ${hex}`, { inks: { ...this.house.inks, [name]: hex } });
	}
	/** A new ink under a name that is free. */
	async addInk(hex: string): Promise<string | undefined> {
		let name = 'ink';
		for (let n = 2; name in this.house.inks; n++) name = `ink ${n}`;
		return (await this.setInk(name, hex)) ? name : undefined;
	}
	renameInk(from: string, to: string): Promise<boolean> {
		const inks = Object.fromEntries(
			Object.entries(this.house.inks).map(([name, hex]) => [name === from ? to : name, hex])
		);
		return this.change(`ink ${from} is ${to} now`, { inks }, { inks: { [from]: to } });
	}
	/** Takes an ink out; where styles name it, `instead` stands in its place. */
	removeInk(name: string, instead: string | undefined): Promise<boolean> {
		const { [name]: _, ...inks } = this.house.inks;
		const label = instead ? `ink ${name} replaced by ${instead}` : `ink ${name} taken out`;
		return this.change(label, { inks }, instead ? { inks: { [name]: instead } } : {});
	}

	setTypeRole(name: string, role: TypeRole): Promise<boolean> {
		return this.change(`type role ${name}`, { typeRoles: { ...this.house.typeRoles, [name]: role } });
	}
	async addTypeRole(): Promise<string | undefined> {
		let name = 'type role';
		for (let n = 2; name in this.house.typeRoles; n++) name = `type role ${n}`;
		return (await this.setTypeRole(name, { family: 'Source Sans 3', size: '10pt', weight: 400 })) ? name : undefined;
	}
	renameTypeRole(from: string, to: string): Promise<boolean> {
		const typeRoles = Object.fromEntries(
			Object.entries(this.house.typeRoles).map(([name, role]) => [name === from ? to : name, role])
		);
		return this.change(`type role ${from} is ${to} now`, { typeRoles }, { typeRoles: { [from]: to } });
	}
	removeTypeRole(name: string, instead: string | undefined): Promise<boolean> {
		const { [name]: _, ...typeRoles } = this.house.typeRoles;
		const label = instead ? `type role ${name} replaced by ${instead}` : `type role ${name} taken out`;
		return this.change(label, { typeRoles }, instead ? { typeRoles: { [name]: instead } } : {});
	}

	setLocale(locale: string): Promise<boolean> {
		return this.change(`figures as in ${locale}`, { locale });
	}
	/** Takes in inks and type roles; those of the same name are changed. */
	takeIn(inks: Record<string, string>, typeRoles: Record<string, TypeRole>): Promise<boolean> {
		return this.change('design tokens taken in', {
			inks: { ...this.house.inks, ...inks },
			typeRoles: { ...this.house.typeRoles, ...typeRoles }
		});
	}
}

/** A style sheet of the page that changes rule by rule: what stays the same is not touched, so the browser looks at it no more. */
export class RuleSheet {
	private readonly sheet = new CSSStyleSheet();
	private rules: readonly string[] = [];

	constructor() {
		document.adoptedStyleSheets.push(this.sheet);
	}

	/** Says these rules from now on. */
	set(rules: readonly string[]): void {
		const before = this.rules;
		this.rules = rules;
		const changed = rules.flatMap((rule, i) => (rule === before[i] ? [] : [i]));
		if (before.length !== rules.length || changed.length > rules.length / 2) {
			if (changed.length || before.length !== rules.length) this.sheet.replaceSync(rules.join('\n'));
			return;
		}
		for (const i of changed) {
			this.sheet.deleteRule(i);
			this.sheet.insertRule(rules[i]!, i);
		}
	}

	/** Takes it off the page. */
	end(): void {
		document.adoptedStyleSheets = document.adoptedStyleSheets.filter((sheet) => sheet !== this.sheet);
	}
}

/** Made by scripts/api-types.ts from /api/v1/openapi.json; not written by hand. */
export interface paths {
	'/me': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Who asks, as what, and in which house
		 * @description For a reader at least.
		 */
		get: operations['me'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/house': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Inks, type roles and locale of the house
		 * @description For a reader at least.
		 */
		get: operations['house'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Documents, and those that words are found in
		 * @description For a reader at least.
		 */
		get: operations['listDocuments'];
		put?: never;
		/**
		 * Add a document: its file is the body
		 * @description For an author at least.
		 */
		post: operations['addDocument'];
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * A document
		 * @description For a reader at least.
		 */
		get: operations['getDocument'];
		put?: never;
		post?: never;
		/**
		 * Remove a document
		 * @description For an author at least.
		 */
		delete: operations['removeDocument'];
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/file': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Take the file as it stands now, in any format
		 * @description For a reader at least.
		 */
		get: operations['takeFile'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/account': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * What taking the file would change, and what reading it back finds
		 * @description For a reader at least.
		 */
		get: operations['getAccount'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/findings': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * What is to be looked at in the tables of a document
		 * @description For a reader at least.
		 */
		get: operations['getFindings'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/steps': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * What was done to a document, by whom and when
		 * @description For a reader at least.
		 */
		get: operations['listSteps'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/step': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		get?: never;
		/**
		 * Undo, redo: stand at any step
		 * @description For an author at least.
		 */
		put: operations['goToStep'];
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/apply': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		get?: never;
		put?: never;
		/**
		 * Give a style to tables of a document; to all that hold data where none are said
		 * @description For an author at least.
		 */
		post: operations['applyStyle'];
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/tables': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * The tables of a document, and what was decided of each
		 * @description For a reader at least.
		 */
		get: operations['listTables'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/documents/{document}/tables/{table}': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * A table as a table file: cells, roles of rows, kinds of columns, reasons, findings
		 * @description For a reader at least.
		 */
		get: operations['getTable'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		/**
		 * Say what a table is and wears: roles, kinds, style, parts in use, touches
		 * @description A merge patch (RFC 7396): what is absent stays as it is, null is as recognised. For an author at least.
		 */
		patch: operations['changeTable'];
		trace?: never;
	};
	'/documents/{document}/tables/{table}/figures': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * What the cells of a table amount to, and which typed sums are off
		 * @description For a reader at least.
		 */
		get: operations['getFigures'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/styles': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * The styles of the house, by name
		 * @description For a reader at least.
		 */
		get: operations['listStyles'];
		put?: never;
		/**
		 * Take a style file in, with its bases
		 * @description For a designer at least.
		 */
		post: operations['addStyle'];
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/styles/{style}': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * The draft of a style as a file that needs nothing else
		 * @description For a reader at least.
		 */
		get: operations['getStyle'];
		/**
		 * Make the draft of a style what a file says
		 * @description For a designer at least.
		 */
		put: operations['putStyle'];
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/styles/{style}/editions': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * The editions of a style, the newest first
		 * @description For a reader at least.
		 */
		get: operations['listEditions'];
		put?: never;
		/**
		 * Publish the draft as the next edition
		 * @description A house that wants a second pair of eyes refuses it (403, second-eyes): propose it then. For a designer at least.
		 */
		post: operations['publishEdition'];
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/styles/{style}/proposals': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		get?: never;
		put?: never;
		/**
		 * Propose the draft as the next edition, for somebody else to publish
		 * @description For a designer at least.
		 */
		post: operations['proposeEdition'];
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/runs': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * The last fifty runs, the newest first
		 * @description For a reader at least.
		 */
		get: operations['listRuns'];
		put?: never;
		/**
		 * Start a run: a style, a setting or a rule for many documents
		 * @description For an author at least.
		 */
		post: operations['startRun'];
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/runs/{run}': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * How far a run is
		 * @description For a reader at least.
		 */
		get: operations['getRun'];
		/**
		 * Stop a run, go on with it, or take it back as a whole
		 * @description For an author at least.
		 */
		put: operations['changeRun'];
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/runs/{run}/zip': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Every finished file of a run, with its account, as a zip
		 * @description For a reader at least.
		 */
		get: operations['takeRun'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/census/share': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * How many tables wear styles, over time
		 * @description For a reader at least.
		 */
		get: operations['censusShare'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/census/looks': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Groups of tables that look alike
		 * @description For a reader at least.
		 */
		get: operations['censusLooks'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/census/settings': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Settings in which tables differ
		 * @description For a reader at least.
		 */
		get: operations['censusSettings'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/census/findings': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Findings of all tables, counted
		 * @description For a reader at least.
		 */
		get: operations['censusFindings'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/census/tables': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * The tables of a group of looks, with a value of a setting, with a finding, or that a rule flags
		 * @description For a reader at least.
		 */
		get: operations['censusTables'];
		put?: never;
		post?: never;
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/webhooks': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		/**
		 * Addresses that are told of events
		 * @description For a keeper at least.
		 */
		get: operations['listWebhooks'];
		put?: never;
		/**
		 * Tell an address of events from now on
		 * @description Told as Standard Webhooks 1.0.0 has it, signed with the secret that is answered. One of this machine or of a private network is refused. For a keeper at least.
		 */
		post: operations['addWebhook'];
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'/webhooks/{webhook}': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		get?: never;
		put?: never;
		post?: never;
		/**
		 * Tell an address of nothing any more
		 * @description For a keeper at least.
		 */
		delete: operations['removeWebhook'];
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
}
export interface webhooks {
	'edition.published': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		get?: never;
		put?: never;
		/** an edition of a style is out */
		post: {
			parameters: {
				query?: never;
				header?: never;
				path?: never;
				cookie?: never;
			};
			requestBody?: {
				content: {
					'application/json': {
						/** @constant */
						type: 'edition.published';
						/** Format: date-time */
						timestamp: string;
						data: {
							style: string;
							name: string;
							edition: number;
						};
					};
				};
			};
			responses: {
				/** @description heard; anything else is told again later */
				'2XX': {
					headers: {
						[name: string]: unknown;
					};
					content?: never;
				};
			};
		};
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'run.done': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		get?: never;
		put?: never;
		/** a run has come to its end */
		post: {
			parameters: {
				query?: never;
				header?: never;
				path?: never;
				cookie?: never;
			};
			requestBody?: {
				content: {
					'application/json': {
						/** @constant */
						type: 'run.done';
						/** Format: date-time */
						timestamp: string;
						data: {
							run: string;
							style: string;
							documents: number;
							failed: number;
						};
					};
				};
			};
			responses: {
				/** @description heard; anything else is told again later */
				'2XX': {
					headers: {
						[name: string]: unknown;
					};
					content?: never;
				};
			};
		};
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
	'finding.new': {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		get?: never;
		put?: never;
		/** a document has findings that it did not have */
		post: {
			parameters: {
				query?: never;
				header?: never;
				path?: never;
				cookie?: never;
			};
			requestBody?: {
				content: {
					'application/json': {
						/** @constant */
						type: 'finding.new';
						/** Format: date-time */
						timestamp: string;
						data: {
							document: string;
							name: string;
							findings: {
								[key: string]: number;
							};
						};
					};
				};
			};
			responses: {
				/** @description heard; anything else is told again later */
				'2XX': {
					headers: {
						[name: string]: unknown;
					};
					content?: never;
				};
			};
		};
		delete?: never;
		options?: never;
		head?: never;
		patch?: never;
		trace?: never;
	};
}
export interface components {
	schemas: {
		/** @description RFC 9457 */
		Problem: {
			/** @description what went wrong, as a URN of its code */
			type: string;
			title: string;
			status: number;
			/** @description what is wrong, in words for a person */
			detail: string;
			code: string;
			/** @description the place in what was sent, as a JSON Pointer, or the file */
			where?: string;
			/** @description what somebody else saved in the meantime */
			current?: unknown;
		};
		Me: {
			id: string;
			name: string;
			/** @enum {unknown} */
			role: 'reader' | 'author' | 'designer' | 'keeper';
			house: {
				id: string;
				name: string;
			};
		};
		House: {
			name: string;
			inks: Record<string, never>;
			typeRoles: Record<string, never>;
			locale: string;
			secondEyes: boolean;
		};
		Document: {
			id: string;
			name: string;
			kind: string;
			tables: number;
			styled: number;
			looks: number;
			findings: number;
			behind: number;
			wears: string[];
			archived: boolean;
			/** Format: date-time */
			updatedAt: string;
		};
		DocumentFull: {
			id: string;
			name: string;
			kind: string;
			tables: number;
			styled: number;
			looks: number;
			findings: number;
			behind: number;
			wears: string[];
			archived: boolean;
			/** Format: date-time */
			updatedAt: string;
			version: number;
			step: number;
		};
		Documents: {
			items: components['schemas']['Document'][];
			/** @description where the next page begins: say it as “after”; null after the last one */
			next: string | null;
		};
		Account: {
			tables: Record<string, never>[];
			remarks: string[];
		};
		Step: {
			step: number;
			label: string;
			by: string | null;
			/** Format: date-time */
			when: string;
		};
		Steps: {
			items: components['schemas']['Step'][];
			at: number;
			version: number;
		};
		Standing: {
			step: number;
			version: number;
			published: string[];
		};
		/** @description what somebody decided about a table; what is absent is as recognised */
		TableState: {
			style?: string;
			edition?: number;
			pinned?: boolean;
			roles?: {
				[key: string]: string;
			};
			kinds?: {
				[key: string]: 'text' | 'code' | 'count' | 'quantity' | 'money' | 'percent' | 'date' | 'mixed';
			};
			/** @enum {unknown} */
			mark?: '.' | ',';
			/** @enum {unknown} */
			purpose?: 'data' | 'list' | 'matrix' | 'calendar' | 'form' | 'layout';
			firstColumns?: number;
			lastColumns?: number;
			partsOff?: string[];
			carry?: ('text' | 'fill' | 'linework' | 'alignment' | 'margins' | 'formats')[];
			touches?: {
				r: number;
				c: number;
				set: {
					fill?: {
						ink?: string | null;
						tint?: number | null;
						opacity?: number | null;
					};
					text?: {
						role?: string | null;
						family?: string | null;
						size?: string | null;
						weight?: number | null;
						italic?: boolean | null;
						/** @enum {unknown} */
						underline?: 'none' | 'single' | 'double' | null;
						/** @enum {unknown} */
						case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps' | null;
						tracking?: string | null;
						lineHeight?: number | null;
						paragraphGap?: string | null;
						ink?: string | null;
						shadow?: {
							x?: string | null;
							y?: string | null;
							blur?: string | null;
							ink?: string | null;
						};
					};
					align?: {
						/** @enum {unknown} */
						h?: 'start' | 'middle' | 'end' | 'justify' | 'decimal' | null;
						/** @enum {unknown} */
						v?: 'top' | 'middle' | 'bottom' | null;
					};
					/** @enum {unknown} */
					rotate?: 0 | 90 | 270 | null;
					margin?: {
						top?: string | null;
						end?: string | null;
						bottom?: string | null;
						start?: string | null;
					};
					lines?: {
						top?: {
							/** @enum {unknown} */
							pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
							weight?: string | null;
							ink?: string | null;
						};
						bottom?: {
							/** @enum {unknown} */
							pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
							weight?: string | null;
							ink?: string | null;
						};
						start?: {
							/** @enum {unknown} */
							pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
							weight?: string | null;
							ink?: string | null;
						};
						end?: {
							/** @enum {unknown} */
							pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
							weight?: string | null;
							ink?: string | null;
						};
						diagonalDown?: {
							/** @enum {unknown} */
							pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
							weight?: string | null;
							ink?: string | null;
						};
						diagonalUp?: {
							/** @enum {unknown} */
							pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
							weight?: string | null;
							ink?: string | null;
						};
					};
					format?: {
						/** @enum {unknown} */
						kind?: 'none' | 'text' | 'code' | 'count' | 'quantity' | 'money' | 'percent' | 'date' | 'mixed' | null;
						currency?: string | null;
						decimals?: number | null;
						grouping?: boolean | null;
						/** @enum {unknown} */
						negative?: 'minus' | 'parentheses' | null;
						zero?: string | null;
						unit?: string | null;
						/** @enum {unknown} */
						date?: 'iso' | 'short' | 'medium' | 'long' | 'month' | 'year' | null;
					};
					keep?: {
						together?: boolean | null;
						withNext?: boolean | null;
						repeat?: boolean | null;
					};
				};
			}[];
			cleared?: boolean;
			work?: number;
			dropsEmphasis?: boolean;
			widths?: number[];
			unreadable?: {
				why: string;
				stored: unknown;
			};
		};
		Table: {
			index: number;
			title: string;
			rows: number;
			columns: number;
			purpose: string;
			state: components['schemas']['TableState'];
		};
		Tables: {
			items: components['schemas']['Table'][];
			version: number;
		};
		/** @description a table file: /schema/table.json, with “about”: place, size, reasons, findings */
		TableFile: {
			/** @constant */
			format: 'heptarch-table';
			/** @constant */
			version: 1;
			cells: (string | null)[][];
			rows: unknown[];
			columns: unknown[];
		};
		TableFull: {
			table: components['schemas']['TableFile'];
			state: components['schemas']['TableState'];
		};
		Figures: {
			index: number;
			numbers: Record<string, never>;
			figures: Record<string, never>[];
			worked: Record<string, never>[];
			sums: Record<string, never>[];
		};
		Finding: {
			table: number;
			kind: string;
			words: string;
		};
		Findings: {
			items: components['schemas']['Finding'][];
		};
		Style: {
			id: string;
			name: string;
			category: string | null;
			description: string | null;
			version: number;
			edition: number | null;
			unpublished: boolean;
			aside: boolean;
			/** Format: date-time */
			updatedAt: string;
			worn: {
				tables: number;
				documents: number;
			};
		};
		Styles: {
			items: components['schemas']['Style'][];
			/** @description where the next page begins: say it as “after”; null after the last one */
			next: string | null;
		};
		/** Heptarch style */
		StyleFile: {
			/** @constant */
			format: 'heptarch-style';
			/** @constant */
			version: 1;
			name: string;
			description?: string;
			category?: string;
			basedOn?: string | null;
			/** @enum {unknown} */
			reading?: 'down' | 'up';
			inks?: {
				[key: string]: string;
			};
			typeRoles?: {
				[key: string]: {
					family?: string;
					size?: string;
					weight?: number;
					/** @enum {unknown} */
					case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps';
					tracking?: string;
				};
			};
			bands?: {
				rows?: {
					sizes?: number[];
					restartAtGroups?: boolean;
				};
				columns?: {
					sizes?: number[];
				};
			};
			parts: {
				ground?: components['schemas']['StyleFile.ground'];
			} & {
				[key: string]: components['schemas']['StyleFile.settings'];
			};
			bases?: components['schemas']['StyleFile'][];
			rules?: {
				name: string;
				where: components['schemas']['StyleFile.condition'];
				/** @enum {unknown} */
				extends?: 'cell' | 'row' | 'column';
				off?: boolean;
				set: components['schemas']['StyleFile.settings'];
			}[];
		};
		'StyleFile.ground': {
			fill?: {
				ink?: string | null;
				tint?: number | null;
				opacity?: number | null;
			};
			text?: {
				role?: string | null;
				family?: string | null;
				size?: string | null;
				weight?: number | null;
				italic?: boolean | null;
				/** @enum {unknown} */
				underline?: 'none' | 'single' | 'double' | null;
				/** @enum {unknown} */
				case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps' | null;
				tracking?: string | null;
				lineHeight?: number | null;
				paragraphGap?: string | null;
				ink?: string | null;
				shadow?: {
					x?: string | null;
					y?: string | null;
					blur?: string | null;
					ink?: string | null;
				};
			};
			align?: {
				/** @enum {unknown} */
				h?: 'start' | 'middle' | 'end' | 'justify' | 'decimal' | null;
				/** @enum {unknown} */
				v?: 'top' | 'middle' | 'bottom' | null;
			};
			/** @enum {unknown} */
			rotate?: 0 | 90 | 270 | null;
			margin?: {
				top?: string | null;
				end?: string | null;
				bottom?: string | null;
				start?: string | null;
			};
			lines?: {
				top?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				bottom?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				start?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				end?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				betweenRows?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				betweenColumns?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				diagonalDown?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				diagonalUp?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
			};
			shadow?: {
				x?: string | null;
				y?: string | null;
				blur?: string | null;
				ink?: string | null;
			};
			format?: {
				/** @enum {unknown} */
				kind?: 'none' | 'text' | 'code' | 'count' | 'quantity' | 'money' | 'percent' | 'date' | 'mixed' | null;
				currency?: string | null;
				decimals?: number | null;
				grouping?: boolean | null;
				/** @enum {unknown} */
				negative?: 'minus' | 'parentheses' | null;
				zero?: string | null;
				unit?: string | null;
				/** @enum {unknown} */
				date?: 'iso' | 'short' | 'medium' | 'long' | 'month' | 'year' | null;
			};
			keep?: {
				together?: boolean | null;
				withNext?: boolean | null;
				repeat?: boolean | null;
			};
		};
		'StyleFile.settings': {
			fill?: {
				ink?: string | null;
				tint?: number | null;
				opacity?: number | null;
			};
			text?: {
				role?: string | null;
				family?: string | null;
				size?: string | null;
				weight?: number | null;
				italic?: boolean | null;
				/** @enum {unknown} */
				underline?: 'none' | 'single' | 'double' | null;
				/** @enum {unknown} */
				case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps' | null;
				tracking?: string | null;
				lineHeight?: number | null;
				paragraphGap?: string | null;
				ink?: string | null;
				shadow?: {
					x?: string | null;
					y?: string | null;
					blur?: string | null;
					ink?: string | null;
				};
			};
			align?: {
				/** @enum {unknown} */
				h?: 'start' | 'middle' | 'end' | 'justify' | 'decimal' | null;
				/** @enum {unknown} */
				v?: 'top' | 'middle' | 'bottom' | null;
			};
			/** @enum {unknown} */
			rotate?: 0 | 90 | 270 | null;
			margin?: {
				top?: string | null;
				end?: string | null;
				bottom?: string | null;
				start?: string | null;
			};
			lines?: {
				top?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				bottom?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				start?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				end?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				betweenRows?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				betweenColumns?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				diagonalDown?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
				diagonalUp?: {
					/** @enum {unknown} */
					pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
					weight?: string | null;
					ink?: string | null;
				};
			};
			format?: {
				/** @enum {unknown} */
				kind?: 'none' | 'text' | 'code' | 'count' | 'quantity' | 'money' | 'percent' | 'date' | 'mixed' | null;
				currency?: string | null;
				decimals?: number | null;
				grouping?: boolean | null;
				/** @enum {unknown} */
				negative?: 'minus' | 'parentheses' | null;
				zero?: string | null;
				unit?: string | null;
				/** @enum {unknown} */
				date?: 'iso' | 'short' | 'medium' | 'long' | 'month' | 'year' | null;
			};
			keep?: {
				together?: boolean | null;
				withNext?: boolean | null;
				repeat?: boolean | null;
			};
		};
		'StyleFile.conditions': components['schemas']['StyleFile.condition'][];
		'StyleFile.condition': Record<string, never>;
		'StyleFile.test': {
			column?: string;
			/** @enum {unknown} */
			kind?: 'text' | 'code' | 'count' | 'quantity' | 'money' | 'percent' | 'date' | 'mixed';
			/** @constant */
			any?: true;
			rows?: string[];
			/** @enum {unknown} */
			is:
				| '<'
				| '<='
				| '='
				| '!='
				| '>='
				| '>'
				| 'between'
				| 'oneOf'
				| 'contains'
				| 'startsWith'
				| 'endsWith'
				| 'matches'
				| 'empty'
				| 'notNumber'
				| 'repeated'
				| 'least'
				| 'greatest'
				| 'aboveMean'
				| 'belowMean'
				| 'changes';
			value?: unknown;
		} & (unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown &
			unknown);
		Edition: {
			number: number;
			note: string;
			/** Format: date-time */
			publishedAt: string;
			by: string | null;
			proposedBy: string | null;
		};
		Editions: {
			items: components['schemas']['Edition'][];
		};
		Published: {
			number: number;
		};
		Proposed: {
			id: string;
		};
		Made: {
			id: string;
		};
		RunDocument: {
			document: string;
			name: string;
			kind: string;
			state: string;
			tables: number;
			differences: number;
			reason: string | null;
		};
		Run: {
			id: string;
			style: string;
			edition: number | null;
			by: string | null;
			/** Format: date-time */
			startedAt: string;
			/** @enum {unknown} */
			state: 'running' | 'stopped' | 'done' | 'undone';
			items: components['schemas']['RunDocument'][];
		};
		Runs: {
			items: components['schemas']['Run'][];
		};
		Census: Record<string, never>;
		CensusTable: {
			document: string;
			name: string;
			index: number;
			title: string;
			style: string | null;
		};
		CensusTables: Record<string, never>;
		Webhook: {
			id: string;
			url: string;
			events: ('edition.published' | 'run.done' | 'finding.new')[];
			by: string | null;
			/** Format: date-time */
			since: string;
			last: null | {
				/** Format: date-time */
				at: string | null;
				said: string | null;
				isTold: boolean;
			};
		};
		Webhooks: {
			items: components['schemas']['Webhook'][];
		};
		NewWebhook: {
			id: string;
			/** @description what events are signed with; told now alone */
			secret: string;
		};
		GoToStepRequest: {
			to: number;
		};
		ApplyStyleRequest: {
			style: string;
			edition?: number;
			tables?: number[];
			partsOff?: string[];
			carry?: ('text' | 'fill' | 'linework' | 'alignment' | 'margins' | 'formats')[];
		};
		ChangeTableRequest: {
			style?: string | null;
			edition?: number | null;
			pinned?: boolean | null;
			roles?: {
				[key: string]: string;
			} | null;
			kinds?: {
				[key: string]: 'text' | 'code' | 'count' | 'quantity' | 'money' | 'percent' | 'date' | 'mixed';
			} | null;
			mark?: ('.' | ',') | null;
			purpose?: ('data' | 'list' | 'matrix' | 'calendar' | 'form' | 'layout') | null;
			firstColumns?: number | null;
			lastColumns?: number | null;
			partsOff?: string[] | null;
			carry?: ('text' | 'fill' | 'linework' | 'alignment' | 'margins' | 'formats')[] | null;
			touches?:
				| {
						r: number;
						c: number;
						set: {
							fill?: {
								ink?: string | null;
								tint?: number | null;
								opacity?: number | null;
							};
							text?: {
								role?: string | null;
								family?: string | null;
								size?: string | null;
								weight?: number | null;
								italic?: boolean | null;
								/** @enum {unknown} */
								underline?: 'none' | 'single' | 'double' | null;
								/** @enum {unknown} */
								case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps' | null;
								tracking?: string | null;
								lineHeight?: number | null;
								paragraphGap?: string | null;
								ink?: string | null;
								shadow?: {
									x?: string | null;
									y?: string | null;
									blur?: string | null;
									ink?: string | null;
								};
							};
							align?: {
								/** @enum {unknown} */
								h?: 'start' | 'middle' | 'end' | 'justify' | 'decimal' | null;
								/** @enum {unknown} */
								v?: 'top' | 'middle' | 'bottom' | null;
							};
							/** @enum {unknown} */
							rotate?: 0 | 90 | 270 | null;
							margin?: {
								top?: string | null;
								end?: string | null;
								bottom?: string | null;
								start?: string | null;
							};
							lines?: {
								top?: {
									/** @enum {unknown} */
									pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
									weight?: string | null;
									ink?: string | null;
								};
								bottom?: {
									/** @enum {unknown} */
									pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
									weight?: string | null;
									ink?: string | null;
								};
								start?: {
									/** @enum {unknown} */
									pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
									weight?: string | null;
									ink?: string | null;
								};
								end?: {
									/** @enum {unknown} */
									pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
									weight?: string | null;
									ink?: string | null;
								};
								diagonalDown?: {
									/** @enum {unknown} */
									pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
									weight?: string | null;
									ink?: string | null;
								};
								diagonalUp?: {
									/** @enum {unknown} */
									pattern?: 'double' | 'triple' | 'solid' | 'dashed' | 'dash-dot' | 'dotted' | 'wavy' | 'none' | null;
									weight?: string | null;
									ink?: string | null;
								};
							};
							format?: {
								/** @enum {unknown} */
								kind?: 'none' | 'text' | 'code' | 'count' | 'quantity' | 'money' | 'percent' | 'date' | 'mixed' | null;
								currency?: string | null;
								decimals?: number | null;
								grouping?: boolean | null;
								/** @enum {unknown} */
								negative?: 'minus' | 'parentheses' | null;
								zero?: string | null;
								unit?: string | null;
								/** @enum {unknown} */
								date?: 'iso' | 'short' | 'medium' | 'long' | 'month' | 'year' | null;
							};
							keep?: {
								together?: boolean | null;
								withNext?: boolean | null;
								repeat?: boolean | null;
							};
						};
				  }[]
				| null;
			cleared?: boolean | null;
			dropsEmphasis?: boolean | null;
			widths?: number[] | null;
		};
		NoteRequest: {
			note?: string;
		};
		StartRunRequest: {
			style?: string;
			bring?: {
				setting: string;
				value: string;
			};
			mend?: string;
			documents?: string[];
			/** @enum {unknown} */
			kind?: 'svg' | 'docx' | 'odt' | 'html' | 'csv' | 'json';
			among?: {
				looks?: number[];
				setting?: string;
				values?: string[];
				finding?: string;
				rule?: string;
			} & (unknown | unknown | unknown | unknown);
			partsOff?: string[];
			carry?: ('text' | 'fill' | 'linework' | 'alignment' | 'margins' | 'formats')[];
			takesAll?: boolean;
		};
		ChangeRunRequest: {
			/** @enum {unknown} */
			to: 'stop' | 'resume' | 'undo';
		};
		NewWebhookRequest: {
			url: string;
			events: ('edition.published' | 'run.done' | 'finding.new')[];
		};
	};
	responses: never;
	parameters: never;
	requestBodies: never;
	headers: never;
	pathItems: never;
}
export type $defs = Record<string, never>;
export interface operations {
	me: {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Who asks, as what, and in which house */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Me'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	house: {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Inks, type roles and locale of the house */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['House'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	listDocuments: {
		parameters: {
			query?: {
				/** @description words that are all to be in the name, the names of worn styles, or the text of tables */
				find?: string;
				/** @description kinds of documents, with commas */
				kinds?: string;
				/** @description 1: those that are put aside */
				archived?: '0' | '1';
				/** @description the order */
				sort?: 'name' | 'kind' | 'styled' | 'looks' | 'findings' | 'updatedAt';
				/** @description 1: from the end */
				down?: '0' | '1';
				/** @description what the page before gave as “next” */
				after?: string;
				/** @description how many at most */
				most?: number;
			};
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Documents, and those that words are found in */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Documents'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	addDocument: {
		parameters: {
			query: {
				/** @description the name of the file, with its ending */
				name: string;
			};
			header?: {
				/** @description asked again under the same key within a day, the same answer is given and nothing made */
				'Idempotency-Key'?: string;
			};
			path?: never;
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/octet-stream': string;
			};
		};
		responses: {
			/** @description Add a document: its file is the body */
			201: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['DocumentFull'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	getDocument: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description A document */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['DocumentFull'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	removeDocument: {
		parameters: {
			query?: never;
			header: {
				/** @description the version that was seen, as its ETag named it, or * for any */
				'If-Match': string;
			};
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Remove a document */
			204: {
				headers: {
					[name: string]: unknown;
				};
				content?: never;
			};
			/** @description somebody else saved first */
			412: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description If-Match is missing */
			428: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	takeFile: {
		parameters: {
			query?: {
				/** @description the format; its own where absent */
				as?: 'svg' | 'docx' | 'odt' | 'html' | 'pdf' | 'css' | 'csv' | 'json';
				/** @description how looks travel */
				travel?: 'living' | 'living-only' | 'direct';
				/** @description only these tables, from 0, with commas */
				tables?: string;
				/** @description of a PDF */
				paper?: 'A4' | 'A3' | 'A5' | 'letter';
				/** @description 1: the paper lies across */
				across?: '0' | '1';
			};
			header?: never;
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Take the file as it stands now, in any format */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'*/*': string;
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	getAccount: {
		parameters: {
			query?: {
				/** @description the format; its own where absent */
				as?: 'svg' | 'docx' | 'odt' | 'html' | 'pdf' | 'css' | 'csv' | 'json';
				/** @description how looks travel */
				travel?: 'living' | 'living-only' | 'direct';
				/** @description only these tables, from 0, with commas */
				tables?: string;
				/** @description of a PDF */
				paper?: 'A4' | 'A3' | 'A5' | 'letter';
				/** @description 1: the paper lies across */
				across?: '0' | '1';
			};
			header?: never;
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description What taking the file would change, and what reading it back finds */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Account'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	getFindings: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description What is to be looked at in the tables of a document */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Findings'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	listSteps: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description What was done to a document, by whom and when */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Steps'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	goToStep: {
		parameters: {
			query?: never;
			header: {
				/** @description the version that was seen, as its ETag named it, or * for any */
				'If-Match': string;
			};
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['GoToStepRequest'];
			};
		};
		responses: {
			/** @description Undo, redo: stand at any step */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Standing'];
				};
			};
			/** @description somebody else saved first */
			412: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description If-Match is missing */
			428: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	applyStyle: {
		parameters: {
			query?: never;
			header: {
				/** @description the version that was seen, as its ETag named it, or * for any */
				'If-Match': string;
			};
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['ApplyStyleRequest'];
			};
		};
		responses: {
			/** @description Give a style to tables of a document; to all that hold data where none are said */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Standing'];
				};
			};
			/** @description somebody else saved first */
			412: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description If-Match is missing */
			428: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	listTables: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				document: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description The tables of a document, and what was decided of each */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Tables'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	getTable: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				document: string;
				/** @description its index, from 0 */
				table: number;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description A table as a table file: cells, roles of rows, kinds of columns, reasons, findings */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['TableFull'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	changeTable: {
		parameters: {
			query?: never;
			header: {
				/** @description the version that was seen, as its ETag named it, or * for any */
				'If-Match': string;
			};
			path: {
				/** @description its id */
				document: string;
				/** @description its index, from 0 */
				table: number;
			};
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['ChangeTableRequest'];
			};
		};
		responses: {
			/** @description Say what a table is and wears: roles, kinds, style, parts in use, touches */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Standing'];
				};
			};
			/** @description somebody else saved first */
			412: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description If-Match is missing */
			428: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	getFigures: {
		parameters: {
			query?: {
				/** @description BCP 47, such as sv-SE: which money a sign means */
				locale?: string;
			};
			header?: never;
			path: {
				/** @description its id */
				document: string;
				/** @description its index, from 0 */
				table: number;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description What the cells of a table amount to, and which typed sums are off */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Figures'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	listStyles: {
		parameters: {
			query?: {
				/** @description what the page before gave as “next” */
				after?: string;
			};
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description The styles of the house, by name */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Styles'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	addStyle: {
		parameters: {
			query?: never;
			header?: {
				/** @description asked again under the same key within a day, the same answer is given and nothing made */
				'Idempotency-Key'?: string;
			};
			path?: never;
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['StyleFile'];
			};
		};
		responses: {
			/** @description Take a style file in, with its bases */
			201: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Style'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	getStyle: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				style: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description The draft of a style as a file that needs nothing else */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['StyleFile'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	putStyle: {
		parameters: {
			query?: never;
			header: {
				/** @description the version that was seen, as its ETag named it, or * for any */
				'If-Match': string;
			};
			path: {
				/** @description its id */
				style: string;
			};
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['StyleFile'];
			};
		};
		responses: {
			/** @description Make the draft of a style what a file says */
			200: {
				headers: {
					/** @description the version, for If-Match */
					ETag?: string;
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Style'];
				};
			};
			/** @description somebody else saved first */
			412: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description If-Match is missing */
			428: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	listEditions: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				style: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description The editions of a style, the newest first */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Editions'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	publishEdition: {
		parameters: {
			query?: never;
			header: {
				/** @description the version that was seen, as its ETag named it, or * for any */
				'If-Match': string;
				/** @description asked again under the same key within a day, the same answer is given and nothing made */
				'Idempotency-Key'?: string;
			};
			path: {
				/** @description its id */
				style: string;
			};
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['NoteRequest'];
			};
		};
		responses: {
			/** @description Publish the draft as the next edition */
			201: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Published'];
				};
			};
			/** @description somebody else saved first */
			412: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description If-Match is missing */
			428: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	proposeEdition: {
		parameters: {
			query?: never;
			header: {
				/** @description the version that was seen, as its ETag named it, or * for any */
				'If-Match': string;
				/** @description asked again under the same key within a day, the same answer is given and nothing made */
				'Idempotency-Key'?: string;
			};
			path: {
				/** @description its id */
				style: string;
			};
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['NoteRequest'];
			};
		};
		responses: {
			/** @description Propose the draft as the next edition, for somebody else to publish */
			201: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Proposed'];
				};
			};
			/** @description somebody else saved first */
			412: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description If-Match is missing */
			428: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	listRuns: {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description The last fifty runs, the newest first */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Runs'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	startRun: {
		parameters: {
			query?: never;
			header?: {
				/** @description asked again under the same key within a day, the same answer is given and nothing made */
				'Idempotency-Key'?: string;
			};
			path?: never;
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['StartRunRequest'];
			};
		};
		responses: {
			/** @description Start a run: a style, a setting or a rule for many documents */
			201: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Made'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	getRun: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				run: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description How far a run is */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Run'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	changeRun: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				run: string;
			};
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['ChangeRunRequest'];
			};
		};
		responses: {
			/** @description Stop a run, go on with it, or take it back as a whole */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Run'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	takeRun: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				run: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Every finished file of a run, with its account, as a zip */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'*/*': string;
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	censusShare: {
		parameters: {
			query?: {
				/** @description only documents of this kind */
				kind?: 'svg' | 'docx' | 'odt' | 'html' | 'csv' | 'json';
				/** @description only these documents, by ids with commas */
				documents?: string;
			};
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description How many tables wear styles, over time */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Census'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	censusLooks: {
		parameters: {
			query?: {
				/** @description only documents of this kind */
				kind?: 'svg' | 'docx' | 'odt' | 'html' | 'csv' | 'json';
				/** @description only these documents, by ids with commas */
				documents?: string;
			};
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Groups of tables that look alike */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Census'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	censusSettings: {
		parameters: {
			query?: {
				/** @description only documents of this kind */
				kind?: 'svg' | 'docx' | 'odt' | 'html' | 'csv' | 'json';
				/** @description only these documents, by ids with commas */
				documents?: string;
			};
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Settings in which tables differ */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Census'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	censusFindings: {
		parameters: {
			query?: {
				/** @description only documents of this kind */
				kind?: 'svg' | 'docx' | 'odt' | 'html' | 'csv' | 'json';
				/** @description only these documents, by ids with commas */
				documents?: string;
			};
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Findings of all tables, counted */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Census'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	censusTables: {
		parameters: {
			query?: {
				/** @description only documents of this kind */
				kind?: 'svg' | 'docx' | 'odt' | 'html' | 'csv' | 'json';
				/** @description only these documents, by ids with commas */
				documents?: string;
				/** @description a group of looks */
				look?: number;
				/** @description a setting, with a value */
				setting?: string;
				/** @description a value of the setting */
				value?: string;
				/** @description a kind of finding */
				finding?: string;
				/** @description a rule of the policy */
				rule?: string;
			};
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description The tables of a group of looks, with a value of a setting, with a finding, or that a rule flags */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['CensusTables'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	listWebhooks: {
		parameters: {
			query?: never;
			header?: never;
			path?: never;
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Addresses that are told of events */
			200: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['Webhooks'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	addWebhook: {
		parameters: {
			query?: never;
			header?: {
				/** @description asked again under the same key within a day, the same answer is given and nothing made */
				'Idempotency-Key'?: string;
			};
			path?: never;
			cookie?: never;
		};
		requestBody: {
			content: {
				'application/json': components['schemas']['NewWebhookRequest'];
			};
		};
		responses: {
			/** @description Tell an address of events from now on */
			201: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/json': components['schemas']['NewWebhook'];
				};
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
	removeWebhook: {
		parameters: {
			query?: never;
			header?: never;
			path: {
				/** @description its id */
				webhook: string;
			};
			cookie?: never;
		};
		requestBody?: never;
		responses: {
			/** @description Tell an address of nothing any more */
			204: {
				headers: {
					[name: string]: unknown;
				};
				content?: never;
			};
			/** @description too many requests; Retry-After says when to go on */
			429: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
			/** @description what is wrong, and where */
			default: {
				headers: {
					[name: string]: unknown;
				};
				content: {
					'application/problem+json': components['schemas']['Problem'];
				};
			};
		};
	};
}

// The census of a house with 2,000 documents and 20,000 tables: node bench/census.mjs.
import { at, inTheHouse, pause, served } from './served.mjs';

const DOCUMENTS = 2_000;
const TABLES = 10;
const GROUPS = 400;
/** Different looks in each of them. */
const EACH = 5;
await served({}, async ([{ origin }], { url }) => {
	const client = await inTheHouse(url);
	await counted(client);
	// A worker that has just begun takes out looks that no table has; these have none for a moment.
	await pause(8_000);
	await fill(client);
	await measure(origin);
	await changed(client, origin);
	await client.end();
});

/** Waits until everything is counted; answers how long that took, in milliseconds. */
async function counted(client) {
	const start = performance.now();
	for (;;) {
		const { rows } = await client.query(
			'select count(*)::int as waiting from documents where removed_at is null and counted_at is distinct from updated_at'
		);
		if (rows[0].waiting === 0) return performance.now() - start;
		await pause(100);
	}
}

/** Documents as the census keeps them: copies of those of the demo house, in looks and settings of their own. */
async function fill(client) {
	await client.query(
		`insert into census_looks (hash, portrait, picture, picture_of)
		select 'leader ' || n, l.portrait, l.picture, l.picture_of
		from generate_series(1, $1::int) n
		join (select *, row_number() over () as at, count(*) over () as many from census_looks where leader is null) l on l.at = 1 + n % l.many`,
		[GROUPS]
	);
	await client.query(
		`insert into census_looks (hash, portrait, leader)
		select 'look ' || n || ' of ' || l.id, l.portrait, l.id from census_looks l, generate_series(2, $1::int) n where l.hash like 'leader %'`,
		[EACH]
	);
	await client.query(
		`insert into documents (name, kind, file_hash, tables, findings, looks, words, language, step, updated_at, counted_at, counted_by)
		select d.name || ' ' || n, d.kind, d.file_hash, $2, d.findings, d.looks, '', d.language, 0,
			date_trunc('milliseconds', now() - n * interval '1 hour'), date_trunc('milliseconds', now() - n * interval '1 hour'), d.counted_by
		from generate_series(1, $1::int) n join (select *, row_number() over (order by name) as at from documents) d on d.at = 1 + n % 7`,
		[DOCUMENTS, TABLES]
	);
	await client.query(
		`insert into document_steps (document_id, step, label, state)
		select id, 0, 'as it came', '{"tables": {}}' from documents d
		where not exists (select from document_steps s where s.document_id = d.id)`
	);
	await client.query(
		`create temp table fresh as select id, row_number() over (order by name) as n from documents d
		where not exists (select from census_tables t where t.document_id = d.id)`
	);
	await client.query(
		`insert into census_tables (document_id, table_index, title, purpose, look, shows, findings, measures)
		select f.id, i, 'table ' || i, 'data', l.id, array(
				select (array_agg(v.id order by v.id))[1 + (l.id * 7 + length(v.setting)) % count(*)::int]
				from census_values v group by v.setting
			), m.findings, m.measures
		from fresh f cross join generate_series(0, $1::int - 1) i
		join (select id, row_number() over (order by id) - 1 as at, count(*) over () as many from census_looks where hash like 'l%') l
			on l.at = (f.n * 31 + i * 7 + f.n * i) % l.many
		join (select findings, measures, row_number() over () - 1 as at, count(*) over () as many from census_tables) m
			on m.at = (f.n + i) % m.many`,
		[TABLES]
	);
	await client.query(
		`insert into census_days (document_id, day, tables, styled, findings)
		select id, current_date - (i * 20 + n % 20)::int, $1, (n + 5 - i) % 10, n % 7 from fresh cross join generate_series(0, 5) i`,
		[TABLES]
	);
	await client.query(
		`insert into wears (document_id, table_index, style_id, edition)
		select t.document_id, t.table_index, e.style_id, e.number from census_tables t join fresh f on f.id = t.document_id
		join (select style_id, max(number) as number, row_number() over () - 1 as at, count(*) over () as many from editions group by style_id) e
			on e.at = (f.n + t.table_index) % (e.many * 2)`
	);
	// The picture of a group is of a table of its own, as where it was counted.
	await client.query(
		`update census_looks l set picture_of = t.document_id
		from (select look, min(document_id::text)::uuid as document_id from census_tables group by look) t
		where t.look = l.id and l.hash like 'leader %'`
	);
	await client.query('analyze');
	const { rows } = await client.query(
		'select (select count(*) from census_tables) as tables, (select sum(cardinality(shows)) from census_tables) as settings, (select count(*) from census_looks) as looks'
	);
	console.log(`${rows[0].tables} tables, ${rows[0].settings} settings, ${rows[0].looks} looks are kept`);
}

async function measure(origin) {
	const places = [
		['shares', '/census'],
		['looks', '/census?view=looks'],
		['settings that vary', '/census?view=settings'],
		['findings', '/census?view=findings'],
		['the policy, with its counts', '/house/policy'],
		['tables of a value', `/api/census/tables?setting=header+fill&value=${encodeURIComponent('"none"')}`],
		['tables that a rule flags', '/api/census/tables?rule=caption']
	];
	for (const [words, path] of places) {
		const times = [];
		let status = 0;
		let bytes = 0;
		for (let i = 0; i < 6; i++) {
			const start = performance.now();
			const response = await fetch(origin + path, { headers: { accept: 'text/html' } });
			bytes = (await response.arrayBuffer()).byteLength;
			status = response.status;
			times.push(performance.now() - start);
		}
		const median = at(times.slice(1), 0.5);
		console.log(
			`${status === 200 && median < 1_000 ? 'within ' : 'OVER   '} ${words}: ${median.toFixed(0)} ms, ${(bytes / 1_000).toFixed(0)} kB (at most 1,000 ms), the first time ${times[0].toFixed(0)} ms${status === 200 ? '' : `, status ${status}`}`
		);
	}
}

/** How soon a document that was changed is counted. */
async function changed(client, origin) {
	const { rows } = await client.query(
		`select d.id, d.version, s.id as style from documents d, styles s where d.name like 'Season report 2031%' and s.name = 'Beacon' order by length(d.name) limit 1`
	);
	const [{ id, style }] = rows;
	let { version } = rows[0];
	const times = [];
	for (let i = 0; i < 10; i++) {
		const response = await fetch(`${origin}/api/documents/${id}/steps`, {
			method: 'POST',
			headers: { 'content-type': 'application/json', origin },
			body: JSON.stringify({ version, label: 'a step', tables: { 0: i % 2 ? {} : { style } } })
		});
		({ version } = await response.json());
		times.push(await counted(client));
		await pause(700);
	}
	const most = Math.max(...times);
	console.log(
		`${most < 5_000 ? 'within ' : 'OVER   '} a changed document is counted: median ${at(times, 0.5).toFixed(0)} ms, longest ${most.toFixed(0)} ms (at most 5,000 ms)`
	);
}

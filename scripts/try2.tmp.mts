import { readFileSync, writeFileSync } from 'node:fs';
import { openDocument, writeAs } from '/work/main/src/lib/formats/index.ts';
import { FIRST_HOUSE } from '/work/main/src/lib/core/house.ts';
let f='/tmp/rtl/links.html';
for (const k of ['docx','odt','html','odt','docx','pdf','csv']) {
 const d = await openDocument(new Uint8Array(readFileSync(f)), f);
 const pics = d.withPictures ? await d.withPictures() : d.tables;
 console.log(d.kind, JSON.stringify(pics.map(t=>t.content.map(c=>c.map(p=>'nested' in p?'N'+p.nested:'picture' in p?'PIC'+p.picture.alternative+p.picture.width:p.runs.map(r=>r.text+(r.link?'→'+r.link:'')).join('|')).join(' / ')))));
 console.log([...(d.held?.()??[])].join(' '));
 const { bytes, account } = await writeAs(k as never, d, [], { house: FIRST_HOUSE, title: 'Try' } as never);
 console.log('→', k, account.remarks);
 f='/tmp/rtl/links-'+k+'.'+k; writeFileSync(f, bytes);
 if (k==='pdf') f='/tmp/rtl/links-docx.docx';
}

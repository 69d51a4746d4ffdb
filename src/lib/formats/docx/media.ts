import { escapeXml } from '../../core/escape.ts';
import { inPixels, type CellPicture } from '../../core/table/content.ts';

const MAIN = 'http://schemas.openxmlformats.org/drawingml/2006/main';
const PICTURE = 'http://schemas.openxmlformats.org/drawingml/2006/picture';
const INLINE = 'http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing';
const RELATIONSHIPS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

/** Pictures of cells on their way into a package: each is a part of its own, named by a relationship. */
export class Media {
	private readonly known = new Map<string, { id: string; name: string; bytes: Uint8Array }>();

	/** `isTaken` tells which part names the package has. */
	constructor(private readonly isTaken: (name: string) => boolean = () => false) {}

	private readonly links = new Map<string, string>();
	/** Runs as a link to an address (ECMA-376 Part 1 §17.16.22). */
	link(address: string, runs: string): string {
		let id = this.links.get(address);
		if (!id) this.links.set(address, (id = `rIdHeptLink${this.links.size + 1}`));
		return `<w:hyperlink xmlns:r="${RELATIONSHIPS}" r:id="${id}">${runs}</w:hyperlink>`;
	}

	/** The relationships that name the pictures and links, the parts that they are, and the kinds of file among them. */
	get relationships(): string {
		const links = [...this.links].map(
			([address, id]) =>
				`<Relationship Id="${id}" Type="${RELATIONSHIPS}/hyperlink" Target="${escapeXml(address)}" TargetMode="External"/>`
		);
		return [...this.known.values()]
			.map(({ id, name }) => `<Relationship Id="${id}" Type="${RELATIONSHIPS}/image" Target="media/${name}"/>`)
			.concat(links)
			.join('');
	}
	get parts(): ReadonlyMap<string, Uint8Array> {
		return new Map([...this.known.values()].map(({ name, bytes }) => [`word/media/${name}`, bytes]));
	}
	get types(): readonly { readonly ending: string; readonly type: string }[] {
		const endings = new Set([...this.known.values()].map(({ name }) => name.split('.').at(-1)!));
		return [...endings].map((ending) => ({ ending, type: `image/${ending}` }));
	}

	/** A picture that stands in the text like a letter (ECMA-376 Part 1 §20.4.2.8). */
	drawing(picture: CellPicture): string {
		const { alternative, width, height } = picture;
		const address = inPixels(picture);
		let own = this.known.get(address);
		if (!own) {
			const [, type, data] = /^data:image\/(png|jpeg)[^,]*,(.*)$/s.exec(address) ?? [];
			if (!type) return '';
			let number = this.known.size + 1;
			while (this.isTaken(`word/media/heptarch${number}.${type}`)) number++;
			const bytes = Uint8Array.from(atob(data!), (letter) => letter.charCodeAt(0));
			own = { id: `rIdHeptPicture${number}`, name: `heptarch${number}.${type}`, bytes };
			this.known.set(address, own);
		}
		const id = [...this.known.values()].indexOf(own) + 1;
		const words = `descr="${escapeXml(alternative)}"`;
		return `<w:r><w:drawing><wp:inline xmlns:wp="${INLINE}" distT="0" distB="0" distL="0" distR="0"><wp:extent cx="${width}" cy="${height}"/><wp:docPr id="${9_000 + id}" name="Picture ${id}" ${words}/><a:graphic xmlns:a="${MAIN}"><a:graphicData uri="${PICTURE}"><pic:pic xmlns:pic="${PICTURE}"><pic:nvPicPr><pic:cNvPr id="${9_000 + id}" name="Picture ${id}" ${words}/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip xmlns:r="${RELATIONSHIPS}" r:embed="${own.id}"/><a:stretch><a:fillRect/></a:stretch></pic:blipFill><pic:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="${width}" cy="${height}"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></pic:spPr></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`;
	}
}

/**
 * A document of paper as a PDF: the same pictures as on the screen, drawn by pdfkit, with the letters that occur embedded, headings and
 * figures tagged, and an outline.
 */
import { INK } from '$lib/engrave/look';
import { element, writeSvg, type SvgElement } from '$lib/engrave/svg';
import PDFDocument from 'pdfkit';
import SVGtoPDF from 'svg-to-pdfkit';
import { bytesOf, runsOf, type Face, type Family } from './faces';
import { FRAME, type Page, type PaperDocument } from './page';
import type { Placed } from './paginate';

const FAMILY_MARKS: readonly (readonly [string, Family])[] = [
  ['Mono', 'mono'],
  ['Tinos', 'words'],
  ['Times', 'words'],
];

function faceFrom(attributes: Readonly<Record<string, string>>, face: Face): Face {
  const { 'font-family': family, 'font-weight': weight, 'font-style': style } = attributes;
  return {
    family: family ? (FAMILY_MARKS.find(([mark]) => family.includes(mark))?.[1] ?? 'sans') : face.family,
    isBold: weight ? weight === 'bold' || Number(weight) >= 600 : face.isBold,
    isItalic: style ? style !== 'normal' : face.isItalic,
  };
}

/** What says how something is drawn and where; the rest is for whoever works with a picture on the screen. */
const isDrawn = (name: string): boolean => name !== 'class' && name !== 'role' && !/^(data|aria)-/.test(name);

/** A drawing whose letters name the files they come out of, whose colours are all said, and in which no group is without a meaning. */
function prepared(at: SvgElement, face: Face, files: Set<string>): SvgElement[] {
  const own = faceFrom(at.attributes, face);
  const attributes: Record<string, string> = {};
  for (const [name, value] of Object.entries(at.attributes))
    if (isDrawn(name) && !name.startsWith('font-')) attributes[name] = value === 'currentColor' ? INK : value;
  if (at.attributes['font-size']) attributes['font-size'] = at.attributes['font-size'];
  const isText = at.name === 'text' || at.name === 'tspan';
  // Also an element that only holds others is asked for its file.
  if (isText) {
    const { file } = runsOf('x', own)[0]!;
    files.add(file);
    attributes['font-family'] = file;
  }
  const children = at.children.flatMap((child): (SvgElement | string)[] => {
    if (typeof child !== 'string') return child.name === 'title' ? [] : prepared(child, own, files);
    if (!isText) return [];
    return runsOf(child, own).map(({ text, file }) => {
      files.add(file);
      return element('tspan', { 'font-family': file }, text);
    });
  });
  const isBare = at.name === 'g' && Object.keys(attributes).length === 0;
  return isBare ? (children as SvgElement[]) : [{ name: at.name, attributes, children }];
}

const PLAIN: Face = { family: 'sans', isBold: false, isItalic: false };

/** Draws elements whose corner stands at a place of the page in hand. */
function draw(
  doc: PDFKit.PDFDocument,
  drawn: readonly SvgElement[],
  x: number,
  y: number,
  known: Set<string>,
): void {
  if (drawn.length === 0) return;
  const files = new Set<string>();
  const tree = element(
    'svg',
    { xmlns: 'http://www.w3.org/2000/svg', width: doc.page.width, height: doc.page.height, fill: INK },
    // Moved inside the picture: what reaches over its own corner is not cut off.
    element('g', { transform: `translate(${x}, ${y})` }, ...drawn.flatMap((d) => prepared(d, PLAIN, files))),
  );
  for (const file of files) {
    if (known.has(file)) continue;
    doc.registerFont(file, bytesOf(file));
    known.add(file);
  }
  SVGtoPDF(doc, writeSvg(tree), 0, 0, {
    assumePt: true,
    // Lengths of curves are not asked for: nothing is written along them.
    precision: 0.2,
    width: doc.page.width,
    height: doc.page.height,
    fontCallback: (family: string) => family.replace(/^['"]|['"]$/g, ''),
  });
}

/** Writes the file. */
export async function writePdf({ title, author, pages }: PaperDocument): Promise<Uint8Array> {
  const doc = new PDFDocument({
    autoFirstPage: false,
    pdfVersion: '1.7',
    lang: 'en',
    tagged: true,
    displayTitle: true,
    margin: 0,
    info: { Title: title, Author: author, Creator: 'Key Path' },
  });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve);
    doc.on('error', reject);
  });
  const known = new Set<string>();
  const root = doc.struct('Document');
  doc.addStructure(root);
  let sheet: { name: string; item: PDFKit.PDFOutline } | undefined;
  for (const page of pages) {
    doc.addPage({ size: [page.width, page.height], margin: 0 });
    const section = doc.struct('Sect');
    root.add(section);
    for (const at of page.placed) {
      drawBlock(doc, section, at, known);
      const { outline, says } = at.block;
      if (outline === 1) sheet = { name: page.sheet, item: doc.outline.addItem(`${page.sheet}: ${says}`) };
      else if (outline === 2) (sheet?.item ?? doc.outline).addItem(says);
    }
    section.end();
    drawFoot(doc, page, known);
  }
  root.end();
  doc.end();
  await ended;
  return new Uint8Array(Buffer.concat(chunks));
}

function drawBlock(
  doc: PDFKit.PDFDocument,
  section: PDFKit.PDFStructureElement,
  { block, y }: Placed,
  known: Set<string>,
): void {
  const { tag, says, drawn } = block;
  if (drawn.length === 0) return;
  section.add(
    doc.struct(tag, tag === 'Figure' ? { alt: says } : {}, [
      () => draw(doc, drawn, FRAME.x, FRAME.y + y, known),
    ]),
  );
}

/** What stands at the foot of every page is not part of what is read. */
function drawFoot(doc: PDFKit.PDFDocument, { foot }: Page, known: Set<string>): void {
  doc.markContent('Artifact', { type: 'Pagination' });
  draw(doc, foot, 0, 0, known);
  doc.endMarkedContent();
}

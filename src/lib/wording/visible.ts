/**
 * The strings of a source file that somebody may read: texts and named attributes of a component's markup, and literals of its code
 * that look like words. For tests that keep the house's language; nothing of the application uses it.
 */
import { parse } from 'svelte/compiler';
import ts from 'typescript';

interface Visible {
  readonly text: string;
  readonly line: number;
}

/** Attributes that are shown or read out. */
const SHOWN = new Set(['aria-label', 'title', 'placeholder', 'label', 'alt', 'says', 'aria-description']);
/** Calls whose arguments nobody reads. */
const UNREAD =
  /^(import|require|describe|it|test|expect|querySelector|querySelectorAll|closest|matches|getItem|setItem|removeItem|mark|measure|addEventListener|pragma|exec|prepare|sql)$/;

const lineAt = (source: string, at: number): number => source.slice(0, at).split('\n').length;

/** A literal that reads as words, not as an id, an address or a list of classes. */
const isProse = (text: string): boolean =>
  /[A-Za-z]{2}/.test(text) && (/[A-Za-z’,.:;)] [A-Za-z(“]/.test(text) || /^[A-Z][a-z]+$/.test(text.trim()));

/** Literals of TypeScript that read as words. Templates are read with their gaps as "…". */
export function wordsInCode(source: string, from = 0): Visible[] {
  const file = ts.createSourceFile('x.ts', source, ts.ScriptTarget.Latest, true);
  const found: Visible[] = [];
  const add = (text: string, node: ts.Node): void => {
    if (isProse(text)) found.push({ text, line: from + lineAt(source, node.getStart(file)) });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isCallExpression(node)) {
      const name = ts.isPropertyAccessExpression(node.expression)
        ? node.expression.name.text
        : ts.isIdentifier(node.expression)
          ? node.expression.text
          : '';
      if (UNREAD.test(name)) return node.arguments.filter((a) => !ts.isStringLiteralLike(a)).forEach(visit);
    }
    if (ts.isTaggedTemplateExpression(node)) return;
    // The key of a record, and what something is compared with, are names.
    // Intents are plain data that nobody reads.
    if (ts.isPropertyAssignment(node))
      return node.name.getText(file) === 'do' ? undefined : visit(node.initializer);
    if (ts.isBinaryExpression(node) && /^[=!]==$/.test(node.operatorToken.getText(file))) return;
    if (ts.isElementAccessExpression(node) || ts.isCaseClause(node)) {
      if (ts.isCaseClause(node)) node.statements.forEach(visit);
      return;
    }
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) add(node.text, node);
    else if (ts.isTemplateExpression(node)) {
      add(node.head.text + node.templateSpans.map((s) => `…${s.literal.text}`).join(''), node);
      node.templateSpans.forEach((s) => visit(s.expression));
      return;
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

interface Node {
  readonly type?: string;
  readonly start?: number;
  readonly end?: number;
  readonly name?: string;
  readonly data?: string;
  readonly [key: string]: unknown;
}

/** Texts of a component: its markup, its named attributes, and the literals of its script and its expressions. */
export function wordsInComponent(source: string): Visible[] {
  const tree = parse(source, { modern: true }) as unknown as {
    readonly fragment: Node;
    readonly instance?: Node;
    readonly module?: Node;
  };
  const found: Visible[] = [];
  const code = (node: Node): void => {
    const text = source.slice(node.start, node.end);
    found.push(...wordsInCode(`(${text})`, lineAt(source, node.start ?? 0) - 1));
  };
  const visit = (node: unknown): void => {
    if (Array.isArray(node)) return node.forEach(visit);
    if (typeof node !== 'object' || node === null) return;
    const at = node as Node;
    if (at.type === 'Text' && at.data !== undefined) {
      const text = at.data.replace(/\s+/g, ' ').trim();
      if (/[A-Za-z]{2}/.test(text)) found.push({ text, line: lineAt(source, at.start ?? 0) });
      return;
    }
    if (at.type === 'ExpressionTag') return code(at.expression as Node);
    if (at.type === 'Attribute' && !SHOWN.has(at.name ?? '')) {
      // Values of other attributes: only code in them may hold words.
      const { value } = at;
      for (const part of Array.isArray(value) ? value : [value])
        if ((part as Node | undefined)?.type === 'ExpressionTag' && at.name !== 'class') visit(part);
      return;
    }
    if (at.type === 'RenderTag' || at.type === 'ConstTag') {
      code({
        ...at,
        start: (at.expression as Node | undefined)?.start ?? (at.declaration as Node).start,
        end: (at.expression as Node | undefined)?.end ?? (at.declaration as Node).end,
      });
      return;
    }
    // Literals in the heads of blocks.
    for (const head of [at.expression, at.test] as (Node | undefined)[])
      if (/Block$/.test(at.type ?? '') && head?.start !== undefined) code(head);
    for (const [key, child] of Object.entries(at)) if (key !== 'parent' && key !== 'metadata') visit(child);
  };
  visit(tree.fragment);
  for (const script of [tree.instance, tree.module]) {
    const content = script?.content as Node | undefined;
    if (content)
      found.push(
        ...wordsInCode(source.slice(content.start, content.end), lineAt(source, content.start ?? 0) - 1),
      );
  }
  return found;
}

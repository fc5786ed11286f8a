import ts from 'typescript';
import { expect, test } from 'vitest';
import { parts, readTexts, say, type TextId } from './texts';
import british from './texts.en-GB.gen.json';
import american from './texts.en-US.gen.json';

const files: Record<string, string> = import.meta.glob(
	['../**/*.{ts,tsx}', '!../**/*.{test,gen}.*', '!../app/test-setup.ts'],
	{
		query: '?raw',
		import: 'default',
		eager: true,
	},
);

const trees = Object.entries(files).map(([f, code]) =>
	ts.createSourceFile(f, code, ts.ScriptTarget.Latest, true),
);

/** called is the name of what is called, without what it is a part of. */
function called(n: ts.CallExpression) {
	const f = n.expression;
	return ts.isPropertyAccessExpression(f) ? f.name.text : ts.isIdentifier(f) ? f.text : '';
}

/** place is where a node stands. */
function place(n: ts.Node) {
	const tree = n.getSourceFile();
	return `${tree.fileName}:${tree.getLineAndCharacterOfPosition(n.getStart()).line + 1}`;
}

/** Attributes and properties that no one reads. */
const technical =
	/^(className|class|key|id|type|role|href|to|d|fill|stroke.*|viewBox|pointer|settles|jamb|transform|field|data-.*|htmlFor|name|auto.*|inputMode|enterKeyHint|src|rel|target|method|kinds?|pattern.*|download|accept|value|path|unset|media|aria-(hidden|live|controls|describedby|labelledby|current|haspopup|sort|pressed|atomic)|preserveAspectRatio|style|scope|side|step|unit|paintOrder|shapeRendering|vectorEffect|dominantBaseline|textAnchor|font.*|sizes|as|size|hand|offset|place|page|look|queryKey|cache|press|keys)$/;

/** Properties that are shown. */
const shown = /^(text|label|title|note|why|says|word|legend|placeholder)$/;

/** Calls whose texts are for the program: selectors, keys of what is kept, parts of addresses. */
const calls =
	/^(say|parts|edgeName|jambName|marginName|placeName|wallName|handName|stepName|querySelector\w*|closest|matches|matchMedia|(set|get|remove)(Attribute|Item)|POST|GET|PUT|DELETE|PATCH|test|includes|startsWith|endsWith|split|join|replace|fetch|(add|remove)EventListener|open|createElement|execCommand|useHomeFocus|useSetting)$/;

/** What reads the same in every language: names of the program, of keys, units and formats. */
const names =
	/^(Kind Margin|--share|--tls|PDF|CSV|XLSX|JSON|ZIP|mm|in|min|h|Alt [RX↑↓]|Ctrl [YZ]|Enter|Esc|Tab \/ Shift Tab)$/;

/** ids are those of the catalogue, without the forms of a plural. */
const ids = Object.fromEntries(
	Object.entries(british).map(([id, text]) => [id.replace(/_(one|other)$/, ''), text]),
);

const spoken = (text: string) => /\p{L}{2}/u.test(text) && !names.test(text.trim());

/** texts are the literals of a file that someone would read. */
function texts(tree: ts.SourceFile): string[] {
	const found: string[] = [];
	const add = (n: ts.Node, text: string) => {
		if (spoken(text) && !(text in ids)) found.push(`${place(n)} ${text.trim().replace(/\s+/g, ' ')}`);
	};
	/** inView is whether what stands here is drawn: a child of an element, or an attribute that is read. */
	(function walk(n: ts.Node, inView: boolean) {
		if (ts.isImportDeclaration(n) || ts.isTypeNode(n)) return;
		if (ts.isJsxAttribute(n) && technical.test(n.name.getText())) return;
		if (ts.isPropertyAssignment(n)) {
			if (technical.test(n.name.getText())) return;
			return walk(n.initializer, shown.test(n.name.getText()));
		}
		if (ts.isVariableDeclaration(n) && n.name.getText() === 'key') return;
		if (ts.isBinaryExpression(n) && /^[!=]==$/.test(n.operatorToken.getText())) return;
		if (ts.isCallExpression(n)) {
			walk(n.expression, false);
			for (const a of n.arguments) if (!calls.test(called(n)) || !ts.isStringLiteralLike(a)) walk(a, false);
			return;
		}
		if (ts.isJsxText(n)) add(n, n.text);
		// The ID of a side is not what it is called.
		if (inView && ts.isPropertyAccessExpression(n) && n.name.text === 'side') add(n, n.getText());
		if (ts.isStringLiteralLike(n)) {
			// Elsewhere a text is told from a key, a class or a code by how it is written.
			const sentence = /\p{L}{2}[,:;.]? [\p{L}(]|^\p{Lu}\p{Ll}+[.:…!?]?$|^[ ,;:.]+\p{L}{2}|[,:;] $/u;
			const coded = /^[\w:./@[\]()%#!>&~*-]+( [\w:./@[\]()%#!>&~*-]+)*$/;
			const keyed = /^[A-Z][a-z]+(-[A-Z][a-z]+)+$|^(Escape|Enter|Tab|Home|End|Delete|Space|Arrow\w+)$/;
			if (
				inView ||
				(sentence.test(n.text) &&
					!keyed.test(n.text) &&
					!(coded.test(n.text) && !/^\p{Lu}|[.:]$/u.test(n.text)))
			)
				add(n, n.text);
		}
		if (ts.isTemplateExpression(n)) {
			const fixed = n.head.text + n.templateSpans.map((s) => `{}${s.literal.text}`).join('');
			if (
				inView
					? /\p{L}{2}/u.test(fixed)
					: /\p{L}{2}[,:;.]? \p{L}{2}|^\p{Lu}\p{Ll}+ |\p{L}{2}[,:;] /u.test(fixed) && !/-/.test(fixed)
			)
				add(n, fixed);
		}
		const through =
			ts.isConditionalExpression(n) ||
			ts.isBinaryExpression(n) ||
			ts.isParenthesizedExpression(n) ||
			ts.isTemplateExpression(n) ||
			ts.isTemplateSpan(n) ||
			ts.isArrayLiteralExpression(n);
		const drawn = ts.isJsxExpression(n) || ts.isJsxAttribute(n);
		ts.forEachChild(n, (c) => {
			if (ts.isConditionalExpression(n) && c === n.condition) return walk(c, false);
			walk(c, drawn || (through && inView));
		});
	})(tree, false);
	return found;
}

// What a person reads stands in the catalogue, in each language that is spoken.
test('no component holds a literal text', () => {
	expect(trees.flatMap(texts)).toEqual([]);
});

/** said is each place where a file asks for a text: its possible texts, and their arguments where those are literal. */
function said(tree: ts.SourceFile): { either: string[]; args: string[] | undefined }[] {
	const found: { either: string[]; args: string[] | undefined }[] = [];
	const namesOf = (n: ts.Node | undefined) =>
		n && ts.isObjectLiteralExpression(n)
			? n.properties.map((p) => p.name?.getText() ?? '')
			: n
				? undefined
				: [];
	const chosen = (n: ts.Node): string[] => {
		if (ts.isStringLiteralLike(n)) return [n.text];
		if (ts.isJsxExpression(n) && n.expression) return chosen(n.expression);
		if (ts.isConditionalExpression(n)) return [...chosen(n.whenTrue), ...chosen(n.whenFalse)];
		return [];
	};
	(function walk(n: ts.Node) {
		if (ts.isCallExpression(n) && called(n) === 'say' && n.arguments[0])
			found.push({ either: chosen(n.arguments[0]), args: namesOf(n.arguments[1]) });
		if (ts.isJsxSelfClosingElement(n) && n.tagName.getText() === 'Phrase') {
			const given = (name: string) =>
				n.attributes.properties.find((a) => ts.isJsxAttribute(a) && a.name.getText() === name);
			const value = (a: ts.Node | undefined) => (a && ts.isJsxAttribute(a) ? a.initializer : undefined);
			const [id, of] = [value(given('id')), value(given('of'))];
			const args = of && ts.isJsxExpression(of) ? namesOf(of.expression) : undefined;
			found.push({ either: id ? chosen(id) : [], args });
		}
		ts.forEachChild(n, walk);
	})(tree);
	return found;
}

// A text is given what it asks for, and nothing else; one that has a plural is given the count.
test('each text is said with its arguments', () => {
	const asks: Record<string, Set<string>> = {};
	for (const [key, text] of Object.entries(british)) {
		const id = key.replace(/_(one|other)$/, '');
		asks[id] ??= new Set(id === key ? [] : ['count']);
		for (const m of text.matchAll(/\{\{\.(\w+)\}\}/g)) asks[id].add(m[1] ?? '');
	}
	for (const { either, args } of trees.flatMap(said)) {
		if (!args || either.length === 0) continue;
		const asked = new Set(either.flatMap((id) => [...(asks[id] ?? [])]));
		expect([...either, ...args.sort()]).toEqual([...either, ...[...asked].sort()]);
	}
});

// No text stands there for nothing.
test('each text is said somewhere', () => {
	const code = Object.values(files).join('\n');
	const unsaid = Object.keys(ids).filter((id) => !code.includes(`'${id}'`) && !code.includes(`"${id}"`));
	// The floor and the head of the opening are said by the name of their side.
	expect(unsaid).toEqual(['wall.foot', 'wall.head']);
});

// A name is shown as it was given, whatever stands in it.
test('what a text is said with is left alone', () => {
	const name = `"O'Dea" <b> {{.count}} $t(page.undo) \u202bשלום\u202c & 100 %`;
	expect(say('cards.back-to-opening', { opening: name })).toBe(`Back to ${name}`);
});

/** wordsRead are the places where a file decides by how something is said. */
function wordsRead(tree: ts.SourceFile): string[] {
	const found: string[] = [];
	const looks = /^(startsWith|endsWith|includes|indexOf|split|match|replace|replaceAll|search|test)$/;
	const isSaid = (n: ts.Node) => ts.isCallExpression(n) && /^(say|\w+Name|list|capital)$/.test(called(n));
	// A blank between letters, or a text of several words in a pattern; spaces alone are what is between figures.
	const inWords = (n: ts.Node) =>
		(ts.isStringLiteralLike(n) || ts.isRegularExpressionLiteral(n)) &&
		/\p{L}{2} \p{L}|\p{L}[,:] |^ ?\p{L}{3,} ?$/u.test(n.getText().slice(1, -1)) &&
		/ /.test(n.getText());
	(function walk(n: ts.Node) {
		const call =
			ts.isCallExpression(n) && ts.isPropertyAccessExpression(n.expression) && looks.test(called(n));
		const same = ts.isBinaryExpression(n) && /^[!=]==$/.test(n.operatorToken.getText());
		const by = call ? [n.expression.expression, ...n.arguments] : same ? [n.left, n.right] : [];
		if (by.some((e) => isSaid(e) || inWords(e))) found.push(`${place(n)} ${n.getText().slice(0, 80)}`);
		ts.forEachChild(n, walk);
	})(tree);
	return found;
}

test('no code reads words', () => {
	// What is typed and not saved is kept under a key of that name.
	const keys = [expect.stringContaining("startsWith('draft ')")];
	expect(trees.flatMap(wordsRead)).toEqual(keys);
});

// A text reads well with one and with several, and in both Englishes.
test.each([
	['en-GB', british],
	['en-US', american],
] as const)('each text reads well in %s', (locale, texts) => {
	readTexts(locale, texts);
	const ill =
		/^$|[{}]| {2}|\.\.|,,| [.,;:?]( |$)|\b1 (doors|jobs|lines|entries|tasks|hinges|readings|trips|gaps|things|days|holes|passes|sizes)\b/;
	for (const id of Object.keys(ids) as TextId[])
		for (const count of [0, 1, 2, 21]) {
			const asked = Object.fromEntries(
				parts(id, count).flatMap((name, i) => (i % 2 ? [[name, '7 1/2']] : [])),
			);
			expect(say(id, { ...asked, count })).not.toMatch(ill);
		}
	readTexts('en-GB', british);
});

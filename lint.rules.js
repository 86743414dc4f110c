// Rules that no package has.

/** Three words, or two of which the first is capitalised: nothing a program would compare. */
function isSentence(text) {
  return (
    /[A-Za-z’]{2,}[,;:]? [“A-Za-z’]+[,;:]? [“A-Za-z]/.test(text) ||
    /^[A-Z][a-z’]+[,;:]? [a-z“]/.test(text) ||
    /[a-z] [a-z]+\.$/.test(text)
  );
}

/** SQL, the log, and errors that nobody foresees are read by developers. */
function isForMachines(node) {
  for (let at = node.parent; at; at = at.parent) {
    if (at.type === 'TaggedTemplateExpression' || at.type === 'ImportDeclaration') return true;
    if (at.type === 'NewExpression' && at.callee.name === 'Error') return true;
    if (at.type === 'CallExpression' && at.callee.type === 'MemberExpression') {
      const { object, property } = at.callee;
      if (object.name === 'sql' && property.name === 'raw') return true;
      if (object.name === 'log' || object.property?.name === 'log') return true;
    }
  }
  return false;
}

/** A rule that forbids whatever a selector finds. */
function forbids(selector, message) {
  return {
    meta: { type: 'problem', schema: [], messages: { forbidden: message } },
    create: (context) => ({
      [selector](node) {
        context.report({ node, messageId: 'forbidden' });
      },
    }),
  };
}

/** What is called on the result of a call, one after the other: `where`, `returning`, … */
function callsAfter(call) {
  const names = [];
  for (let at = call; at.parent?.type === 'MemberExpression'; at = at.parent.parent)
    names.push(at.parent.property.name);
  return names;
}

/** Rules of our own. Junk-drawer names say nothing about what is inside, so everything ends up inside. */
export default {
  meta: { name: 'local' },
  rules: {
    'no-barrels': forbids('ExportAllDeclaration', 'No barrels: name what the folder offers.'),
    'no-enums': forbids('TSEnumDeclaration', 'Use a union of string literals.'),
    'no-present': forbids(
      "NewExpression[callee.name='Date'][arguments.length=0]",
      'Pass `now` in.',
    ),
    'no-client-page': forbids(
      "ExpressionStatement[directive='use client']",
      'Client components live in src/ui; pages stay on the server.',
    ),
    'no-try-in-page': forbids('TryStatement', 'Errors are mapped once, in src/server/http.'),
    'where-is-said': {
      meta: {
        type: 'problem',
        schema: [],
        messages: { all: 'Without `where`, every row of the table goes or changes.' },
      },
      create: (context) => ({
        CallExpression(node) {
          if (node.callee.type !== 'MemberExpression') return;
          const { object, property } = node.callee;
          if (!['db', 'tx'].includes(object.name ?? object.property?.name)) return;
          if (!['delete', 'update'].includes(property.name)) return;
          if (!callsAfter(node).includes('where')) context.report({ node, messageId: 'all' });
        },
      }),
    },
    'line-length': {
      meta: {
        type: 'layout',
        schema: [{ type: 'integer' }],
        messages: { long: 'A line of {{length}} characters: at most {{most}}.' },
      },
      create: (context) => ({
        Program() {
          const [most] = context.options;
          for (const [index, { length }] of context.sourceCode.lines.entries())
            if (length > most)
              context.report({
                loc: { line: index + 1, column: most },
                messageId: 'long',
                data: { length: String(length), most: String(most) },
              });
        },
      }),
    },
    'no-junk-drawer': {
      meta: {
        type: 'problem',
        schema: [],
        messages: { name: '"{{name}}" names no concept; name the file after what it does.' },
      },
      create: (context) => ({
        Program(node) {
          const name = context.filename.split('/').at(-1);
          if (/^(utils?|helpers?|common|misc|shared|lib|types\.d)\.tsx?$/.test(name))
            context.report({ node, messageId: 'name', data: { name } });
        },
      }),
    },
    'server-only-marker': {
      meta: {
        type: 'problem',
        schema: [],
        messages: { missing: "server modules start with `import 'server-only'`." },
      },
      create: (context) => ({
        Program(node) {
          const first = node.body[0];
          if (first?.type !== 'ImportDeclaration' || first.source.value !== 'server-only')
            context.report({ node, messageId: 'missing' });
        },
      }),
    },
    'no-sentences': {
      meta: {
        type: 'problem',
        schema: [],
        messages: { words: '“{{text}}” is for a person: it belongs to a catalogue of words.' },
      },
      create: (context) => {
        const check = (node, text) => {
          if (isSentence(text) && !isForMachines(node))
            context.report({ node, messageId: 'words', data: { text } });
        };
        return {
          Literal: (node) => typeof node.value === 'string' && check(node, node.value),
          TemplateElement: (node) => check(node, node.value.cooked ?? ''),
        };
      },
    },
    'jsx-depth': {
      meta: {
        type: 'problem',
        schema: [{ type: 'integer' }],
        messages: { deep: 'Nested {{depth}} deep: name a part of it.' },
      },
      create: (context) => {
        const [most] = context.options;
        let depth = 0;
        const enter = (node) => {
          depth += 1;
          if (depth === most + 1)
            context.report({ node, messageId: 'deep', data: { depth: String(depth) } });
        };
        const leave = () => {
          depth -= 1;
        };
        return {
          JSXElement: enter,
          JSXFragment: enter,
          'JSXElement:exit': leave,
          'JSXFragment:exit': leave,
        };
      },
    },
    'one-environment-reader': forbids(
      "MemberExpression[object.name='process'][property.name='env']",
      'Only src/server/config/env.ts reads process.env.',
    ),
  },
};

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

/** Rules of our own. Junk-drawer names say nothing about what is inside, so everything ends up inside. */
export const local = {
  rules: {
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
    'one-environment-reader': {
      meta: {
        type: 'problem',
        schema: [],
        messages: { env: 'Only src/server/config/env.ts reads process.env.' },
      },
      create: (context) => ({
        "MemberExpression[object.name='process'][property.name='env']"(node) {
          context.report({ node, messageId: 'env' });
        },
      }),
    },
  },
};

// Writes the kernels' bindings from the declarations that the AssemblyScript compiler makes of them: named, typed parameters, none written by hand.

/** Kernels with more parameters take one object of options. */
const MOST_POSITIONAL = 8;
/** So many parameters of one name, numbered from 0, are one list: a matrix, a colour. */
const SHORTEST_LIST = 3;

/** The exported functions of a declaration file: name, parameters with their types in the kernel, what is returned, and the kernel's file. */
function functionsOf(declarations) {
  const found = [];
  const entry = /\/\*\*([\s\S]*?)\*\/\s*export function (\w+)\(([^)]*)\): (\w+);/g;
  for (const [, comment, name, list, returns] of declarations.matchAll(entry)) {
    const types = new Map([...comment.matchAll(/@param (\w+) `(\w+)`/g)].map(([, parameter, type]) => [parameter, type]));
    const parameters = list
      .split(',')
      .filter((text) => text.trim())
      .map((text) => text.split(':')[0].trim().replace(/\?$/, ''))
      .map((parameter) => ({ name: parameter, type: types.get(parameter) }));
    found.push({ name, parameters, returns, file: /src\/kernels\/(\w+)/.exec(comment)?.[1] });
  }
  return found;
}

/** Parameters as the fields of an options object: numbered ones of one name become a list. */
function fieldsOf(parameters) {
  const fields = [];
  for (let i = 0; i < parameters.length;) {
    const base = /^([a-z]+)0$/i.exec(parameters[i].name)?.[1];
    let count = 0;
    while (base && parameters[i + count]?.name === `${base}${count}`) count++;
    if (count >= SHORTEST_LIST) {
      fields.push({ name: base, count });
      i += count;
    } else fields.push({ ...parameters[i++], count: 0 });
  }
  return fields;
}

const said = { usize: 'address', i32: 'whole number', f32: 'number', f64: 'number', bool: '0 or 1' };

/** TypeScript source of the bindings. */
export function bindingsOf(declarations) {
  const functions = functionsOf(declarations);
  const options = [];
  const members = [];
  const bound = [];
  for (const { name, parameters, returns, file } of functions) {
    const note = `  /** src/kernels/${file}.ts */`;
    if (parameters.length <= MOST_POSITIONAL) {
      members.push(note, `  ${name}(${parameters.map((p) => `${p.name}: number`).join(', ')}): ${returns};`);
      continue;
    }
    const fields = fieldsOf(parameters);
    const type = `${name[0].toUpperCase()}${name.slice(1)}Options`;
    const lines = fields.map((f) =>
      f.count > 0
        ? `  ${f.name}: readonly [${Array(f.count).fill('number').join(', ')}];`
        : `  /** ${said[f.type] ?? f.type} */\n  ${f.name}: number;`,
    );
    options.push(`export interface ${type} {\n${lines.join('\n')}\n}`);
    members.push(note, `  ${name}(options: ${type}): ${returns};`);
    const values = fields.flatMap((f) => (f.count > 0 ? Array.from({ length: f.count }, (_, i) => `o.${f.name}[${i}]`) : [`o.${f.name}`]));
    bound.push(`    ${name}: (o: ${type}) => ${name}(${values.join(', ')}),`);
  }
  const wrapped = functions.filter(({ parameters }) => parameters.length > MOST_POSITIONAL).map(({ name }) => name);
  return `// Made by scripts/bindings.mjs from src/kernels; do not edit.

${options.join('\n\n')}

/** The kernels: addresses in bytes, sizes in pixels or values, switches 0 or 1. Those with many parameters take them by name. */
export interface Kernels {
${members.join('\n')}
}

type Raw = (...values: number[]) => number;

/** The kernels of an instance of the module. */
export function bindKernels(exports: WebAssembly.Exports): Kernels {
  const raw = exports as Record<string, Raw>;
  const { ${wrapped.join(', ')} } = raw;
  const named = {
${bound.join('\n')}
  };
  return Object.assign({}, raw, named) as unknown as Kernels;
}
`;
}

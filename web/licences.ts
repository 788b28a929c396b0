import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Plugin } from 'vite';

const RULE = '\n\n' + '-'.repeat(72) + '\n\n';

/** Every library and font that ends up in the bundle, with its licence as it came. */
export function licences(): Plugin {
  return {
    name: 'licences',
    apply: 'build',
    generateBundle() {
      const folders = new Map<string, string>();
      for (const id of this.getModuleIds()) {
        const found = /^\0?(.*\/node_modules\/((?:@[^/]+\/)?[^/]+))\//.exec(id);
        if (found) folders.set(found[2], found[1]);
      }
      const texts = [...folders].sort().map(([name, folder]) => licence(name, folder));
      this.emitFile({ type: 'asset', fileName: 'licences.txt', source: texts.join(RULE) });
    },
  };
}

function licence(name: string, folder: string): string {
  const own = join(folder, 'package.json');
  const about = existsSync(own) ? JSON.parse(readFileSync(own, 'utf8')) : {};
  const file = readdirSync(folder).find((f) => /^(licen[cs]e|copying)/i.test(f));
  const text = file ? readFileSync(join(folder, file), 'utf8').trim() : '';
  return `${name} ${about.version ?? ''}\n${about.license ?? ''}\n\n${text}`;
}

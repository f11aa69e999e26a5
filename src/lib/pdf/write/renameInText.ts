import { inkName } from '../../core/numbers/jobInks';
import type { InkChange } from '../../core/model/page';
import { nameSyntax } from '../objects/objects';

/** Gives spot inks their other names in the text of an object, in every Separation and DeviceN space (ISO 32000-1, 8.6.6.4 and 8.6.6.5). */
export function renameInText(text: string, changes: readonly InkChange[]): string {
  const renamed = (name: string) => {
    const plain = Buffer.from(
      name.replace(/#([0-9A-Fa-f]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
      'latin1',
    ).toString('utf8');
    const called = inkName(plain, changes);
    return called === plain ? name : nameSyntax(called);
  };
  const name = String.raw`\/([^\0\t\n\f\r ()<>\[\]{}\/%]+)`;
  return text
    .replace(
      new RegExp(String.raw`(\/Separation\s*)${name}`, 'g'),
      (_, before: string, of: string) => `${before}/${renamed(of)}`,
    )
    .replace(
      /(\/DeviceN\s*\[)([^\]]*)\]/g,
      (_, before: string, names: string) =>
        `${before}${names.replace(new RegExp(name, 'g'), (_all, of: string) => `/${renamed(of)}`)}]`,
    );
}

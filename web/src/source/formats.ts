import type { Schemas } from '../api/client';

export type Format = Schemas['OrderedPackage']['format'];

/** What a package can be written as, and for whom. */
export const formats: [Format, string, string][] = [
  ['CC_1_3', 'Common Cartridge 1.3', 'assignments stay assignments'],
  ['CC_1_2', 'Common Cartridge 1.2', 'for systems that take nothing newer'],
  ['CC_1_1', 'Common Cartridge 1.1', 'the oldest; nearly every system takes it'],
  ['THIN_1_3', 'Thin Common Cartridge 1.3', 'links to web and tools alone, without files'],
];

import { strToU8, zipSync } from 'fflate';

/** A file by its name and its bytes. */
export interface HostileFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}
type Bomb = readonly [what: string, made: () => HostileFile, words: RegExp];

const text = (name: string, content: string): HostileFile => ({ name, bytes: strToU8(content) });
const packed = (bytes: Uint8Array): HostileFile => ({ name: 'a.3mf', bytes });
const model = (text: string): Uint8Array => zipSync({ '3D/3dmodel.model': strToU8(text) });
const built = (objects: string, items: string) =>
  model(`<model><resources>${objects}</resources><build>${items}</build></model>`);
const spline = (count: number) =>
  `0\nSECTION\n2\nENTITIES\n0\nSPLINE\n71\n3\n${Array.from({ length: count + 4 }, (_, k) => `40\n${k}\n`).join('')}${Array.from({ length: count }, (_, k) => `10\n${k}\n20\n${k % 7}\n`).join('')}0\nENDSEC\n0\nEOF\n`;
const vertices = '<vertex x="1" y="2" z="3"/>'.repeat(50_000);

/** Small files that ask for much: each is refused with these words, or read. */
export const BOMBS: readonly Bomb[] = [
  [
    'a DXF of 71 bytes that announces ten million corners',
    () => text('a.dxf', '0\nSECTION\n2\nENTITIES\n0\nLWPOLYLINE\n90\n10000000\n10\n0\n20\n0\n0\nENDSEC\n0\nEOF\n'),
    /announces more corners/,
  ],
  ['a DXF with a spline of a hundred thousand knots', () => text('a.dxf', spline(100_000)), /has no lines/],
  ['a DXF that ends in the middle', () => text('a.dxf', '0\nSECTION\n2\nHEADER\n9\n'), /read/],
  ['a DXF of a million empty sections', () => text('a.dxf', '0\nSECTION\n0\nENDSEC\n'.repeat(300_000)), /./],
  [
    'an SVG with groups in groups, each with a transform',
    () =>
      text(
        'a.svg',
        `<svg>${'<g transform="translate(1 1) translate(1 1) translate(1 1) translate(1 1) translate(1 1) translate(1 1)">'.repeat(90)}<path d="M0 0L1 1"/>${'</g>'.repeat(90)}</svg>`,
      ),
    /transforms are too long/,
  ],
  ['an SVG of comments that do not end', () => text('a.svg', `<svg>${'<!--'.repeat(500_000)}`), /./],
  [
    'an SVG with entities of entities',
    () =>
      text(
        'a.svg',
        `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]><svg><text>${'&b;'.repeat(1e5)}</text></svg>`,
      ),
    /./,
  ],
  ['a 3MF of comments that do not end', () => packed(model('<!--'.repeat(1_000_000))), /./],
  ['a 3MF of quotes that do not end', () => packed(model('<a "'.repeat(500_000))), /./],
  ['a 3MF with one name of millions of signs', () => packed(model(`<model ${'a'.repeat(5_000_000)}>`)), /./],
  [
    'a 3MF with a transform of millions of numbers',
    () => packed(built('<object id="1"/>', `<item objectid="1" transform="${'1 '.repeat(2_000_000)}"/>`)),
    /twelve numbers/,
  ],
  [
    'a 3MF with one large object twenty thousand times',
    () => packed(built(`<object id="1">${vertices}</object>`, '<item objectid="1"/>'.repeat(19_000))),
    /./,
  ],
  [
    'a 3MF with parts of parts, ten each, sixteen deep',
    () =>
      packed(
        built(
          Array.from(
            { length: 17 },
            (_, k) => `<object id="${k}">${`<component objectid="${k + 1}"/>`.repeat(10)}</object>`,
          ).join(''),
          '<item objectid="0"/>',
        ),
      ),
    /more than|not in it/,
  ],
  [
    'a 3MF in the unit of a built-in name',
    () => packed(model('<model unit="constructor"><resources/><build/></model>')),
    /no triangles/,
  ],
  [
    'a 3MF with attributes of built-in names',
    () => packed(built('<object id="1" __proto__="x" constructor="y"/>', '<item objectid="1" toString="z"/>')),
    /no triangles/,
  ],
];

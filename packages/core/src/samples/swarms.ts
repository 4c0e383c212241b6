import { strToU8, zipSync } from 'fflate';
import type { HostileFile } from './bombs.ts';

// One piece over and over, in each format that is read: what costs a reader more than its length would be told by the longest.

type Frame = (pieces: string) => HostileFile;

const text =
  (name: string, before: string, after: string): Frame =>
  (pieces) => ({ name, bytes: strToU8(before + pieces + after) });
const model =
  (before: string, after: string): Frame =>
  (pieces) => ({ name: 'a.3mf', bytes: zipSync({ '3D/3dmodel.model': strToU8(before + pieces + after) }) });

const SVG = text('a.svg', '<svg width="10mm" viewBox="0 0 10 10">', '</svg>');
const PATH = text('a.svg', '<svg width="10mm" viewBox="0 0 10 10"><path d="M0 0', '"/></svg>');
const DXF = text('a.dxf', '0\nSECTION\n2\nENTITIES\n', '0\nENDSEC\n0\nEOF\n');
const SPLINE = text('a.dxf', '0\nSECTION\n2\nENTITIES\n0\nSPLINE\n71\n3\n', '0\nENDSEC\n0\nEOF\n');
const BLOCKS = text('a.dxf', '0\nSECTION\n2\nBLOCKS\n', '0\nENDSEC\n0\nEOF\n');
const RESOURCES = model('<model><resources>', '</resources><build><item objectid="1"/></build></model>');
const MESH = model(
  '<model><resources><object id="1"><mesh>',
  '</mesh></object></resources><build><item objectid="1"/></build></model>',
);
const BUILD = model('<model><resources><object id="1"/></resources><build>', '</build></model>');
const STL = text('a.stl', 'solid a\n', 'endsolid a\n');
const BYTES = text('a.stl', '', '');

const SWARMS: readonly (readonly [Frame, readonly string[]])[] = [
  [
    SVG,
    [
      '<g>',
      '</g>',
      '<!-- - -->',
      '<![CDATA[',
      '&lt;&#1;&a;',
      '<use href="#a" id="a"/>',
      '<rect width="1e308" height="NaN"/>',
      '<circle r="1" transform="matrix(1e99 0 0 1e99 0 0)"/>',
      '<style>path{stroke:url(',
      "<path d='M0 0A1e-9 1e9 0 1 1 1 1z'/>",
    ],
  ],
  [PATH, ['L1 1', 'a0 0 0 1 1 0 0', 'c1 1', 'zm', '-.1.1.1', '1e400 ']],
  [
    DXF,
    [
      '0\nLINE\n10\n0\n20\n0\n11\n1e308\n21\n-1e308\n',
      '0\nLWPOLYLINE\n90\n-1\n',
      '0\nLWPOLYLINE\n70\n1\n10\n0\n20\n0\n42\n1e300\n10\n1\n20\n0\n',
      '0\nINSERT\n2\na\n70\n9999\n71\n9999\n',
      '0\nARC\n10\n0\n20\n0\n40\n1\n50\nNaN\n51\n1e9\n',
      '0\nELLIPSE\n10\n0\n20\n0\n11\n0\n21\n0\n40\n0\n41\n0\n42\n9e9\n',
      '999\n\u0000\n',
      '0\nCIRCLE\n10\n0\n20\n0\n40\n-1\n',
    ],
  ],
  [SPLINE, ['40\n0\n', '10\n0\n20\n0\n', '41\n-1\n', '11\n1\n21\n1\n']],
  [BLOCKS, ['0\nBLOCK\n2\na\n0\nINSERT\n2\na\n0\nENDBLK\n', '0\nBLOCK\n']],
  [
    RESOURCES,
    ['<object id="1">', '<object id="1"><components>', '<component objectid="1"/>', '<basematerials>', '<!---->'],
  ],
  [
    MESH,
    [
      '<vertex x="NaN" y="1e999" z="-0"/>',
      '<triangle v1="0" v2="-1" v3="9999999999"/>',
      '<vertices><triangles>',
      '<vertex',
    ],
  ],
  [BUILD, ['<item objectid="2"/>', '<item objectid="1" transform="0 0 0 0 0 0 0 0 0 0 0 0"/>', '<item ']],
  [
    STL,
    [
      'facet normal 0 0 0\nouter loop\nvertex 0 0 0\nvertex 0 0 0\nvertex 0 0 0\nendloop\nendfacet\n',
      'facet normal NaN NaN NaN\nouter loop\nvertex 1e39 0 0\nvertex 0 1e39 0\nvertex 0 0 1e39\nendloop\nendfacet\n',
      'vertex 1\n',
      'solid ',
    ],
  ],
  [BYTES, ['\u0000', '\u007f', ' \n']],
];
/** How often a piece comes. */
const COUNTS = [3000, 100_000] as const;

/** Each piece a few thousand times, and a hundred thousand times. */
export const SWARM: readonly (readonly [what: string, made: () => HostileFile])[] = SWARMS.flatMap(([frame, pieces]) =>
  pieces.flatMap((piece) =>
    COUNTS.map((count) => {
      const { name } = frame('');
      const made = () => frame(piece.repeat(count));
      return [`${name}: ${count} times ${JSON.stringify(piece.slice(0, 40))}`, made] as const;
    }),
  ),
);

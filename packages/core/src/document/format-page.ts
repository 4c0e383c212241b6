import { z } from 'zod';
import { COMMANDS } from './commands/index.ts';
import { projectSchema, SCHEMA_VERSION } from './schema.ts';

/** The text of docs/format.md, from the schemas themselves: `./helb docs` writes it, a test compares it. */
export function formatPage(): string {
  return `# The project file and what \`inspect\` prints

This page is written by \`./helb docs\` from the Zod schemas in \`packages/core\`; a test fails when it is out of date.

## Habits

- A project is one JSON object, \`"format": "helb-project"\`, \`"schema": ${SCHEMA_VERSION}\`. A file of a newer schema is refused with a clear
  message; older ones are migrated by numbered pure functions.
- Every record has a short id, the key under which it stands. What people reorder has an order list beside it
  (\`valueOrder\`, \`partOrder\`, \`stepOrder\`) that holds each id once.
- Numbers that people type are kept as typed (\`"span / 2 - 4 mm"\`). Results are never stored. Coordinates of sketches are
  where things were drawn last, in mm: the solver starts from them.
- Angles are in radians and lengths in millimetres wherever a number is not an expression.
- A relation refers to entities of its sketch, or to the built-in \`origin\`, \`x-axis\` and \`y-axis\`.
- \`areas\` of an extrusion is \`"outline"\` or a list of region keys: the entities on the outer boundary, sorted, each with
  \`+\` where the area lies left of the entity's own direction and \`-\` where it lies right (\`"l1+ l2+ c4-"\`).
- References (\`on\`, \`plane\`, \`source\`): faces by the step and the sketch entity that made them
  (\`s2/side/l4\`, \`s2/end\`), edges by the faces that meet there (\`s2/end | s2/side/l4\`), corners likewise
  (\`corner s2/end | ...\`). \`print\` is what it looked like when it was chosen; it is used only where the name is gone.
- What a sketch borrows (\`loans\`) are ordinary entities of it, held where their source is seen on the sketch plane.
- \`assembly\` holds what is placed and what joins it; a group has the same records. A placement is named by its id, one
  within a placed group by both with \`/\` between. A joint without a thing on its second side (\`b\`) keeps that where it is
  drawn. Poses are never stored: the rest pose follows from the placements, the joints and their rest values.
- A reference \`to: "other"\` is a thing \`on\` the part that is placed \`at\` a path, as it lies in the rest pose seen \`from\` a
  placement of the part itself. Which part takes from which has no loops.
- A part with \`from\` comes from another project and has no steps here. Its \`design\` is that project at that revision, as
  far as the part is built from it, evaluated with its own values; \`given\` are expressions over the values here that
  stand instead of some of these.
- \`studies\` are motions: what is driven (\`drives\`, all at the same time), by which \`law\`, over how many \`seconds\`, divided into
  how many \`steps\`, whether it obeys what touches (\`touching\`), and what its \`charts\` show. A \`table\` has rows of a time in s and
  where the first coordinate is then, in deg or mm. What comes of them is never kept.
- \`sheets\` are set up, not drawn: from where their views are seen and what is written into the title block. Lines, scale and
  places follow from the part; \`shift\` is how far a view was dragged from where it is laid out, mm on paper.
  Without a \`part\` a sheet shows the whole: \`apart\` is a share of the most that is shown, \`numbered\` views call parts by
  their places in the list of parts. \`steps\` of a section: from each section \`at\` on, on its front, it is cut at another one, or
  not at all. A \`broken\` view leaves out the long stretches over which
  nothing changes; which these are follows from the part. A detail shows what lies within \`radius\` round \`at\`, mm of the thing, in the plane of the eye.
- \`marks\` of a sheet are its dimensions, callouts and notes: what they are attached to (\`of\`, references to faces, edges and
  corners), never a figure. \`at\` is where their text was dragged to, mm of the thing in the plane of the view. \`drives\` is
  the number of the model that one changes. \`issued\` is what a sheet said each time it went out.
- \`titleBlock\` lays out the title blocks of all sheets: rows from above, each field with its share of the width. Fields of
  its \`own\` say \`words\`, unless a sheet writes something else under that id into \`title.own\`.
- \`limits\` is what checks take for too little: the thinnest wall, and what is left beside a hole in parts of its diameter.
- Planes: z is up; Front is seen from -y (its x, y are space x, z), Top from +z (x, y), Right from +x (y, z). Forwards is
  towards whoever looks square on.

## What \`./helb check FILE --json\` prints

A list of findings: \`{ code, blocks, part, step, sheet, message }\`, the worst first. \`blocks\` is what each stands in the way
of: \`model\`, \`fit\`, \`paper\`, \`shop\` or \`later\`. Exit code 0: nothing, or only what makes later changes hard. 3: something else.

## What \`./helb move FILE --study NAME --json\` prints

\`{ name, frames, seconds, stopped: sentence | null, untold: [sentence], charts: [{ title, unit, least, most, values }], touching: [{ a, b, from_s, to_s }], nearest: [[{ a, b, distance_mm, sure_mm, time_s, driven: [{ name, value, unit }], places_mm, touches: { from_s, to_s } | null, words }]], times_s }\`:
one value for each time, null where it can't be told; \`least\` and \`most\` are \`{ value, time }\`. \`--csv OUT.csv\` writes the same as a table.
\`nearest\` has a list for each distance that the study looks at, the nearest pairs first; between its steps none comes nearer than \`sure_mm\`.
Exit code 3: something stopped it before its end, parts stand in each other where it begins or come nearer than they may, or a part or a joint is not as it is told
(on the error stream).

## What \`./helb inspect FILE --json\` prints

\`--drive JOINT=VALUE\` moves a joint there first ("Shaft=90 deg", or "Guide slide=12 mm" where it moves in several ways).
Limits and what touches (\`contacts\`) stop it: it says what did, exit code 3.
One object on standard output and nothing else. Exit code 0: all built. 3: some step failed. 2: the file can't be read.
1: the call itself was wrong. Units are in the names of the keys.

\`\`\`text
{
  variant, variants: [...],            which it is told as (\`--variant NAME\`), and the names of all; the project itself first
  parts: [{
    name,
    from: null | { project, revision, variant: string | null, part, given: [{ name, expression }] },   of a part of another project
    takes_from: [{ part, steps: [...] }],   other parts, and the steps that take something from them
    steps:    [{ name, kind, state: "built" | "failed" | "suppressed", message: string | null,
                 detours: [sentence],                                     what was done by another way than the plain one
                 references: [{ label, fate: "recovered" | "gone" }] }],    only those not found by their names
    sketches: [{ name, state: "loose" | "settled" | "clashing", freedoms, residual_mm, borrowed }],
    datums:   [{ name, form: "plane" | "axis" | "point" | "frame" | "curve", at_mm, along }],
    frames:   [{ name, centre_mm, inertia_g_mm2 }],    as seen from each datum frame, about its origin, along its axes
    threads:  [{ step, name, length_mm, hand: "right" | "left", full }],    full: cut, not only shown by a sign
    meshes:   [{ step, triangles, low_mm, high_mm, loose_edges, volume_mm3 }],    laid under the model; null where not closed
    sections: [{ name, at_mm, along, message: string | null }],    along: towards what is left out
    trouble: string | null,            why it is not as it is told: then what follows is of the last that was good
    bodies, faces,                     how many
    thinnest: [{ thickness_mm, at_mm, face }],    of each body, with \`--walls\`; as exact as its mesh
    volume_mm3, area_mm2,
    off: { volume_mm3, area_mm2, mass_g, centre_mm },    how far each may be off: they are found in several ways
    mass_g,                            null without a material
    centre_mm: [x, y, z],              centre of mass; null without a body
    inertia_g_mm2: [xx, yy, zz, xy, xz, yz],
                                       about the centre of mass; xy = -integral of x y dm; null without a material
    box_mm: { low: [x, y, z], high: [x, y, z] }
  }],
  assembly: null | {                   null where nothing is placed; all of it in the pose of the design, or as driven
    freedoms,                          of the whole
    fighting: [...],                   names of joints and relations that can not all hold
    redundant: [[...]],                sets that together tell something twice: no harm
    parting: [[...]],                  sets that stand at a dead point: ways part there
    placements: [{ name, part, at_mm, turn_deg: [x, y, z], freedoms, moves }],   turned about x, then y, then z of space
    joints: [{ name, kind, coordinates: [{ name, value, unit: "deg" | "mm", least, most }], message }],
    makeUp: [{ part, name, count, material, mass_g, size_mm, fill }],            mass, size of one of them, share of its box
    mass_g, unknown, volume_mm3, centre_mm, inertia_g_mm2, off, box_mm,          unknown: placements without a material
    interference: null | [{ a, b, overlap_mm3, at_mm, compared, pressed }]       with \`--interference\`
  },
  values:   [{ name, expression, result, unit }],    unit "" for plain numbers; result null where it can't be read
  findings: [{ code, part, step, message }]
}
\`\`\`

## Commands

All changes of a project are made by these commands, in the interface as in scripts: ${Object.keys(COMMANDS)
    .map((name) => `\`${name}\``)
    .join(', ')}. See \`scripting.md\`.

## JSON Schema of the project

\`\`\`json
${JSON.stringify(z.toJSONSchema(projectSchema, { io: 'input', reused: 'ref' }), null, 2)}
\`\`\`
`;
}

/** The lasting name of a body: the step that made it first. */
type BodyName = string & { readonly brand?: 'body' };

/** One of several bodies of one origin, numbered from 1 by place. */
export const numberedBody = (name: BodyName, number: number): BodyName => `${name}#${number}`;

/** The name of a body whatever piece it is: where a step cuts one in several, they are numbered. */
export const withoutNumber = (body: BodyName): BodyName => body.replace(/#\d+$/, '');

/** A body that a step copies: the step, and which of its copies. */
export const copyOfBody = (step: string, instance: string): BodyName => `${step}/${instance}`;

import type { Component } from 'vue';
import type { Mark } from '@helb/core';
import DatumFields from './datum-fields.vue';
import GeometricFields from './geometric-fields.vue';
import NoteFields from './note-fields.vue';
import SurfaceFields from './surface-fields.vue';

/** The register: how each kind of mark is edited, besides what all dimensions have. */
export const MARK_FIELDS: { readonly [K in Mark['kind']]?: Component } = {
  note: NoteFields,
  surface: SurfaceFields,
  datum: DatumFields,
  geometric: GeometricFields,
};

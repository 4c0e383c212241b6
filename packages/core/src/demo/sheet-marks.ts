import type { Mark } from '../drawing/index.ts';
import type { Id } from '../records/index.ts';

/** The sizes on the sheets of the demo. Written by ./helb docs: change the model or the views, not this. */
export const SHEET_MARKS: Readonly<Record<string, Readonly<Record<Id, Mark>>>> = {
  'Bearing bracket': {
    m1: {
      kind: 'distance',
      view: 'cut',
      drives: { step: 's100', path: ['distance'] },
      of: [
        { to: 'face', name: 's100/start' },
        { to: 'face', name: 's100/end' },
      ],
      along: 'upright',
    },
    m2: {
      kind: 'distance',
      view: 'top',
      drives: { step: 's99', path: ['relations', 'd91', 'value'] },
      of: [
        { to: 'face', name: 's100/side/l66' },
        { to: 'face', name: 's100/side/l64' },
      ],
      along: 'level',
    },
    m3: {
      kind: 'distance',
      view: 'top',
      drives: { step: 's99', path: ['relations', 'd92', 'value'] },
      of: [
        { to: 'face', name: 's100/side/l63' },
        { to: 'face', name: 's100/side/l65' },
      ],
      along: 'upright',
    },
    m4: {
      kind: 'distance',
      view: 'top',
      drives: { step: 's99', path: ['relations', 'd93', 'value'] },
      of: [
        { to: 'face', name: 's100/side/c89' },
        { to: 'face', name: 's100/side/l64' },
      ],
      along: 'level',
    },
    m5: {
      kind: 'distance',
      view: 'top',
      drives: { step: 's99', path: ['relations', 'd94', 'value'] },
      of: [
        { to: 'face', name: 's100/side/c89' },
        { to: 'face', name: 's100/side/l65' },
      ],
      along: 'upright',
    },
    m6: {
      kind: 'diameter',
      view: 'top',
      drives: { step: 's99', path: ['relations', 'd95', 'value'] },
      of: [{ to: 'face', name: 's100/side/c90' }],
    },
    m7: {
      kind: 'diameter',
      view: 'cut',
      drives: { step: 's106', path: ['relations', 'd105', 'value'] },
      of: [{ to: 'face', name: 's107/side/c102' }],
    },
    m8: {
      kind: 'diameter',
      view: 'top',
      drives: { step: 's113', path: ['relations', 'd112', 'value'] },
      of: [{ to: 'face', name: 's114/side/c109' }],
      tolerance: { kind: 'fit', class: 'H7' },
    },
    m9: {
      kind: 'distance',
      view: 'cut',
      of: [
        { to: 'face', name: 's100/start' },
        { to: 'face', name: 's107/end' },
      ],
      along: 'upright',
    },
  },
  'Crank knob': {
    m1: {
      kind: 'diameter',
      view: 'top',
      drives: { step: 's214', path: ['relations', 'r206', 'value'] },
      of: [{ to: 'face', name: 's215/side/l194' }],
    },
    m2: {
      kind: 'diameter',
      view: 'front',
      drives: { step: 's214', path: ['relations', 'r207', 'value'] },
      of: [{ to: 'face', name: 's215/side/l190' }],
    },
    m3: {
      kind: 'diameter',
      view: 'front',
      drives: { step: 's214', path: ['relations', 'r208', 'value'] },
      of: [{ to: 'face', name: 's215/side/l192@s223/5/s222/side/c217&s223/6/s222/side/c217' }],
    },
    m4: {
      kind: 'distance',
      view: 'front',
      drives: { step: 's214', path: ['relations', 'r211', 'value'] },
      of: [
        { to: 'face', name: 's215/side/l189' },
        { to: 'face', name: 's215/side/l193' },
      ],
      along: 'upright',
    },
    m5: {
      kind: 'diameter',
      view: 'top',
      drives: { step: 's221', path: ['relations', 'r220', 'value'] },
      of: [
        { to: 'face', name: 's223/5/s222/side/c217' },
        { to: 'face', name: 's223/4/s222/side/c217' },
        { to: 'face', name: 's223/3/s222/side/c217' },
        { to: 'face', name: 's223/2/s222/side/c217' },
        { to: 'face', name: 's222/side/c217' },
        { to: 'face', name: 's223/9/s222/side/c217' },
        { to: 'face', name: 's223/8/s222/side/c217' },
        { to: 'face', name: 's223/7/s222/side/c217' },
        { to: 'face', name: 's223/6/s222/side/c217' },
      ],
    },
    m6: {
      kind: 'circle-of',
      view: 'top',
      of: [
        { to: 'face', name: 's215/side/l190' },
        { to: 'face', name: 's223/5/s222/side/c217' },
        { to: 'face', name: 's223/4/s222/side/c217' },
        { to: 'face', name: 's223/3/s222/side/c217' },
        { to: 'face', name: 's223/2/s222/side/c217' },
        { to: 'face', name: 's222/side/c217' },
        { to: 'face', name: 's223/9/s222/side/c217' },
        { to: 'face', name: 's223/8/s222/side/c217' },
        { to: 'face', name: 's223/7/s222/side/c217' },
        { to: 'face', name: 's223/6/s222/side/c217' },
      ],
    },
    m7: {
      kind: 'distance',
      view: 'front',
      of: [
        { to: 'face', name: 's215/side/l189' },
        { to: 'edge', name: 's215/side/l190 | s215/side/l191' },
      ],
      along: 'upright',
    },
    m8: {
      kind: 'distance',
      view: 'front',
      of: [
        { to: 'face', name: 's215/side/l189' },
        { to: 'edge', name: 's215/side/l191 | s215/side/l192@s223/5/s222/side/c217&s223/6/s222/side/c217 ~2' },
      ],
      along: 'upright',
    },
  },
  Tray: {
    m1: {
      kind: 'distance',
      view: 'cut',
      drives: { step: 's305', path: ['distance'] },
      of: [
        { to: 'face', name: 's305/start' },
        { to: 'face', name: 's305/end' },
      ],
      along: 'upright',
    },
    m2: {
      kind: 'radius',
      view: 'top',
      drives: { step: 's306', path: ['radius'] },
      of: [
        { to: 'face', name: 's306/round/1tfmn0k1dw9vfm' },
        { to: 'face', name: 's306/round/1svnfmmzbnf3g' },
        { to: 'face', name: 's306/round/xxy5ni145snj4' },
        { to: 'face', name: 's306/round/bdtj8e1we1tco' },
      ],
    },
    m3: {
      kind: 'distance',
      view: 'top',
      drives: { step: 's304', path: ['relations', 'r302', 'value'] },
      of: [
        { to: 'face', name: 's305/side/l295' },
        { to: 'face', name: 's305/side/l293' },
      ],
      along: 'level',
    },
    m4: {
      kind: 'distance',
      view: 'top',
      drives: { step: 's304', path: ['relations', 'r303', 'value'] },
      of: [
        { to: 'face', name: 's305/side/l292' },
        { to: 'face', name: 's305/side/l294' },
      ],
      along: 'upright',
    },
    m5: {
      kind: 'diameter',
      view: 'top',
      drives: { step: 's313', path: ['relations', 'r310', 'value'] },
      of: [
        { to: 'face', name: 's314/side/c309' },
        { to: 'face', name: 's315/2-1/s314/side/c309' },
        { to: 'face', name: 's315/3-1/s314/side/c309' },
        { to: 'face', name: 's315/1-2/s314/side/c309' },
        { to: 'face', name: 's315/2-2/s314/side/c309' },
        { to: 'face', name: 's315/3-2/s314/side/c309' },
        { to: 'face', name: 's315/4-1/s314/side/c309' },
        { to: 'face', name: 's315/5-1/s314/side/c309' },
        { to: 'face', name: 's315/6-1/s314/side/c309' },
        { to: 'face', name: 's315/7-1/s314/side/c309' },
        { to: 'face', name: 's315/4-2/s314/side/c309' },
        { to: 'face', name: 's315/5-2/s314/side/c309' },
        { to: 'face', name: 's315/6-2/s314/side/c309' },
        { to: 'face', name: 's315/7-2/s314/side/c309' },
        { to: 'face', name: 's315/1-3/s314/side/c309' },
        { to: 'face', name: 's315/2-3/s314/side/c309' },
        { to: 'face', name: 's315/3-3/s314/side/c309' },
        { to: 'face', name: 's315/1-4/s314/side/c309' },
        { to: 'face', name: 's315/2-4/s314/side/c309' },
        { to: 'face', name: 's315/3-4/s314/side/c309' },
        { to: 'face', name: 's315/4-3/s314/side/c309' },
        { to: 'face', name: 's315/5-3/s314/side/c309' },
        { to: 'face', name: 's315/6-3/s314/side/c309' },
        { to: 'face', name: 's315/7-3/s314/side/c309' },
        { to: 'face', name: 's315/4-4/s314/side/c309' },
        { to: 'face', name: 's315/5-4/s314/side/c309' },
        { to: 'face', name: 's315/6-4/s314/side/c309' },
        { to: 'face', name: 's315/7-4/s314/side/c309' },
      ],
    },
    m6: {
      kind: 'radius',
      view: 'top',
      of: [
        { to: 'face', name: 's307/inside/vcrpvq968ftw' },
        { to: 'face', name: 's307/inside/1nai4evkq09kt' },
        { to: 'face', name: 's307/inside/p6zllg19c1dkw' },
        { to: 'face', name: 's307/inside/mjabzj1h3lmgl' },
      ],
    },
    m7: {
      kind: 'distance',
      view: 'top',
      of: [
        { to: 'face', name: 's305/side/l295' },
        { to: 'face', name: 's314/side/c309' },
      ],
      along: 'level',
    },
    m8: {
      kind: 'distance',
      view: 'top',
      of: [
        { to: 'face', name: 's305/side/l295' },
        { to: 'face', name: 's315/2-1/s314/side/c309' },
      ],
      along: 'level',
    },
    m9: {
      kind: 'distance',
      view: 'top',
      of: [
        { to: 'face', name: 's305/side/l295' },
        { to: 'face', name: 's315/3-1/s314/side/c309' },
      ],
      along: 'level',
    },
    m10: {
      kind: 'distance',
      view: 'top',
      of: [
        { to: 'face', name: 's305/side/l292' },
        { to: 'face', name: 's314/side/c309' },
      ],
      along: 'upright',
    },
    m11: {
      kind: 'distance',
      view: 'top',
      of: [
        { to: 'face', name: 's305/side/l292' },
        { to: 'face', name: 's315/1-2/s314/side/c309' },
      ],
      along: 'upright',
    },
    m12: {
      kind: 'distance',
      view: 'cut',
      of: [
        { to: 'face', name: 's305/start' },
        { to: 'face', name: 's307/inside/l1iwcz10qvzil' },
      ],
      along: 'upright',
    },
  },
  'The whole': {
    m1: {
      kind: 'distance',
      view: 'front',
      of: [
        { to: 'other', at: 'base', on: { to: 'face', name: 's374/side/l364' } },
        { to: 'other', at: 'base', on: { to: 'face', name: 's374/side/l362' } },
      ],
      along: 'level',
    },
    m2: {
      kind: 'distance',
      view: 'front',
      of: [
        { to: 'other', at: 'base', on: { to: 'face', name: 's374/start' } },
        { to: 'other', at: 'hopper', on: { to: 'face', name: 's285/end' } },
      ],
      along: 'upright',
    },
  },
};

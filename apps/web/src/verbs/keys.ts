/** Keys that mean the same in every view, with what they do. */
export const VIEW_KEYS: readonly (readonly [keys: string, says: string])[] = [
  ['Space', 'find any verb by typing; Ctrl+K too'],
  [
    '0 to 9',
    'type the number of what is being drawn or made; while a figure or a size waits for its number, letters are its name; elsewhere = goes before a name',
  ],
  ['Tab', 'on to what lies behind, under the pointer; else on to the next number'],
  ['Enter', 'keep what is in the making'],
  ['Esc', 'drop what was picked last, then the tool'],
  ['Del', 'erase or remove what is picked'],
  ['Shift+click', 'pick more'],
  ['right click', 'hold the list of what lies under the pointer'],
  ['right-drag', 'turn the view; with Shift, shift it'],
  ['wheel + -', 'nearer and farther'],
  ['arrows', 'turn the view; with Shift, shift it'],
  ['Q held', 'while drawing: nothing is guessed'],
  ['Ctrl+Z', 'undo; with Shift, redo'],
  ['?', 'the keys of this place'],
];

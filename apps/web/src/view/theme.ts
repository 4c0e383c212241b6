import type { ViewTheme } from './stage.ts';

/** The colours of the page as they are now, light or dark; those of a part besides. */
export function themeOf(part: string): ViewTheme {
  const style = getComputedStyle(document.documentElement);
  const css = (name: string) => style.getPropertyValue(name).trim();
  return {
    ink: css('--ink'),
    rule: css('--rule'),
    act: css('--act'),
    link: css('--link'),
    muted: css('--muted'),
    part,
  };
}

/** Colours of the two schemes. Ink is what was seen; blue, ochre and red are pencil: only where something was judged. */
export const paper = {
  ground: "#F6F6F1",
  sheet: "#FFFFFF",
  ink: "#15191C",
  soft: "#5A6269",
  hair: "#C9CCC8",
  wash: "#ECEEE8",
  steady: "#1F54A8",
  watch: "#8F5B00",
  work: "#BE2D20",
  unreadable: "#646C72",
} as const;

export const chalk: Record<keyof typeof paper, string> = {
  ground: "#101517",
  sheet: "#171E21",
  ink: "#F3F5EF",
  soft: "#A8B1B4",
  hair: "#39444A",
  wash: "#1F292D",
  steady: "#86B4FF",
  watch: "#F0B95A",
  work: "#FF8375",
  unreadable: "#8C979C",
};

/** On a clip, whatever its colours: light with a dark edge; pencil: what the teacher drew. */
export const onClip = { light: "#FFFFFF", dark: "#101517", pencil: "#FFC04D", watch: "#FFC04D", work: "#FF8375" } as const;

export type Token = keyof typeof paper;

/** A token as it is used in styles. */
export const colour = (token: Token) => `var(--${token})`;

export const asVariables = (scheme: Record<Token, string>) =>
  Object.entries(scheme)
    .map(([name, value]) => `--${name}: ${value};`)
    .join("");

import { readFileSync } from "node:fs";
import path from "node:path";
import { Font } from "@react-pdf/renderer";
import * as fontkit from "fontkit";

/** One family of the papers: where its files lie, and which texts need it. */
type Family = {
  name: string;
  files: { weight: number; file: string }[];
  needed: (text: string) => boolean;
};

const folder = path.join(/* turbopackIgnore: true */ process.cwd(), "node_modules");
const ours = (
  family: string,
  subset: string,
  weight: number,
): { weight: number; file: string } => ({
  weight,
  file: path.join(folder, `@fontsource/${family}/files/${family}-${subset}-${weight}-normal.woff`),
});
const whole = (family: string, file: string, weights: [number, string][]): Family["files"] =>
  weights.map(([weight, name]) => ({
    weight,
    file: path.join(
      folder,
      `@expo-google-fonts/${family}/${weight}${name}/${file}_${weight}${name}.ttf`,
    ),
  }));
const BOTH: [number, string][] = [
  [400, "Regular"],
  [600, "SemiBold"],
];
const ONE: [number, string][] = [[400, "Regular"]];
const has =
  (pattern: RegExp) =>
  (text: string): boolean =>
    pattern.test(text);

/**
 * The families in the order they are asked for a sign: our own face first, then one for what it
 * lacks. The large ones are only loaded when a text needs them.
 */
const FAMILIES: readonly Family[] = [
  {
    name: "Words",
    files: [400, 600].map((w) => ours("atkinson-hyperlegible-next", "latin", w)),
    needed: () => true,
  },
  {
    name: "Words more",
    files: [400, 600].map((w) => ours("atkinson-hyperlegible-next", "latin-ext", w)),
    needed: has(/[^\x00-\xff]/),
  },
  { name: "Noto", files: whole("noto-sans", "NotoSans", BOTH), needed: has(/[^\x00-\xff]/) },
  {
    name: "Hebrew",
    files: whole("noto-sans-hebrew", "NotoSansHebrew", BOTH),
    needed: has(/\p{Script=Hebrew}/u),
  },
  // Drawn whole: faces that set their dots as marks of their own lose them to the renderer, and so
  // one letter to another.
  {
    name: "Arabic",
    files: whole("vazirmatn", "Vazirmatn", BOTH),
    needed: has(/\p{Script=Arabic}/u),
  },
  {
    name: "Korean",
    files: whole("noto-sans-kr", "NotoSansKR", ONE),
    needed: has(/\p{Script=Hangul}/u),
  },
  {
    name: "Chinese",
    files: whole("noto-sans-sc", "NotoSansSC", ONE),
    needed: has(
      /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Bopomofo}\u3000-\u303f\uff00-\uffef]/u,
    ),
  },
  {
    name: "Signs",
    files: whole("noto-emoji", "NotoEmoji", ONE),
    needed: has(/\p{Extended_Pictographic}/u),
  },
];
const FIGURES: Family = {
  name: "Figures",
  files: [400, 600].map((w) => ours("atkinson-hyperlegible-mono", "latin", w)),
  needed: () => true,
};

const registered = new Set<string>();
function register(family: Family): void {
  if (registered.has(family.name)) return;
  registered.add(family.name);
  // A family with one weight gives it for the other too: better plain than in another letter.
  const weights = family.files.length === 1 ? [400, 600] : [400, 600];
  Font.register({
    family: family.name,
    fonts: weights.map((w) => ({
      src: (family.files.find((f) => f.weight === w) ?? family.files[0]!).file,
      fontWeight: w,
    })),
  });
}
Font.registerHyphenationCallback((word) => [word]);

const signs = new Map<string, fontkit.Font>();
function fontOf(family: Family): fontkit.Font {
  const known = signs.get(family.name);
  if (known) return known;
  const font = fontkit.create(readFileSync(family.files[0]!.file)) as fontkit.Font;
  signs.set(family.name, font);
  return font;
}

/** What a paper is set in: its families in order, and each text as it can be set. */
export type Faces = {
  words: string[];
  figures: string[];
  set: (text: string) => string;
  missing: Set<string>;
};

/** Stands for a sign that none of the faces has: never another letter. */
export const BOX = "\u25a1";
/** Joiners and selectors that have no picture of their own. */
const UNSEEN =
  /[\u200b-\u200f\u202a-\u202e\u2060-\u2064\u2066-\u2069\ufe00-\ufe0f\ufeff]|[\u{e0100}-\u{e01ef}]|[\u{1f3fb}-\u{1f3ff}]/gu;
/** Between letters of these scripts the joiner means something. */
const JOINED = /\p{Script=Arabic}|\p{Script=Hebrew}/u;

/** Chooses the faces for everything that will stand on a paper. */
export function facesFor(everything: string): Faces {
  const needed = FAMILIES.filter((f) => f.needed(everything));
  for (const f of [...needed, FIGURES]) register(f);
  const missing = new Set<string>();
  const known = new Map<number, boolean>();
  const drawn = (code: number): boolean => {
    let is = known.get(code);
    if (is === undefined)
      known.set(code, (is = needed.some((f) => fontOf(f).hasGlyphForCodePoint(code))));
    return is;
  };
  const set = (text: string): string => {
    // The faces have no narrow no-break space; on paper an ordinary one keeps figures whole.
    const plain = text.normalize("NFC").replaceAll("\u202f", "\u00a0");
    const seen = JOINED.test(plain)
      ? plain.replace(/[\ufe00-\ufe0f\ufeff]/g, "")
      : plain.replace(UNSEEN, "");
    return Array.from(seen, (sign) => {
      const code = sign.codePointAt(0)!;
      if (code < 32 || code === 0x200d || code === 0x200c || drawn(code)) return sign;
      missing.add(sign);
      return BOX;
    }).join("");
  };
  const words = needed.map((f) => f.name);
  return { words, figures: ["Figures", ...words], set, missing };
}

/** What is said of signs that could not be set, or null. */
export const missingWords = (missing: ReadonlySet<string>): string | null =>
  missing.size === 0
    ? null
    : `${BOX} stands for a sign that this paper has no letter for: ${[...missing]
        .slice(0, 8)
        .map((s) => `U+${s.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`)
        .join(", ")}${missing.size > 8 ? " and others" : ""}. The record as JSON has it.`;

import path from "node:path";
import { Font, StyleSheet, Text as PlainText, View, type TextProps } from "@react-pdf/renderer";
import { Children, type ReactNode } from "react";

const fontFile = (family: string, weight: number): string =>
  path.join(process.cwd(), `node_modules/@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`);

Font.register({
  family: "Words",
  fonts: [400, 600].map((w) => ({ src: fontFile("atkinson-hyperlegible-next", w), fontWeight: w })),
});
Font.register({
  family: "Figures",
  fonts: [400, 600].map((w) => ({ src: fontFile("atkinson-hyperlegible-mono", w), fontWeight: w })),
});
Font.registerHyphenationCallback((word) => [word]);

export const INK = "#1E232B";
const SOFT = "#59606B";
const LINE = "#D8D2C4";
export const styles = StyleSheet.create({
  page: { padding: 40, paddingBottom: 64, fontFamily: "Words", fontSize: 9, color: INK },
  title: { fontSize: 20, fontWeight: 600, lineHeight: 1.15 },
  h2: { fontSize: 12, fontWeight: 600, marginTop: 16, marginBottom: 4, borderBottomWidth: 1, borderColor: INK, paddingBottom: 2 },
  row: { flexDirection: "row", borderBottomWidth: 0.5, borderColor: LINE, paddingVertical: 2.5 },
  head: { color: SOFT, fontWeight: 600 },
  figure: { fontFamily: "Figures", textAlign: "right" },
  soft: { color: SOFT },
  foot: { position: "absolute", bottom: 24, left: 40, width: 470, color: SOFT, fontSize: 7 },
  number: { position: "absolute", bottom: 24, left: 495, width: 60, textAlign: "right", color: SOFT, fontSize: 7 },
}); // prettier-ignore

/**
 * A line of the report. The line height is set here, beside its size, and not on the page: the renderer multiplies an inherited one
 * anew at every pass of a computed text such as the page number. The fonts have no narrow no-break space; on
 * paper an ordinary no-break space keeps figures whole.
 */
export const Text = ({ children, style, ...rest }: TextProps & { children?: ReactNode }) => (
  <PlainText style={[{ fontSize: 9, lineHeight: 1.35 }, ...(Array.isArray(style) ? style : [style ?? {}])]} {...rest}>
    {Children.map(children, (c) => (typeof c === "string" ? c.replaceAll("\u202f", "\u00a0") : c))}
  </PlainText>
);

/** A table row: cells with relative widths; figures are set right in the mono face. */
export function Row({
  cells,
  widths,
  figures = [],
  head = false,
}: {
  cells: string[];
  widths: number[];
  figures?: number[];
  head?: boolean;
}) {
  return (
    <View style={styles.row} wrap={false}>
      {cells.map((cell, i) => (
        <View key={i} style={{ flex: widths[i], paddingRight: 6 }}>
          <Text style={[figures.includes(i) ? styles.figure : {}, head ? styles.head : {}]}>{cell}</Text>
        </View>
      ))}
    </View>
  );
}

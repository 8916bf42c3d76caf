import {
  renderToBuffer,
  StyleSheet,
  Text as PlainText,
  View,
  type DocumentProps,
  type TextProps,
} from "@react-pdf/renderer";
import { AsyncLocalStorage } from "node:async_hooks";
import { Children, type ReactElement, type ReactNode } from "react";
import { facesFor, type Faces } from "./fonts";

export const INK = "#1E232B";
const SOFT = "#59606B";
const LINE = "#D8D2C4";
export const styles = StyleSheet.create({
  page: { padding: 40, paddingBottom: 64, fontSize: 9, color: INK },
  title: { fontSize: 20, fontWeight: 600, lineHeight: 1.15 },
  h2: {
    fontSize: 12,
    fontWeight: 600,
    marginTop: 16,
    marginBottom: 4,
    borderBottomWidth: 1,
    borderColor: INK,
    paddingBottom: 2,
  },
  row: { flexDirection: "row", borderBottomWidth: 0.5, borderColor: LINE, paddingVertical: 2.5 },
  head: { color: SOFT, fontWeight: 600 },
  figure: { textAlign: "right" },
  soft: { color: SOFT },
  draft: {
    position: "absolute",
    top: 350,
    left: 60,
    width: 480,
    textAlign: "center",
    fontSize: 96,
    fontWeight: 600,
    color: "#ececec",
    transform: "rotate(-32deg)",
  },
  foot: { position: "absolute", bottom: 24, left: 40, width: 470, color: SOFT, fontSize: 7 },
  number: {
    position: "absolute",
    bottom: 24,
    left: 495,
    width: 60,
    textAlign: "right",
    color: SOFT,
    fontSize: 7,
  },
});

/**
 * The faces that the paper being drawn is set in. A server module has no React context; this one
 * follows the calls.
 */
const faces = new AsyncLocalStorage<Faces>();

/** The faces in use; a paper without its own gets those of plain Latin. */
export const useFaces = (): Faces => faces.getStore() ?? facesFor("");

/** Renders a paper in the faces that its own texts need. */
export function renderPaper(
  everything: string,
  paper: ReactElement<DocumentProps>,
): Promise<Buffer> {
  const own = facesFor(everything);
  own.set(everything);
  return faces.run(own, () => renderToBuffer(paper));
}

/** Draws in faces that take every sign as it is: those of whoever reads it on screen. */
export const inPlainFaces = <T,>(draw: () => T): T =>
  faces.run({ words: ["words"], figures: ["figures"], set: (t) => t, missing: new Set() }, draw);

type Line = TextProps & {
  children?: ReactNode;
  /** Set in the face of figures. */ figures?: boolean;
};

/**
 * A line of the report. The line height is set here, beside its size, and not on the page: the
 * renderer multiplies an inherited one anew at every pass of a computed text such as the page
 * number. Every text is set sign by sign in the first face that has it.
 */
export function Text({ children, style, figures = false, ...rest }: Line) {
  const faces = useFaces();
  const own = { fontSize: 9, lineHeight: 1.35, fontFamily: figures ? faces.figures : faces.words };
  return (
    <PlainText style={[own, ...(Array.isArray(style) ? style : [style ?? {}])]} {...rest}>
      {Children.map(children, (c) => (typeof c === "string" ? faces.set(c) : c))}
    </PlainText>
  );
}

/** Words inside a drawing, from their left end on. */
export function SvgWords({
  x,
  y,
  size,
  words,
}: {
  x: number;
  y: number;
  size: number;
  words: string;
}) {
  const faces = useFaces();
  return (
    <PlainText x={x} y={y} style={{ fontSize: size, fontFamily: faces.words }}>
      {faces.set(words)}
    </PlainText>
  );
}

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
          <Text
            figures={figures.includes(i)}
            style={[figures.includes(i) ? styles.figure : {}, head ? styles.head : {}]}
          >
            {cell}
          </Text>
        </View>
      ))}
    </View>
  );
}

import {
  Children,
  createElement,
  Fragment,
  isValidElement,
  type CSSProperties,
  type ReactElement,
  type ReactNode,
} from "react";
import { inPlainFaces, styles } from "./paper";

/**
 * The papers on screen: what is drawn for the printer is drawn once more as a page, from the same
 * parts and in the same words. A part that the page has no way to draw is an error, not a gap.
 */
type Props = Record<string, unknown> & {
  style?: unknown;
  children?: ReactNode;
  wrap?: boolean;
  fixed?: boolean;
};

/** A paper as elements of a page. */
export const onScreen = (paper: ReactElement): ReactNode => inPlainFaces(() => drawn(paper, false));

function drawn(node: ReactNode, inText: boolean): ReactNode {
  if (Array.isArray(node) || !isValidElement<Props>(node))
    return Array.isArray(node) ? Children.map(node, (n) => drawn(n as ReactNode, inText)) : node;
  const { type, props, key } = node;
  if (typeof type === "function") return drawn((type as (p: Props) => ReactNode)(props), inText);
  const own = (tag: string, attributes: object, within = inText): ReactNode =>
    createElement(tag, { key, ...attributes }, drawnAll(props.children, within));
  if ((type as unknown) === Fragment)
    return <Fragment key={key}>{drawnAll(props.children, inText)}</Fragment>;
  const style = cssOf(props);
  switch (type as string) {
    case "DOCUMENT":
      return <Fragment key={key}>{drawnAll(props.children, false)}</Fragment>;
    case "PAGE":
      return own("article", { className: "paper" });
    case "VIEW":
      // What the printer puts on every page is the number of the page, and a page has none here.
      return props.fixed ? null : own("div", { style: { ...BOX, ...style } });
    case "TEXT": {
      if (props.x !== undefined) {
        const { x, y } = props;
        const [, size] = Object.entries(Object.assign({}, ...list(props.style)) as object).find(
          ([name]) => name === "fontSize",
        ) ?? [null, 6];
        return own("text", { x, y, fontSize: size as number });
      }
      if (inText) return own("span", { style });
      const tag = has(props, styles.title) ? "h1" : has(props, styles.h2) ? "h2" : "p";
      const name = has(props, styles.draft) ? "draft" : props.fixed ? "foot" : undefined;
      return own(tag, { style: name ? undefined : style, className: name }, true);
    }
    case "IMAGE": {
      const { data, format } = props.src as { data: Buffer; format: string };
      const src = `data:image/${format === "jpg" ? "jpeg" : format};base64,${data.toString("base64")}`;
      // What it shows stands in words under it.
      return createElement("img", { key, src, style, alt: "" });
    }
    case "SVG":
      return own("svg", { ...shapeOf(props), style, "aria-hidden": true });
    case "PATH":
    case "RECT":
    case "LINE":
    case "G":
      return own((type as string).toLowerCase(), shapeOf(props));
    default:
      throw new Error(`A part of the paper cannot be drawn on screen: ${String(type)}.`);
  }
}

const drawnAll = (children: ReactNode, inText: boolean): ReactNode =>
  Children.map(children, (c) => drawn(c, inText));

const list = (style: unknown): object[] =>
  (Array.isArray(style) ? style : [style]).flatMap((s: unknown) =>
    Array.isArray(s) ? list(s) : s ? [s as object] : [],
  );
const has = (props: Props, style: object): boolean => list(props.style).includes(style);

/** A box of the printer's: it stacks what it holds, and gives way as far as it must. */
const BOX: CSSProperties = { display: "flex", flexDirection: "column", minWidth: 0 };
/** Plain numbers; every other number is points. */
const BARE = new Set(["flex", "fontWeight", "lineHeight", "opacity"]);

function cssOf({ style, wrap }: Props): CSSProperties {
  const css: Record<string, string | number> = {};
  for (const [name, value] of list(style).flatMap(Object.entries) as [string, unknown][]) {
    const v = typeof value === "number" && !BARE.has(name) ? `${value}pt` : value;
    if (name === "fontFamily")
      css.fontFamily = (value as string[])[0] === "figures" ? "var(--font-mono)" : "inherit";
    else if (name === "flex") css.flex = `${String(value)} 1 0`;
    else if (name === "paddingVertical") css.paddingBlock = v as string;
    else if (name === "marginVertical") css.marginBlock = v as string;
    else css[name] = v as string | number;
    if (name === "borderBottomWidth") css.borderBottomStyle = "solid";
  }
  if (wrap === false) css.breakInside = "avoid";
  return css;
}

/** What a shape is drawn by; the printer's names are those of SVG. */
const shapeOf = ({ style: _, children: __, ...shape }: Props): object => shape;

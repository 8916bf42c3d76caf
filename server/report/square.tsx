import { Rect, Svg } from "@react-pdf/renderer";
import QRCode from "qrcode";

/** A text as a QR code (ISO/IEC 18004, level M), drawn from its modules so that it prints sharp. */
export function Square({ text, size }: { text: string; size: number }) {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
  const cell = size / modules.size;
  const dark = Array.from(modules.data).flatMap((v, i) =>
    v ? [{ x: i % modules.size, y: Math.floor(i / modules.size) }] : [],
  );
  return (
    <Svg width={size} height={size} viewBox={`0 0 ${size} ${size}`}>
      {dark.map(({ x, y }) => (
        <Rect
          key={`${x}-${y}`}
          x={x * cell}
          y={y * cell}
          width={cell + 0.05}
          height={cell + 0.05}
          fill="#1E232B"
        />
      ))}
    </Svg>
  );
}

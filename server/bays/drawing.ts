import type { Bay } from "@/core/space/bay";
import { bayDxf, baySvg, type FloorDrawing } from "@/core/space/drawing-file";

const DRAWINGS = {
  dxf: { type: "image/vnd.dxf", of: bayDxf },
  svg: { type: "image/svg+xml", of: baySvg },
} as const;

/** A bay as a drawing to be kept, with what is marked on its floor. @param file its name without ending */
export function bayDrawing(
  bay: Bay,
  as: keyof typeof DRAWINGS,
  file: string,
  marked?: FloorDrawing,
): Response {
  const { type, of } = DRAWINGS[as];
  return new Response(of(bay, marked), {
    headers: {
      "content-type": `${type}; charset=utf-8`,
      "content-disposition": `attachment; filename="${file}.${as}"`,
    },
  });
}

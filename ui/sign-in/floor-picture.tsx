/**
 * The setter-out's floor, as the product's sign: a vehicle, its line, a taped cross where the board
 * belongs.
 */
export function FloorPicture({ className }: { className?: string }) {
  const cross = (x: number, y: number) => (
    <path
      d={`M${x - 13} ${y}h26M${x} ${y - 13}v26`}
      className="stroke-act"
      strokeWidth={5}
      opacity={0.9}
    />
  );
  return (
    <svg viewBox="0 0 480 260" className={className} aria-hidden fill="none">
      <g className="stroke-chalk" strokeWidth={1} opacity={0.6}>
        {[40, 100, 160, 220].map((y) => (
          <path key={y} d={`M0 ${y}H480`} />
        ))}
        {[60, 150, 240, 330, 420].map((x) => (
          <path key={x} d={`M${x} 0V260`} />
        ))}
      </g>
      <g className="fill-chalk" opacity={0.8}>
        {[62, 172].flatMap((x) =>
          [72, 180].map((y) => <rect key={`${x}${y}`} x={x} y={y} width={42} height={12} rx={2} />),
        )}
      </g>
      <path
        d="M28 92Q26 80 52 78H200Q238 82 252 104Q258 130 252 158Q238 180 200 184H52Q26 182 28 170Z"
        className="fill-sheet stroke-ink"
        strokeWidth={2}
      />
      <path
        d="M72 96H150Q166 131 150 166H72Q62 131 72 96Z"
        className="stroke-chalk"
        strokeWidth={1.5}
      />
      <path d="M0 131H470" className="stroke-act" strokeWidth={1.6} strokeDasharray="14 6 3 6" />
      <g className="stroke-ink" strokeWidth={1.1}>
        <path d="M193 72L404 40M193 190L404 222M193 72L404 222M193 190L404 40" />
      </g>
      <g className="stroke-ink">
        <path d="M404 40V222" strokeWidth={2.5} />
        <path d="M404 84V178" strokeWidth={9} />
      </g>
      <circle cx={404} cy={40} r={4} className="fill-sheet stroke-ink" strokeWidth={2} />
      <circle cx={404} cy={222} r={4} className="fill-sheet stroke-ink" strokeWidth={2} />
      {cross(404, 131)}
      <circle cx={140} cy={131} r={5} className="fill-sheet stroke-ink" strokeWidth={2} />
    </svg>
  );
}
